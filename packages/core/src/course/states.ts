import { fallsTo, type StateTimes } from '../film';
import { isOf } from '../media';
import { placeAt } from './films';
import { type FilmRun, type TopcoatWindow } from './types';

/** White glue is spread and left to grab for about this long; common practice. */
const GLUE_GRABS = 60;

/** A sealer is in its window for chips while so much of it is still tacky. */
export const TACKY_ENOUGH = 0.25;

/** When a film takes the next one as its kind, and that of the next, wants it. */
export function windowOf(film: FilmRun, next: Pick<FilmRun, 'medium'> | undefined): TopcoatWindow | null {
  const { laidAt, openStates: open } = film;
  // Milk paint that shall chip goes on while the sealer is tacky, in places at least.
  if (film.medium.kind === 'clear' && next !== undefined && isOf(next.medium, 'casein')) {
    const reached = (state: number | null, share: number): number | null =>
      state === null ? null : laidAt + (state - laidAt) * placeAt(share);
    const opensAt = reached(open.tacky, TACKY_ENOUGH);
    return opensAt === null ? null : { opensAt, closesAt: reached(open.touch, 1 - TACKY_ENOUGH) };
  }
  const from = (opensAt: number | null): TopcoatWindow | null =>
    opensAt === null ? null : { opensAt, closesAt: null };
  switch (film.medium.kind) {
    case 'wet-glue': {
      const closesAt = open.skinned;
      return {
        opensAt: closesAt === null ? laidAt + GLUE_GRABS : Math.min(laidAt + GLUE_GRABS, closesAt),
        closesAt,
      };
    }
    case 'crackle-medium':
      return from(open.touch);
    case 'cured-glue':
      return from(open.through);
    case 'wax':
      return from(open.touch);
    case 'clear':
    case 'paint':
    case 'primer':
    case 'ground':
    case 'glaze':
      return from(open.recoat);
    case 'resist':
    case 'agent':
      return null;
  }
}

/** States of a film that another covered: what it had reached stays, the rest follows its water under the cover. */
export function coveredStates(before: FilmRun, over: FilmRun): StateTimes {
  const { open: curve, openStates: open, medium: m } = before;
  const coveredAt = before.coveredAt ?? Infinity;
  const under = (reached: number | null, water: number): number | null => {
    if (reached !== null && reached <= coveredAt) return reached;
    // What dries without the other's carrier goes on as if it were open.
    if (over.medium.carrier !== m.carrier) return reached;
    const later = fallsTo(over.open, over.open.waterBelow, water);
    return later === null ? null : Math.max(coveredAt + later, reached ?? 0);
  };
  const s = curve.solidsUm;
  const through = under(open.through, m.throughWater * s);
  const cureTime = open.cured !== null && open.through !== null ? open.cured - open.through : null;
  return {
    matte: open.matte !== null && open.matte <= coveredAt ? open.matte : null,
    tacky: under(open.tacky, (s * m.gelWater) / (1 - m.gelWater)),
    skinned: open.skinned !== null && open.skinned <= coveredAt ? open.skinned : null,
    touch: under(open.touch, m.touchWater * s),
    recoat: under(open.recoat, m.recoatWater * s),
    through,
    cured: through === null || cureTime === null ? null : through + cureTime,
  };
}

/** A wax rubbed within this share of its time to be buffed is wiped back; common practice. */
export const WIPED_BY = 0.6;

export type WaxManner = 'left' | 'buffed' | 'wiped';

/** How a wax was worked: left as laid, buffed when it was ready, or wiped back while it was soft. */
export function waxManner(film: FilmRun): WaxManner {
  if (film.buffAfter === null) return 'left';
  const ready = (film.openStates.touch ?? Infinity) - film.laidAt;
  return film.buffAfter < WIPED_BY * ready ? 'wiped' : 'buffed';
}
