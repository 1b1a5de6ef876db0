import { cellsAt } from '../numeric/bilinear';
import { checkRange, InputError, type Range } from '../errors';

/**
 * How much of something lies where on a panel: a coarse raster, row by row from the upper left corner, read in
 * between the middles of its cells. What a value means is the step's: for a film how thick it lies against the
 * thickness told, for a resist how much of it there is, for a distressing step how hard it is worked, for all else
 * whether it is done there.
 */
export interface PanelMap {
  readonly columns: number;
  readonly rows: number;
  readonly values: readonly number[];
}

/** Values of a map: 1 is as the step says. */
export const MAP_RANGE = { min: 0, max: 2.5 };
/** Of a film: from nothing to four times as thick. */
export const FILM_MAP_RANGE = { min: 0, max: 4 };
/** Where a film's map says less than this nothing lies. */
export const NO_FILM = 0.06;
/** Where the map of a step that is done or not says less than this it is not. */
export const NOT_DONE = 0.5;
/** Most cells along a side, of what is painted by hand and of what is drawn by its outline. */
export const MAP_CELLS = { min: 1, max: 160 };
export const OUTLINE_CELLS = { min: 1, max: 480 };

/** Cells are about this wide [m], a fingertip's work, and never more than there may be. */
const CELL = 0.004;

/** A map of one value over a panel [m]. */
export function evenMap(width: number, height: number, value = 1): PanelMap {
  const cell = Math.max(CELL, Math.max(width, height) / MAP_CELLS.max);
  const columns = Math.max(2, Math.round(width / cell));
  const rows = Math.max(2, Math.round(height / cell));
  return { columns, rows, values: new Array<number>(columns * rows).fill(value) };
}

/** A hand that pulls a film out leaves no less than this in the middle. */
const THIN = 0.25;

/**
 * A map that runs from one value at the rim to another in the middle, as a hand lays that starts at the edges or
 * pulls out towards them; the mean stays 1.
 * @param ratio - rim against middle
 * @param reach - how far in the rim's value fades [m]
 */
export function rimMap(width: number, height: number, ratio: number, reach: number): PanelMap {
  const even = evenMap(width, height);
  const raw = even.values.map((_, i) => {
    const x = (((i % even.columns) + 0.5) / even.columns) * width;
    const y = ((Math.floor(i / even.columns) + 0.5) / even.rows) * height;
    const from = Math.min(x, y, width - x, height - y) / reach;
    const rim = from >= 1 ? 0 : 0.5 * (1 + Math.cos(Math.PI * from));
    return 1 + (ratio - 1) * rim;
  });
  const mean = raw.reduce((sum, value) => sum + value, 0) / raw.length;
  return { ...even, values: raw.map((value) => Math.min(MAP_RANGE.max, Math.max(THIN, value / mean))) };
}

/** Reads a map at a place, as shares of the panel's width and height; bilinear, the outermost cells reach the rim. */
export const mapAt = (map: PanelMap, u: number, v: number): number => cellsAt(map, map.values, u, v);

/** Mean of a map over the panel. */
export const mapMean = (map: PanelMap): number =>
  map.values.reduce((sum, value) => sum + value, 0) / map.values.length;

/** Extents found before: a map never changes, and a forecast asks some hundred times. */
const extents = new WeakMap<PanelMap, Range>();

/** The least and the greatest value of a map; NaN where one is not a number. */
export function mapExtent(map: PanelMap): Range {
  let extent = extents.get(map);
  if (extent === undefined) {
    let min = Infinity;
    let max = -Infinity;
    for (const value of map.values) {
      min = Math.min(min, value);
      max = Math.max(max, value);
    }
    extent = { min, max };
    extents.set(map, extent);
  }
  return extent;
}

/** @throws InputError when a map's size or one of its values is out of range */
export function checkMap(field: string, map: PanelMap, range: { min: number; max: number }): void {
  for (const side of ['columns', 'rows'] as const) {
    checkRange(`${field}.${side}`, map[side], OUTLINE_CELLS, '');
  }
  if (map.values.length !== map.columns * map.rows) {
    throw new InputError({
      code: 'steps.map.values',
      field: `${field}.values`,
      value: map.values.length,
      allowed: `one value for each of ${map.columns} × ${map.rows} cells`,
    });
  }
  const { min, max } = mapExtent(map);
  checkRange(`${field}.values`, min, range, '');
  checkRange(`${field}.values`, max, range, '');
}

/** A resist is put on densely where it is painted. */
const DENSE = 0.95;

/** What else changes when a step gets its first map: from then on the map alone says where, and how much of it. */
export interface FirstMapped {
  readonly where?: 'all';
  readonly share?: number;
}

export const firstMapped = (step: { readonly kind: string; readonly share?: number }): FirstMapped =>
  step.kind === 'resist' ? { where: 'all', share: Math.max(DENSE, step.share ?? 0) } : { where: 'all' };
