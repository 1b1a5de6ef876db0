import { uniform } from '../numeric/hash';
import { type Bench, benchCoarse, build, type Built } from './build';
import { readyAt } from './chain';
import { type Effort, type Order } from './types';

/** A search compares with how it stood so many tries ago (late acceptance; Burke and Bykov 2017). */
const LATE = 12;
/** Tries without gain after which the order is shaken, and after which a timetable near the bound is taken. */
const IDLE = 40;
const ENOUGH = 24;
/** Tries without gain after which all is tried in any order, once. */
const SHAKEN = 8;
/** Fewer tasks than these are made so quickly that more can be tried, up to so many times more. */
const FEW = { tasks: 50, more: 5 } as const;
/** So near the bound nothing is left to gain [s]. */
const NEAR = 60;
/** The best timetable of a search. */
export interface Searched {
  readonly built: Built;
  readonly bound: number;
  readonly builds: number;
}

/** Orders that are made exactly in the end. */
const FINALISTS = 3;

/** Orders to begin with, then small changes of the one that is best so far; the best of them exactly. */
export function search(bench: Bench, { tries, seed }: Effort, from?: Order): Searched {
  const { chains } = bench;
  let joined = from?.joined ?? [];
  let builds = 0;
  const coarse = benchCoarse(bench);
  const made = (of: Bench, jobs: readonly number[] | null): Built => {
    builds += 1;
    const built = build(of, jobs, joined);
    ({ joined } = built);
    return built;
  };
  // No timetable found is ready sooner than its slowest part by itself.
  const bound = Math.max(
    ...chains.map((_, job) => build(onlyOne(bench, job), [], []).ready),
    bench.problem.from + workInAll(bench) / bench.problem.people,
  );
  const first = made(bench, from?.jobs ?? null);
  const near = (built: Built): boolean =>
    built.missed.size === 0 && built.failed === null && built.ready <= bound + NEAR;
  if (chains.length === 1 && bench.pinned.size === 0) return { built: first, bound, builds };

  let finalists: Built[] = [];
  const enter = (built: Built): boolean => {
    const leads = finalists[0] === undefined || built.score < finalists[0].score - 1;
    if (finalists.every(({ score }) => Math.abs(score - built.score) > 1))
      finalists = [...finalists, built].sort((a, b) => a.score - b.score).slice(0, FINALISTS);
    return leads;
  };
  let now = made(coarse, first.jobs);
  enter(now);
  if (!near(first))
    for (const jobs of beginnings(bench)) {
      const built = made(coarse, jobs);
      if (enter(built)) now = built;
    }
  const ago = new Array<number>(LATE).fill(now.score);
  let idle = 0;
  const tasks = chains.reduce((sum, chain) => sum + chain.tasks.length, 0);
  const most = Math.round(tries * Math.min(FEW.more, Math.max(1, FEW.tasks / tasks)));
  for (let n = 0; n < most; n++) {
    if (idle >= ENOUGH && near(finalists[0]!)) break;
    if (idle > 0 && idle % IDLE === 0) now = finalists[0]!;
    const chance = (channel: number): number => uniform(n, seed, channel);
    const order = idle > 0 && idle % SHAKEN === 0 ? shuffled(now.jobs, chance) : changed(now.jobs, chance);
    const tried = made(coarse, order);
    if (tried.score <= now.score || tried.score <= ago[n % LATE]!) now = tried;
    ago[n % LATE] = now.score;
    idle = enter(tried) ? 0 : idle + 1;
  }
  const exact = [first, ...finalists.map(({ jobs }) => made(bench, jobs))];
  return { built: exact.reduce((best, one) => (one.score < best.score ? one : best)), bound, builds };
}

/** A part that has everybody to itself. */
function onlyOne(bench: Bench, job: number): Bench {
  return {
    problem: { ...bench.problem, jobs: [bench.problem.jobs[job]!] },
    chains: [bench.chains[job]!],
    bodies: [bench.bodies[job]!],
    learned: {},
    follows: [[]],
    pinned: new Map(),
  };
}

const workInAll = ({ chains }: Bench): number =>
  chains.reduce(
    (sum, { tasks }) => sum + tasks.reduce((own, { hands, topHands }) => own + hands + topHands, 0),
    0,
  );

/** Orders to begin with: by when each part could do it alone, what has longest to go first, least work first, part by part. */
function beginnings({ chains }: Bench): number[][] {
  const all = chains.flatMap(({ alone, tasks }, job) => {
    const ready = readyAt(alone.at(-1)!) ?? alone.at(-1)!.ends;
    const hands = tasks.reduce((sum, task) => sum + task.hands + task.topHands, 0);
    return tasks.map((_, i) => ({ job, at: alone[i]!.ends, left: ready - alone[i]!.ends, hands }));
  });
  const jobs = (by: (a: (typeof all)[number], b: (typeof all)[number]) => number): number[] =>
    [...all].sort((a, b) => by(a, b) || a.job - b.job).map(({ job }) => job);
  return [
    jobs((a, b) => a.at - b.at),
    jobs((a, b) => b.left - a.left),
    jobs((a, b) => a.hands - b.hands),
    jobs((a, b) => a.job - b.job),
  ];
}

/** All parts in any order, what each of them is mentioned kept. */
function shuffled(jobs: readonly number[], chance: (channel: number) => number): number[] {
  return jobs
    .map((job, i) => ({ job, at: chance(i + 1) }))
    .sort((a, b) => a.at - b.at)
    .map(({ job }) => job);
}

/** An order a little changed: one mention moved, two swapped, two parts swapped, a part brought forward. */
function changed(jobs: readonly number[], chance: (channel: number) => number): number[] {
  const order = [...jobs];
  const any = (channel: number): number => Math.floor(chance(channel) * order.length);
  const kind = chance(0);
  if (kind < 0.5) {
    const [moved] = order.splice(any(1), 1);
    order.splice(any(2), 0, moved!);
  } else if (kind < 0.65) {
    const [a, b] = [any(1), any(2)];
    [order[a], order[b]] = [order[b]!, order[a]!];
  } else if (kind < 0.8) {
    const [a, b] = [order[any(1)]!, order[any(2)]!];
    return order.map((job) => (job === a ? b : job === b ? a : job));
  } else {
    const job = order[any(1)]!;
    const at = any(2);
    const mine = order.filter((one, i) => one === job && i >= at);
    const rest = order.filter((one, i) => one !== job || i < at);
    return [...rest.slice(0, at), ...mine, ...rest.slice(at)];
  }
  return order;
}
