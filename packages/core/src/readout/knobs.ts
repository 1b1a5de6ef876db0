import { type Basis, momentOf } from '../basis';
import { type Forecast } from '../forecast';
import { isClear, isOf } from '../media';
import { type FilmStep, isFilm, PLAN_RANGES, type PanelPlan, type Step } from '../plan';

/** A knob a painter can turn, with how far it was turned to see what it does. */
export interface Knob {
  readonly kind:
    | 'thickness'
    | 'moment'
    | 'temperature'
    | 'humidity'
    | 'passes'
    | 'dilution'
    | 'cover'
    | 'bonding'
    | 'resist'
    | 'rounds'
    | 'pressure'
    | 'heat'
    | 'rewet'
    | 'coats';
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

function withStep<S extends Step>(plan: PanelPlan, id: string, change: (step: S) => Step): PanelPlan {
  return { ...plan, steps: plan.steps.map((step) => (step.id === id ? change(step as S) : step)) };
}

function withAir(plan: PanelPlan, key: 'temperature' | 'humidity', by: number): PanelPlan {
  return { ...plan, air: plan.air.map((sample) => ({ ...sample, [key]: inRange(key, sample[key] + by) })) };
}

/** Turns a number of a step by `by`, or back by as much where it would leave its range. */
function turn<S extends Step>(
  plan: PanelPlan,
  step: S,
  kind: Knob['kind'],
  range: keyof typeof PLAN_RANGES,
  by: number,
  read: (step: S) => number,
  write: (step: S, value: number) => Step,
): TurnedPlan[] {
  const now = read(step);
  const { min, max } = PLAN_RANGES[range];
  const step2 = now + by <= max + 1e-12 ? by : now - by >= min - 1e-12 ? -by : 0;
  if (step2 === 0) return [];
  return [
    {
      knob: { kind, stepId: step.id, by: step2 },
      plan: withStep<S>(plan, step.id, (s) => write(s, now + step2)),
    },
  ];
}

/** A basis with one film laid thicker or thinner. @param thickness - wet [m], kept to what a film may be */
export function withThickness(basis: Basis, id: string, thickness: number): Basis {
  const laid = inRange('thickness', thickness);
  const plan = withStep<FilmStep>(basis.plan, id, (step) => ({ ...step, thickness: laid }));
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
    const by = film.thickness < 40e-6 ? 5e-6 : 20e-6;
    knobs.push(
      ...turn(
        plan,
        film,
        'thickness',
        'thickness',
        by,
        (s) => s.thickness,
        (s, thickness) => ({ ...s, thickness }),
      ),
    );
    if (film.cover.share < 1)
      knobs.push(
        ...turn(
          plan,
          film,
          'cover',
          'share',
          0.1,
          (s) => s.cover.share,
          (s, share) => ({ ...s, cover: { ...s.cover, share } }),
        ),
      );
    if (film.kind === 'coat' && isOf(media(film.medium), 'casein'))
      knobs.push(
        ...turn(
          plan,
          film,
          'bonding',
          'share',
          0.25,
          (s) => s.bonding,
          (s, bonding) => ({ ...s, bonding }),
        ),
      );
    if (film.kind === 'seal')
      knobs.push(
        ...turn(
          plan,
          film,
          'coats',
          'sealCoats',
          1,
          (s) => s.coats,
          (s, coats) => ({ ...s, coats }),
        ),
      );
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
      plan: withStep<FilmStep>(plan, top.coat.id, (s) => ({
        ...s,
        start: { rule: 'after', wait: inRange('wait', begins - after + later) },
      })),
    });
    knobs.push(
      ...turn(
        plan,
        below.coat,
        'dilution',
        'dilution',
        0.1,
        (s) => s.dilution,
        (s, dilution) => ({ ...s, dilution }),
      ),
      ...turn(
        plan,
        top.coat,
        'passes',
        'passes',
        1,
        (s) => s.passes,
        (s, passes) => ({ ...s, passes }),
      ),
    );
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
  switch (step.kind) {
    case 'resist':
      return turn(
        plan,
        step,
        'resist',
        'share',
        0.1,
        (s) => s.share,
        (s, share) => ({ ...s, share }),
      );
    case 'distress':
      return [
        ...turn(
          plan,
          step,
          'rounds',
          'rounds',
          Math.max(1, Math.round(step.rounds / 3)),
          (s) => s.rounds,
          (s, rounds) => ({ ...s, rounds }),
        ),
        ...turn(
          plan,
          step,
          'pressure',
          'pressure',
          0.5,
          (s) => s.pressure,
          (s, pressure) => ({ ...s, pressure }),
        ),
      ];
    case 'heat':
      return turn(
        plan,
        step,
        'heat',
        'heatDuration',
        20,
        (s) => s.duration,
        (s, duration) => ({ ...s, duration }),
      );
    case 'rewet':
      return turn(
        plan,
        step,
        'rewet',
        'rewetAmount',
        15e-6,
        (s) => s.amount,
        (s, amount) => ({ ...s, amount }),
      );
    default:
      return [];
  }
}
