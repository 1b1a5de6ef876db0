import { normalCdf } from '../numeric/normal';
import { evened, levelled } from './even';
import { corrected, cracksIn, cut, firstLimit, reachOf } from './find';
import { grown, medianOf, quantile, smoothed, standsOut } from './kernels';
import { distances2, type Line, middleLines } from './skeleton';
import { rectified } from './rectify';
import { trustIn } from './trust';
import { type Correction, type Known, type Luma, type PhotoReading, type Picture, type Quad } from './types';

/** Two-sided 95 % quantile of Student's t with 15 degrees of freedom, for sixteen blocks. */
const T15 = 2.131;
const BLOCKS = 4;
/** Lines are looked at three points on at a time: their pixels' own steps are smoothed away. */
const STEP = 3;

/** The part of a raster that counts: inside the rim, and nowhere chipped. */
interface Window {
  readonly columns: number;
  readonly rows: number;
  readonly rim: readonly [number, number];
  readonly chips: Uint8Array | null;
  /** Pixels of it. */
  readonly area: number;
}

const counts = ({ columns, rows, rim, chips }: Window, x: number, y: number): boolean =>
  x >= rim[0] &&
  y >= rim[1] &&
  x < columns - rim[0] &&
  y < rows - rim[1] &&
  (chips === null || chips[(y | 0) * columns + (x | 0)] === 0);

/** What goes along with the lines inside the window. */
interface Lengths {
  readonly dx: number;
  readonly dy: number;
  /** How much the sum of both differs from block to block, as a share of the mean. */
  readonly within: number;
}

/** Lengths of lines along and across the window. */
function lengthsOf(lines: readonly Line[], window: Window): Lengths {
  const { columns, rows, rim } = window;
  const blocks = new Float64Array(BLOCKS * BLOCKS);
  const [wide, high] = [columns - 2 * rim[0], rows - 2 * rim[1]];
  let dx = 0;
  let dy = 0;
  for (const { x, y } of lines)
    for (let from = 0; from < x.length - 1; from += STEP) {
      const to = Math.min(x.length - 1, from + STEP);
      const [mx, my] = [(x[from]! + x[to]!) / 2, (y[from]! + y[to]!) / 2];
      if (!counts(window, mx, my)) continue;
      const [ax, ay] = [Math.abs(x[to]! - x[from]!), Math.abs(y[to]! - y[from]!)];
      dx += ax;
      dy += ay;
      const [u, v] = [(mx - rim[0]) / wide, (my - rim[1]) / high];
      const block = Math.floor(BLOCKS * v) * BLOCKS + Math.floor(BLOCKS * u);
      blocks[block] = blocks[block]! + ax + ay;
    }
  const mean = blocks.reduce((sum, one) => sum + one, 0) / blocks.length;
  const spread = Math.sqrt(blocks.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (blocks.length - 1));
  return { dx, dy, within: mean === 0 ? 1 : (T15 * spread) / Math.sqrt(blocks.length) / mean };
}

/** A value between four pixels. */
function between(a: Float32Array, columns: number, x: number, y: number): number {
  const ix = x | 0;
  const iy = y | 0;
  const ax = x - ix;
  const ay = y - iy;
  const i = iy * columns + ix;
  return (
    (a[i]! * (1 - ax) + a[i + 1]! * ax) * (1 - ay) +
    (a[i + columns]! * (1 - ax) + a[i + columns + 1]! * ax) * ay
  );
}

/** What was seen across lines: darkness summed over the crack, and the most of it, both less the level of the sides. */
interface Profiles {
  readonly sums: number[];
  readonly peaks: number[];
}

/**
 * Looks across each line every other point: the darkness summed is the opening times the contrast of its floor, however
 * blurred the photograph.
 */
function across(
  lines: readonly Line[],
  e: Float32Array,
  mask: Uint8Array,
  d2: Float32Array,
  window: Window,
  blur: number,
): Profiles {
  const { columns, rows } = window;
  const sums: number[] = [];
  const peaks: number[] = [];
  for (const { x, y, at, nodes } of lines) {
    const last = x.length - 1;
    const clear = (node: boolean, i: number): number => (node ? Math.sqrt(d2[at[i]!]!) + 1.5 : 2);
    const [from, to] = [clear(nodes[0], 0), last - clear(nodes[1], last)];
    for (let i = 2; i < last - 1; i += 2) {
      if (i < from || i > to) continue;
      const [px, py] = [x[i]!, y[i]!];
      if (!counts(window, px, py)) continue;
      const [a, b] = [Math.max(0, i - 3), Math.min(last, i + 3)];
      const length = Math.hypot(x[b]! - x[a]!, y[b]! - y[a]!);
      if (length === 0) continue;
      const [nx, ny] = [-(y[b]! - y[a]!) / length, (x[b]! - x[a]!) / length];
      const deep = Math.sqrt(d2[at[i]!]!);
      const half = Math.ceil(deep + 3 * blur + 0.5);
      const far = half + 2;
      if (px < far + 2 || py < far + 2 || px > columns - far - 3 || py > rows - far - 3) continue;
      let free = true;
      for (let k = Math.ceil(deep + 1.5); k <= far && free; k++)
        free =
          mask[((py + ny * k + 0.5) | 0) * columns + ((px + nx * k + 0.5) | 0)] === 0 &&
          mask[((py - ny * k + 0.5) | 0) * columns + ((px - nx * k + 0.5) | 0)] === 0;
      if (!free) continue;
      let sum = 0;
      let peak = 0;
      for (let k = -half; k <= half; k++) {
        const value = between(e, columns, px + nx * k, py + ny * k);
        sum += value;
        if (value > peak) peak = value;
      }
      let sides = 0;
      for (let k = half + 1; k <= far; k++)
        sides +=
          between(e, columns, px + nx * k, py + ny * k) + between(e, columns, px - nx * k, py - ny * k);
      sides /= 2 * (far - half);
      sums.push(sum - sides * (2 * half + 1));
      peaks.push(peak - sides);
    }
  }
  return { sums, peaks };
}

/** The width whose sum and peak are so far apart under a blur: sum/peak = w / (2 Φ(w/2σ) − 1); 0 for a bare line. */
function widthOf(ratio: number, blur: number): number {
  if (ratio <= 1.01 * Math.sqrt(2 * Math.PI) * blur) return 0;
  let width = ratio;
  for (let round = 0; round < 30; round++) {
    const off = width / (2 * normalCdf(width / (2 * blur)) - 1) - ratio;
    width -= off;
    if (Math.abs(off) < 1e-4) break;
  }
  return width;
}

/** Contrast of floors as the widest quarter of the lines has it; null where too few are wide enough to tell. */
function contrastOfLines({ sums, peaks }: Profiles, blur: number): number | null {
  const wide = sums.flatMap((sum, k): [number, number][] => {
    const width = widthOf(sum / peaks[k]!, blur);
    return width > 1.6 * blur ? [[width, sum / width]] : [];
  });
  if (wide.length <= 30) return null;
  wide.sort((a, b) => b[0] - a[0]);
  return medianOf(wide.slice(0, Math.max(30, wide.length >> 2)).map(([, contrast]) => contrast));
}

/** Where the contrast of an open crack's floor is from: deep inside of wide ones, other cells, or the lines alone. */
export type ContrastFrom = 'core' | 'given' | 'lines' | 'none';

/** A cell as it was looked at; lengths in pixels. */
export interface Look {
  readonly columns: number;
  readonly rows: number;
  readonly pitch: number;
  readonly clipped: number;
  readonly mask: Uint8Array;
  readonly lengths: Lengths;
  readonly area: number;
  /** Of the window, gone in places wider than any crack. */
  readonly chipped: number;
  readonly level: number;
  /** How far the level of the paint differs over the cell [ln]. */
  readonly differs: number;
  readonly dark: boolean;
  /** Sums across lines, in order. */
  readonly sums: readonly number[];
  /** Median peak across lines. */
  readonly peak: number;
  readonly limit: number;
  readonly contrast: number;
  readonly contrastFrom: ContrastFrom;
  /** Pixels deep inside of cracks. */
  readonly core: number;
  /** Darkness summed over the window, for a pixel of it. */
  readonly darkness: number;
}

/** What is wider than any crack of a cell [mm at least, and half widths], with so much round it [px]. */
const CHIP = { leastMm: 0.8, halves: 3, round: 2 } as const;

/** Places in which a disc fits that fits in no crack; null where there are none. */
function chipsIn(
  lines: readonly Line[],
  d2: Float32Array,
  { columns, rows, pitch }: Luma,
): Uint8Array | null {
  const halves: number[] = [];
  for (const { at } of lines) for (let i = 0; i < at.length; i += STEP) halves.push(Math.sqrt(d2[at[i]!]!));
  const radius = Math.max(CHIP.leastMm / pitch, CHIP.halves * (halves.length === 0 ? 0 : medianOf(halves)));
  const deep = new Uint8Array(d2.length);
  let any = false;
  for (let i = 0; i < deep.length; i++)
    if (d2[i]! > radius * radius) {
      deep[i] = 1;
      any = true;
    }
  return any ? grown(deep, columns, rows, Math.ceil(radius) + CHIP.round) : null;
}

/** Darkness of what lies further than this from any border of a crack, and is darker than that. */
function deepIn(
  d2: Float32Array,
  further: number,
  e: Float32Array,
  e1: Float32Array,
  darker: number,
): Float32Array {
  const out = new Float32Array(e.length);
  let count = 0;
  for (let i = 0; i < e.length; i++) if (d2[i]! > further && e1[i]! > darker) out[count++] = e[i]!;
  return out.subarray(0, count);
}

/** Contrast of floors, by what tells it best. */
function contrastOf(
  core: Float32Array,
  profiles: Profiles,
  darkest: number,
  pixels: number,
  { blur, noise, contrast }: Known,
): { readonly contrast: number; readonly from: ContrastFrom } {
  // Without marks the blur is a guess, and what lines say of it with it.
  const lines = noise === null ? null : contrastOfLines(profiles, blur);
  const deep = core.length > 150 ? medianOf(core) : 0;
  const isFloor = deep > 0.85 * darkest || core.length > 0.02 * pixels;
  if (core.length > 150 && isFloor && !(lines !== null && deep < 0.9 * lines))
    return { contrast: deep, from: 'core' };
  if (contrast !== null) return { contrast, from: 'given' };
  return lines === null ? { contrast: darkest, from: 'none' } : { contrast: lines, from: 'lines' };
}

/** Looks at what lies square on. @param corrections - what somebody put right by hand */
export function lookAt(luma: Luma, known: Known, corrections: readonly Correction[] = []): Look {
  const { columns, rows, pitch, clipped } = luma;
  const { blur, noise, rim } = known;
  const at = evened(luma, known);
  const rough = smoothed(at.e, columns, rows);
  const rises = standsOut(rough, columns, rows, reachOf(blur));
  const first = firstLimit(rough, noise) ?? { darkest: quantile(rough, 0.997), limit: Infinity };
  const roughly = cut(rough, rises.ridge, 0.5 * first.darkest, first.limit);
  const e = levelled(at, luma, roughly, blur);
  const e1 = smoothed(e, columns, rows);
  const found = cracksIn(e1, luma, { ...rises, mask: roughly }, noise);
  const mask = corrected(found.mask, luma, corrections);
  const d2 = distances2(mask, columns, rows);
  const lines = middleLines(mask, d2, columns, rows);
  const chips = chipsIn(lines, d2, luma);
  const bare = { columns, rows, rim, chips: null, area: (columns - 2 * rim[0]) * (rows - 2 * rim[1]) };
  const gone = chips === null ? 0 : sumOver(bare, (i) => chips[i]!);
  const window: Window = { ...bare, chips, area: bare.area - gone };
  const profiles = across(lines, e, mask, d2, window, blur);
  const core = deepIn(d2, (3 * blur + 0.5) ** 2, e, e1, 0.5 * found.darkest);
  const { contrast, from } = contrastOf(core, profiles, found.darkest, e.length, known);
  const zone = grown(mask, columns, rows, Math.ceil(2.2 * blur) + 1);
  return {
    columns,
    rows,
    pitch,
    clipped,
    mask,
    lengths: lengthsOf(lines, window),
    area: window.area,
    chipped: gone / bare.area,
    level: at.level,
    differs: at.differs,
    dark: at.dark,
    sums: profiles.sums.toSorted((a, b) => a - b),
    peak: profiles.peaks.length === 0 ? 0 : medianOf(profiles.peaks),
    limit: found.limit,
    contrast,
    contrastFrom: from,
    core: core.length,
    darkness: sumOver(bare, (i) => (zone[i] === 1 ? e[i]! : 0)) / bare.area,
  };
}

/** A sum over the window inside the rim. */
function sumOver({ columns, rows, rim }: Window, value: (i: number) => number): number {
  let sum = 0;
  for (let row = rim[1]; row < rows - rim[1]; row++)
    for (let i = row * columns + rim[0], end = row * columns + columns - rim[0]; i < end; i++)
      sum += value(i);
  return sum;
}

/** Spacing reads so much long where all is seen: ends are eaten by half a width, and cracks hide in wider ones. */
const LONG = 0.975;

/** Mean spacing and opening of a look [px]. */
export function lengthsIn(look: Look): { readonly spacingPx: number; readonly openingPx: number } {
  const { dx, dy } = look.lengths;
  const mean = look.sums.reduce((sum, one) => sum + one, 0) / Math.max(1, look.sums.length);
  return {
    spacingPx: dx + dy === 0 ? Infinity : (2 * look.area) / (dx + dy),
    openingPx: mean / look.contrast,
  };
}

/** The figures of a look, as far as they may be told. */
export function readingOf(look: Look, known: Known): PhotoReading {
  const { pitch, sums, contrast, lengths } = look;
  const { spacingPx, openingPx } = lengthsIn(look);
  const trust = trustIn({ ...look, spacingPx, openingPx }, known);
  const told = (one: keyof typeof trust): boolean => trust[one] === 'measured' || trust[one] === 'about';
  const opening = (share: number): number | null =>
    told('opening') ? (sums[Math.floor(share * sums.length)]! / contrast) * pitch : null;
  const [byMarks, spacing] = [known.noise === null ? 1 : LONG, told('spacing')];
  return {
    spacingMm: spacing ? spacingPx * pitch * byMarks : null,
    alongMm: spacing ? (look.area / lengths.dy) * pitch * byMarks : null,
    acrossMm: spacing ? (look.area / lengths.dx) * pitch * byMarks : null,
    spacingWithin: lengths.within,
    openingMm: told('opening') ? openingPx * pitch : null,
    narrowMm: opening(0.1),
    wideMm: opening(0.9),
    openArea: told('area') ? Math.max(0, look.darkness / contrast) : null,
    chipped: look.chipped,
    trust,
    openingPx,
    pxPerMm: 1 / pitch,
    cracks: { columns: look.columns, rows: look.rows, mask: look.mask },
  };
}

/** Blur of a photograph without a frame that is taken for sharp [px, standard deviation], and of each side the rim. */
const SHARP = 1.6;
const RIM = 0.04;

/** What is known of a rectangle whose corners were put on by hand. */
export const byCorners = ({ columns, rows }: Pick<Luma, 'columns' | 'rows'>): Known => ({
  blur: SHARP,
  noise: null,
  overshoot: 0,
  rim: [Math.ceil(RIM * columns), Math.ceil(RIM * rows)],
  paint: null,
  dark: null,
  contrast: null,
});

/** Measures what lies square on. */
export const measureLuma = (
  luma: Luma,
  known: Known = byCorners(luma),
  corrections: readonly Correction[] = [],
): PhotoReading => readingOf(lookAt(luma, known, corrections), known);

/**
 * Measures the cracks of a rectangle in a photograph.
 * @param sizeMm - its sides, across and down [mm]: 10 … 2000
 * @throws InputError where the corners cross, or the rectangle is too small in the picture
 */
export const measurePhoto = (
  picture: Picture,
  corners: Quad,
  sizeMm: { readonly width: number; readonly height: number },
): PhotoReading => measureLuma(rectified(picture, corners, sizeMm).luma);
