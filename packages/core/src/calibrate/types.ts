import { type Basis } from '../basis';
import { type BoardCentre, type FactorKey, type Learned } from '../media';

/*
 * A sample board, or any piece that was measured, says how far the tables are off for this shop's paints, air and
 * hands. What is learned are the factors of `media/learned`.
 */

export const READINGS = [
  'spacing',
  'opening',
  'first',
  'touchBelow',
  'touchTop',
  'chips',
  'worn',
  'under',
] as const;
/**
 * What is read off a cell: mean spacing and opening of its cracks [m], when the first of them came and when the film and
 * the one below it were touch-dry [s since each was laid], the shares that chipped and were worn off, and the share
 * on which colours below the top one show.
 */
export type Reading = (typeof READINGS)[number];

/** Shares spread as log odds, lengths and times as logarithms. */
export const isShare = (reading: Reading): boolean =>
  reading === 'chips' || reading === 'worn' || reading === 'under';

/** A cell of a board, or a part of a piece, with what was read off it. */
export interface Cell {
  readonly id: string;
  /** The board it is on. */
  readonly board: string;
  /** As it was carried out, on what the shop knows; what was learned before does not count. */
  readonly basis: Basis;
  /** The step that laid the film that was to crack. */
  readonly top: string;
  readonly read: Readonly<Partial<Record<Reading, number>>>;
  /** Whether it cracked at all; null where nobody said. */
  readonly cracked: boolean | null;
}

/** A reading beside what is foretold of it: ln of a length or time, log odds of a share, with 8 in 10 bands. */
export interface Compared {
  readonly cell: string;
  readonly board: string;
  readonly reading: Reading;
  readonly read: number;
  readonly before: Told;
  readonly after: Told;
  /** How much it counted, 1 as much as it may, near 0 where it does not fit the others. */
  readonly weight: number;
}
/** In the reading's own unit; null where it is not foretold at all. */
export interface Told {
  readonly value: number | null;
  readonly low: number | null;
  readonly high: number | null;
}

/** What was learned of one factor. */
export interface Lesson {
  readonly key: FactorKey;
  /** Factor on the tables. */
  readonly factor: number;
  /** 8 in 10 lie within this factor of it, before and after. */
  readonly withinBefore: number;
  readonly within: number;
}

/** The air that cells dried in, from the least to the most of it. */
export interface CellAirs {
  /** Relative, 0 to 1. */
  readonly humidity: readonly [number, number];
  /** [K] */
  readonly temperature: readonly [number, number];
}

export interface Calibration {
  readonly learned: Learned;
  readonly lessons: readonly Lesson[];
  readonly compared: readonly Compared[];
  readonly centres: readonly BoardCentre[];
  readonly airs: CellAirs;
  readonly ended: 'converged' | 'no-better' | 'max';
  /** Boards whose readings the factors cannot explain together, with how far they are off: 1 as far as they scatter. */
  readonly disagree: readonly { readonly board: string; readonly off: number }[];
}
