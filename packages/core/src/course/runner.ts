import { dryingAir, type DryingAir, scaledAir, withBurst } from '../air';
import { type Basis, momentOf, planSoFar, type StepMoment } from '../basis';
import { type StateTimes } from '../film';
import { factorOf, type MediumLookup } from '../media';
import {
  type FilmStep,
  groundOf,
  inHours,
  isFilm,
  panelArea,
  type PanelPlan,
  type StartRule,
  type StartState,
  type Step,
} from '../plan';
import { toolOf } from '../tools';
import { driedIn, GIVE_UP, layFilm } from './films';
import { driedAgain, groupFrom, heated, JETS, leaves, wetted } from './forces';
import { lasts, working } from './hands';
import { type Factors, type FilmRun, type StepTimes } from './types';

/*
 * Goes through the steps in order: when each begins, how each film dries, what hot air and water do to the films that
 * lie there by then. Coats are dried one after another, each with its own curve; a coat gives water to the one below
 * and takes it back (film/dry.ts). Only one neighbour exchanges water; what is left deeper down is carried up.
 *
 * A state and a step: nothing is changed in place, so that a timetable can go on from any point and try again.
 */

/** How far a plan has come. */
export interface RunState {
  readonly basis: Basis;
  /** The plan as far as it is carried out. */
  readonly plan: PanelPlan;
  readonly media: MediumLookup;
  readonly films: readonly FilmRun[];
  readonly times: readonly StepTimes[];
  readonly air: readonly DryingAir[];
  /** Until when what was wetted again is still damp [s]. */
  readonly dampUntil: number;
}

/** A plan of which nothing is done yet. @param media - of the plan, with what the shop has learned */
export function begin(basis: Basis, media: MediumLookup, factors: Factors = {}): RunState {
  const plan = planSoFar(basis);
  const rate = (factors.air ?? 1) * factorOf(basis.shop.learned, 'air');
  return {
    basis,
    plan,
    media,
    films: [],
    times: [],
    air: scaledAir(dryingAir(plan.air, Math.sqrt(panelArea(plan.panel))), rate),
    dampUntil: -Infinity,
  };
}

/** When a step can begin [s from the plan's start], and whether the state it waits for ever comes in this air. */
export function earliest(state: RunState, step: Step): { at: number; comes: boolean } {
  const moment = momentOf(state.basis, step.id);
  const before = state.times.at(-1) ?? null;
  const { at, comes } = startOf(step.start, before, state.films);
  if (moment !== undefined && 'fixed' in moment) return { at: moment.fixed, comes };
  // A coat that follows a state waits for what was wetted to dry; one with a moment of its own is only warned.
  const dry = step.start.rule === 'state' && isFilm(step) ? Math.max(at, state.dampUntil) : at;
  if (moment !== undefined) return { at: Math.max(dry, moment.notBefore), comes };
  const idle = before === null ? 0 : dry - before.from - working(before.step, state.plan.panel);
  // Letting it be needs nobody.
  return { at: step.kind === 'wait' ? dry : inHours(dry, step.start, state.plan.work, idle), comes };
}

/**
 * Does the next step of the plan.
 * @param at - when it begins [s from the plan's start]
 * @param moment - when its further coats are laid, when its hands leave it; by the basis where left out
 */
export function advance(
  state: RunState,
  step: Step,
  at: number,
  comes = true,
  moment = momentOf(state.basis, step.id),
): RunState {
  const { plan, basis } = state;
  const after = isFilm(step) ? laid(state, step, at, moment) : worked(state, step, at);
  const from = isFilm(step) ? after.films.at(-1)!.laidAt : at;
  const rest = step.kind === 'companion' ? step.rest : 0;
  const until = Math.max(from + lasts(step, plan.panel), (moment?.endsAt ?? -Infinity) + rest);
  const ended = basis.known?.done[step.id]?.until;
  return { ...after, times: [...state.times, { step, from: at, until: ended ?? until, comes }] };
}

/** All steps of a plan, each as soon as it can begin. */
export function runSteps(basis: Basis, media: MediumLookup, factors: Factors): RunState {
  let state = begin(basis, media, factors);
  for (const step of state.plan.steps) {
    const { at, comes } = earliest(state, step);
    state = advance(state, step, at, comes);
  }
  return state;
}

function laid(state: RunState, step: FilmStep, at: number, moment: StepMoment | undefined): RunState {
  const { films, plan, basis } = state;
  const before = films.at(-1) ?? null;
  const film = layFilm(step, state.times.length, at, {
    surface: groundOf(plan.panel),
    before,
    air: state.air,
    media: state.media,
    factors: basis.shop.learned?.steps?.[step.id],
    work: plan.work,
    moment,
  });
  const covered = before === null ? [] : [{ ...before, coveredAt: at }];
  return { ...state, films: [...films.slice(0, -1), ...covered, film] };
}

function worked(state: RunState, step: Step, at: number): RunState {
  const { films, air } = state;
  const from = groupFrom(films);
  const water = leaves(step);
  if (water > 0) {
    // A damp cloth leaves water, and does not soak what lies there.
    const soaks = step.kind === 'rewet' || (step.kind === 'distress' && toolOf(step.tool).wets);
    return {
      ...state,
      films: soaks ? films.map((film, i) => (i < from ? film : wetted(film, water))) : films,
      dampUntil: Math.max(state.dampUntil, driedAgain(air, at, water)),
    };
  }
  if (step.kind !== 'heat' || films.length === 0) return state;
  const { tool, duration } = step;
  const strained = films.map((film, i) =>
    i < from ? film : heated(film, tool, duration, at, state.dampUntil),
  );
  const hot = withBurst(air, { from: at, until: at + duration, jet: JETS[tool] });
  const top = strained.at(-1)!;
  const { through } = top.openStates;
  if (through !== null && through <= at) return { ...state, films: strained, air: hot };
  const again = driedIn(top, hot, state.basis.shop.learned?.steps?.[top.step.id]);
  return { ...state, films: [...strained.slice(0, -1), again], air: hot };
}

function stateMoment(states: StateTimes, state: StartState): number | null {
  switch (state) {
    case 'tacky':
      return states.tacky;
    case 'touch-dry':
      return states.touch;
    case 'recoat':
      return states.recoat;
    case 'through-dry':
      return states.through;
    case 'cured':
      return states.cured;
  }
}

/** When a step begins, by its rule [s from the plan's start]. */
function startOf(
  start: StartRule,
  before: StepTimes | null,
  films: readonly FilmRun[],
): { at: number; comes: boolean } {
  const free = before?.until ?? 0;
  switch (start.rule) {
    case 'after':
      return { at: before === null ? 0 : free + start.wait, comes: true };
    case 'at':
      return { at: Math.max(free, start.moment), comes: true };
    case 'state': {
      const below = films.at(-1);
      if (below === undefined) return { at: free, comes: true };
      const top = stateMoment(below.openStates, start.state);
      // Dry through is every film, not only the last.
      const deep =
        start.state === 'through-dry' ? films.flatMap(({ openStates }) => openStates.through ?? []) : [];
      const moment = top === null ? null : Math.max(top, ...deep);
      return { at: Math.max(free, (moment ?? below.laidAt + GIVE_UP) + start.wait), comes: moment !== null };
    }
  }
}
