import { fromHex } from '../colour';
import { type Scene } from '../outcome';
import { findIslands } from '../raster';
import { fromRim } from '../plan';
import { measurePanel, outsideOf } from './shares';
import { type PanelField } from '../face';

/*
 * How uniform a surface is. Wear that something caused lies in clusters and leaves places alone; a machine or an
 * impatient hand spreads it evenly. Three published measures of spatial pattern tell them apart:
 *
 * - the nearest-neighbour ratio R of Clark & Evans 1954, Ecology 35:445 (mean distance from patch to nearest patch,
 *   against that of random places; with Donnelly's 1978 correction for the edge): near 1 by chance, below where
 *   patches cluster, up to 2.15 on a perfect lattice; formulas from memory;
 * - the spread of quadrat counts, as a coefficient of variation (Greig-Smith 1952, Ann. Bot. 16:293; from memory);
 * - the location quotient: share of wear at the rims over share of area there.
 *
 * Patches have a size and cannot overlap, which alone lifts R to some 1.4: the limit stands above that. The limits are
 * assumed, from what painters call too uniform; fifteen per cent of dark wax is common practice.
 */

/** What came off and what cracked, point by point on a whole panel, row by row. */
export interface SurfaceMarks {
  readonly columns: number;
  readonly rows: number;
  readonly pitchMm: number;
  /** 1 where chips, resists or tools brought another layer to light. */
  readonly gone: Uint8Array;
  /** 1 where a crack is. */
  readonly cracked: Uint8Array;
  /** 1 where a point lies outside an oval panel; null where the panel fills the rows. */
  readonly outside: Uint8Array | null;
  /** Share of the panel under dark wax. */
  readonly darkWax: number;
}

export const NATURAL_CODES = [
  'wear-regular',
  'wear-even',
  'wear-inside-only',
  'crackle-everywhere',
  'crackle-even',
  'dark-wax',
  'natural',
  'plain',
] as const;
export type NaturalCode = (typeof NATURAL_CODES)[number];

export interface Naturalness {
  /** 0 stamped by a machine … 1 as if it came by itself. */
  readonly score: number;
  /** null where next to nothing came off. */
  readonly wear: {
    readonly share: number;
    readonly patches: number;
    /** Clark and Evans' R; null with too few patches. */
    readonly spacingRatio: number | null;
    /** Coefficient of variation of the quadrats' shares. */
    readonly variation: number;
    /** Wear at the rims against what their area would have. */
    readonly rimQuotient: number;
  } | null;
  /** null where nothing cracks. */
  readonly crackle: {
    /** Share of the panel that is crackled. */
    readonly share: number;
    readonly variation: number;
  } | null;
  readonly darkWax: number;
  /** What stands out, the worst first. */
  readonly codes: readonly NaturalCode[];
}

/** Quadrats along the longer side. */
const QUADRATS = 8;
/** Patches are what lies together at a fingertip's size [mm]: single flakes and specks are none. */
const BLOCK = 5;
const FEWEST_PATCHES = 8;
/** A rim as deep as the zones' edge [mm]. */
const RIM = 12;
/** Shares of wear and of cracks under which there is nothing to judge. */
const NOTHING = 0.01;
const CRACKS_SEEN = 0.003;
/** Above these it looks stamped, even, or everywhere. */
export const NATURAL_LIMITS = {
  regular: 1.5,
  even: 0.5,
  everywhere: 0.85,
  crackleEven: 0.3,
  darkWax: 0.15,
} as const;

/** Reads the marks of a played panel. */
export function marksOf(scene: Scene, field: PanelField): SurfaceMarks {
  const { columns, rows, pitchMm } = field.grid;
  const n = columns * rows;
  const gone = new Uint8Array(n);
  const cracked = new Uint8Array(n);
  const outside = outsideOf(scene, field.grid);
  for (let i = 0; i < n; i++) {
    if (outside?.[i] === 1) continue;
    const crack = field.floor[i]! > 0.15;
    cracked[i] = crack ? 1 : 0;
    gone[i] = !crack && field.lost[i]! > 0.5 ? 1 : 0;
  }
  const shares = measurePanel(scene, field).layers;
  const darkWax = scene.layers.reduce((sum, layer, k) => {
    if (layer.finish !== 'wax' || layer.colour === null) return sum;
    const [r, g, b] = fromHex(layer.colour);
    return 0.2126 * r + 0.7152 * g + 0.0722 * b < 0.18 ? sum + shares[k]! : sum;
  }, 0);
  return { columns, rows, pitchMm, gone, cracked, outside, darkWax };
}

/** A quadrat of which less than this lies on the panel tells nothing. */
const QUADRAT_THERE = 0.3;

/** Shares of quadrats about square, row by row. */
function quadrats(marks: SurfaceMarks, mask: Uint8Array): number[] {
  const { columns, rows } = marks;
  const across = columns >= rows ? QUADRATS : Math.max(2, Math.round((QUADRATS * columns) / rows));
  const down = rows > columns ? QUADRATS : Math.max(2, Math.round((QUADRATS * rows) / columns));
  const sums = new Float64Array(across * down);
  const counts = new Float64Array(across * down);
  for (let row = 0; row < rows; row++) {
    const j = Math.floor((row * down) / rows);
    for (let column = 0; column < columns; column++) {
      const i = row * columns + column;
      if (marks.outside?.[i] === 1) continue;
      const q = j * across + Math.floor((column * across) / columns);
      sums[q] = sums[q]! + mask[i]!;
      counts[q] = counts[q]! + 1;
    }
  }
  const whole = (columns * rows) / (across * down);
  return [...counts.keys()].flatMap((q) =>
    counts[q]! < QUADRAT_THERE * whole ? [] : [sums[q]! / counts[q]!],
  );
}

function variationOf(values: readonly number[]): number {
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  if (mean <= 0) return 0;
  const variance = values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length;
  return Math.sqrt(variance) / mean;
}

const sumOf = (mask: Uint8Array): number => mask.reduce((sum, one) => sum + one, 0);
/** Points of the panel. */
const pointsOf = ({ gone, outside }: SurfaceMarks): number =>
  gone.length - (outside === null ? 0 : sumOf(outside));

/** Clark and Evans' ratio of the patches' middles; null with too few of them. */
function spacingRatio(marks: SurfaceMarks): { patches: number; ratio: number | null } {
  const { columns, rows, pitchMm } = marks;
  const block = Math.max(1, Math.round(BLOCK / pitchMm));
  const across = Math.floor(columns / block);
  const down = Math.floor(rows / block);
  const outside = new Float32Array(across * down).fill(1);
  for (let j = 0; j < down; j++) {
    for (let i = 0; i < across; i++) {
      let gone = 0;
      for (let row = j * block; row < (j + 1) * block; row++)
        for (let column = i * block; column < (i + 1) * block; column++)
          gone += marks.gone[row * columns + column]!;
      if (gone > 0.5 * block * block) outside[j * across + i] = 0;
    }
  }
  const grid = { columns: across, rows: down, pitchMm: block * pitchMm, leftMm: 0, topMm: 0 };
  const { xMm, yMm } = findIslands(outside, grid);
  const middles = Array.from(xMm, (x, k): [number, number] => [x, yMm[k]!]);
  const n = middles.length;
  if (n < FEWEST_PATCHES) return { patches: n, ratio: null };
  let sum = 0;
  for (const [x, y] of middles) {
    let nearest = Infinity;
    for (const [u, v] of middles) {
      const d2 = (u - x) ** 2 + (v - y) ** 2;
      if (d2 > 0 && d2 < nearest) nearest = d2;
    }
    sum += Math.sqrt(nearest);
  }
  const width = columns * pitchMm;
  const height = rows * pitchMm;
  const area = pointsOf(marks) * pitchMm ** 2;
  // Round an ellipse by Ramanujan's first formula.
  const round =
    marks.outside === null
      ? 2 * (width + height)
      : (Math.PI / 2) * (3 * (width + height) - Math.sqrt((3 * width + height) * (width + 3 * height)));
  const expected = 0.5 * Math.sqrt(area / n) + ((0.0514 + 0.041 / Math.sqrt(n)) * round) / n;
  return { patches: n, ratio: sum / n / expected };
}

/** Share of wear in the rim over the rim's share of the area. */
function rimQuotient(marks: SurfaceMarks): number {
  const { columns, rows, pitchMm, gone } = marks;
  const depth = Math.max(1, Math.round(Math.min(RIM / pitchMm, 0.2 * Math.min(columns, rows))));
  const size = { width: columns, height: rows, oval: marks.outside !== null };
  let rim = 0;
  let rimGone = 0;
  let all = 0;
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const one = gone[row * columns + column]!;
      all += one;
      const inside = fromRim(size, column + 0.5, row + 0.5);
      if (inside < 0 || inside >= depth) continue;
      rim++;
      rimGone += one;
    }
  }
  return all === 0 ? 1 : rimGone / all / (rim / pointsOf(marks));
}

/** Share of cells, each some islands wide, in which cracks run as densely as they do where they run. */
function crackledShare(marks: SurfaceMarks): number {
  const cells = quadrats(marks, marks.cracked);
  const most = [...cells].sort((a, b) => b - a)[Math.floor(cells.length / 8)]!;
  return most <= 0 ? 0 : cells.filter((cell) => cell > 0.3 * most).length / cells.length;
}

const falling = (value: number, from: number, to: number): number =>
  1 - Math.min(1, Math.max(0, (value - from) / (to - from)));

/** Judges how natural a surface looks. */
export function naturalness(marks: SurfaceMarks): Naturalness {
  const goneShare = sumOf(marks.gone) / pointsOf(marks);
  const crackShare = sumOf(marks.cracked) / pointsOf(marks);
  const { patches, ratio } = spacingRatio(marks);
  const wear =
    goneShare < NOTHING
      ? null
      : {
          share: goneShare,
          patches,
          spacingRatio: ratio,
          variation: variationOf(quadrats(marks, marks.gone)),
          rimQuotient: rimQuotient(marks),
        };
  const crackle =
    crackShare < CRACKS_SEEN
      ? null
      : { share: crackledShare(marks), variation: variationOf(quadrats(marks, marks.cracked)) };
  const faults: { code: NaturalCode; kept: number }[] = [];
  const judge = (code: NaturalCode, wrong: boolean, kept: number): void => {
    if (wrong) faults.push({ code, kept });
  };
  if (wear !== null) {
    const r = wear.spacingRatio ?? 1;
    judge('wear-regular', r > NATURAL_LIMITS.regular, falling(r, 1.3, 1.9));
    // Nearly all of it gone is no pattern any more.
    judge(
      'wear-even',
      wear.variation < NATURAL_LIMITS.even && wear.share < 0.9,
      0.3 + 0.7 * (wear.variation / NATURAL_LIMITS.even),
    );
    judge('wear-inside-only', wear.rimQuotient < 0.7, 0.75);
  }
  if (crackle !== null) {
    judge('crackle-everywhere', crackle.share > NATURAL_LIMITS.everywhere, 0.6);
    judge(
      'crackle-even',
      crackle.share > NATURAL_LIMITS.everywhere && crackle.variation < NATURAL_LIMITS.crackleEven,
      0.85,
    );
  }
  judge('dark-wax', marks.darkWax > NATURAL_LIMITS.darkWax, falling(marks.darkWax, 0.1, 0.6));
  faults.sort((a, b) => a.kept - b.kept);
  const score = faults.reduce((all, fault) => all * fault.kept, 1);
  const nothing = wear === null && crackle === null && marks.darkWax < NOTHING;
  return {
    score,
    wear,
    crackle,
    darkWax: marks.darkWax,
    codes: faults.length > 0 ? faults.map(({ code }) => code) : [nothing ? 'plain' : 'natural'],
  };
}
