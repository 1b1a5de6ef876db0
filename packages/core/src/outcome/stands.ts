import { type Basis, momentOf } from '../basis';
import { cracksOfRun, type Course, type Factors, type FilmCracks, type RunState, runSteps } from '../course';
import { type FilmStep, isFilm, mapExtent, mapOf, NO_FILM, NOT_DONE, type Step, whereOf } from '../plan';

/*
 * Some films do not lie everywhere: a medium left out in places, a sealer in patches, a second colour dragged on. What
 * a film does where such a film lies and where it is missing are two things, and the mean of both is neither. So the
 * films on which most hangs are told apart: a panel has as many stands as there are ways for them to lie or be missing.
 * So are hot air and wetting that went over places only: there films dried otherwise.
 */

/** Most steps told apart: each doubles the stands. */
const MOST_TOLD = 2;

/** One way for what is not everywhere to be there or be missing. */
export interface Stand {
  /** Ids of the steps told apart that were done there, and of those that were not. */
  readonly holds: readonly string[];
  readonly lacks: readonly string[];
  /** By film of the course: what it cracks into there; null where it is missing or does not crack. */
  readonly cracks: readonly (FilmCracks | null)[];
}

/** Whether a film is missing in places: it covers only in part, or its map goes down to nothing. */
function isPartial(step: FilmStep): boolean {
  const map = mapOf(step);
  const inPlaces = whereOf(step) !== 'all' || (map !== undefined && mapExtent(map).min < NO_FILM);
  return step.cover.share < 1 || inPlaces;
}

/** Steps that dry a film otherwise where they are done. */
export const driesOtherwise = (step: Step): boolean => step.kind === 'heat' || step.kind === 'rewet';

/** The steps told apart, by how much hangs on them. */
export function toldApart({ films, cracks, plan }: Course): Step[] {
  const inPlaces = plan.steps.filter((step) => {
    const map = mapOf(step);
    return (
      driesOtherwise(step) &&
      (whereOf(step) !== 'all' || (map !== undefined && mapExtent(map).min < NOT_DONE))
    );
  });
  const above = cracks.findIndex((crack) => crack !== null && crack.pattern.crackedShare > 0.05);
  const partial = films
    .flatMap((film, i) => {
      if (!isPartial(film.step)) return [];
      const { medium } = film;
      const carries = i < films.length - 1 && (medium.slipRate > 0 || medium.baseBond < 1);
      const bridges = above >= 0 && above < i && (medium.kind === 'paint' || medium.kind === 'glaze');
      return carries || bridges ? [{ step: film.step, weight: (carries ? 2 : 0) + (bridges ? 1 : 0) }] : [];
    })
    .sort((a, b) => b.weight - a.weight)
    .map(({ step }) => step);
  return [...inPlaces, ...partial].slice(0, MOST_TOLD);
}

/** All the stands of a course; one that holds everything where no film is told apart. */
export function standsOf(basis: Basis, course: Course, factors: Factors): Stand[] {
  const told = toldApart(course);
  if (told.length === 0) return [{ holds: [], lacks: [], cracks: course.cracks }];
  return Array.from({ length: 2 ** told.length }, (_, mask): Stand => {
    const lacks = told.filter((__, k) => (mask & (1 << k)) !== 0).map(({ id }) => id);
    const holds = told.filter((__, k) => (mask & (1 << k)) === 0).map(({ id }) => id);
    return { holds, lacks, cracks: cracksLacking(basis, course, lacks, holds, factors) };
  });
}

/** Other steps done at the moments a course has for them: the painter's clock goes by the plan, not by a place of it. */
export function runThen(
  basis: Basis,
  { plan, times, media }: Course,
  steps: readonly Step[],
  factors: Factors,
): RunState {
  const moments = Object.fromEntries(
    times.map(({ step, from }) => [step.id, { ...momentOf(basis, step.id), fixed: from }]),
  );
  return runSteps({ plan: { ...plan, steps }, shop: basis.shop, moments }, media, factors);
}

/** What the films crack into where some steps were not done and others in full, at the moments the plan has. */
function cracksLacking(
  basis: Basis,
  course: Course,
  lacks: readonly string[],
  holds: readonly string[],
  factors: Factors,
): (FilmCracks | null)[] {
  const { plan, films } = course;
  const steps = plan.steps
    .filter((step) => !lacks.includes(step.id))
    .map((step) =>
      isFilm(step) && holds.includes(step.id) ? { ...step, cover: { ...step.cover, share: 1 } } : step,
    );
  if (!steps.some(isFilm)) return films.map(() => null);
  const run = runThen(basis, course, steps, factors);
  const cracks = cracksOfRun(run, factors);
  const indexOf = new Map(films.map((film, i) => [film.step.id, i]));
  const placeOf = run.films.map((film) => indexOf.get(film.step.id)!);
  const found: (FilmCracks | null)[] = films.map(() => null);
  cracks.forEach((crack, i) => {
    if (crack !== null) found[placeOf[i]!] = { ...crack, boundary: placeOf[crack.boundary]! };
  });
  return found;
}
