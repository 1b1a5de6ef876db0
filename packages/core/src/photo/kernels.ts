/*
 * Passes over every pixel of a raster, each a small function of its own: an engine makes those fast.
 */

/** Bins of the histogram that quantiles are read from: values from −1.5 to 14. */
const BINS = { from: -1.5, perUnit: 500, count: 7750 } as const;

/** The value under which a share of every fifth of an array lies, within a 500th. */
export function quantile(a: Float32Array, share: number): number {
  const counts = new Int32Array(BINS.count);
  let all = 0;
  for (let i = 0; i < a.length; i += 5) {
    let bin = ((a[i]! - BINS.from) * BINS.perUnit) | 0;
    if (bin < 0) bin = 0;
    else if (bin >= BINS.count) bin = BINS.count - 1;
    counts[bin] = counts[bin]! + 1;
    all += 1;
  }
  let sum = 0;
  let bin = 0;
  while (bin < BINS.count - 1) {
    sum += counts[bin]!;
    if (sum > share * all) break;
    bin += 1;
  }
  return BINS.from + (bin + 0.5) / BINS.perUnit;
}

/** Smoothed by [1 2 1]²/16; beyond the border its own value counts. */
export function smoothed(a: Float32Array, columns: number, rows: number): Float32Array {
  const across = new Float32Array(a.length);
  const out = new Float32Array(a.length);
  for (let row = 0; row < rows; row++) {
    const first = row * columns;
    const last = first + columns - 1;
    across[first] = a[first]!;
    across[last] = a[last]!;
    for (let i = first + 1; i < last; i++) across[i] = 0.25 * (a[i - 1]! + a[i + 1]!) + 0.5 * a[i]!;
  }
  for (let row = 0; row < rows; row++) {
    const up = row > 0 ? columns : 0;
    const down = row < rows - 1 ? columns : 0;
    for (let i = row * columns, end = i + columns; i < end; i++)
      out[i] = 0.25 * (across[i - up]! + across[i + down]!) + 0.5 * across[i]!;
  }
  return out;
}

/** How far places stand out above both sides so far off, in the direction where they do most; of depths the same. */
export function standsOut(
  a: Float32Array,
  columns: number,
  rows: number,
  reach: number,
): { readonly ridge: Float32Array; readonly valley: Float32Array } {
  const ridge = new Float32Array(a.length);
  const valley = new Float32Array(a.length);
  const down = reach * columns;
  const right = down + reach;
  const left = down - reach;
  for (let row = reach; row < rows - reach; row++)
    for (let i = row * columns + reach, end = row * columns + columns - reach; i < end; i++) {
      // The least of the higher sides, and the greatest of the lower ones, over four directions.
      let p = a[i - reach]!;
      let q = a[i + reach]!;
      let high = p > q ? p : q;
      let low = p > q ? q : p;
      p = a[i - down]!;
      q = a[i + down]!;
      if (p > q) {
        if (p < high) high = p;
        if (q > low) low = q;
      } else {
        if (q < high) high = q;
        if (p > low) low = p;
      }
      p = a[i - right]!;
      q = a[i + right]!;
      if (p > q) {
        if (p < high) high = p;
        if (q > low) low = q;
      } else {
        if (q < high) high = q;
        if (p > low) low = p;
      }
      p = a[i - left]!;
      q = a[i + left]!;
      if (p > q) {
        if (p < high) high = p;
        if (q > low) low = q;
      } else {
        if (q < high) high = q;
        if (p > low) low = p;
      }
      ridge[i] = a[i]! - high;
      valley[i] = low - a[i]!;
    }
  return { ridge, valley };
}

/** Grows a mask by so many pixels, in squares. */
export function grown(mask: Uint8Array, columns: number, rows: number, by: number): Uint8Array {
  const across = new Uint8Array(mask.length);
  for (let row = 0; row < rows; row++) {
    const first = row * columns;
    let till = -1;
    for (let column = 0; column < columns; column++) {
      if (mask[first + column] === 0) continue;
      const from = Math.max(till + 1, column - by);
      till = Math.min(columns - 1, column + by);
      for (let k = from; k <= till; k++) across[first + k] = 1;
    }
  }
  // How many of the rows within reach are set, column by column, as the reach moves down.
  const counts = new Int32Array(columns);
  const out = new Uint8Array(mask.length);
  for (let row = 0; row < Math.min(by, rows); row++) addRow(counts, across, row * columns, 1);
  for (let row = 0; row < rows; row++) {
    if (row + by < rows) addRow(counts, across, (row + by) * columns, 1);
    if (row - by > 0) addRow(counts, across, (row - by - 1) * columns, -1);
    for (let x = 0, i = row * columns; x < columns; x++, i++) out[i] = counts[x]! > 0 ? 1 : 0;
  }
  return out;
}

function addRow(counts: Int32Array, from: Uint8Array, start: number, sign: number): void {
  for (let x = 0, i = start; x < counts.length; x++, i++) counts[x] = counts[x]! + sign * from[i]!;
}

/** The middle one of some values. */
export const medianOf = (values: readonly number[] | Float32Array): number =>
  Float32Array.from(values).sort()[values.length >> 1]!;

/** Sums over squares that reach so far on each side. */
export function boxed(a: Float32Array, columns: number, rows: number, reach: number): Float32Array {
  const across = new Float32Array(a.length);
  const out = new Float32Array(a.length);
  const pass = (from: Float32Array, to: Float32Array, start: number, step: number, count: number): void => {
    let sum = 0;
    for (let k = -reach; k < count; k++) {
      if (k + reach < count) sum += from[start + (k + reach) * step]!;
      if (k - reach - 1 >= 0) sum -= from[start + (k - reach - 1) * step]!;
      if (k >= 0) to[start + k * step] = sum;
    }
  };
  for (let row = 0; row < rows; row++) pass(a, across, row * columns, 1, columns);
  for (let column = 0; column < columns; column++) pass(across, out, column, columns, rows);
  return out;
}

/** Parts of a mask that touch, over corners too or over sides alone: a number for each place from 1, 0 outside. */
export function partsOf(
  mask: Uint8Array,
  columns: number,
  rows: number,
  corners: boolean,
): { readonly label: Int32Array; readonly sizes: readonly number[]; readonly cut: readonly boolean[] } {
  const label = new Int32Array(mask.length);
  const stack = new Int32Array(mask.length);
  const sizes: number[] = [];
  const cut: boolean[] = [];
  for (let start = 0; start < mask.length; start++) {
    if (mask[start] === 0 || label[start] !== 0) continue;
    const number = sizes.length + 1;
    let top = 0;
    let size = 0;
    let touches = false;
    stack[top++] = start;
    label[start] = number;
    while (top > 0) {
      const i = stack[--top]!;
      const y = (i / columns) | 0;
      const x = i - y * columns;
      size += 1;
      if (x === 0 || y === 0 || x === columns - 1 || y === rows - 1) touches = true;
      for (let dy = y > 0 ? -1 : 0; dy <= (y < rows - 1 ? 1 : 0); dy++)
        for (let dx = x > 0 ? -1 : 0; dx <= (x < columns - 1 ? 1 : 0); dx++) {
          if (!corners && dx !== 0 && dy !== 0) continue;
          const j = i + dy * columns + dx;
          if (mask[j] === 0 || label[j] !== 0) continue;
          label[j] = number;
          stack[top++] = j;
        }
    }
    sizes.push(size);
    cut.push(touches);
  }
  return { label, sizes, cut };
}
