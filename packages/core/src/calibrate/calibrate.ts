import { InputError } from '../errors';
import { type BoardCentre, type FactorKey, type FactorKind, type Learned, PRIOR_SPREAD } from '../media';
import { descend, inverse, pointAt } from '../numeric/fit';
import { EIGHTY_PER_CENT } from '../numeric/normal';
import { floorFor } from '../readout';
import {
  type Answers,
  answersOf,
  asLearnt,
  asRead,
  keysOf,
  readingsOf,
  residualsOf,
  SCATTER,
} from './answers';
import {
  type Calibration,
  type Cell,
  type CellAirs,
  type Compared,
  isShare,
  type Reading,
  type Told,
} from './types';

/** No factor leaves the tables by more than this [ln]. */
const MOST = 2.5;
/** Step of the numeric slopes [ln], and rounds of the fit. */
const SLOPE = 0.06;
const ROUNDS = 12;
/** Readings count as Student's t with four degrees of freedom has it: one that is far off does not drag the rest along. */
const FULL_WEIGHT = 5 / 4;
/** A board that is further off than this, in its scatter, is told of. */
const DISAGREES = 1.8;

export const priorOf = (key: FactorKey): number => PRIOR_SPREAD[key.split(':')[0] as FactorKind];

const learnedAt = (keys: readonly FactorKey[], at: readonly number[]): Learned => ({
  keys,
  mean: at,
  covariance: keys.map(() => keys.map(() => 0)),
});

/**
 * Fits what is uncertain to what was read: the most likely factors under normal priors of their logarithms, readings
 * weighed by Student's t (ν = 4), by damped least squares on the forecast itself; what is left uncertain from the
 * curvature there.
 *
 * @param cells - of all boards; of the same cells in any order the same comes out
 * @throws InputError without any reading; as `forecast`
 */
export function calibrate(cells: readonly Cell[]): Calibration {
  const used = cells
    .filter((cell) => readingsOf(cell).length > 0 || cell.cracked !== null)
    .sort((a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0));
  if (used.length === 0)
    throw new InputError({
      code: 'calibrate.readings',
      field: 'cells',
      value: cells.length,
      allowed: 'at least one cell with something read off it',
    });
  const keys = [...new Set(used.flatMap((cell) => keysOf(cell)))].sort();
  const priors = keys.map(priorOf);
  const count = used.reduce((sum, cell) => sum + residualsOf(cell, answersOf(cell, null)).length, 0);
  const answersAt = (at: readonly number[]): Answers[] =>
    used.map((cell) => answersOf(cell, learnedAt(keys, at)));
  const off = (answers: readonly Answers[]): number[] =>
    used.flatMap((cell, i) => residualsOf(cell, answers[i]!));
  const residualsAt = (at: readonly number[]): number[] => [
    ...off(answersAt(at)),
    ...at.map((value, k) => value / priors[k]!),
  ];
  const start = keys.map(() => 0);
  const found = descend(pointAt(start, residualsAt(start), count), residualsAt, {
    low: -MOST,
    high: MOST,
    slope: SLOPE,
    iterations: ROUNDS,
    robust: count,
  });
  const { at } = found;
  const residuals = found.residuals.slice(0, count);
  const weights = residuals.map((r) => 5 / (4 + r * r));
  const slopes = keys.map((_, k) => {
    const moved = off(answersAt(at.map((value, i) => (i === k ? value + SLOPE : value))));
    return moved.map((r, i) => (r - residuals[i]!) / SLOPE);
  });
  const covariance = inverse(
    keys.map((_, i) =>
      keys.map((__, j) => {
        const told = slopes[i]!.reduce((sum, slope, r) => sum + weights[r]! * slope * slopes[j]![r]!, 0);
        return told + (i === j ? 1 / priors[i]! ** 2 : 0);
      }),
    ),
  );
  const centres = centresOf(used);
  const learned: Learned = { keys, mean: at, covariance, centre: centres };
  return {
    learned,
    centres,
    airs: airsOf(used),
    ended: found.ended,
    lessons: keys.map((key, k) => ({
      key,
      factor: Math.exp(at[k]!),
      withinBefore: Math.exp(EIGHTY_PER_CENT * priors[k]!),
      within: Math.exp(EIGHTY_PER_CENT * Math.sqrt(covariance[k]![k]!)),
    })),
    compared: comparedOf(used, learned, weights),
    disagree: disagreeing(used, residuals, weights),
  };
}

/** What is foretold of the readings of a cell, with what is left uncertain. */
export function foretell(
  cell: Cell,
  learned: Learned | null,
  keys: readonly FactorKey[],
): Record<Reading, Told> {
  const mean = keys.map((key) => learned?.mean[learned.keys.indexOf(key)] ?? 0);
  const here = answersOf(cell, learnedAt(keys, mean));
  const moved = keys.map((_, k) =>
    answersOf(
      cell,
      learnedAt(
        keys,
        mean.map((value, i) => (i === k ? value + SLOPE : value)),
      ),
    ),
  );
  const covariance = (i: number, j: number): number => {
    const [a, b] = [learned?.keys.indexOf(keys[i]!) ?? -1, learned?.keys.indexOf(keys[j]!) ?? -1];
    if (a >= 0 && b >= 0) return learned!.covariance[a]![b]!;
    return i === j ? priorOf(keys[i]!) ** 2 : 0;
  };
  const { top, below } = here.films;
  const there = ({ medium, solidsUm }: typeof top): { like: string; thickness: number } => ({
    like: medium.like,
    thickness: solidsUm * 1e-6,
  });
  const floor = below === null ? 0 : floorFor(learned, there(top), there(below), top.sample);
  const told = (reading: Reading): Told => {
    const value = here.read[reading];
    if (value === null) return { value: null, low: null, high: null };
    const slopes = moved.map(({ read }) => (read[reading] === null ? 0 : (read[reading]! - value) / SLOPE));
    const known = slopes.reduce(
      (sum, slope, i) => sum + slopes.reduce((own, other, j) => own + slope * other * covariance(i, j), 0),
      0,
    );
    const by =
      EIGHTY_PER_CENT *
      Math.sqrt(Math.max(0, known) + SCATTER[reading] ** 2 + (isShare(reading) ? 2 : 1) * floor);
    const as = (one: number): number => asRead(reading, one);
    return { value: as(value), low: as(value - by), high: as(value + by) };
  };
  return {
    spacing: told('spacing'),
    opening: told('opening'),
    first: told('first'),
    touchBelow: told('touchBelow'),
    touchTop: told('touchTop'),
    chips: told('chips'),
    worn: told('worn'),
    under: told('under'),
  };
}

function comparedOf(cells: readonly Cell[], learned: Learned, weights: readonly number[]): Compared[] {
  let at = 0;
  return cells.flatMap((cell) => {
    const before = foretell(cell, null, learned.keys);
    const after = foretell(cell, learned, learned.keys);
    const compared = readingsOf(cell).map((reading): Compared => ({
      cell: cell.id,
      board: cell.board,
      reading,
      read: cell.read[reading]!,
      before: before[reading],
      after: after[reading],
      weight: weights[at++]! / FULL_WEIGHT,
    }));
    if (cell.cracked !== null) at += 1;
    return compared;
  });
}

/** Boards of which the readings, weighed as they count, are further off than they scatter. */
function disagreeing(
  cells: readonly Cell[],
  residuals: readonly number[],
  weights: readonly number[],
): Calibration['disagree'] {
  const sums = new Map<string, { off: number; count: number }>();
  let at = 0;
  for (const cell of cells) {
    const sum = sums.get(cell.board) ?? { off: 0, count: 0 };
    sums.set(cell.board, sum);
    const count = readingsOf(cell).length + (cell.cracked === null ? 0 : 1);
    for (let k = 0; k < count; k++, at++) {
      sum.off += weights[at]! * residuals[at]! ** 2;
      sum.count += 1;
    }
  }
  return [...sums].flatMap(([board, { off, count }]) =>
    count > 1 && off / count > DISAGREES ? [{ board, off: Math.sqrt(off / count) }] : [],
  );
}

/** The air when the top coats of cells were laid, from the least to the most of it. */
function airsOf(cells: readonly Cell[]): CellAirs {
  const samples = cells.map((cell) => answersOf(cell, null).films.top.sample);
  const range = (of: (sample: (typeof samples)[number]) => number): [number, number] => [
    Math.min(...samples.map(of)),
    Math.max(...samples.map(of)),
  ];
  return { humidity: range((sample) => sample.humidity), temperature: range((sample) => sample.temperature) };
}

/** Where the boards stood, by what cracks on what: means over their cells. */
function centresOf(cells: readonly Cell[]): BoardCentre[] {
  const found = new Map<string, BoardCentre[]>();
  for (const cell of cells) {
    const { top, below } = answersOf(cell, null).films;
    if (below === null || below.solidsUm <= 0 || top.solidsUm <= 0) continue;
    const own: BoardCentre = {
      top: top.medium.like,
      below: below.medium.like,
      films: [top.solidsUm * 1e-6, below.solidsUm * 1e-6],
      humidity: top.sample.humidity,
      temperature: top.sample.temperature,
    };
    const key = `${own.top} ${own.below}`;
    found.set(key, [...(found.get(key) ?? []), own]);
  }
  return [...found.values()].map((all) => {
    const mean = (of: (one: BoardCentre) => number): number =>
      all.reduce((sum, one) => sum + of(one), 0) / all.length;
    return {
      ...all[0]!,
      films: [
        Math.exp(mean(({ films }) => Math.log(films[0]))),
        Math.exp(mean(({ films }) => Math.log(films[1]))),
      ],
      humidity: mean(({ humidity }) => humidity),
      temperature: mean(({ temperature }) => temperature),
    };
  });
}

/** How far predictions of readings that did not teach are off: of the tables, of the fit, of the plainest rule there is. */
export interface LeftOut {
  readonly reading: Reading;
  readonly count: number;
  /** Mean size of ln or log odds, read over foretold. */
  readonly tables: number;
  readonly fitted: number;
  /** Every figure by the median of how far the tables were off. */
  readonly median: number;
  /** Share of readings that lay within their 8 in 10 bands. */
  readonly held: number;
}

/**
 * Leaves one cell out after the other (with several boards one board), fits the others and foretells it.
 * @throws InputError as `calibrate`
 */
export function leaveOneOut(cells: readonly Cell[]): LeftOut[] {
  const boards = [...new Set(cells.map(({ board }) => board))];
  const groups =
    boards.length > 1
      ? boards.map((board) => cells.filter((cell) => cell.board === board))
      : cells.map((cell) => [cell]);
  const rows: { reading: Reading; tables: number; fitted: number; median: number; held: boolean }[] = [];
  for (const out of groups) {
    const rest = cells.filter((cell) => !out.includes(cell));
    if (!rest.some((cell) => readingsOf(cell).length > 0)) continue;
    const { learned } = calibrate(rest);
    for (const cell of out) {
      const [plain, told] = [foretell(cell, null, learned.keys), foretell(cell, learned, learned.keys)];
      for (const reading of readingsOf(cell)) {
        const [tables, fitted] = [plain[reading].value, told[reading].value];
        if (tables === null || fitted === null) continue;
        const off = (value: number): number =>
          asLearnt(reading, cell.read[reading]!) - asLearnt(reading, value);
        const ratios = rest.flatMap((other) => {
          const own = answersOf(other, null).read[reading];
          const read = other.read[reading];
          return own === null || read === undefined ? [] : [asLearnt(reading, read) - own];
        });
        const { low, high } = told[reading];
        rows.push({
          reading,
          tables: Math.abs(off(tables)),
          fitted: Math.abs(off(fitted)),
          median: Math.abs(off(tables) - middle(ratios)),
          held: cell.read[reading]! >= low! && cell.read[reading]! <= high!,
        });
      }
    }
  }
  return (Object.keys(SCATTER) as Reading[]).flatMap((reading) => {
    const own = rows.filter((row) => row.reading === reading);
    if (own.length === 0) return [];
    const mean = (of: (row: (typeof own)[number]) => number): number =>
      own.reduce((sum, row) => sum + of(row), 0) / own.length;
    return [
      {
        reading,
        count: own.length,
        tables: mean(({ tables }) => tables),
        fitted: mean(({ fitted }) => fitted),
        median: mean(({ median }) => median),
        held: mean(({ held }) => (held ? 1 : 0)),
      },
    ];
  });
}

/** The middle of several numbers; 0 of none. */
function middle(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const half = sorted.length >> 1;
  return sorted.length === 0
    ? 0
    : sorted.length % 2 === 1
      ? sorted[half]!
      : (sorted[half - 1]! + sorted[half]!) / 2;
}
