import { type Basis } from '../basis';
import { courseOf, type FilmRun } from '../course';
import { forecast } from '../forecast';
import { type FactorKey, type Learned } from '../media';
import { underShare } from '../outcome';
import { figureRow } from '../readout';
import { type DistressTool } from '../tools';
import { normalQuantile } from '../numeric/normal';
import { type Cell, isShare, type Reading } from './types';

/** How far one reading is off the next of the same cell [sd of ln, of log odds for a share]. */
export const SCATTER: Readonly<Record<Reading, number>> = {
  spacing: figureRow('spacing').scatter,
  opening: figureRow('opening').scatter,
  first: figureRow('firstCracks').scatter,
  // A person judges a state to 15 %, and the tables name it a little otherwise; assumed.
  touchBelow: 0.17,
  touchTop: 0.17,
  chips: figureRow('chips').scatter,
  worn: figureRow('worn').scatter,
  // Judged by eye over all of a part, as wear is; assumed.
  under: figureRow('worn').scatter,
};

/** Shares nearer 0 or 1 than this are taken for this. */
const EDGE = 0.005;
/** Log odds of a share; logarithm of a length or time. */
export function asLearnt(reading: Reading, value: number): number {
  if (!isShare(reading)) return Math.log(value);
  const share = Math.min(1 - EDGE, Math.max(EDGE, value));
  return Math.log(share / (1 - share));
}
export const asRead = (reading: Reading, learnt: number): number =>
  isShare(reading) ? 1 / (1 + Math.exp(-learnt)) : Math.exp(learnt);

/** What a cell comes to with what is learned: as logarithms and log odds; null where there is nothing to read. */
export interface Answers {
  readonly read: Readonly<Record<Reading, number | null>>;
  /** Share of the film that cracks. */
  readonly crackedShare: number;
  readonly films: { readonly top: FilmRun; readonly below: FilmRun | null };
  /** Medium of the lowest film above the boundary that parts. */
  readonly parts: string;
}

export const withLearned = (basis: Basis, learned: Learned | null): Basis => ({
  ...basis,
  shop: { ...basis.shop, learned },
});

/**
 * What a cell comes to.
 * @param reads - what is read off it
 * @throws InputError as `forecast`
 */
export function answersOf(
  { basis, top, read }: Cell,
  learned: Learned | null,
  reads: readonly Reading[] = readingsOf({ read }),
): Answers {
  const on = withLearned(basis, learned);
  const course = courseOf(on);
  const index = Math.max(
    0,
    course.films.findIndex(({ step }) => step.id === top),
  );
  const film = course.films[index]!;
  const below = course.films[index - 1] ?? null;
  const cracks = course.cracks[index] ?? null;
  const since = (of: FilmRun | null): number | null =>
    of?.openStates.touch == null ? null : of.openStates.touch - of.laidAt;
  const first = cracks?.firstAt == null ? null : cracks.firstAt - film.laidAt;
  // Only where it was read: it takes all that comes of a plan.
  const result = reads.some(isShare) ? forecast(on) : null;
  const whole = result?.whole ?? null;
  const ln = (value: number | null | undefined): number | null =>
    value == null || !(value > 0) ? null : Math.log(value);
  return {
    read: {
      spacing: ln(cracks === null ? null : cracks.pattern.spacingUm * 1e-6),
      opening: ln(cracks === null ? null : cracks.pattern.openingUm * 1e-6),
      first: ln(first),
      touchBelow: ln(since(below)),
      touchTop: ln(since(film)),
      chips: whole === null ? null : asLearnt('chips', whole.chippedShare),
      worn: whole === null ? null : asLearnt('worn', whole.wornShare),
      under: result === null ? null : asLearnt('under', underShare(result)),
    },
    crackedShare: cracks?.pattern.crackedShare ?? 0,
    films: { top: film, below },
    parts: course.films[cracks?.boundary ?? index]!.medium.key,
  };
}

/** Share of a film from which a person says that it cracked; and how far people differ [standard deviations]; assumed. */
const CRACKED_FROM = 0.3;
const CRACKED_SCATTER = 0.6;
/** A reading of what is not foretold at all is off by so much, wherever factors go. */
const NEVER = 4;

/** How far each reading of a cell is off, in its scatter: those read, in order, then whether it cracked. */
export function residualsOf(cell: Cell, answers: Answers): number[] {
  const off = readingsOf(cell).map((reading) => {
    const told = answers.read[reading];
    return told === null ? NEVER : (asLearnt(reading, cell.read[reading]!) - told) / SCATTER[reading];
  });
  const share = Math.min(1 - 1e-6, Math.max(1e-6, answers.crackedShare));
  const beyond = (normalQuantile(share) - normalQuantile(CRACKED_FROM)) / CRACKED_SCATTER;
  return cell.cracked === null ? off : [...off, Math.max(0, cell.cracked ? -beyond : beyond)];
}

/** What was read off a cell, in order. */
export const readingsOf = ({ read }: Pick<Cell, 'read'>): Reading[] =>
  (Object.keys(SCATTER) as Reading[]).filter((reading) => read[reading] !== undefined);

/** The tools that were used on a cell, each once. */
const toolsOf = ({ basis }: Cell): DistressTool[] => [
  ...new Set(basis.plan.steps.flatMap((step) => (step.kind === 'distress' ? [step.tool] : []))),
];

/** The factors that readings of a cell can tell of: those that were taken, or others that would be. */
export function keysOf(cell: Cell, reads: readonly Reading[] = readingsOf(cell)): FactorKey[] {
  const { films, parts } = answersOf(cell, null);
  const [top, below] = [films.top.medium.key, films.below?.medium ?? null];
  const has = (reading: Reading): boolean => reads.includes(reading);
  const shape = has('spacing') || has('opening') || cell.cracked !== null;
  return [
    'air',
    ...(has('touchBelow') && below !== null ? [`dry:${below.key}` as const] : []),
    ...(has('touchTop') ? [`dry:${top}` as const] : []),
    ...(shape && below !== null && below.slipRate > 0 ? [`slip:${below.key}` as const] : []),
    ...(shape || has('first') ? [`strain:${top}` as const] : []),
    ...(has('first') ? [`tough:${top}` as const] : []),
    ...(has('chips') || has('under') ? [`bond:${parts}` as const] : []),
    ...(has('worn') || has('under') ? toolsOf(cell).map((tool) => `wear:${tool}` as const) : []),
  ];
}
