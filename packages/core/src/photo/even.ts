import { solved } from '../numeric/fit';
import { boxed, grown } from './kernels';
import { type Known, type Luma } from './types';

/*
 * Light is never even, and paint has a level of its own. What counts is how much darker, or lighter, a place is than the
 * paint round it: 1 − luminance/paint, cracks positive.
 */

/** Every so many pixels one is taken for the level. */
const STRIDE = 7;
const ROUNDS = 4;
/** Nearer to the level than this is paint [ln], at first and at least. */
const NEAR = { first: 0.3, least: 0.03 } as const;
/** Medians from the level within which a place is paint. */
const MEDIANS = 4.5;
/** Bins of the histogram of ln luminance. */
const BINS = { from: -7, width: 0.03, count: 280 } as const;
/** How far paint may be off the colour that was planned [ln, standard deviation]. */
const AS_PLANNED = 0.3;
const TERMS = 6;

/** The most usual ln luminance, near what is planned where that is known. */
function usual(values: Float64Array, paint: number | null): number {
  const counts = new Float64Array(BINS.count);
  for (const value of values) {
    const bin = Math.floor((value - BINS.from) / BINS.width);
    if (bin >= 0 && bin < BINS.count) counts[bin] = counts[bin]! + 1;
  }
  let found = 0;
  let most = -1;
  for (let bin = 3; bin < BINS.count - 3; bin++) {
    const ln = BINS.from + (bin + 0.5) * BINS.width;
    let sum = 0;
    for (let k = -3; k <= 3; k++) sum += counts[bin + k]! * (4 - Math.abs(k));
    if (paint !== null) sum *= Math.exp(-0.5 * ((ln - Math.log(paint)) / AS_PLANNED) ** 2);
    if (sum > most) [most, found] = [sum, ln];
  }
  return found;
}

/** The level of the paint: the most usual ln luminance, then a second-degree surface through what lies near it. */
function surface({ columns, rows, y }: Luma, paint: number | null): readonly number[] {
  const [across, down] = [Math.floor(columns / STRIDE) - 1, Math.floor(rows / STRIDE) - 1];
  const values = new Float64Array(across * down);
  const terms = new Float64Array(TERMS * values.length);
  for (let j = 0, k = 0; j < down; j++)
    for (let i = 0; i < across; i++, k++) {
      // Askew, or a regular pattern might be met at the same places throughout.
      const [column, row] = [2 + i * STRIDE + ((3 * j) % STRIDE), 2 + j * STRIDE + ((3 * i) % STRIDE)];
      values[k] = Math.log(Math.max(1e-3, y[row * columns + column]!));
      const [u, v] = [column / columns - 0.5, row / rows - 0.5];
      terms.set([1, u, v, u * u, u * v, v * v], TERMS * k);
    }
  let found = [usual(values, paint), 0, 0, 0, 0, 0];
  let near: number = NEAR.first;
  for (let round = 0; round < ROUNDS; round++) {
    const matrix = Array.from({ length: TERMS }, () => new Array<number>(TERMS).fill(0));
    const right = new Array<number>(TERMS).fill(0);
    const off = new Float64Array(values.length);
    let count = 0;
    for (let k = 0, o = 0; k < values.length; k++, o += TERMS) {
      let level = 0;
      for (let i = 0; i < TERMS; i++) level += terms[o + i]! * found[i]!;
      const away = Math.abs(values[k]! - level);
      if (away > near) continue;
      off[count++] = away;
      for (let i = 0; i < TERMS; i++) {
        const line = matrix[i]!;
        right[i] = right[i]! + terms[o + i]! * values[k]!;
        for (let j = 0; j < TERMS; j++) line[j] = line[j]! + terms[o + i]! * terms[o + j]!;
      }
    }
    if (count < 100) break;
    for (let i = 0; i < TERMS; i++) matrix[i]![i] = matrix[i]![i]! + 1e-4 * count;
    found = solved(matrix, right);
    const sorted = off.subarray(0, count).sort();
    near = Math.max(NEAR.least, Math.min(NEAR.first, MEDIANS * sorted[count >> 1]!));
  }
  return found;
}

/** Darker or lighter than the paint by this much is more than its own look. */
const TELLS = 0.1;

export interface Evened {
  /** How much darker each place is than the paint round it; lighter, where the cracks are the lighter ones. */
  readonly e: Float32Array;
  readonly dark: boolean;
  /** Luminance of the paint in the middle, and how far it differs over the raster [ln]. */
  readonly level: number;
  readonly differs: number;
}

export function evened(luma: Luma, known: Pick<Known, 'paint' | 'dark'>): Evened {
  const { columns, rows, y } = luma;
  const [s0, s1, s2, s3, s4, s5] = surface(luma, known.paint) as [
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  const e = new Float32Array(columns * rows);
  let darker = 0;
  let lighter = 0;
  for (let row = 0; row < rows; row++) {
    const v = row / rows - 0.5;
    let per = 0;
    let step = 0;
    for (let column = 0, i = row * columns; column < columns; column++, i++) {
      // One over the paint's level, straight between every sixteenth pixel.
      if ((column & 15) === 0) {
        const inverse = (at: number): number => {
          const u = at / columns - 0.5;
          return Math.exp(-(s0 + s1 * u + s2 * v + s3 * u * u + s4 * u * v + s5 * v * v));
        };
        per = inverse(column);
        step = (inverse(column + 16) - per) / 16;
      }
      const value = 1 - y[i]! * per;
      per += step;
      e[i] = value;
      if (value > TELLS) darker += 1;
      else if (value < -TELLS) lighter += 1;
    }
  }
  const dark = known.dark ?? darker >= lighter;
  if (!dark) for (let i = 0; i < e.length; i++) e[i] = -e[i]!;
  const corners = [-0.5, 0, 0.5].flatMap((u) =>
    [-0.5, 0, 0.5].map((v) => s1 * u + s2 * v + s3 * u * u + s4 * u * v + s5 * v * v),
  );
  return { e, dark, level: Math.exp(s0), differs: Math.max(...corners) - Math.min(...corners) };
}

/** Sides of blocks the local level is worked out on [px], and how far it looks [mm]. */
const BLOCK = 4;
const NEIGHBOURS_MM = 2.5;
/** Of the places it looks at so many are taken as those further off have them. */
const FEW = 0.02;

/** Takes out what is left of the paint's own level: the mean of what lies clear of cracks round each place. */
export function levelled(evened: Evened, luma: Luma, cracks: Uint8Array, blur: number): Float32Array {
  const { columns, rows, pitch } = luma;
  const { e } = evened;
  const skip = grown(cracks, columns, rows, Math.ceil(2.5 * blur) + 1);
  const [across, down] = [Math.ceil(columns / BLOCK), Math.ceil(rows / BLOCK)];
  const sums = new Float32Array(across * down);
  const counts = new Float32Array(across * down);
  for (let y = 0; y < rows; y++)
    for (let x = 0, i = y * columns, row = (y >> 2) * across; x < columns; x++, i++) {
      if (skip[i] === 1) continue;
      const block = row + (x >> 2);
      sums[block] = sums[block]! + e[i]!;
      counts[block] = counts[block]! + 1;
    }
  const reach = Math.max(3, Math.round(NEIGHBOURS_MM / pitch / BLOCK));
  const near = [boxed(sums, across, down, reach), boxed(counts, across, down, reach)] as const;
  const far = [boxed(sums, across, down, BLOCK * reach), boxed(counts, across, down, BLOCK * reach)] as const;
  const few = FEW * (2 * reach + 1) ** 2 * BLOCK * BLOCK;
  const level = near[0].map((sum, k) => {
    const further = far[1][k]! > 0 ? far[0][k]! / far[1][k]! : 0;
    return (sum + few * further) / (near[1][k]! + few);
  });
  return without(e, level, columns, rows, across, down, evened.dark ? 1 : -1);
}

/** Places less a level that is told on blocks, straight between their middles. */
function without(
  e: Float32Array,
  level: Float32Array,
  columns: number,
  rows: number,
  across: number,
  down: number,
  sign: number,
): Float32Array {
  const out = new Float32Array(e.length);
  const between = (at: number, count: number): number =>
    Math.min(count - 1.001, Math.max(0, (at + 0.5) / BLOCK - 0.5));
  const lefts = new Int32Array(columns);
  const shares = new Float32Array(columns);
  for (let x = 0; x < columns; x++) {
    const at = between(x, across);
    lefts[x] = at | 0;
    shares[x] = at - (at | 0);
  }
  for (let y = 0; y < rows; y++) {
    const at = between(y, down);
    const [upper, lower] = [(at | 0) * across, Math.min(down - 1, (at | 0) + 1) * across];
    const share = at - (at | 0);
    for (let x = 0, i = y * columns; x < columns; x++, i++) {
      const left = lefts[x]!;
      const ax = shares[x]!;
      const a = level[upper + left]! + ax * (level[upper + left + 1]! - level[upper + left]!);
      const b = level[lower + left]! + ax * (level[lower + left + 1]! - level[lower + left]!);
      const here = a + share * (b - a);
      out[i] = (e[i]! - here) / (1 - sign * here);
    }
  }
  return out;
}
