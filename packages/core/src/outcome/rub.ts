import { bleachWetFor, type Course, type Factors, type FilmRun } from '../course';
import { factorOf, type Learned, substrate } from '../media';
import { type Distress } from '../plan';
import { toolOf } from '../tools';
import { abrasion, bladeEffort, type FilmNow } from '../wear';
import { oldFilm } from './layers';
import { type RemovalForecast } from './types';

/** A brush leaves a film's thickness uneven by this share of it, root mean square; as it is drawn. */
const ROUGHNESS = 0.2;

/** What a tool meets and takes at the moment a course has for it. */
export interface Rubbed {
  /** Median depth in a film like the top one [µm]. */
  readonly medianUm: number;
  readonly spread: number;
  readonly relief: number;
  /** Roughness of all that lies there, root mean square [µm]. */
  readonly roughUm: number;
  /** Effort of a blade; null for other tools. */
  readonly effort: number | null;
  /** Films that lie by then, and how hard each is to take, the top one 1. */
  readonly lying: readonly FilmRun[];
  readonly resistance: readonly number[];
  /** The same of an old finish; null where there is none. */
  readonly old: number | null;
}

/** What a distressing step takes off; null where there is nothing to take. */
export function rubbed(
  course: Course,
  step: Distress,
  learned: Learned | null,
  factors: Factors,
): Rubbed | null {
  const { films, plan, times } = course;
  const index = plan.steps.indexOf(step);
  const at = times[index]!.from;
  const lying = films.filter(({ stepIndex }) => stepIndex < index);
  const old = substrate(plan.panel.substrate).finish;
  const below = old === null ? null : oldFilm(old);
  const now = (film: FilmRun): FilmNow => {
    const touch = film.openStates.touch ?? Infinity;
    const wet = at >= touch ? 0 : touch === Infinity ? 1 : (touch - at) / Math.max(1, touch - film.laidAt);
    return { medium: film.medium, age: at - touch, wet: Math.min(1, wet) };
  };
  const uppermost = lying.at(-1);
  const top = uppermost === undefined ? below : now(uppermost);
  if (top === null) return null;
  const { action } = toolOf(step.tool);
  const wetFor = action === 'soften' ? bleachWetFor(course, step) : 0;
  const roughUm = ROUGHNESS * Math.hypot(...lying.map(({ solidsUm }) => solidsUm));
  const off = abrasion(step, top, wetFor, roughUm);
  return {
    medianUm: off.medianUm * (factors.wear ?? 1) * factorOf(learned, `wear:${step.tool}`),
    spread: off.spread,
    relief: off.relief,
    roughUm,
    effort: action === 'cut' ? bladeEffort(top.medium, top.age) : null,
    lying,
    resistance: lying.map((film) => off.resistance(now(film))),
    old: below === null ? null : off.resistance(below),
  };
}

/** How deep each tool of a course goes, by the tables; nothing is said of how much it lays open. */
export const removalsBy = (course: Course, learned: Learned | null): Omit<RemovalForecast, 'share'>[] =>
  course.plan.steps.flatMap((step) => {
    const off = step.kind === 'distress' ? rubbed(course, step, learned, {}) : null;
    return off === null ? [] : [{ stepId: step.id, depth: off.medianUm * 1e-6, effort: off.effort }];
  });
