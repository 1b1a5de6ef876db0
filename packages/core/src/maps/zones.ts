import { fromRim, type PanelSize, type Zone, zoneDepths, ZONES } from '../plan';

/** Parts of a panel that a map is filled in one go. */
export const MAP_ZONES = ['all', 'field', 'edges', 'corners', 'top', 'bottom', 'left', 'right'] as const;
export type MapZone = (typeof MAP_ZONES)[number];

/** A filled zone ends over this length [m]. */
const FADE = 0.006;

const rising = (distance: number): number => Math.min(1, Math.max(0, 0.5 + distance / FADE));

/** How far a place [m] lies in a zone, 0 … 1. */
export function zoneReach(zone: MapZone, x: number, y: number, size: PanelSize): number {
  const { edge, corner } = zoneDepths(size);
  const dx = Math.min(x, size.width - x);
  const dy = Math.min(y, size.height - y);
  const edges = rising(edge - fromRim(size, x, y));
  const corners = size.oval === true ? 0 : Math.min(rising(corner - dx), rising(corner - dy));
  switch (zone) {
    case 'all':
      return 1;
    case 'field':
      return 1 - Math.max(edges, corners);
    case 'edges':
      return Math.max(edges, corners);
    case 'corners':
      return corners;
    case 'top':
      return rising(edge - y);
    case 'bottom':
      return rising(edge - (size.height - y));
    case 'left':
      return rising(edge - x);
    case 'right':
      return rising(edge - (size.width - x));
  }
}

/** A rectangle on a panel, or the ellipse in it, from its upper left [m]. */
export interface Region extends PanelSize {
  readonly left: number;
  readonly top: number;
}

/** Parts of a panel that figures are told of: all of it, or one of its zones. */
export const AREAS = ['panel', ...ZONES] as const;
export type Area = 'panel' | Zone;

/** Where on a part: all of it, one of its zones, or a region. */
export type Where = Area | Region;

export const isRegion = (where: Where): where is Region => typeof where === 'object';

/** How far a place [m] lies in a region, 0 … 1. */
export const regionReach = (region: Region, x: number, y: number): number =>
  rising(fromRim(region, x - region.left, y - region.top));
