/*
 * Middle lines of a mask: exact distances to its border, thinning in their order, lines traced between nodes.
 */

/**
 * Squared distance of each place of a mask to the nearest one outside [px²], exact.
 * @see Felzenszwalb & Huttenlocher 2012, Distance Transforms of Sampled Functions, Theory of Computing 8:415
 */
export function distances2(mask: Uint8Array, columns: number, rows: number): Float32Array {
  const far = columns + rows;
  const out = new Float32Array(mask.length);
  for (let x = 0; x < columns; x++) {
    let since = far;
    for (let y = 0; y < rows; y++) {
      since = mask[y * columns + x] === 1 ? since + 1 : 0;
      out[y * columns + x] = since;
    }
    since = far;
    for (let y = rows - 1; y >= 0; y--) {
      const i = y * columns + x;
      since = mask[i] === 1 ? since + 1 : 0;
      out[i] = Math.min(out[i]!, since);
    }
  }
  const at = new Int32Array(columns);
  const from = new Float64Array(columns + 1);
  const line = new Float64Array(columns);
  for (let y = 0; y < rows; y++) along(out.subarray(y * columns, (y + 1) * columns), at, from, line);
  return out;
}

/** Distances down the columns made squared ones over all of a row: the lowest of the parabolas over its places. */
function along(row: Float32Array, at: Int32Array, from: Float64Array, line: Float64Array): void {
  let any = false;
  for (let x = 0; x < row.length; x++) {
    line[x] = row[x]! * row[x]!;
    if (row[x] !== 0) any = true;
  }
  if (!any) return;
  let k = 0;
  at[0] = 0;
  from[0] = -Infinity;
  from[1] = Infinity;
  for (let q = 1; q < row.length; q++) {
    const height = line[q]! + q * q;
    let p = at[k]!;
    let begins = (height - line[p]! - p * p) / (2 * (q - p));
    while (begins <= from[k]!) {
      k -= 1;
      p = at[k]!;
      begins = (height - line[p]! - p * p) / (2 * (q - p));
    }
    k += 1;
    at[k] = q;
    from[k] = begins;
    from[k + 1] = Infinity;
  }
  k = 0;
  for (let x = 0; x < row.length; x++) {
    while (from[k + 1]! < x) k += 1;
    const off = x - at[k]!;
    row[x] = off * off + line[at[k]!]!;
  }
}

/** East, then round against the clock. */
const AROUND = [
  [1, 0],
  [1, -1],
  [0, -1],
  [-1, -1],
  [-1, 0],
  [-1, 1],
  [0, 1],
  [1, 1],
] as const;

/** For each of the 256 ways eight neighbours can be: whether a place may go without a break, a hole or a lost end. */
const MAY_GO = Uint8Array.from({ length: 256 }, (_, ways) => {
  const is = (k: number): number => (ways >> (k & 7)) & 1;
  let crossings = 0;
  let count = 0;
  for (let k = 0; k < 8; k += 2) crossings += (1 - is(k)) * (1 - (1 - is(k + 1)) * (1 - is(k + 2)));
  for (let k = 0; k < 8; k++) count += is(k);
  return crossings === 1 && count > 1 ? 1 : 0;
});
/**
 * Neighbours that count as linked: a diagonal one only where no place beside it makes the same step in two straight ones;
 * else every junction gains short cuts.
 */
const LINKS = Uint8Array.from({ length: 256 }, (_, ways) => {
  let linked = ways & 0b01010101;
  for (let k = 1; k < 8; k += 2)
    if (((ways >> k) & 1) === 1 && ((ways >> (k - 1)) & 1) === 0 && ((ways >> ((k + 1) & 7)) & 1) === 0)
      linked |= 1 << k;
  return linked;
});

/** How many of eight bits are set. */
const COUNT = Uint8Array.from({ length: 256 }, (_, ways) => {
  let count = 0;
  for (let k = 0; k < 8; k++) count += (ways >> k) & 1;
  return count;
});

const offsets = (columns: number): number[] => AROUND.map(([dx, dy]) => dx + dy * columns);
function waysOf(mask: Uint8Array, i: number, steps: readonly number[]): number {
  let ways = 0;
  for (let k = 0; k < 8; k++) ways |= mask[i + steps[k]!]! << k;
  return ways;
}

/** Squared distances beyond this are taken for this: no crack is a thousand pixels deep. */
const DEEPEST = 1e6;

/** Places of a mask, those nearest the border first: squared distances are whole numbers, and counted. */
function byDistance(mask: Uint8Array, d2: Float32Array): Int32Array {
  const level = (i: number): number => (d2[i]! < DEEPEST ? d2[i]! : DEEPEST);
  let most = 0;
  for (let i = 0; i < mask.length; i++) if (mask[i] === 1 && level(i) > most) most = level(i);
  const begins = new Int32Array(most + 2);
  for (let i = 0; i < mask.length; i++) if (mask[i] === 1) begins[level(i) + 1] = begins[level(i) + 1]! + 1;
  for (let k = 1; k < begins.length; k++) begins[k] = begins[k]! + begins[k - 1]!;
  const sorted = new Int32Array(begins[most + 1]!);
  for (let i = 0; i < mask.length; i++) {
    if (mask[i] === 0) continue;
    sorted[begins[level(i)]!] = i;
    begins[level(i)] = begins[level(i)]! + 1;
  }
  return sorted;
}

/** Thins a mask to its middle lines, those nearest the border first; its outermost places stay out. */
export function thinned(mask: Uint8Array, d2: Float32Array, columns: number, rows: number): Uint8Array {
  const out = mask.slice();
  const steps = offsets(columns);
  for (let x = 0; x < columns; x++) out[x] = out[out.length - 1 - x] = 0;
  for (let y = 0; y < rows; y++) out[y * columns] = out[y * columns + columns - 1] = 0;
  const sorted = byDistance(out, d2);
  const edge = new Int32Array(sorted.length);
  let left = sorted.length;
  for (let round = 0; round < 4; round++) {
    let kept = 0;
    for (let from = 0, to = 0; from < left; from = to) {
      const depth = d2[sorted[from]!];
      let edges = 0;
      for (; to < left && d2[sorted[to]!] === depth; to++) {
        const i = sorted[to]!;
        if (out[i - 1] === 0 || out[i - columns] === 0) edge[edges++] = i;
      }
      // Of two rows alike the upper, or left, one goes whole: else both would be eaten up from an end.
      take(out, edge, 0, edges, steps);
      take(out, sorted, from, to, steps);
      for (let k = from; k < to; k++) if (out[sorted[k]!] === 1) sorted[kept++] = sorted[k]!;
    }
    if (kept === left) break;
    left = kept;
  }
  return out;
}

/** Takes out those of some places that may go, one after the other. */
function take(out: Uint8Array, places: Int32Array, from: number, to: number, steps: readonly number[]): void {
  for (let k = from; k < to; k++) {
    const i = places[k]!;
    if (out[i] === 1 && MAY_GO[waysOf(out, i, steps)] === 1) out[i] = 0;
  }
}

/** A middle line, in pixels; whether it ends where others do. */
export interface Line {
  readonly x: Float32Array;
  readonly y: Float32Array;
  /** The places it went through before it was smoothed. */
  readonly at: readonly number[];
  readonly nodes: readonly [boolean, boolean];
}

/** Lines of a skeleton between its nodes and ends. */
export function traced(skeleton: Uint8Array, columns: number): Line[] {
  const steps = offsets(columns);
  const places: number[] = [];
  /** By place, a bit for each neighbour it is linked with; and for each link that was gone along. */
  const links = new Uint8Array(skeleton.length);
  const gone = new Uint8Array(skeleton.length);
  for (let i = columns; i < skeleton.length - columns; i++) {
    if (skeleton[i] === 0) continue;
    links[i] = LINKS[waysOf(skeleton, i, steps)]!;
    places.push(i);
  }
  const degree = (i: number): number => COUNT[links[i]!]!;
  const go = (from: number, way: number): number => {
    const to = from + steps[way]!;
    gone[from] = gone[from]! | (1 << way);
    gone[to] = gone[to]! | (1 << ((way + 4) & 7));
    return to;
  };
  /** A way from a place that nobody went yet; −1 where there is none. */
  const open = (i: number): number => {
    const left = links[i]! & ~gone[i]!;
    return left === 0 ? -1 : 31 - Math.clz32(left);
  };
  const lines: Line[] = [];
  const walk = (start: number): void => {
    const at = [start];
    let here = start;
    do {
      here = go(here, open(here));
      at.push(here);
    } while (degree(here) === 2 && open(here) >= 0);
    lines.push({
      at,
      x: Float32Array.from(at, (i) => i % columns),
      y: Float32Array.from(at, (i) => Math.floor(i / columns)),
      nodes: [degree(start) > 2, degree(here) > 2],
    });
  };
  for (const i of places) if (degree(i) !== 2) while (open(i) >= 0) walk(i);
  // Rings have no node to begin at.
  for (const i of places) while (open(i) >= 0) walk(i);
  return lines;
}

/** Free ends no longer than this, or than the crack is wide there, are its ragged edge [px]. */
const RAGGED = 5;

/** Takes free ends off a skeleton that are only the ragged edge of a crack. @returns how many went */
export function pruned(skeleton: Uint8Array, lines: readonly Line[], d2: Float32Array): number {
  let gone = 0;
  for (const { at, nodes } of lines) {
    const [first, last] = nodes;
    if (first === last) {
      if (first || at.length >= RAGGED) continue;
      for (const i of at) skeleton[i] = 0;
      gone += 1;
      continue;
    }
    const node = first ? at[0]! : at.at(-1)!;
    if (at.length - 1 > Math.max(RAGGED, 1.3 * Math.sqrt(d2[node]!) + 2)) continue;
    for (const i of at) if (i !== node) skeleton[i] = 0;
    gone += 1;
  }
  return gone;
}

/** A line by its moving mean over so many points on both sides; its ends stay. */
export function smoothLine(line: Line, by: number): Line {
  const mean = (values: Float32Array): Float32Array =>
    values.map((_, i) => {
      const reach = Math.min(by, i, values.length - 1 - i);
      let sum = 0;
      for (let k = -reach; k <= reach; k++) sum += values[i + k]!;
      return sum / (2 * reach + 1);
    });
  return { ...line, x: mean(line.x), y: mean(line.y) };
}

/** Middle lines of a mask, smoothed, without its ragged edges. */
export function middleLines(mask: Uint8Array, d2: Float32Array, columns: number, rows: number): Line[] {
  const skeleton = thinned(mask, d2, columns, rows);
  let lines = traced(skeleton, columns);
  for (let round = 0; round < 3 && pruned(skeleton, lines, d2) > 0; round++)
    lines = traced(skeleton, columns);
  return lines.map((line) => smoothLine(line, 3));
}
