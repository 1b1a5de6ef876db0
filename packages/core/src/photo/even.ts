import { solved } from '../numeric/fit';
import { type Luma } from './types';

/*
 * Light is never even, and paint has a level of its own. What counts is how much darker, or lighter, a place is than the
 * paint round it: 1 − luminance/paint, cracks positive.
 */

/** Every so many pixels one is taken for the level. */
const STRIDE = 5;
const ROUNDS = 4;
/** Nearer to the level than this is paint [ln], at first and at least. */
const NEAR = { first: 0.3, least: 0.03 } as const;
/** Medians from the level within which a place is paint. */
const MEDIANS = 4.5;
/** Bins of the histogram of ln luminance. */
const BINS = { from: -7, width: 0.03, count: 260 } as const;

const terms = (u: number, v: number): number[] => [1, u, v, u * u, u * v, v * v];

/** The level of the paint: the most usual ln luminance, then a second-degree surface through what lies near it. */
function surface({ columns, rows, y }: Luma): number[] {
  const values: number[] = [];
  const places: number[][] = [];
  for (let row = 2; row < rows; row += STRIDE)
    for (let column = 2; column < columns; column += STRIDE) {
      values.push(Math.log(Math.max(1e-3, y[row * columns + column]!)));
      places.push(terms(column / columns - 0.5, row / rows - 0.5));
    }
  const counts = new Float64Array(BINS.count);
  for (const value of values) {
    const bin = Math.floor((value - BINS.from) / BINS.width);
    if (bin >= 0 && bin < BINS.count) counts[bin] = counts[bin]! + 1;
  }
  let mode = 3;
  let most = -1;
  for (let bin = 3; bin < BINS.count - 3; bin++) {
    let sum = 0;
    for (let k = -3; k <= 3; k++) sum += counts[bin + k]! * (4 - Math.abs(k));
    if (sum > most) [most, mode] = [sum, bin];
  }
  let found = [BINS.from + (mode + 0.5) * BINS.width, 0, 0, 0, 0, 0];
  let near: number = NEAR.first;
  for (let round = 0; round < ROUNDS; round++) {
    const matrix = Array.from({ length: 6 }, () => new Array<number>(6).fill(0));
    const right = new Array<number>(6).fill(0);
    const off: number[] = [];
    values.forEach((value, k) => {
      const place = places[k]!;
      const away = value - place.reduce((sum, term, i) => sum + term * found[i]!, 0);
      if (Math.abs(away) > near) return;
      off.push(Math.abs(away));
      for (let i = 0; i < 6; i++) {
        right[i] = right[i]! + place[i]! * value;
        for (let j = 0; j < 6; j++) matrix[i]![j] = matrix[i]![j]! + place[i]! * place[j]!;
      }
    });
    if (off.length < 100) break;
    for (let i = 0; i < 6; i++) matrix[i]![i] = matrix[i]![i]! + 1e-4 * off.length;
    found = solved(matrix, right);
    off.sort((a, b) => a - b);
    near = Math.max(NEAR.least, Math.min(NEAR.first, MEDIANS * off[off.length >> 1]!));
  }
  return found;
}

/** Darker or lighter than the paint by this much is more than its own look. */
const TELLS = 0.1;

/** How much darker each place is than the paint round it; lighter, where the cracks are the lighter ones. */
export function evened(luma: Luma): Float32Array {
  const { columns, rows, y } = luma;
  const level = surface(luma);
  const e = new Float32Array(columns * rows);
  let dark = 0;
  let light = 0;
  for (let row = 0; row < rows; row++) {
    const v = row / rows - 0.5;
    for (let column = 0; column < columns; column++) {
      const u = column / columns - 0.5;
      const paint = Math.exp(
        level[0]! + level[1]! * u + level[2]! * v + level[3]! * u * u + level[4]! * u * v + level[5]! * v * v,
      );
      const value = 1 - y[row * columns + column]! / paint;
      e[row * columns + column] = value;
      if (value > TELLS) dark += 1;
      else if (value < -TELLS) light += 1;
    }
  }
  if (light > dark) for (let i = 0; i < e.length; i++) e[i] = -e[i]!;
  return e;
}

/** Smoothed by [1 2 1]²/16; the border stays as it is. */
export function smoothed(a: Float32Array, columns: number, rows: number): Float32Array {
  const out = a.slice();
  for (let row = 1; row < rows - 1; row++)
    for (let i = row * columns + 1, end = row * columns + columns - 1; i < end; i++) {
      const [up, down] = [i - columns, i + columns];
      out[i] =
        (4 * a[i]! +
          2 * (a[i - 1]! + a[i + 1]! + a[up]! + a[down]!) +
          a[up - 1]! +
          a[up + 1]! +
          a[down - 1]! +
          a[down + 1]!) /
        16;
    }
  return out;
}
