import { evened, smoothed } from './even';
import { BLUR, cracksIn, grown } from './find';
import { distances2, type Line, middleLines } from './skeleton';
import { rectified } from './rectify';
import { type Luma, type PhotoReading, type Picture, type Quad, type Trust } from './types';

/** Of each side so much is looked at and not counted: lines run along a border, and tape leaves an edge there. */
const RIM = 0.04;
/** Openings from this on are told, spacing from that on [px]; fewer of a blur between cracks are too fine. */
const TELLS = { opening: 5, spacing: 3, between: 13.5 } as const;
/** Lines looked across until a figure is told. */
const ENOUGH = 40;
/** More of a picture than this at the top of the scale is glare. */
const GLARE = 0.05;
/** Two-sided 95 % quantile of Student's t with 15 degrees of freedom, for sixteen blocks. */
const T15 = 2.131;
const BLOCKS = 4;

/** What goes along with the lines inside the window. */
interface Lengths {
  readonly dx: number;
  readonly dy: number;
  /** How much the sum of both differs from block to block, as a share of the mean. */
  readonly within: number;
}

/** Lengths of lines along and across the window, point by point. */
function lengthsOf(
  lines: readonly Line[],
  columns: number,
  rows: number,
  rim: readonly [number, number],
): Lengths {
  const blocks = new Float64Array(BLOCKS * BLOCKS);
  const [wide, high] = [columns - 2 * rim[0], rows - 2 * rim[1]];
  let dx = 0;
  let dy = 0;
  for (const { x, y } of lines)
    for (let i = 1; i < x.length; i++) {
      const [ax, ay] = [Math.abs(x[i]! - x[i - 1]!), Math.abs(y[i]! - y[i - 1]!)];
      const [u, v] = [(x[i]! - rim[0]) / wide, (y[i]! - rim[1]) / high];
      if (u < 0 || v < 0 || u >= 1 || v >= 1) continue;
      dx += ax;
      dy += ay;
      const block = Math.floor(BLOCKS * v) * BLOCKS + Math.floor(BLOCKS * u);
      blocks[block] = blocks[block]! + ax + ay;
    }
  const mean = blocks.reduce((sum, one) => sum + one, 0) / blocks.length;
  const spread = Math.sqrt(blocks.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (blocks.length - 1));
  return { dx, dy, within: mean === 0 ? 1 : (T15 * spread) / Math.sqrt(blocks.length) / mean };
}

/** A value between four pixels. */
function between(a: Float32Array, columns: number, x: number, y: number): number {
  const [ix, iy] = [Math.floor(x), Math.floor(y)];
  const [ax, ay] = [x - ix, y - iy];
  const i = iy * columns + ix;
  return (
    (a[i]! * (1 - ax) + a[i + 1]! * ax) * (1 - ay) +
    (a[i + columns]! * (1 - ax) + a[i + columns + 1]! * ax) * ay
  );
}

/**
 * Darkness summed across each line every other point, less the level of both sides: the opening times the contrast of its
 * floor, however blurred the photograph.
 */
function across(
  lines: readonly Line[],
  e: Float32Array,
  mask: Uint8Array,
  d2: Float32Array,
  columns: number,
  rows: number,
): number[] {
  const sums: number[] = [];
  for (const { x, y, at, nodes } of lines) {
    const last = x.length - 1;
    const clear = (node: boolean, i: number): number => (node ? Math.sqrt(d2[at[i]!]!) + 1.5 : 2);
    const [from, to] = [clear(nodes[0], 0), last - clear(nodes[1], last)];
    for (let i = 2; i < last - 1; i += 2) {
      if (i < from || i > to) continue;
      const [a, b] = [Math.max(0, i - 3), Math.min(last, i + 3)];
      const length = Math.hypot(x[b]! - x[a]!, y[b]! - y[a]!);
      if (length === 0) continue;
      const [nx, ny] = [-(y[b]! - y[a]!) / length, (x[b]! - x[a]!) / length];
      const half = Math.ceil(Math.sqrt(d2[at[i]!]!) + 3 * BLUR + 0.5);
      const far = half + 2;
      const [px, py] = [x[i]!, y[i]!];
      if (px < far + 2 || py < far + 2 || px > columns - far - 3 || py > rows - far - 3) continue;
      const isCrack = (k: number): boolean =>
        mask[Math.round(py + ny * k) * columns + Math.round(px + nx * k)] === 1;
      let free = true;
      for (let k = Math.ceil(Math.sqrt(d2[at[i]!]!) + 1.5); k <= far && free; k++)
        free = !isCrack(k) && !isCrack(-k);
      if (!free) continue;
      const value = (k: number): number => between(e, columns, px + nx * k, py + ny * k);
      let sum = 0;
      for (let k = -half; k <= half; k++) sum += value(k);
      const sides = (value(half + 1) + value(half + 2) + value(-half - 1) + value(-half - 2)) / 4;
      sums.push(sum - sides * (2 * half + 1));
    }
  }
  return sums;
}

/** How much darker than paint the floor of an open crack is: deep inside of wide ones; null where none is wide enough. */
function floorContrast(e: Float32Array, e1: Float32Array, d2: Float32Array, darkest: number): number | null {
  const deep = (3 * BLUR + 0.5) ** 2;
  const core: number[] = [];
  for (let i = 0; i < e.length; i++) if (d2[i]! > deep && e1[i]! > 0.5 * darkest) core.push(e[i]!);
  if (core.length < 150) return null;
  core.sort((a, b) => a - b);
  return core[core.length >> 1]!;
}

/** Measures what lies square on. */
export function measureLuma(luma: Luma): PhotoReading {
  const { columns, rows, pitch, clipped } = luma;
  const e = evened(luma);
  const e1 = smoothed(e, columns, rows);
  const { mask, darkest } = cracksIn(e1, columns, rows);
  const d2 = distances2(mask, columns, rows);
  const lines = middleLines(mask, d2, columns, rows);
  const rim = [Math.ceil(RIM * columns), Math.ceil(RIM * rows)] as const;
  const { dx, dy, within } = lengthsOf(lines, columns, rows, rim);
  const window = (columns - 2 * rim[0]) * (rows - 2 * rim[1]);
  const sums = across(lines, e, mask, d2, columns, rows);
  const known = floorContrast(e, e1, d2, darkest);
  const contrast = known ?? darkest;
  const openingPx = sums.reduce((sum, one) => sum + one, 0) / Math.max(1, sums.length) / contrast;
  const spacingPx = dx + dy === 0 ? Infinity : (2 * window) / (dx + dy);
  const trust = trustIn({ clipped, profiles: sums.length, spacingPx, openingPx, floor: known !== null });
  const told = (one: Trust): boolean => one === 'about';
  return {
    spacingMm: told(trust.spacing) ? spacingPx * pitch : null,
    spacingWithin: within,
    openingMm: told(trust.opening) ? openingPx * pitch : null,
    openArea: told(trust.opening) ? openShare(e, mask, contrast, columns, rows, rim) : null,
    trust,
    openingPx,
    pxPerMm: 1 / pitch,
    cracks: { columns, rows, mask },
  };
}

/** Share of the window that stands open: darkness summed over cracks and what their blur reaches. */
function openShare(
  e: Float32Array,
  mask: Uint8Array,
  contrast: number,
  columns: number,
  rows: number,
  rim: readonly [number, number],
): number {
  const zone = grown(mask, columns, rows, Math.ceil(2.2 * BLUR) + 1);
  let sum = 0;
  let count = 0;
  for (let row = rim[1]; row < rows - rim[1]; row++)
    for (let i = row * columns + rim[0], end = row * columns + columns - rim[0]; i < end; i++) {
      count += 1;
      if (zone[i] === 1) sum += e[i]!;
    }
  return Math.max(0, sum / contrast / count);
}

/** What may be told: without marks of a known size and sharpness beside it, only what is wide enough in the picture. */
function trustIn(read: {
  readonly clipped: number;
  readonly profiles: number;
  readonly spacingPx: number;
  readonly openingPx: number;
  readonly floor: boolean;
}): PhotoReading['trust'] {
  const all = (one: Trust): PhotoReading['trust'] => ({ spacing: one, opening: one });
  if (read.clipped > GLARE) return all('glare');
  if (read.profiles < ENOUGH) return all('too-few');
  if (read.spacingPx < TELLS.between * BLUR) return all('too-fine');
  if (read.openingPx < TELLS.spacing) return all('too-thin');
  const opening: Trust = !read.floor ? 'too-faint' : read.openingPx < TELLS.opening ? 'too-thin' : 'about';
  return { spacing: 'about', opening };
}

/**
 * Measures the cracks of a rectangle in a photograph.
 * @param sizeMm - its sides, across and down [mm]: 10 … 2000
 * @throws InputError where the corners cross, or the rectangle is too small in the picture
 */
export const measurePhoto = (
  picture: Picture,
  corners: Quad,
  sizeMm: { readonly width: number; readonly height: number },
): PhotoReading => measureLuma(rectified(picture, corners, sizeMm));
