/// <reference path="./js-aruco2.d.ts" />
import aruco from 'js-aruco2';
import { LINEAR } from '../colour';
import { type Picture, type Quad, type Spot } from '../photo';
import { MARKS, MODULES } from './frame';

/*
 * Marks of the frame in a photograph: found in a small grey picture of it, their corners then placed to a fraction of a
 * pixel in the full one.
 */

/** Marks of 36 bits that differ in twelve at least. @see Garrido-Jurado et al. 2016, Pattern Recognition 51:481 */
const DICTIONARY = 'ARUCO_MIP_36h12';
/** Wrong bits a mark may have. */
const WRONG = 3;
/** Longest sides of the small pictures marks are looked for in [px]: the next is taken where one may be missing. */
const LONGEST = [1000, 2000] as const;

/** Whether each of a mark's 8 × 8 modules is white, row by row. */
export function markModules(id: number): boolean[] {
  const bits = new aruco.AR.Dictionary(DICTIONARY).codeList[id]!;
  const inner = MODULES - 2;
  return Array.from({ length: MODULES * MODULES }, (_, i) => {
    const [x, y] = [(i % MODULES) - 1, Math.floor(i / MODULES) - 1];
    return x >= 0 && y >= 0 && x < inner && y < inner && bits[y * inner + x] === '1';
  });
}

export interface FoundMark {
  readonly id: number;
  /** Round with the clock, from the corner that is printed upper left [px]. */
  readonly corners: Quad;
}

/** Means of so many pixels a side of the green channel. */
function small(
  { width, height, data }: Picture,
  by: number,
): { width: number; height: number; data: Uint8ClampedArray } {
  const [columns, rows] = [Math.floor(width / by), Math.floor(height / by)];
  const out = new Uint8ClampedArray(4 * columns * rows).fill(255);
  for (let y = 0; y < rows; y++)
    for (let x = 0; x < columns; x++) {
      let sum = 0;
      for (let j = 0; j < by; j++)
        for (let i = 0, o = 4 * ((y * by + j) * width + x * by) + 1; i < by; i++, o += 4) sum += data[o]!;
      const at = 4 * (y * columns + x);
      out[at] = out[at + 1] = out[at + 2] = sum / (by * by);
    }
  return { width: columns, height: rows, data: out };
}

/** Marks of the frame in a picture, each as it is read best, their corners to a pixel of the small picture. */
export function findMarks(picture: Picture): FoundMark[] {
  const best = new Map<number, FoundMark & { readonly wrong: number }>();
  for (const longest of LONGEST) {
    const by = Math.max(1, Math.round(Math.max(picture.width, picture.height) / longest));
    const detector = new aruco.AR.Detector({ dictionaryName: DICTIONARY, maxHammingDistance: WRONG });
    for (const { id, hammingDistance: wrong, corners } of detector.detect(small(picture, by))) {
      if (id >= MARKS.length || (best.get(id)?.wrong ?? Infinity) <= wrong) continue;
      const placed = corners.map(({ x, y }) => ({ x: (x + 0.5) * by, y: (y + 0.5) * by }));
      best.set(id, { id, wrong, corners: placed as unknown as Quad });
    }
    if (best.size >= MARKS.length - 1) break;
  }
  return [...best.values()].map(({ id, corners }) => ({ id, corners }));
}

/** Mean brightness across edges, 0 ink … 1 paper, in tenths of a pixel from −7 to 7. */
export interface Edges {
  readonly sums: Float64Array;
  readonly counts: Float64Array;
}
const REACH = 7;
const BINS = 20 * REACH + 1;
export const noEdges = (): Edges => ({ sums: new Float64Array(BINS), counts: new Float64Array(BINS) });

/** Green light at a place of a picture. */
function green({ width, height, data }: Picture, x: number, y: number): number {
  const fx = Math.min(width - 1.001, Math.max(0, x - 0.5));
  const fy = Math.min(height - 1.001, Math.max(0, y - 0.5));
  const [ix, iy] = [fx | 0, fy | 0];
  const [ax, ay] = [fx - ix, fy - iy];
  const o = 4 * (iy * width + ix) + 1;
  const q = o + 4 * width;
  return (
    (LINEAR[data[o]!]! * (1 - ax) + LINEAR[data[o + 4]!]! * ax) * (1 - ay) +
    (LINEAR[data[q]!]! * (1 - ax) + LINEAR[data[q + 4]!]! * ax) * ay
  );
}

/** A line through places along a side and how far off it: `off = a + b along`, those far from it dropped thrice. */
function lineThrough(places: readonly (readonly [number, number])[]): readonly [number, number] | null {
  let kept = places;
  let [a, b] = [0, 0];
  for (let round = 0; round < 3; round++) {
    const n = kept.length;
    const sum = (of: (place: readonly [number, number]) => number): number =>
      kept.reduce((total, place) => total + of(place), 0);
    const [sx, sy, sxx, sxy] = [
      sum(([x]) => x),
      sum(([, y]) => y),
      sum(([x]) => x * x),
      sum(([x, y]) => x * y),
    ];
    b = (n * sxy - sx * sy) / (n * sxx - sx * sx);
    a = (sy - b * sx) / n;
    const away = ([x, y]: readonly [number, number]): number => Math.abs(y - a - b * x);
    const sorted = kept.map(away).toSorted((p, q) => p - q);
    const most = Math.max(0.15, 3 * sorted[n >> 1]!);
    const next = places.filter((place) => away(place) < most);
    if (next.length < LEAST_PLACES) break;
    kept = next;
  }
  return Number.isFinite(a + b) ? [a, b] : null;
}

/** Shortest side of a mark that is read [px], places along a side that tell, and how far a corner may move [px]. */
const SHORTEST = 24;
const LEAST_PLACES = 8;
const FURTHEST = 8;
/** Samples for a pixel across an edge. */
const PER_PX = 2;

/** Where an edge lies across a side: its place [px outwards], and what was seen, from ink to paper. */
function edgeAt(
  seen: Float64Array,
): { readonly at: number; readonly ink: number; readonly paper: number } | null {
  const last = seen.length - 1;
  const ink = (seen[0]! + seen[1]! + seen[2]!) / 3;
  const paper = (seen[last]! + seen[last - 1]! + seen[last - 2]!) / 3;
  if (paper - ink < 0.05 || paper < 1.6 * ink) return null;
  const half = (ink + paper) / 2;
  for (let k = 1; k <= last; k++)
    if (seen[k - 1]! < half && seen[k]! >= half)
      return {
        at: (k - 1 - last / 2 + (half - seen[k - 1]!) / (seen[k]! - seen[k - 1]!)) / PER_PX,
        ink,
        paper,
      };
  return null;
}

/**
 * A mark with its corners where its sides meet, each a line through the places of half brightness along it.
 * @param edges - what was seen across is added to it
 * @returns null where a side cannot be read
 */
export function refined(picture: Picture, mark: FoundMark, edges: Edges): FoundMark | null {
  let { corners } = mark;
  const [first, second] = mark.corners;
  // No further than the module an edge belongs to is wide.
  const reach = Math.min(
    REACH,
    Math.floor((0.85 * Math.hypot(second.x - first.x, second.y - first.y)) / MODULES),
  );
  const seen = new Float64Array(2 * reach * PER_PX + 1);
  for (const last of [false, true]) {
    const middle = {
      x: corners.reduce((sum, { x }) => sum + x / 4, 0),
      y: corners.reduce((sum, { y }) => sum + y / 4, 0),
    };
    const lines: (readonly [number, number, number])[] = [];
    for (let side = 0; side < 4; side++) {
      const [from, to] = [corners[side]!, corners[(side + 1) % 4]!];
      const length = Math.hypot(to.x - from.x, to.y - from.y);
      if (length < SHORTEST) return null;
      const [tx, ty] = [(to.x - from.x) / length, (to.y - from.y) / length];
      const outwards =
        ty * ((from.x + to.x) / 2 - middle.x) - tx * ((from.y + to.y) / 2 - middle.y) < 0 ? -1 : 1;
      const [nx, ny] = [outwards * ty, -outwards * tx];
      const places: [number, number][] = [];
      for (let along = 0.1 * length; along < 0.9 * length; along += 1) {
        const [x, y] = [from.x + tx * along, from.y + ty * along];
        for (let k = 0; k < seen.length; k++) {
          const off = k / PER_PX - reach;
          seen[k] = green(picture, x + nx * off, y + ny * off);
        }
        const edge = edgeAt(seen);
        if (edge === null) continue;
        places.push([along, edge.at]);
        if (last) addEdge(edges, seen, edge);
      }
      const line = places.length < LEAST_PLACES ? null : lineThrough(places);
      if (line === null) return null;
      const [dx, dy] = [tx + nx * line[1], ty + ny * line[1]];
      const by = Math.hypot(dx, dy);
      const [px, py] = [from.x + nx * line[0], from.y + ny * line[0]];
      lines.push([-dy / by, dx / by, (-dy * px + dx * py) / by]);
    }
    const met = lines.map((line, k) => meeting(lines[(k + 3) % 4]!, line));
    const moved = met.every(
      (spot, k) => spot !== null && Math.hypot(spot.x - corners[k]!.x, spot.y - corners[k]!.y) <= FURTHEST,
    );
    if (!moved) return null;
    corners = met as unknown as Quad;
  }
  return { id: mark.id, corners };
}

/** Where two lines `a x + b y = c` meet; null where they hardly do. */
function meeting(
  [a, b, c]: readonly [number, number, number],
  [p, q, r]: readonly [number, number, number],
): Spot | null {
  const det = a * q - b * p;
  return Math.abs(det) < 0.2 ? null : { x: (c * q - b * r) / det, y: (a * r - c * p) / det };
}

function addEdge(
  { sums, counts }: Edges,
  seen: Float64Array,
  { at, ink, paper }: { readonly at: number; readonly ink: number; readonly paper: number },
): void {
  for (let k = 0; k < seen.length; k++) {
    const bin = Math.round(((k - (seen.length - 1) / 2) / PER_PX - at) * 10) + 10 * REACH;
    if (bin < 0 || bin >= BINS) continue;
    sums[bin] = sums[bin]! + (seen[k]! - ink) / (paper - ink);
    counts[bin] = counts[bin]! + 1;
  }
}

/** Shares of a rise that lie one standard deviation on either side. */
const ONE_SIGMA = 0.84134;

/** Blur of a picture from edges that are sharp on paper [px, standard deviation], and how far they overshoot. */
export function blurOf({ sums, counts }: Edges): { readonly sigma: number; readonly overshoot: number } {
  const seen = Array.from(sums, (sum, bin) => ({ at: bin / 10 - REACH, mean: sum / counts[bin]! })).filter(
    (_, bin) => counts[bin]! > 0,
  );
  const middle = seen.findIndex(({ at }) => at >= 0);
  /** Where a level is come to, outwards or inwards from the edge; as far as was looked where it never is. */
  const crossing = (level: number, way: 1 | -1): number => {
    for (let k = middle; k > 0 && k < seen.length - 1; k += way) {
      const [a, b] = way === 1 ? [seen[k]!, seen[k + 1]!] : [seen[k - 1]!, seen[k]!];
      if (a.mean < level && b.mean >= level)
        return a.at + ((b.at - a.at) * (level - a.mean)) / (b.mean - a.mean);
    }
    return way * REACH;
  };
  const overshoot = seen.reduce((most, { mean }) => Math.max(most, mean - 1, -mean), 0);
  return { sigma: (crossing(ONE_SIGMA, 1) - crossing(1 - ONE_SIGMA, -1)) / 2, overshoot };
}
