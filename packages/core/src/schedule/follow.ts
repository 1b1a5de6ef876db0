import { nextStretch, type WorkTime } from '../plan';
import { type PartTask, tasksAlone } from './alone';
import { type Bench, benchOf, type Built, follow, keyOf, type TaskAt } from './build';
import { begunOf, readyAt } from './chain';
import { type Booking } from './booking';
import { type Entry, type Order, type Problem } from './types';

/*
 * A timetable that is carried out: what was begun stands where it was begun, the rest comes in the order the timetable
 * meant, each as soon as its part and the hands let it.
 */

/** A task of a run, and when the hands come to it. Moments in s from the plan's start. */
export interface FollowedTask extends PartTask {
  readonly from: number;
  readonly until: number;
  /** Its window closes before the hands can be there. */
  readonly late: boolean;
}

/** How a timetable goes on. */
export interface Followed {
  /** By job. */
  readonly tasks: readonly (readonly FollowedTask[])[];
  /** When the last film is dry through; null where one never is. */
  readonly ready: number | null;
  /** How much longer than their hours hands are wanted, so that no window is missed: until when; null where they are not. */
  readonly overtime: number | null;
}

/** What was meant. */
export interface Meant {
  readonly entries: readonly Pick<Entry, 'kind' | 'partId' | 'stepId' | 'coat' | 'from'>[];
  readonly order: Pick<Order, 'learned'>;
}

/** Longest that hands go on after their hours for a window [s]; assumed. */
const MOST_OVERTIME = 3 * 3600;

/**
 * Times what is under way.
 * @param problem - its parts as they know what was done
 * @param now - nothing is begun before [s from the plan's start]
 * @throws InputError as `forecast`
 */
export function followed(problem: Problem, meant: Meant, now: number): Followed {
  const plain = benchOf(problem);
  const alone = plain.chains.map((chain) => tasksAlone(chain, problem));
  const planned = alone.map((tasks, job) =>
    tasks.map((task) => plannedAt(meant, problem.jobs[job]!.id, task)),
  );
  const bench: Bench = { ...plain, learned: learnedOf(meant, planned, problem) };
  const order = planned
    .flatMap((moments, job) => moments.map((at, task) => ({ job, task, at: at ?? alone[job]![task]!.opens })))
    .sort((a, b) => a.at - b.at || a.job - b.job || a.task - b.task);
  const inHours = follow(bench, order, now);
  const longer = overtimeFor(bench, inHours, order, now);
  const { points, bookings, missed } = longer?.built ?? inHours;
  const readies = points.map(readyAt);
  return {
    tasks: alone.map((tasks, job) => {
      const placed = bookings[job]!.filter(({ recipe }) => recipe === null);
      return tasks.map((task, i): FollowedTask => {
        const booking = placed[i];
        const from = booking?.from ?? Math.max(now, task.opens);
        return {
          ...task,
          from,
          until: booking?.until ?? from + task.hands,
          late:
            missed.has(keyOf(job, i)) && begunOf(bench.chains[job]!, bench.chains[job]!.tasks[i]!) === null,
        };
      });
    }),
    ready: readies.some((at) => at === null) ? null : Math.max(...readies.map((at) => at!)),
    overtime: longer?.until ?? null,
  };
}

const plannedAt = ({ entries }: Meant, partId: string, { kind, stepId, coat }: PartTask): number | null =>
  entries.find(
    (one) => one.partId === partId && one.kind === kind && one.stepId === stepId && one.coat === coat,
  )?.from ?? null;

/** Latest starts that were learned for a part whose tasks are those that were meant. */
function learnedOf(
  { entries, order }: Meant,
  planned: readonly (readonly (number | null)[])[],
  { jobs }: Problem,
): Order['learned'] {
  const same = planned.map((moments, job) => {
    const own = entries.filter(
      ({ partId, kind }) => partId === jobs[job]!.id && kind !== 'mix' && kind !== 'turn' && kind !== 'clean',
    );
    return own.length === moments.length && !moments.includes(null);
  });
  return Object.fromEntries(
    Object.entries(order.learned).filter(([key]) => same[Number(key.split(' ')[0])] === true),
  );
}

/** The same with the hours drawn out, where that saves a window that would close after them. */
function overtimeFor(
  bench: Bench,
  inHours: Built,
  order: readonly TaskAt[],
  now: number,
): { readonly built: Built; readonly until: number } | null {
  const { work } = bench.problem;
  if (work === undefined || inHours.missed.size === 0) return null;
  const rescued = [...inHours.missed].flatMap((key): Booking[] => {
    const [job, task] = key.split(' ').map(Number);
    return inHours.bookings[job!]!.filter(
      (one) => one.recipe === null && one.task === task && one.from > now,
    );
  });
  // Wide enough for the work itself, from now on or from the end of the hours that run.
  const ends = Math.max(now, stretchEnd(work, now));
  const until = Math.min(
    ends + MOST_OVERTIME,
    Math.max(...rescued.map(({ from, until: end, window }) => (window.closes ?? from) + (end - from))),
  );
  if (!(until > ends)) return null;
  const built = follow(
    { ...bench, problem: { ...bench.problem, work: drawnOut(work, now, until) } },
    order,
    now,
  );
  if (built.missed.size >= inHours.missed.size) return null;
  const last = built.bookings
    .flat()
    .filter(({ from, until: end }) => from < until && end > ends)
    .reduce((most, { until: end }) => Math.max(most, end), ends);
  return { built, until: last };
}

/** When the stretch of work ends that a moment lies in; −∞ outside of work. */
function stretchEnd(work: WorkTime, moment: number): number {
  const stretch = nextStretch(work, moment);
  return stretch !== null && stretch.opens <= moment ? stretch.closes : -Infinity;
}

/** Work that goes on from a moment, or from the end of the hours that run, until another. */
function drawnOut(work: WorkTime, now: number, until: number): WorkTime {
  const before = work.filter(({ opens }) => opens <= now && opens < until);
  const begins = Math.min(now, ...before.filter(({ closes }) => closes >= now).map(({ opens }) => opens));
  const joined = work.filter(({ opens }) => opens > now && opens <= until);
  const closes = Math.max(until, ...joined.map((stretch) => stretch.closes));
  return [
    ...before.filter(({ closes: ends }) => ends < now),
    { opens: begins, closes },
    ...work.filter(({ opens }) => opens > until),
  ];
}
