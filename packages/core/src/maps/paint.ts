import { type PanelMap, type PanelSize } from '../plan';
import { type Region, regionReach, zoneReach, type MapZone } from './zones';

/** One touch of the brush on a map, at shares of the panel's width and height. */
export interface Dab {
  readonly u: number;
  readonly v: number;
  /** Radius [m]. */
  readonly radius: number;
}

/** Share of the radius in which a dab is at its full strength; outside it fades. */
const CORE = 0.55;

/**
 * Draws a stroke on a map: values along it go towards one, softly at the brush's edge.
 * @param dabs - the stroke's points; the brush is drawn in straight lines between them
 * @param value - what is painted
 * @param size - of the panel [m]
 * @returns a new map; the old one when nothing changed
 */
export function paintMap(map: PanelMap, dabs: readonly Dab[], value: number, size: PanelSize): PanelMap {
  const { columns, rows } = map;
  const cellW = size.width / columns;
  const cellH = size.height / rows;
  const strength = new Float32Array(columns * rows);
  dabs.forEach((dab, k) => {
    const from = dabs[k - 1] ?? dab;
    const x0 = from.u * size.width;
    const y0 = from.v * size.height;
    const ex = dab.u * size.width - x0;
    const ey = dab.v * size.height - y0;
    const length2 = ex * ex + ey * ey;
    // A brush finer than a cell still reaches the cell it is in.
    const reach = Math.max(dab.radius, 0.7 * Math.max(cellW, cellH));
    const c0 = Math.max(0, Math.floor((Math.min(x0, x0 + ex) - reach) / cellW));
    const c1 = Math.min(columns - 1, Math.floor((Math.max(x0, x0 + ex) + reach) / cellW));
    const r0 = Math.max(0, Math.floor((Math.min(y0, y0 + ey) - reach) / cellH));
    const r1 = Math.min(rows - 1, Math.floor((Math.max(y0, y0 + ey) + reach) / cellH));
    for (let row = r0; row <= r1; row++) {
      for (let column = c0; column <= c1; column++) {
        const px = (column + 0.5) * cellW - x0;
        const py = (row + 0.5) * cellH - y0;
        const along = length2 > 0 ? Math.min(1, Math.max(0, (px * ex + py * ey) / length2)) : 0;
        const off = Math.hypot(px - along * ex, py - along * ey) / reach;
        const here = off <= CORE ? 1 : off >= 1 ? 0 : (1 - off) / (1 - CORE);
        const i = row * columns + column;
        if (here > strength[i]!) strength[i] = here;
      }
    }
  });
  let changed = false;
  const values = map.values.map((before, i) => {
    if (strength[i] === 0) return before;
    const after = before + strength[i]! * (value - before);
    if (after !== before) changed = true;
    return after;
  });
  return changed ? { ...map, values } : map;
}

/** Fills a zone of a map with one value, softly at its border. */
export function fillMap(map: PanelMap, zone: MapZone, value: number, size: PanelSize): PanelMap {
  return changedBy(map, size, (x, y, before) => {
    const share = zoneReach(zone, x, y, size);
    return before + share * (value - before);
  });
}

/** Fills a rectangle of a map with one value, softly at its border. */
export function fillRegion(map: PanelMap, region: Region, value: number, size: PanelSize): PanelMap {
  return changedBy(map, size, (x, y, before) => {
    const share = regionReach(region, x, y);
    return before + share * (value - before);
  });
}

/** A map of the same cells, each made from its middle [m] and what it was. */
export function changedBy(
  map: PanelMap,
  size: PanelSize,
  change: (x: number, y: number, before: number) => number,
): PanelMap {
  const { columns, rows } = map;
  return {
    ...map,
    values: map.values.map((before, i) =>
      change(
        (((i % columns) + 0.5) / columns) * size.width,
        ((Math.floor(i / columns) + 0.5) / rows) * size.height,
        before,
      ),
    ),
  };
}
