import { type Basis, momentOf } from '../basis';
import { type Forecast } from '../forecast';
import { isClear, isOf } from '../media';
import {
  type FilmStep,
  isFilm,
  PLAN_RANGES,
  type PanelPlan,
  SETTABLES,
  type SettableKey,
  type Step,
} from '../plan';

/** A knob a painter can turn, with how far it was turned to see what it does. */
export interface Knob {
  /** A number of a step, its moment, or the air. */
  readonly kind: Exclude<SettableKey, 'work' | 'wait'> | 'moment' | 'temperature' | 'humidity';
  /** The step it belongs to; null for the air. */
  readonly stepId: string | null;
  /** Turned by this much, in the knob's own SI unit (passes, rounds, coats: number). */
  readonly by: number;
}

/** A knob with the plan as it would be. */
interface TurnedPlan {
  readonly knob: Knob;
  readonly plan: PanelPlan;
}

/** A knob with the forecast's basis as it would be. */
export interface Turned {
  readonly knob: Knob;
  readonly basis: Basis;
}

function inRange(key: keyof typeof PLAN_RANGES, value: number): number {
  const range = PLAN_RANGES[key];
  return Math.min(range.max, Math.max(range.min, value));
}

const withStep = (plan: PanelPlan, id: string, change: (step: Step) => Step): PanelPlan => ({
  ...plan,
  steps: plan.steps.map((step) => (step.id === id ? change(step) : step)),
});

function withAir(plan: PanelPlan, key: 'temperature' | 'humidity', by: number): PanelPlan {
  return { ...plan, air: plan.air.map((sample) => ({ ...sample, [key]: inRange(key, sample[key] + by) })) };
}

/** Turns a number of a step by `by`, or back by as much where it would leave its range. */
function turn(
  plan: PanelPlan,
  step: Step,
  kind: Exclude<SettableKey, 'work' | 'wait'>,
  by: number,
): TurnedPlan[] {
  const { range, read, write } = SETTABLES[kind];
  const now = read(step);
  if (now === null) return [];
  const { min, max } = PLAN_RANGES[range];
  const way = now + by <= max + 1e-12 ? by : now - by >= min - 1e-12 ? -by : 0;
  if (way === 0) return [];
  const turned = withStep(plan, step.id, (s) => write(s, now + way));
  return [{ knob: { kind, stepId: step.id, by: way }, plan: turned }];
}

/** A basis with one film laid thicker or thinner. @param thickness - wet [m], kept to what a film may be */
export function withThickness(basis: Basis, id: string, thickness: number): Basis {
  const laid = inRange('thickness', thickness);
  const plan = withStep(basis.plan, id, (step) => SETTABLES.thickness.write(step, laid));
  const done = basis.known?.done[id];
  if (basis.known === undefined || done?.thickness === undefined) return { ...basis, plan };
  const known = { ...basis.known, done: { ...basis.known.done, [id]: { ...done, thickness: laid } } };
  return { ...basis, plan, known };
}

/** Films the figures hang on most: the cracked one and the one below it, and those that flake. */
export function filmsThatMatter(base: Forecast): FilmStep[] {
  const films = base.coats;
  const i = base.crackedCoat ?? films.length - 1;
  const chosen = new Set<FilmStep>();
  for (const k of [i, i - 1]) if (films[k]) chosen.add(films[k].coat);
  for (const chip of base.chips) {
    if (chip.share > 0.01)
      for (const k of [chip.film, chip.film - 1]) if (films[k]) chosen.add(films[k].coat);
  }
  // What is seen hangs on the last paint too.
  const top = films.findLast((film) => !isClear(film.medium));
  if (top) chosen.add(top.coat);
  return base.course.plan.steps
    .filter((step): step is FilmStep => isFilm(step) && chosen.has(step))
    .slice(-4);
}

/** The knobs worth trying on a plan, each with what the forecast would rest on. */
export function turnedBases(basis: Basis, base: Forecast): Turned[] {
  return turnedPlans(basis.plan, base).map(({ knob, plan }): Turned => {
    // A step that the timetable holds is moved there.
    const moment = knob.kind === 'moment' ? momentOf(basis, knob.stepId!) : undefined;
    if (moment === undefined) return { knob, basis: { ...basis, plan } };
    const from = 'fixed' in moment ? moment.fixed : moment.notBefore;
    const moments = { ...basis.moments, [knob.stepId!]: { notBefore: from + knob.by } };
    return { knob, basis: { ...basis, plan, moments } };
  });
}

function turnedPlans(plan: PanelPlan, base: Forecast): TurnedPlan[] {
  const films = filmsThatMatter(base);
  const { media } = base.course;
  const knobs: TurnedPlan[] = [];
  for (const film of films) {
    knobs.push(...turn(plan, film, 'thickness', film.thickness < 40e-6 ? 5e-6 : 20e-6));
    if (film.cover.share < 1) knobs.push(...turn(plan, film, 'cover', 0.1));
    if (isOf(media(film.medium), 'casein')) knobs.push(...turn(plan, film, 'bonding', 0.25));
    knobs.push(...turn(plan, film, 'coats', 1));
  }
  const i = base.crackedCoat ?? base.coats.length - 1;
  const top = base.coats[i];
  const below = base.coats[i - 1];
  if (top && below) {
    const index = top.stepIndex;
    const begins = base.times[index]!.from;
    const after = base.times[index - 1]!.until;
    const later = 120;
    knobs.push({
      knob: { kind: 'moment', stepId: top.coat.id, by: later },
      plan: withStep(plan, top.coat.id, (s) => ({
        ...s,
        start: { rule: 'after', wait: inRange('wait', begins - after + later) },
      })),
    });
    knobs.push(...turn(plan, below.coat, 'dilution', 0.1), ...turn(plan, top.coat, 'passes', 1));
  }
  for (const step of plan.steps) knobs.push(...workKnobs(plan, step));
  for (const [kind, by] of [
    ['temperature', 3],
    ['humidity', 0.1],
  ] as const) {
    knobs.push({ knob: { kind, stepId: null, by }, plan: withAir(plan, kind, by) });
  }
  return knobs;
}

function workKnobs(plan: PanelPlan, step: Step): TurnedPlan[] {
  const rounds = SETTABLES.rounds.read(step) ?? 0;
  return [
    ...turn(plan, step, 'resist', 0.1),
    ...turn(plan, step, 'rounds', Math.max(1, Math.round(rounds / 3))),
    ...turn(plan, step, 'pressure', 0.5),
    ...turn(plan, step, 'heat', 20),
    ...turn(plan, step, 'rewet', 15e-6),
  ];
}
