/*
 * What stands out as crack: as dark as the darkest few, or a ridge of darkness higher than both sides. Streaks of a brush
 * are ridges as well, but have as many valleys beside them: the limit rises until valleys are few.
 */

/** The value under which a share of every third of an array lies. */
export function quantile(a: Float32Array, share: number): number {
  const some = new Float32Array(Math.ceil(a.length / 3));
  for (let i = 0; i < some.length; i++) some[i] = a[3 * i]!;
  some.sort();
  return some[Math.min(some.length - 1, Math.floor(share * some.length))]!;
}

/** How far a place stands out above both sides so far off, in the direction where it does most; of depths the same. */
function standsOut(
  a: Float32Array,
  columns: number,
  rows: number,
  reach: number,
): { ridge: Float32Array; valley: Float32Array } {
  const ridge = new Float32Array(a.length);
  const valley = new Float32Array(a.length);
  const ways = [reach, reach * columns, reach * columns + reach, reach * columns - reach];
  for (let row = reach; row < rows - reach; row++)
    for (let i = row * columns + reach, end = row * columns + columns - reach; i < end; i++) {
      let up = 0;
      let down = 0;
      for (const way of ways) {
        const [p, q] = [a[i - way]!, a[i + way]!];
        up = Math.max(up, a[i]! - Math.max(p, q));
        down = Math.max(down, Math.min(p, q) - a[i]!);
      }
      ridge[i] = up;
      valley[i] = down;
    }
  return { ridge, valley };
}

/** Grows a mask by so many pixels, in squares. */
export function grown(mask: Uint8Array, columns: number, rows: number, by: number): Uint8Array {
  const across = new Uint8Array(mask.length);
  const out = new Uint8Array(mask.length);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++)
      if (mask[row * columns + column] === 1)
        across.fill(
          1,
          row * columns + Math.max(0, column - by),
          row * columns + Math.min(columns - 1, column + by) + 1,
        );
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++)
      if (across[row * columns + column] === 1)
        for (let k = Math.max(0, row - by); k <= Math.min(rows - 1, row + by); k++)
          out[k * columns + column] = 1;
  return out;
}

/** Blur of a photograph that is taken for sharp [px, standard deviation]. */
export const BLUR = 1.6;
/** Ridges count from this share of the darkest on, and from so many times the paint's own scatter. */
const LEAST = 0.1;
const SCATTERS = 3.5;
/** Cracks are at least so much darker than paint, and than its own scatter. */
const FAINTEST = 0.04;
const STANDS_OUT = 4.5;
/** Valleys there may be for so many ridges, and steps the limit rises by [of the darkest]. */
const VALLEYS = 0.03;
const RISES = 1 / 64;
/** Parts that reach no further than this are specks [px]. */
const SPECK = 8;

export interface Found {
  readonly mask: Uint8Array;
  /** What the darkest few in a thousand reach. */
  readonly darkest: number;
  /** Limit of ridges over the darkest. */
  readonly limit: number;
}

/** What is crack in an evened, smoothed picture. */
export function cracksIn(a: Float32Array, columns: number, rows: number): Found {
  const darkest = quantile(a, 0.997);
  const { ridge, valley } = standsOut(a, columns, rows, Math.max(2, Math.round(2 * BLUR)));
  // Of the lightest quarter alone, as of a normal spread: cracks and their blur may be half of all.
  const scatter = (quantile(a, 0.25) - quantile(a, 0.05)) / 0.97;
  // Nothing stands out of the paint's own look: there are no cracks, or none that can be told from it.
  if (darkest < Math.max(FAINTEST, STANDS_OUT * scatter))
    return { mask: new Uint8Array(a.length), darkest: Math.max(darkest, 1e-6), limit: 1 };
  let limit = Math.max(LEAST * darkest, SCATTERS * scatter);
  const maskAt = (from: number): Uint8Array => {
    const mask = new Uint8Array(a.length);
    for (let i = 0; i < mask.length; i++) if (a[i]! > 0.5 * darkest || ridge[i]! > from) mask[i] = 1;
    return mask;
  };
  const near = grown(maskAt(limit), columns, rows, 4);
  const tooMany = (): boolean => {
    let up = 0;
    let down = 0;
    for (let i = 0; i < a.length; i += 3) {
      if (ridge[i]! > limit && a[i]! < 0.5 * darkest) up += 1;
      if (valley[i]! > limit && near[i] === 0) down += 1;
    }
    return down > VALLEYS * (up + 35);
  };
  while (limit < 0.5 * darkest && tooMany()) limit += RISES * darkest;
  const mask = maskAt(limit);
  dropSpecks(mask, a, ridge, columns, rows, { ridge: 1.8 * limit, dark: 0.6 * darkest });
  return { mask, darkest, limit: limit / darkest };
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
  const seen = new Uint8Array(mask.length);
  const stack: number[] = [];
  for (let start = 0; start < mask.length; start++) {
    if (mask[start] === 0 || seen[start] === 1) continue;
    const part: number[] = [];
    let high = 0;
    let [left, right, top, bottom] = [columns, 0, rows, 0];
    stack.push(start);
    seen[start] = 1;
    while (stack.length > 0) {
      const i = stack.pop()!;
      part.push(i);
      if (ridge[i]! > strong.ridge || a[i]! > strong.dark) high += 1;
      const [x, y] = [i % columns, Math.floor(i / columns)];
      [left, right] = [Math.min(left, x), Math.max(right, x)];
      [top, bottom] = [Math.min(top, y), Math.max(bottom, y)];
      for (let dy = y > 0 ? -1 : 0; dy <= (y < rows - 1 ? 1 : 0); dy++)
        for (let dx = x > 0 ? -1 : 0; dx <= (x < columns - 1 ? 1 : 0); dx++) {
          const j = i + dy * columns + dx;
          if (mask[j] === 1 && seen[j] === 0) {
            seen[j] = 1;
            stack.push(j);
          }
        }
    }
    if (high < 3 || Math.max(right - left, bottom - top) < SPECK) for (const i of part) mask[i] = 0;
  }
}
