import { type Basis } from '../basis';
import { type Course, courseOf, courseOfRun, type RunState } from '../course';
import { earlyNotes, type FindingCode } from '../notes';
import { type Bench, type Built, keyOf } from './build';
import { type Point, topFilm } from './chain';
import { momentsOf } from './tell';
import { type Order } from './types';

/** Findings that a later moment of a step brings, and an earlier one had not. */
const OF_MOMENTS: readonly FindingCode[] = [
  'glue-closing',
  'glue-dried',
  'medium-wet',
  'hide-not-cured',
  'base-not-dry',
  'start-never',
  'blade-hard',
  'cloth-in-vain',
  'salt-loose',
  'buff-early',
  'spray-recoat',
  'wax-on-wet-dark',
  'heat-on-solvent',
  'heat-on-bleach',
  'bleach-after-alcohol',
  'milk-old',
];

/** What is said of moments, by step. */
function saidOf({ shop }: Basis, course: Course): ReadonlySet<string> {
  return new Set(
    earlyNotes(course, shop.learned)
      .filter(({ code }) => OF_MOMENTS.includes(code))
      .map(({ code, stepId }) => `${stepId} ${code}`),
  );
}

/** Latest starts that the forecasts of a timetable teach; null where no moment made anything worse. */
export function taught(bench: Bench, built: Built): Order['learned'] | null {
  const learned: Record<string, number> = { ...bench.learned };
  // Where there is no time for a task nothing is told of what follows.
  if (built.failed !== null) return null;
  let more = false;
  bench.problem.jobs.forEach(({ basis }, job) => {
    const { tasks, alone, said } = bench.chains[job]!;
    const { plan } = alone[0]!.run.basis;
    const moments = momentsOf(bench, built, job);
    const key = JSON.stringify(moments);
    const at = { plan, shop: basis.shop, moments };
    const heard = (of: Basis, run: RunState, as: string): ReadonlySet<string> => {
      let known = said.get(as);
      if (known === undefined) said.set(as, (known = saidOf(of, courseOfRun(run))));
      return known;
    };
    const free = heard({ plan, shop: basis.shop }, alone.at(-1)!.run, '');
    for (const finding of heard(at, built.points[job]!.run, key)) {
      if (free.has(finding)) continue;
      const stepId = finding.split(' ')[0]!;
      const index = tasks.findIndex(({ step, top }) => step?.id === stepId || top?.id === stepId);
      const film = index < 0 ? undefined : topFilm(alone[index]!);
      const begun = moments[stepId];
      if (film === undefined || begun === undefined || !('notBefore' in begun)) continue;
      const latest = latestGood(at, stepId, begun.notBefore, finding);
      const waits = latest.at - laidOf(at, film.step.id);
      const waited = aloneWait(alone.at(-1)!, film.step.id, stepId);
      // Laid at another moment it may dry otherwise than what was learned from.
      // What came before it came too late already: nearer to how it goes where nothing else is to be done.
      const most = latest.good ? waits : (waits + waited) / 2;
      if (most >= (learned[keyOf(job, index)] ?? Infinity)) continue;
      learned[keyOf(job, index)] = most;
      more = true;
    }
  });
  return more ? learned : null;
}

/** When a film is laid by its moments [s from the plan's start]. */
function laidOf(basis: Basis, stepId: string): number {
  return courseOf(basis).films.find(({ step }) => step.id === stepId)?.laidAt ?? 0;
}

/** How long a step comes after a film where its part has the hands to itself [s]. */
function aloneWait({ run }: Point, filmId: string, stepId: string): number {
  const laid = run.films.find(({ step }) => step.id === filmId)!.laidAt;
  return run.times.find(({ step }) => step.id === stepId)!.from - laid;
}

/**
 * The latest moment of a step that brings no finding, to five minutes [s from the plan's start]; its earliest, and not
 * good, where even that brings it.
 */
function latestGood(
  basis: Basis & { moments: NonNullable<Basis['moments']> },
  stepId: string,
  late: number,
  finding: string,
): { at: number; good: boolean } {
  const { [stepId]: _, ...others } = basis.moments;
  const soonest = courseOf({ ...basis, moments: others });
  let good = soonest.times.find(({ step }) => step.id === stepId)!.from;
  if (saidOf(basis, soonest).has(finding)) return { at: good, good: false };
  let bad = late;
  while (bad - good > 300) {
    const mid = (good + bad) / 2;
    const tried = { ...basis, moments: { ...others, [stepId]: { notBefore: mid } } };
    if (saidOf(tried, courseOf(tried)).has(finding)) bad = mid;
    else good = mid;
  }
  return { at: good, good: true };
}
