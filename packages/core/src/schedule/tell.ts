import { type StepMoment } from '../basis';
import { stretchFrom, type WorkTime } from '../plan';
import { SECONDS_PER_MINUTE } from '../units';
import { type Bench, type Built, keyOf } from './build';
import { readyAt, windowAt } from './chain';
import { type Booking, washBetween } from './booking';
import { longestOf } from './tasks';
import { type Entry, type MixedAt, type Obstacle, type Schedule } from './types';

/** What a timetable says, out of how it was made. */
export function told(bench: Bench, built: Built): Omit<Schedule, 'band' | 'bound' | 'order' | 'builds'> {
  const { chains, problem } = bench;
  const mixes = mixesUsed(bench, built);
  const kept = built.hands.map((hand) =>
    hand.filter((booking) => booking.recipe === null || mixes.some(({ mixed }) => mixed === booking)),
  );
  const floats = floatsOf(bench, built, kept);
  const entries = kept
    .flatMap((hand) => hand.flatMap((booking, i) => entriesOf(bench, booking, hand[i + 1], floats)))
    .sort((a, b) => a.from - b.from || a.until - b.until);
  const readyOf = Object.fromEntries(
    problem.jobs.map(({ id }, job) => [id, readyAt(built.points[job]!)] as const),
  );
  const readies = Object.values(readyOf);
  return {
    outcome: built.failed === null ? 'found' : 'impossible',
    entries,
    moments: Object.fromEntries(problem.jobs.map(({ id }, job) => [id, momentsOf(bench, built, job)])),
    mixes: mixes.map(({ mixed, use }): MixedAt => {
      const task = chains[use.job]!.tasks[use.task]!;
      const needs = (id: string | undefined): boolean =>
        (problem.jobs[use.job]!.pots[id ?? ''] ?? []).some(({ recipe }) => recipe === mixed.recipe);
      const step = needs(task.step?.id) ? task.step! : task.top!;
      return { recipe: mixed.recipe!, partId: problem.jobs[use.job]!.id, stepId: step.id, at: mixed.from };
    }),
    ready: readies.some((at) => at === null) ? null : Math.max(...readies.map((at) => at!)),
    readyOf,
    missed: entries.filter(({ closes, from }) => closes !== null && from > closes + 1),
    obstacle: obstacleOf(bench, built),
  };
}

const tasksPlaced = (built: Built, job: number): Booking[] =>
  built.bookings[job]!.filter(({ recipe }) => recipe === null);

/** The moments of a part's steps, as its forecast takes them. */
export function momentsOf({ chains }: Bench, built: Built, job: number): Record<string, StepMoment> {
  const { tasks } = chains[job]!;
  const moments: Record<string, StepMoment> = {};
  tasksPlaced(built, job).forEach(({ from, until, how }, i) => {
    const task = tasks[i]!;
    const id = task.step?.id;
    if (id === undefined) return;
    const known = moments[id];
    switch (task.kind) {
      case 'buff':
        moments[id] = { ...known!, buffAt: from };
        return;
      case 'coat':
        moments[id] = { notBefore: from, ...known, coats: [...(known?.coats ?? []), from] };
        return;
      case 'piece':
        moments[id] = { notBefore: from, ...known, endsAt: until };
        return;
      case 'sections':
        moments[id] = { notBefore: from };
        moments[task.top!.id] = { notBefore: from + how.lag };
        return;
      default:
        moments[id] = { notBefore: from };
    }
  });
  return moments;
}

/** Which pots that were mixed are used, each by what comes out of it first: as few as serve all. */
function mixesUsed(bench: Bench, built: Built): { mixed: Booking; use: Booking }[] {
  const uses = new Map<string, { use: Booking; life: number; rest: number }[]>();
  built.bookings.forEach((placed, job) => {
    for (const use of placed) {
      if (use.recipe !== null) continue;
      for (const { recipe, life, rest, mixing } of bench.chains[job]!.tasks[use.task]!.pots)
        if (mixing > 0) uses.set(recipe, [...(uses.get(recipe) ?? []), { use, life, rest }]);
    }
  });
  const mixed = built.hands.flat().filter(({ recipe }) => recipe !== null);
  return [...uses].flatMap(([recipe, all]) => {
    const pots = mixed.filter((pot) => pot.recipe === recipe).sort((a, b) => a.from - b.from);
    const used: { mixed: Booking; use: Booking }[] = [];
    for (const { use, life, rest } of all.sort((a, b) => a.use.from - b.use.from)) {
      const last = used.at(-1)?.mixed;
      if (last !== undefined && use.until <= last.until + life) continue;
      const pot = pots.findLast(({ until }) => until + rest <= use.from + 1e-6);
      if (pot !== undefined && pot !== last) used.push({ mixed: pot, use });
    }
    return used;
  });
}

const PLAIN = {
  prepares: [],
  coat: 0,
  of: 1,
  sections: 1,
  lag: 0,
  closes: null,
  delay: null,
  recipe: null,
} as const;

function entriesOf(
  bench: Bench,
  booking: Booking,
  next: Booking | undefined,
  floats: ReadonlyMap<Booking, number>,
): Entry[] {
  const { problem, chains } = bench;
  const { job, from, until, hand, up, body, how, window, recipe } = booking;
  const partId = problem.jobs[job]!.id;
  const task = chains[job]!.tasks[booking.task]!;
  const stepId = task.step?.id ?? task.prepares[0]!;
  const float = floats.get(booking) ?? Infinity;
  const base = { ...PLAIN, partId, stepId, hand, up, body, float, opens: from };
  if (recipe !== null) return [{ ...base, kind: 'mix', from, until, recipe, float: 0 }];
  const turn = problem.minutes.turn * SECONDS_PER_MINUTE;
  const waits = problem.minutes.brushWaits * SECONDS_PER_MINUTE;
  const wash = next === undefined ? booking.wash : washBetween(booking, next, waits);
  return [
    ...(booking.turned && turn > 0
      ? [{ ...base, kind: 'turn' as const, from: from - turn, until: from, float: 0 }]
      : []),
    {
      ...base,
      kind: task.kind,
      prepares: task.prepares,
      coat: task.coat,
      of: task.of,
      from,
      until,
      sections: how.sections,
      lag: how.lag,
      opens: window.opens,
      closes: window.closes,
      delay: booking.delay,
    },
    ...(wash > 0 ? [{ ...base, kind: 'clean' as const, from: until, until: until + wash, float: 0 }] : []),
  ];
}

/**
 * How much later each task may begin before something that hangs on it, or the whole, would be late: by its own part, its
 * body and its window. Hands are taken to be there, and what dries to need as long as it does now.
 */
function floatsOf(bench: Bench, built: Built, hands: readonly (readonly Booking[])[]): Map<Booking, number> {
  const latest = new Map<Booking, number>();
  const of = new Map<string, Booking>();
  const all = hands.flat().filter(({ recipe }) => recipe === null);
  for (const booking of all) of.set(keyOf(booking.job, booking.task), booking);
  const bodies = new Map<string, Booking[]>();
  for (const booking of [...all].sort((a, b) => a.from - b.from))
    bodies.set(booking.body, [...(bodies.get(booking.body) ?? []), booking]);
  const sorted = [...all].sort((a, b) => b.from - a.from);
  const begins = (booking: Booking): number =>
    booking.turned ? booking.from - bench.problem.minutes.turn * SECONDS_PER_MINUTE : booking.from;
  for (const booking of sorted) {
    const point = built.points[booking.job]!;
    let float = built.ready - (readyAt(point) ?? built.ready);
    const after = (next: Booking | undefined, idle: number): void => {
      if (next !== undefined) float = Math.min(float, idle + (latest.get(next) ?? Infinity));
    };
    const own = of.get(keyOf(booking.job, booking.task + 1));
    // What its own part waits for is the film, which comes later as it is laid later.
    if (own !== undefined) after(own, Math.max(0, own.from - own.window.opens));
    const body = bodies.get(booking.body)!;
    const turned = body.slice(body.indexOf(booking) + 1).find(({ up }) => up !== booking.up);
    if (turned !== undefined) after(turned, Math.max(0, begins(turned) - booking.tacky));
    const { closes } = booking.window;
    if (closes !== null) float = Math.min(float, Math.max(0, closes - booking.from));
    latest.set(booking, atWorkBy(booking, Math.max(0, float), bench.problem.work));
  }
  return latest;
}

/** How much later a task may begin so that it still lies in working time: what falls into a night counts to its evening. */
function atWorkBy({ from, until, wash }: Booking, float: number, work: WorkTime | undefined): number {
  if (work === undefined || float === 0) return float;
  const takes = until - from + wash;
  const latest = from + float;
  for (let i = stretchFrom(work, latest); i >= 0; i--) {
    const stretch = work[i];
    if (stretch === undefined || stretch.opens > latest) continue;
    const last = Math.min(latest, stretch.closes - takes);
    if (last >= stretch.opens) return Math.max(0, last - from);
  }
  return 0;
}

/** Why there is no timetable: what takes longer than any stretch of work, or what there is no time for at all. */
function obstacleOf({ chains, problem }: Bench, { failed }: Built): Obstacle | null {
  if (failed === null) return null;
  const chain = chains[failed.job]!;
  const task = chain.tasks[failed.task]!;
  const longest = longestOf(problem);
  // Sections take longer than their brushes: with the waits between.
  const [before, after] = [chain.alone[failed.task]!, chain.alone[failed.task + 1]!];
  const hands =
    task.kind === 'sections' ? after.ends - windowAt(chain, before, failed.task).opens : task.hands;
  return {
    reason: longest > 0 && hands + task.wash > longest ? 'too-long' : 'no-time',
    partId: problem.jobs[failed.job]!.id,
    stepId: task.step?.id ?? task.prepares[0]!,
    needs: hands + task.wash,
    longest,
  };
}
