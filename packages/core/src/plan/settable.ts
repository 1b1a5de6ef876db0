import { PLAN_RANGES } from './ranges';
import { type Distress, type FilmStep, isFilm, type Step } from './types';

/** A number of a step that a hand can set, in SI. */
export interface Settable {
  readonly range: keyof typeof PLAN_RANGES;
  /** null where the step has no such number. */
  readonly read: (step: Step) => number | null;
  /** The step with the number set; unchanged where it has none. */
  readonly write: (step: Step, value: number) => Step;
}

function settable<S extends Step>(
  has: (step: Step) => step is S,
  range: keyof typeof PLAN_RANGES,
  read: (step: S) => number,
  write: (step: S, value: number) => S,
): Settable {
  return {
    range,
    read: (step) => (has(step) ? read(step) : null),
    write: (step, value) => (has(step) ? write(step, value) : step),
  };
}

type Kind<K extends Step['kind']> = (step: Step) => step is Extract<Step, { kind: K }>;
const is =
  <K extends Step['kind']>(kind: K): Kind<K> =>
  (step): step is Extract<Step, { kind: K }> =>
    step.kind === kind;
const onFilm = (range: keyof typeof PLAN_RANGES, key: 'thickness' | 'dilution' | 'passes'): Settable =>
  settable<FilmStep>(
    isFilm,
    range,
    (s) => s[key],
    (s, value) => ({ ...s, [key]: value }),
  );
const waits = (step: Step): step is Step & { start: { rule: 'after'; wait: number } } =>
  step.start.rule === 'after';

/** The one table of what a hand can set in a step. */
export const SETTABLES = {
  thickness: onFilm('thickness', 'thickness'),
  dilution: onFilm('dilution', 'dilution'),
  passes: onFilm('passes', 'passes'),
  cover: settable<FilmStep>(
    isFilm,
    'share',
    (s) => s.cover.share,
    (s, share) => ({ ...s, cover: { ...s.cover, share } }),
  ),
  bonding: settable(
    is('coat'),
    'share',
    (s) => s.bonding,
    (s, bonding) => ({ ...s, bonding }),
  ),
  coats: settable(
    is('seal'),
    'sealCoats',
    (s) => s.coats,
    (s, coats) => ({ ...s, coats }),
  ),
  resist: settable(
    is('resist'),
    'share',
    (s) => s.share,
    (s, share) => ({ ...s, share }),
  ),
  rounds: settable(
    is('distress'),
    'rounds',
    (s) => s.rounds,
    (s, rounds) => ({ ...s, rounds }),
  ),
  pressure: settable(
    is('distress'),
    'pressure',
    (s) => s.pressure,
    (s, pressure) => ({ ...s, pressure }),
  ),
  /** Rounds times pressure. */
  work: settable<Distress>(
    is('distress'),
    'rounds',
    (s) => s.rounds * s.pressure,
    (s, work) => ({ ...s, ...roundsFor(work) }),
  ),
  heat: settable(
    is('heat'),
    'heatDuration',
    (s) => s.duration,
    (s, duration) => ({ ...s, duration }),
  ),
  rewet: settable(
    is('rewet'),
    'rewetAmount',
    (s) => s.amount,
    (s, amount) => ({ ...s, amount }),
  ),
  /** After the step before it. */
  wait: settable(
    waits,
    'wait',
    (s) => s.start.wait,
    (s, wait) => ({ ...s, start: { rule: 'after', wait } }),
  ),
} as const satisfies Record<string, Settable>;
export type SettableKey = keyof typeof SETTABLES;

/** Pressure that may be asked of a hand where rounds cannot tell the work. */
const MOST_PRESSURE = 3;

/** Rounds and pressure that give an amount of work: an ordinary hand first, pressure where rounds cannot tell it. */
export function roundsFor(work: number): { rounds: number; pressure: number } {
  const most = PLAN_RANGES.rounds.max;
  const rounds = Math.min(most, Math.max(1, Math.round(work)));
  return { rounds, pressure: Math.min(MOST_PRESSURE, Math.max(PLAN_RANGES.pressure.min, work / rounds)) };
}
