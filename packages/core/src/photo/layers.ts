import { type Colour } from '../colour';
import { partsOf } from './kernels';
import { type Tinted } from './types';

/*
 * Which layer is seen where: colours of all cells of a board first, then the shares of each. Colours are linear, against
 * white paper.
 */

/** How far a colour may lie from what was planned, in square roots of linear light, and how much darker or lighter. */
const DRIFT = 0.16;
const SHADE = { least: 0.35, most: 1.15 } as const;
/** Pixels from which on a layer's colour is read, and not taken as planned. */
const READ_FROM = 100;
const ROUNDS = 2;
/** Bins a channel's median is read from, to 1.5 times paper. */
const BINS = { count: 512, perUnit: 341 } as const;
/** Pixels round a place that are of the same layer where it is taken for its colour. */
const INSIDE = 2;

const root = (value: number): number => Math.sqrt(Math.max(0, value));

/** Means of two by two pixels. */
export function halved({ columns, rows, pitch, rgb }: Tinted): Tinted {
  const [across, down] = [columns >> 1, rows >> 1];
  const out = new Float32Array(3 * across * down);
  for (let y = 0; y < down; y++)
    for (let x = 0; x < across; x++)
      for (let c = 0; c < 3; c++) {
        const i = 3 * (2 * y * columns + 2 * x) + c;
        const j = i + 3 * columns;
        out[3 * (y * across + x) + c] = (rgb[i]! + rgb[i + 3]! + rgb[j]! + rgb[j + 3]!) / 4;
      }
  return { columns: across, rows: down, pitch: 2 * pitch, rgb: out };
}

/** For each pixel the nearest of some colours and the next. */
function nearest(
  { rgb }: Tinted,
  colours: readonly Colour[],
): { readonly first: Uint8Array; readonly second: Uint8Array } {
  const first = new Uint8Array(rgb.length / 3);
  const second = new Uint8Array(first.length);
  const roots = Float32Array.from(colours.flatMap((colour) => colour.map(root)));
  for (let i = 0, o = 0; i < first.length; i++, o += 3) {
    const [r, g, b] = [root(rgb[o]!), root(rgb[o + 1]!), root(rgb[o + 2]!)];
    let [near, next, nearBy, nextBy] = [0, 0, Infinity, Infinity];
    for (let k = 0, p = 0; p < roots.length; k++, p += 3) {
      const by = (r - roots[p]!) ** 2 + (g - roots[p + 1]!) ** 2 + (b - roots[p + 2]!) ** 2;
      if (by < nearBy) {
        [next, nextBy] = [near, nearBy];
        [near, nearBy] = [k, by];
      } else if (by < nextBy) [next, nextBy] = [k, by];
    }
    first[i] = near;
    second[i] = next;
  }
  return { first, second };
}

/** How far a pixel is off a colour, wherever it lies: floors of cracks lie in shade. */
function drift(rgb: Float32Array, at: number, colour: Colour): number {
  const seen = [root(rgb[at]!), root(rgb[at + 1]!), root(rgb[at + 2]!)];
  const own = colour.map(root);
  const dot = (a: readonly number[], b: readonly number[]): number =>
    a[0]! * b[0]! + a[1]! * b[1]! + a[2]! * b[2]!;
  const shade = Math.min(SHADE.most, Math.max(SHADE.least, dot(seen, own) / Math.max(1e-6, dot(own, own))));
  return Math.hypot(...seen.map((value, c) => value - shade * own[c]!));
}

/**
 * Colours of layers as they were photographed: medians of what lies well inside of each, over all cells, near what was
 * planned; as planned where too little of a layer is seen.
 */
export function coloursIn(cells: readonly Tinted[], planned: readonly Colour[]): Colour[] {
  let colours = planned;
  for (let round = 0; round < ROUNDS; round++) {
    const counts = planned.map(() => 0);
    const bins = planned.map(() => [0, 1, 2].map(() => new Int32Array(BINS.count)));
    for (const cell of cells) {
      const { columns, rows, rgb } = cell;
      const { first } = nearest(cell, colours);
      for (let y = INSIDE; y < rows - INSIDE; y++)
        for (let i = y * columns + INSIDE, end = y * columns + columns - INSIDE; i < end; i++) {
          const layer = first[i]!;
          const same =
            first[i - INSIDE] === layer &&
            first[i + INSIDE] === layer &&
            first[i - INSIDE * columns] === layer &&
            first[i + INSIDE * columns] === layer;
          if (!same) continue;
          if (drift(rgb, 3 * i, planned[layer]!) > DRIFT) continue;
          counts[layer] = counts[layer]! + 1;
          for (let c = 0; c < 3; c++) {
            const bin = Math.min(BINS.count - 1, Math.max(0, Math.floor(rgb[3 * i + c]! * BINS.perUnit)));
            bins[layer]![c]![bin] = bins[layer]![c]![bin]! + 1;
          }
        }
    }
    colours = colours.map((old, k): Colour => {
      if (counts[k]! < READ_FROM) return old;
      const median = (channel: number): number => {
        let sum = 0;
        const at = bins[k]![channel]!.findIndex((count) => (sum += count) >= counts[k]! / 2);
        return (at + 0.5) / BINS.perUnit;
      };
      return [median(0), median(1), median(2)];
    });
  }
  return [...colours];
}

/** Colours nearer to each other than this, in square roots of linear light, are not told apart. */
const APART = 0.15;

/** Whether each of some colours can be told from all others. */
export const areApart = (colours: readonly Colour[]): boolean =>
  colours.every((one, k) =>
    colours
      .slice(k + 1)
      .every((other) => Math.hypot(...one.map((value, c) => root(value) - root(other[c]!))) >= APART),
  );

export interface LayersSeen {
  /** Share of the area by layer, from the ground up. */
  readonly shares: readonly number[];
  /** Median size by area of what stays of the top layer, as a diameter [mm]; null where most runs out of the cell. */
  readonly islandMm: number | null;
  /** The same of where it is gone, in places that are no cracks but wider; null where there are none. */
  readonly lostMm: number | null;
}

/** Parts smaller than this are no islands [mm]. */
const LEAST_MM = 0.4;

/** Median size by area of the parts of a mask [mm]; null where there are none, or most of them are cut. */
function medianSize(mask: Uint8Array, { columns, rows, pitch }: Tinted, corners: boolean): number | null {
  const { sizes, cut } = partsOf(mask, columns, rows, corners);
  const least = Math.max(9, (LEAST_MM / pitch) ** 2);
  const parts = sizes.flatMap((size, k) => (size < least ? [] : [{ size, cut: cut[k]! }]));
  const all = parts.reduce((sum, { size }) => sum + size, 0);
  const outside = parts.reduce((sum, one) => sum + (one.cut ? one.size : 0), 0);
  if (all === 0 || outside > all / 2) return null;
  let sum = 0;
  const median = parts.toSorted((a, b) => a.size - b.size).find(({ size }) => (sum += size) >= all / 2)!;
  return 2 * Math.sqrt(median.size / Math.PI) * pitch;
}

/** @param colours - of the layers, from the ground up, at least two */
export function layersIn(cell: Tinted, colours: readonly Colour[]): LayersSeen {
  const { rgb } = cell;
  const { first, second } = nearest(cell, colours);
  const top = colours.length - 1;
  const shares = colours.map(() => 0);
  const stays = new Uint8Array(first.length);
  for (let i = 0, o = 0; i < first.length; i++, o += 3) {
    const [near, next] = [first[i]!, second[i]!];
    const [a, b] = [colours[near]!, colours[next]!];
    // A pixel on a border is some of both.
    let along = 0;
    let length = 1e-9;
    for (let c = 0; c < 3; c++) {
      along += (rgb[o + c]! - a[c]!) * (b[c]! - a[c]!);
      length += (b[c]! - a[c]!) ** 2;
    }
    // What is a little beyond its own colour makes up for what is a little short of it.
    const share = Math.min(1, Math.max(-0.5, along / length));
    shares[near] = shares[near]! + 1 - share;
    shares[next] = shares[next]! + share;
    stays[i] = (share > 0.5 ? next : near) === top ? 1 : 0;
  }
  return {
    shares: shares.map((sum) => sum / first.length),
    islandMm: medianSize(stays, cell, false),
    lostMm: medianSize(
      stays.map((one) => 1 - one),
      cell,
      true,
    ),
  };
}
