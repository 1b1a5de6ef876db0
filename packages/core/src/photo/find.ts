import { grown, partsOf, quantile } from './kernels';
import { type Correction, type Luma } from './types';

/*
 * What stands out as crack: as dark as the darkest few, or a ridge of darkness higher than both sides. Streaks of a brush
 * are ridges as well, but have as many valleys beside them: the limit rises until valleys are few.
 */

/** Ridges count from this share of the darkest on, and from so many times the paint's own scatter, or a paper's noise. */
const LEAST = 0.1;
const SCATTERS = 3.5;
const NOISES = 4.5;
/** Cracks are at least so much darker than paint, and than its own scatter. */
const FAINTEST = 0.04;
const STANDS_OUT = 4.5;
/** Valleys there may be for so many ridges, and steps the limit rises by [of the darkest]. */
const VALLEYS = 0.03;
const STEPS = 64;
/** Parts that reach no further than this are specks [px]; others stand out in so many places at least. */
const SPECK = 8;
const HIGH_PLACES = 3;

export interface Found {
  readonly mask: Uint8Array;
  /** What the darkest few in a thousand reach. */
  readonly darkest: number;
  /** Limit of ridges. */
  readonly limit: number;
}

/** What is dark or a ridge. */
export function cut(a: Float32Array, ridge: Float32Array, level: number, limit: number): Uint8Array {
  const mask = new Uint8Array(a.length);
  for (let i = 0; i < mask.length; i++) mask[i] = a[i]! > level || ridge[i]! > limit ? 1 : 0;
  return mask;
}

/** Ridges, and valleys clear of cracks, by height in steps of the darkest, each with all that are higher. */
function byHeight(
  a: Float32Array,
  ridge: Float32Array,
  valley: Float32Array,
  near: Uint8Array,
  darkest: number,
): readonly [Float64Array, Float64Array] {
  const up = new Float64Array(STEPS + 1);
  const down = new Float64Array(STEPS + 1);
  const per = STEPS / darkest;
  const half = 0.5 * darkest;
  const least = darkest / STEPS;
  for (let i = 0; i < a.length; i += 3) {
    if (ridge[i]! > least && a[i]! < half) {
      const k = Math.min(STEPS, (per * ridge[i]!) | 0);
      up[k] = up[k]! + 1;
    }
    if (valley[i]! > least && near[i] === 0) {
      const k = Math.min(STEPS, (per * valley[i]!) | 0);
      down[k] = down[k]! + 1;
    }
  }
  for (let k = STEPS - 1; k >= 0; k--) {
    up[k] = up[k]! + up[k + 1]!;
    down[k] = down[k]! + down[k + 1]!;
  }
  return [up, down];
}

/** Where ridges begin to count before streaks are looked at; null where nothing stands out of the paint's own look. */
export function firstLimit(a: Float32Array, noise: number | null): { darkest: number; limit: number } | null {
  const darkest = quantile(a, 0.997);
  // Of the lightest quarter alone, as of a normal spread: cracks and their blur may be half of all.
  const scatter = (quantile(a, 0.25) - quantile(a, 0.05)) / 0.97;
  if (darkest < Math.max(FAINTEST, STANDS_OUT * scatter)) return null;
  return { darkest, limit: Math.max(LEAST * darkest, noise === null ? SCATTERS * scatter : NOISES * noise) };
}

/** How far off the sides of a ridge are [px]. */
export const reachOf = (blur: number): number => Math.max(2, Math.round(2 * blur));

/**
 * What is crack in an evened, smoothed picture.
 * @param before - ridges and valleys of it, and what was taken for crack at first
 */
export function cracksIn(
  a: Float32Array,
  { columns, rows }: Pick<Luma, 'columns' | 'rows'>,
  before: { readonly ridge: Float32Array; readonly valley: Float32Array; readonly mask: Uint8Array },
  noise: number | null,
): Found {
  const first = firstLimit(a, noise);
  if (first === null) return { mask: new Uint8Array(a.length), darkest: 1e-6, limit: 1 };
  const { darkest } = first;
  const { ridge, valley } = before;
  const [up, down] = byHeight(a, ridge, valley, grown(before.mask, columns, rows, 4), darkest);
  let step = Math.ceil((STEPS * first.limit) / darkest);
  while (step < STEPS / 2 && down[step]! > VALLEYS * (up[step]! + 35)) step += 1;
  const limit = Math.max(first.limit, (step * darkest) / STEPS);
  const mask = cut(a, ridge, 0.5 * darkest, limit);
  dropSpecks(mask, a, ridge, columns, rows, { ridge: 1.8 * limit, dark: 0.6 * darkest });
  return { mask, darkest, limit };
}

/** Takes out parts that are small, or stand out nowhere. */
function dropSpecks(
  mask: Uint8Array,
  a: Float32Array,
  ridge: Float32Array,
  columns: number,
  rows: number,
  strong: { readonly ridge: number; readonly dark: number },
): void {
  const { label, sizes } = partsOf(mask, columns, rows, true);
  const high = new Int32Array(sizes.length + 1);
  const [left, right] = [new Int32Array(sizes.length + 1).fill(columns), new Int32Array(sizes.length + 1)];
  const [top, bottom] = [new Int32Array(sizes.length + 1).fill(rows), new Int32Array(sizes.length + 1)];
  for (let y = 0, i = 0; y < rows; y++)
    for (let x = 0; x < columns; x++, i++) {
      const part = label[i]!;
      if (part === 0) continue;
      if (ridge[i]! > strong.ridge || a[i]! > strong.dark) high[part] = high[part]! + 1;
      if (x < left[part]!) left[part] = x;
      if (x > right[part]!) right[part] = x;
      if (y < top[part]!) top[part] = y;
      bottom[part] = y;
    }
  const goes = Uint8Array.from(high, (count, part) =>
    part > 0 &&
    (count < HIGH_PLACES || Math.max(right[part]! - left[part]!, bottom[part]! - top[part]!) < SPECK)
      ? 1
      : 0,
  );
  for (let i = 0; i < mask.length; i++) if (goes[label[i]!] === 1) mask[i] = 0;
}

/** What was found, put right by hand: later strokes lie over earlier ones. */
export function corrected(
  mask: Uint8Array,
  { columns, rows, pitch }: Pick<Luma, 'columns' | 'rows' | 'pitch'>,
  corrections: readonly Correction[],
): Uint8Array {
  const out = mask.slice();
  for (const { kind, widthMm, points } of corrections) {
    const radius = Math.max(1, widthMm / pitch / 2);
    const put = (x: number, y: number): void => {
      for (let row = Math.max(0, Math.ceil(y - radius)); row <= Math.min(rows - 1, y + radius); row++)
        for (
          let column = Math.max(0, Math.ceil(x - radius));
          column <= Math.min(columns - 1, x + radius);
          column++
        )
          if (Math.hypot(column - x, row - y) <= radius)
            out[row * columns + column] = kind === 'draw' ? 1 : 0;
    };
    points.forEach((to, k) => {
      const from = points[Math.max(0, k - 1)]!;
      const steps = Math.max(1, Math.ceil(Math.hypot(to.x - from.x, to.y - from.y) / pitch));
      for (let s = 0; s <= steps; s++)
        put(
          (from.x + ((to.x - from.x) * s) / steps) / pitch - 0.5,
          (from.y + ((to.y - from.y) * s) / steps) / pitch - 0.5,
        );
    });
  }
  return out;
}
