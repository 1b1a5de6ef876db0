import { type Basis } from '../basis';
import { courseOf } from '../course';
import { forecast } from '../forecast';
import { courseNotes, type FindingCode } from '../notes';
import { uniform } from '../numeric/hash';
import { nextStretch } from '../plan';
import { toolOf } from '../tools';
import {
  type Bench,
  benchCoarse,
  benchInAir,
  benchOf,
  build,
  type Built,
  keyOf,
  withLearned,
  withPins,
} from './build';
import { readyAt, topFilm } from './chain';
import { momentsOf, told } from './tell';
import { type Effort, type Order, type Pin, type Problem, type Schedule, USUAL_EFFORT } from './types';

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
/** Times that latest starts are learned from forecasts. */
const LESSONS = 4;
/** Drying rates between which eight of ten airs lie, of the logarithm; assumed, as the forecasts' own. */
const AIR_SPREAD = 0.45;

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

/**
 * A timetable over all parts: what is done when, so that every window is kept and the piece is ready soonest. The same
 * problem gives the same timetable everywhere: limits are counts, and chance comes from a seed.
 *
 * @param from - an order to begin with, of a problem that was much the same
 * @throws InputError as `forecast`
 */
export function schedule(problem: Problem, effort: Effort = USUAL_EFFORT, from?: Order): Schedule {
  return problem.backward && problem.deadline !== null
    ? asLate(problem, problem.deadline, effort, from)
    : forward(problem, effort, from);
}

/** Half-hours of work that a late start is looked for in [s]. */
const HALF_HOUR = 1800;
/** Timetables tried for each start that is looked at. */
const LATE_TRIES = 12;

/** The latest start found that still meets the deadline; from the beginning where none does. */
function asLate(problem: Problem, deadline: number, effort: Effort, from?: Order): Schedule {
  let best = forward(problem, effort, from);
  let { builds } = best;
  const meets = ({ ready, missed, outcome }: Schedule): boolean =>
    outcome === 'found' && missed.length === 0 && ready !== null && ready <= deadline;
  if (!meets(best)) return best;
  const starts = startsUntil(problem, deadline - (best.bound - problem.from));
  let [low, high] = [-1, starts.length];
  while (high - low > 1) {
    const mid = (low + high) >> 1;
    const tried = forward({ ...problem, from: starts[mid]! }, { ...effort, tries: LATE_TRIES }, best.order);
    builds += tried.builds;
    if (meets(tried)) [best, low] = [tried, mid];
    else high = mid;
  }
  return { ...best, builds };
}

/** Moments of work at which a plan may begin, half an hour apart, up to one. */
function startsUntil({ work, from }: Problem, last: number): number[] {
  const starts: number[] = [];
  for (let at = from + HALF_HOUR; at <= last; at += HALF_HOUR) {
    const open = work === undefined ? at : (nextStretch(work, at)?.opens ?? Infinity);
    const start = Math.max(at, open);
    if (start <= last && start !== starts.at(-1)) starts.push(start);
    at = Math.max(at, start);
  }
  return starts;
}

function forward(problem: Problem, effort: Effort, from?: Order): Schedule {
  let bench = benchOf(problem, from?.learned);
  let best = search(bench, effort, from);
  let { builds } = best;
  for (let lesson = 0; lesson < LESSONS; lesson++) {
    const learned = taught(bench, best.built);
    if (learned === null) break;
    bench = withLearned(bench, learned);
    const again = search(
      bench,
      { ...effort, tries: Math.ceil(effort.tries / 4) },
      orderOf(bench, best.built),
    );
    builds += again.builds;
    best = again;
  }
  return finished(bench, best.built, best.bound, builds);
}

/**
 * Times a problem again and again by one order, as work is dragged: what its parts do is worked out once.
 * @returns a timetable for the pins given
 * @throws InputError as `forecast`
 */
export function retimer(
  problem: Problem,
  { order, bound }: Pick<Schedule, 'order' | 'bound'>,
): (pins: readonly Pin[]) => Schedule {
  const bench = benchOf(problem, order.learned);
  return (pins) => {
    let moved = withPins(bench, pins);
    let built = build(moved, order.jobs, order.joined);
    const learned = taught(moved, built);
    if (learned !== null) {
      moved = withLearned(moved, learned);
      built = build(moved, order.jobs, built.joined);
    }
    return { ...told(moved, built), band: null, bound, order: orderOf(moved, built), builds: 1 };
  };
}

const orderOf = ({ learned }: Bench, { jobs, joined }: Built): Order => ({ jobs, joined, learned });

function finished(bench: Bench, built: Built, bound: number, builds: number): Schedule {
  const order = orderOf(bench, built);
  const found = told(bench, built);
  return {
    ...found,
    band: found.ready === null || built.failed !== null ? null : bandOf(bench, order, found.ready),
    bound,
    order,
    builds: builds + 2,
  };
}

/** When it is ready in air that dries quicker, and slower: the same order. */
function bandOf(bench: Bench, order: Order, ready: number): readonly [number, number] {
  const [quick, slow] = [AIR_SPREAD, -AIR_SPREAD].map(
    (by) => build(benchInAir(bench, Math.exp(by)), order.jobs, order.joined).ready,
  );
  // Quicker air may come to a face that has to wait longer for its turn.
  return [Math.min(quick!, slow!, ready), Math.max(quick!, slow!, ready)];
}

interface Searched {
  readonly built: Built;
  readonly bound: number;
  readonly builds: number;
}

/** Orders that are made exactly in the end. */
const FINALISTS = 3;

/** Orders to begin with, then small changes of the one that is best so far; the best of them exactly. */
function search(bench: Bench, { tries, seed }: Effort, from?: Order): Searched {
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

/** What is said of moments, by step. What a cloth does hangs on all that comes of a plan, the rest on its course. */
function saidOf(basis: Basis): ReadonlySet<string> {
  const rubs = basis.plan.steps.some(
    (step) => step.kind === 'distress' && toolOf(step.tool).action === 'rub',
  );
  const found = rubs ? forecast(basis).findings : courseNotes(courseOf(basis));
  return new Set(
    found.filter(({ code }) => OF_MOMENTS.includes(code)).map(({ code, stepId }) => `${stepId} ${code}`),
  );
}

/** Latest starts that the forecasts of a timetable teach; null where no moment made anything worse. */
function taught(bench: Bench, built: Built): Order['learned'] | null {
  const learned: Record<string, number> = { ...bench.learned };
  let more = false;
  bench.problem.jobs.forEach(({ basis }, job) => {
    const { tasks, alone, said } = bench.chains[job]!;
    const { plan } = alone[0]!.run.basis;
    const moments = momentsOf(bench, built, job);
    const key = JSON.stringify(moments);
    const at = { plan, shop: basis.shop, moments };
    const heard = (of: Basis, as: string): ReadonlySet<string> => {
      let known = said.get(as);
      if (known === undefined) said.set(as, (known = saidOf(of)));
      return known;
    };
    const free = heard({ plan, shop: basis.shop }, '');
    for (const finding of heard(at, key)) {
      if (free.has(finding)) continue;
      const stepId = finding.split(' ')[0]!;
      const index = tasks.findIndex(({ step, top }) => step?.id === stepId || top?.id === stepId);
      const film = index < 0 ? undefined : topFilm(alone[index]!);
      const begun = moments[stepId];
      if (film === undefined || begun === undefined || !('notBefore' in begun)) continue;
      const waits = latestGood(at, stepId, begun.notBefore, finding) - laidOf(at, film.step.id);
      // Laid at another moment it may dry otherwise than what was learned from.
      if (waits >= (learned[keyOf(job, index)] ?? Infinity)) continue;
      learned[keyOf(job, index)] = waits;
      more = true;
    }
  });
  return more ? learned : null;
}

/** When a film is laid by its moments [s from the plan's start]. */
function laidOf(basis: Basis, stepId: string): number {
  return courseOf(basis).films.find(({ step }) => step.id === stepId)?.laidAt ?? 0;
}

/** The latest moment of a step that brings no finding, to five minutes [s from the plan's start]. */
function latestGood(
  basis: Basis & { moments: NonNullable<Basis['moments']> },
  stepId: string,
  late: number,
  finding: string,
): number {
  const { [stepId]: _, ...others } = basis.moments;
  let good = courseOf({ ...basis, moments: others }).times.find(({ step }) => step.id === stepId)!.from;
  let bad = late;
  while (bad - good > 300) {
    const mid = (good + bad) / 2;
    if (saidOf({ ...basis, moments: { ...others, [stepId]: { notBefore: mid } } }).has(finding)) bad = mid;
    else good = mid;
  }
  return good;
}
