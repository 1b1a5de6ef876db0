import { nextStretch } from '../plan';
import { type Bench, benchInAir, benchOf, build, type Built, withLearned, withPins } from './build';
import { taught } from './lessons';
import { search } from './search';
import { told } from './tell';
import { type Effort, type Order, type Pin, type Problem, type Schedule, USUAL_EFFORT } from './types';

/** Times that latest starts are learned from forecasts. */
const LESSONS = 4;
/** Drying rates between which eight of ten airs lie, of the logarithm; assumed, as the forecasts' own. */
const AIR_SPREAD = 0.45;

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
