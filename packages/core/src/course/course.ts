import { type Basis, planSoFar } from '../basis';
import { checkPlan } from '../plan';
import { cracksOf } from './cracks';
import { type RunState, runSteps } from './runner';
import { coveredStates, windowOf } from './states';
import { type Course, type Factors, type FilmCracks } from './types';

/** What the films of a run crack into. */
export function cracksOfRun({ films, plan, times }: RunState, factors: Factors): (FilmCracks | null)[] {
  const endOf = (id: string): number => times.find((t) => t.step.id === id)?.until ?? 0;
  return films.map((_, i) => cracksOf(films, i, plan.panel, plan.steps, endOf, factors));
}

/**
 * The course of a plan: when each step is done, how each film dries and cracks.
 * @throws InputError when a field of the plan, or what is known of how it was done, is out of range
 */
export function courseOf(basis: Basis, factors: Factors = {}): Course {
  const media = checkPlan(planSoFar(basis), basis.shop.learned);
  return courseOfRun(runSteps(basis, media, factors), factors);
}

/** The course of steps that have been gone through. */
export function courseOfRun(run: RunState, factors: Factors = {}): Course {
  const { films, times, air, plan, media } = run;
  return {
    plan,
    media,
    films,
    times,
    air,
    cracks: cracksOfRun(run, factors),
    states: films.map((film, i) => {
      const over = films[i + 1];
      return over === undefined ? film.openStates : coveredStates(film, over);
    }),
    windows: films.map((film, i) => windowOf(film, films[i + 1])),
  };
}
