import { checkRange } from '../errors';
import { checkWork } from '../plan';
import { SECONDS_PER_DAY, SECONDS_PER_MINUTE } from '../units';
import {
  begunOf,
  type Chain,
  chainOf,
  doing,
  inCoarse,
  inOtherAir,
  type Point,
  readyAt,
  stepTo,
  windowAt,
} from './chain';
import { type Booking } from './booking';
import { Floor, type Wish } from './floor';
import { type Order, type Problem } from './types';

/*
 * One timetable out of one order: clusters of tasks are put on the floor one after another, each where it can begin
 * soonest among what is there already. A cluster is a task with those that must follow it soon.
 */

/** Windows shorter than this are kept by placing their tasks together [s]. */
const SOON = 90 * SECONDS_PER_MINUTE;
/** How often the beginning of a cluster is moved before a window counts as missed. */
const MOST_MOVES = 80;
/**
 * What one timetable is worse for than another, beside when all is ready [s, or s for each s]: no time for a task, a window
 * missed, parts ready later on the mean, work round the work. In this order of weight; assumed.
 */
const COSTS = { impossible: 1e9, missed: 500 * SECONDS_PER_MINUTE, mean: 0.02, around: 0.05 } as const;
/** People there may be. */
const PEOPLE = { min: 1, max: 3 } as const;
/** What a film that never dries counts as, after its last task [s]. */
const NEVER = 60 * SECONDS_PER_DAY;

/** A problem with its parts gone through. */
export interface Bench {
  readonly problem: Problem;
  readonly chains: readonly Chain[];
  readonly learned: Order['learned'];
  readonly bodies: readonly string[];
  /** By job, what is done first. */
  readonly follows: readonly (readonly number[])[];
  /** Not before, by job and task. */
  readonly pinned: ReadonlyMap<string, number>;
}

/** A timetable before it is told. */
export interface Built {
  readonly bookings: readonly (readonly Booking[])[];
  readonly hands: readonly (readonly Booking[])[];
  readonly points: readonly Point[];
  readonly missed: ReadonlySet<string>;
  /** A task there is no time for. */
  readonly failed: { readonly job: number; readonly task: number } | null;
  /** The order as it was used. */
  readonly jobs: readonly number[];
  /** Tasks that were found to need their opener beside them. */
  readonly joined: readonly string[];
  readonly score: number;
  readonly ready: number;
}

export const keyOf = (job: number, task: number): string => `${job} ${task}`;

/** Goes through the parts of a problem. @throws as `forecast` */
export function benchOf(problem: Problem, learned: Order['learned'] = {}): Bench {
  if (problem.work !== undefined) checkWork(problem.work);
  checkRange('people', problem.people, PEOPLE, '');
  const made = new Map<string, Chain>();
  const shared: unknown[] = [];
  /** What is long and mostly the same object is named by its place among those met before. */
  const placeOf = (value: unknown): number => {
    const place = shared.indexOf(value);
    return place >= 0 ? place : shared.push(value) - 1;
  };
  const chains = problem.jobs.map((job) => {
    // Parts that are alike in all that a chain reads share one: whatever is new in a job or its basis must be in the key.
    const { id: _id, body: _body, up: _up, follows: _follows, basis, ...rest } = job;
    const { plan, shop, ...history } = basis;
    const key = JSON.stringify([rest, { ...plan, air: placeOf(plan.air) }, placeOf(shop), history]);
    const same = made.get(key);
    const chain = same === undefined ? chainOf(job, problem) : { ...same, job };
    made.set(key, chain);
    return chain;
  });
  const indexOf = (id: string): number => problem.jobs.findIndex((job) => job.id === id);
  return {
    problem,
    chains,
    learned,
    bodies: problem.jobs.map(({ id, body }) => body ?? `part ${id}`),
    follows: problem.jobs.map(({ follows }) => follows.map(indexOf).filter((i) => i >= 0)),
    pinned: pinnedIn(problem.jobs, chains, problem.pins),
  };
}

/** The same parts on a grid of moments, to compare orders by. */
export function benchCoarse(bench: Bench): Bench {
  const known = new Map<Point, Chain>();
  const chains = bench.chains.map((chain) => {
    let other = known.get(chain.root);
    if (other === undefined) known.set(chain.root, (other = inCoarse(chain)));
    return { ...other, job: chain.job };
  });
  return { ...bench, chains };
}

/** The same parts in air that dries quicker or slower. @param factor - on the drying rate of the shop's air */
export function benchInAir(bench: Bench, factor: number): Bench {
  const known = new Map<Point, Chain>();
  const chains = bench.chains.map((chain) => {
    let other = known.get(chain.root);
    if (other === undefined) known.set(chain.root, (other = inOtherAir(chain, bench.problem, factor)));
    return { ...other, job: chain.job };
  });
  return { ...bench, chains };
}

/** Moments that work was put to, by job and task; what is not there any more is not pinned. */
function pinnedIn(
  jobs: Problem['jobs'],
  chains: readonly Chain[],
  pins: Problem['pins'],
): ReadonlyMap<string, number> {
  const pinned = new Map<string, number>();
  for (const { partId, stepId, coat, at } of pins) {
    const job = jobs.findIndex(({ id }) => id === partId);
    const task = (chains[job]?.tasks ?? []).findIndex(
      (one) => (one.step?.id ?? one.prepares[0]) === stepId && one.coat === coat && one.kind !== 'buff',
    );
    if (task >= 0) pinned.set(keyOf(job, task), at);
  }
  return pinned;
}

/** The same parts with other pins. */
export const withPins = (bench: Bench, pins: Problem['pins']): Bench => ({
  ...bench,
  problem: { ...bench.problem, pins },
  pinned: pinnedIn(bench.problem.jobs, bench.chains, pins),
});

/** The same parts with a latest start more or less: what was worked out stays. */
export const withLearned = (bench: Bench, learned: Order['learned']): Bench => ({ ...bench, learned });

/** A timetable while it is made: whose next tasks can be put on the floor. */
interface Placing {
  left(job: number): boolean;
  /** How many tasks of a job are placed. */
  placed(job: number): number;
  /** When a job can go on. */
  opens(job: number): number;
  /** Places the next cluster of a job, and first all of those it follows. */
  cluster(job: number): void;
  /** It cannot go on. */
  stopped(): boolean;
}
/** In which order clusters are placed. */
type Way = (placing: Placing) => void;

const inOrder =
  (jobs: readonly number[]): Way =>
  ({ cluster }) =>
    jobs.forEach(cluster);

/** The job that can go on soonest each time. */
const soonest =
  ({ chains, follows }: Bench): Way =>
  ({ left, opens, cluster, stopped }) => {
    while (!stopped()) {
      let next = -1;
      let first = Infinity;
      chains.forEach((_, job) => {
        if (!left(job) || follows[job]!.some(left)) return;
        const at = opens(job);
        if (at < first) [first, next] = [at, job];
      });
      if (next < 0) return;
      cluster(next);
    }
  };

/** Tasks as they were to come, each with its cluster. */
const asMeant =
  (tasks: readonly TaskAt[]): Way =>
  ({ placed, cluster }) => {
    for (const { job, task } of tasks) if (placed(job) <= task) cluster(job);
  };

/** A task by its index. */
export interface TaskAt {
  readonly job: number;
  readonly task: number;
}

/**
 * Makes a timetable.
 * @param jobs - the order; the job that can go on soonest each time where null
 * @param joined - tasks that are placed together with what their window hangs on
 */
export function build(bench: Bench, jobs: readonly number[] | null, joined: readonly string[]): Built {
  return made(bench, jobs === null ? soonest(bench) : inOrder(jobs), joined);
}

/**
 * Makes the timetable of what is under way: what was begun stands at its moments, the rest comes in the order meant.
 * @param now - nothing else is begun before
 */
export function follow(bench: Bench, meant: readonly TaskAt[], now: number): Built {
  const from = Math.max(bench.problem.from, now);
  return made({ ...bench, problem: { ...bench.problem, from } }, asMeant(meant), []);
}

function made(bench: Bench, way: Way, joined: readonly string[]): Built {
  const together = new Set(joined);
  let built = attempt(bench, way, together);
  while (typeof built === 'string') {
    together.add(built);
    built = attempt(bench, way, together);
  }
  return built;
}

/** A timetable, or the task that has to be joined to its opener first. */
function attempt(bench: Bench, way: Way, joined: ReadonlySet<string>): Built | string {
  const { chains, problem, follows } = bench;
  const floor = new Floor(problem);
  const points = chains.map(({ root }) => root);
  const placed = chains.map((): Booking[] => []);
  const bookings = chains.map((): Booking[] => []);
  const missed = new Set<string>();
  const used: number[] = [];
  let failed: Built['failed'] = null;
  let join: string | null = null;
  const left = (job: number): boolean => placed[job]!.length < chains[job]!.tasks.length;
  const stopped = (): boolean => failed !== null || join !== null;

  const cluster = (job: number): void => {
    for (const first of follows[job]!) while (left(first) && !stopped()) cluster(first);
    if (!left(job) || stopped()) return;
    used.push(job);
    const after = Math.max(problem.from, ...follows[job]!.map((first) => placed[first]!.at(-1)!.until));
    const found = placeCluster(bench, floor, job, placed[job]!.length, points[job]!, after, joined);
    if ('join' in found) join = found.join;
    else if ('failed' in found) failed = { job, task: found.failed };
    else {
      placed[job]!.push(...found.tasks);
      bookings[job]!.push(...found.made);
      points[job] = found.point;
      for (const task of found.missed) missed.add(keyOf(job, task));
    }
  };

  const pinnedJobs = [...new Set([...bench.pinned.keys()].map((key) => Number(key.split(' ')[0])))];
  chains.forEach((chain, job) => {
    for (let i = 0; i < chain.tasks.length; i++) {
      const begun = begunOf(chain, chain.tasks[i]!);
      if (begun === null) break;
      const took = floor.took(wishOf(bench, job, i, points[job]!, problem.from), begun);
      placed[job]!.push(...took.made);
      bookings[job]!.push(...took.made);
      points[job] = took.after;
    }
  });
  for (const job of pinnedJobs) while (left(job) && !stopped()) cluster(job);
  way({
    left,
    stopped,
    cluster,
    placed: (job) => placed[job]!.length,
    opens: (job) => windowAt(chains[job]!, points[job]!, placed[job]!.length).opens,
  });
  // In other air there may be other clusters than the order speaks of.
  chains.forEach((_, job) => {
    while (left(job) && !stopped()) cluster(job);
  });
  if (join !== null) return join;

  const readies = points.map((point) => readyAt(point) ?? point.ends + point.shift + NEVER);
  const ready = Math.max(...readies);
  const mean = readies.reduce((sum, at) => sum + at, 0) / readies.length;
  return {
    bookings,
    hands: floor.hands.all,
    points,
    missed,
    failed,
    jobs: used,
    joined: [...joined],
    ready,
    score:
      (failed === null ? 0 : COSTS.impossible) +
      missed.size * COSTS.missed +
      ready +
      COSTS.mean * mean +
      COSTS.around * around(floor, problem),
  };
}

/** Cleaning, mixing and turning [s]. */
function around({ hands }: Floor, { minutes }: Problem): number {
  let sum = 0;
  for (const hand of hands.all)
    for (const booking of hand) {
      if (booking.recipe !== null) sum += booking.until - booking.from;
      if (booking.turned) sum += minutes.turn * SECONDS_PER_MINUTE;
      sum += booking.wash;
    }
  return sum;
}

interface Cluster {
  readonly tasks: readonly Booking[];
  readonly made: readonly Booking[];
  readonly point: Point;
  /** Tasks that came too late. */
  readonly missed: readonly number[];
}

/** Places tasks from one on, as far as they must follow each other soon. */
function placeCluster(
  bench: Bench,
  floor: Floor,
  job: number,
  first: number,
  root: Point,
  notBefore: number,
  joined: ReadonlySet<string>,
): Cluster | { readonly join: string } | { readonly failed: number } {
  const chain = bench.chains[job]!;
  const { learned } = bench;
  const points: Point[] = [root];
  const made: (readonly Booking[])[] = [];
  const floors = new Map<number, number>();
  const missed: number[] = [];
  let moves = 0;
  for (let i = first; ;) {
    const point = points[i - first]!;
    const key = keyOf(job, i);
    const late = missed.includes(i);
    const wish = wishOf(bench, job, i, point, Math.max(notBefore, floors.get(i) ?? -Infinity), late);
    const { window } = wish;
    const begun = begunOf(chain, chain.tasks[i]!);
    const found = begun === null ? floor.place(wish) : floor.took(wish, begun);
    if ('missedBy' in found) {
      const { opener } = window;
      if (late || window.closes === null) return { failed: i };
      if (opener >= 0 && opener < first && !joined.has(key)) return { join: key };
      if (opener < first || found.missedBy === Infinity || moves === MOST_MOVES) {
        missed.push(i);
        continue;
      }
      // The work that opened the window is moved, and all since.
      const at = made[opener - first]!.at(-1)!.from;
      for (const bookings of made.splice(opener - first)) floor.remove(bookings);
      points.length = opener - first + 1;
      floors.set(opener, at + Math.max(SECONDS_PER_MINUTE, found.missedBy));
      moves += 1;
      i = opener;
      continue;
    }
    made.push(found.made);
    points.push(found.after);
    i += 1;
    if (i === chain.tasks.length) break;
    const next = windowAt(chain, found.after, i, learned[keyOf(job, i)]);
    const soon = next.closes !== null && (next.closes - next.opens < SOON || joined.has(keyOf(job, i)));
    if (!soon && !reachesOver(chain, i, joined, job)) break;
  }
  return {
    tasks: made.map((bookings) => bookings.at(-1)!),
    made: made.flat(),
    point: points.at(-1)!,
    missed,
  };
}

/** Whether a later task that is joined hangs on what this cluster has laid: then all between belong to it. */
function reachesOver(chain: Chain, index: number, joined: ReadonlySet<string>, job: number): boolean {
  for (let k = index; k < chain.tasks.length; k++) {
    if (chain.tasks[k]!.brushIn !== null) return joined.has(keyOf(job, k)) && k > index;
    if (joined.has(keyOf(job, k))) return true;
  }
  return false;
}

/** A task of a part as it is to be put on the floor. */
function wishOf(
  { chains, bodies, problem, learned, pinned }: Bench,
  job: number,
  index: number,
  point: Point,
  notBefore: number,
  late = false,
): Wish {
  const chain = chains[job]!;
  const task = chain.tasks[index]!;
  const key = keyOf(job, index);
  return {
    job,
    index,
    task,
    body: bodies[job]!,
    up: problem.jobs[job]!.up,
    window: windowAt(chain, point, index, learned[key]),
    late,
    notBefore: Math.max(notBefore, pinned.get(key) ?? -Infinity),
    doing: (at) => doing(chain, point, task, at, problem),
    after: (at, how) => stepTo(chain, point, index, at, how),
  };
}
