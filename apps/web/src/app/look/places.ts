import { ZONES } from '@zaffet/core/plan';
import { type LookZone, type Part } from '@zaffet/contract';
import { type Where } from '@zaffet/core/maps';
import { PLACED_ZONES } from '@zaffet/core/piece';
import { regionOf } from '@zaffet/workshop';

/** Where a look is wished for: everywhere, or one of the part's zones. */
export type LookWhere = 'whole' | LookZone;

/** Zones a part has: those of every panel, and the kinds of places it was given. */
export function zonesOf(part: Part): LookWhere[] {
  return ['whole', ...ZONES, ...PLACED_ZONES.filter((kind) => part.zones.some((zone) => zone.kind === kind))];
}

/** Every place of a part that a zone names, the largest first; none for all of it. */
export function placesOf(part: Part, where: LookWhere): Where[] {
  if (where === 'whole') return [];
  const zone = ZONES.find((known) => known === where);
  if (zone !== undefined) return [zone];
  return part.zones
    .filter(({ kind }) => kind === where)
    .sort((a, b) => b.widthMm * b.heightMm - a.widthMm * a.heightMm)
    .map(regionOf);
}
