import { type Basis } from '../basis';
import { type Course, courseOf, type Factors, runSteps, type StepTimes } from '../course';
import { type Region } from '../maps';
import { notesOf } from '../notes';
import { lookOf, outcomeOf } from '../outcome';
import { checkPlan } from '../plan';
import { umToMetres } from '../units';
import { type CoatCracks, type CoatForecast, type Forecast } from './types';

/** When each step begins and ends, without what comes of it. @throws InputError as `forecast` */
export const stepTimes = (basis: Basis): readonly StepTimes[] =>
  runSteps(basis, checkPlan(basis.plan, basis.shop.learned), {}).times;

/**
 * What a stack of steps will do: when each is done and ready, what cracks, flakes and wears, what is seen in the end,
 * and what is wrong with the plan.
 *
 * @param region - told of this part of the panel alone, where one is given; notes and times are the whole panel's
 * @throws InputError when a field of the plan is out of range
 */
export const forecast = (basis: Basis, region?: Region): Forecast => forecastWith(basis, {}, region);

/** A forecast with what is uncertain moved. @throws InputError as `forecast` */
export function forecastWith(basis: Basis, factors: Factors, region?: Region): Forecast {
  const course = courseOf(basis, factors);
  const outcome = outcomeOf(basis, course, factors, region);
  return {
    ...outcome,
    times: course.times,
    coats: course.films.map((_, i) => coatOf(course, i)),
    readyAt: readyAt(course),
    findings: notesOf(course, outcome),
    course,
  };
}

function coatOf({ films, cracks, states, windows }: Course, i: number): CoatForecast {
  const film = films[i]!;
  return {
    coat: film.step,
    stepIndex: film.stepIndex,
    medium: film.medium,
    laidAt: film.laidAt,
    coveredAt: film.coveredAt,
    dryThickness: umToMetres(film.solidsUm),
    open: film.openStates,
    states: states[i]!,
    window: windows[i]!,
    crack: coatCracks(cracks[i] ?? null),
  };
}

function coatCracks(cracks: Course['cracks'][number]): CoatCracks | null {
  if (cracks === null) return null;
  const { pattern, firstAt, clearAt, doneAt, boundary } = cracks;
  return { ...lookOf(pattern), firstAt, clearAt, doneAt, boundary };
}

/** When the last film is dry and the last step done. */
function readyAt({ states, times }: Course): number | null {
  const last = states.at(-1);
  const done = times.at(-1)?.until ?? 0;
  if (last === undefined) return done;
  return last.through === null ? null : Math.max(last.through, done);
}
