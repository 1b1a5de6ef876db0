import { type Plan, type PlanStep } from '@zaffet/contract';
import { type Entry, type Schedule } from '@zaffet/core/schedule';
import { SECONDS_PER_MINUTE } from '@zaffet/core/units';

/** Work of one kind with less than this between is one sitting [s]. */
const PAUSE = 12 * SECONDS_PER_MINUTE;
/** Windows longer than this need nobody to watch the clock [s]. */
const WATCHED = 12 * 3600;
/** What may begin so much later without holding anything up may wait [s]. */
const MAY_WAIT = 60 * SECONDS_PER_MINUTE;

/** Whether something must not be late, holds others up if it is, or may wait. */
export const URGENCIES = ['must', 'should', 'may'] as const;
export type Urgency = (typeof URGENCIES)[number];

/** What a pair of hands does in one go: the same work on one part or on several. Moments in s from the plan's start. */
export interface Sitting {
  /** Stays the same while the timetable changes. */
  readonly id: string;
  readonly hand: number;
  readonly kind: Entry['kind'];
  /** Null for preparation. */
  readonly step: PlanStep | null;
  /** With turning before and cleaning after it. */
  readonly from: number;
  readonly until: number;
  /** The work alone, part by part. */
  readonly work: readonly Entry[];
  readonly turning: number;
  readonly cleaning: number;
  /** When its own parts let it begin, and the latest; null where waiting does no harm. */
  readonly opens: number;
  readonly closes: number | null;
  /** How much later the whole of it may begin: by its window, and by what hangs on it. */
  readonly slack: number | null;
  readonly float: number;
  readonly urgency: Urgency;
  /** Of a pot that is mixed. */
  readonly recipe: string | null;
}

const sameWork = (a: Entry, b: Entry): boolean =>
  a.stepId === b.stepId && a.kind === b.kind && (a.coat === b.coat || a.kind === 'prepare');

/** The entries of a timetable as sittings, by the clock. */
export function sittings(plan: Plan, { entries }: Pick<Schedule, 'entries'>): Sitting[] {
  const steps = new Map(
    plan.finishes.flatMap(({ steps: own }) => own.map((step) => [step.id, step] as const)),
  );
  const hands = [...new Set(entries.map(({ hand }) => hand))];
  return hands
    .flatMap((hand) => goes(entries.filter((entry) => entry.hand === hand)))
    .map((go) => sittingOf(go, steps))
    .sort((a, b) => a.from - b.from || a.hand - b.hand);
}

/** Entries of one hand, parted where it goes on to something else. */
function goes(entries: readonly Entry[]): Entry[][] {
  const all: Entry[][] = [];
  let turning: Entry[] = [];
  for (const entry of entries) {
    const go = all.at(-1);
    const last = go?.findLast(({ kind }) => kind !== 'turn' && kind !== 'clean');
    if (entry.kind === 'turn') turning.push(entry);
    else if (entry.kind === 'clean' && go !== undefined) go.push(entry);
    else if (
      go !== undefined &&
      last !== undefined &&
      entry.kind !== 'mix' &&
      sameWork(last, entry) &&
      entry.from - go.at(-1)!.until <= PAUSE
    ) {
      go.push(...turning, entry);
      turning = [];
    } else {
      all.push([...turning, entry]);
      turning = [];
    }
  }
  return all;
}

function sittingOf(go: readonly Entry[], steps: ReadonlyMap<string, PlanStep>): Sitting {
  const work = go.filter(({ kind }) => kind !== 'turn' && kind !== 'clean');
  const first = work[0]!;
  const sum = (kind: Entry['kind']): number =>
    go.reduce((all, entry) => all + (entry.kind === kind ? entry.until - entry.from : 0), 0);
  const windows = work.filter(({ closes }) => closes !== null);
  const tightest = windows.reduce<Entry | null>(
    (tight, entry) =>
      tight === null || entry.closes! - entry.from < tight.closes! - tight.from ? entry : tight,
    null,
  );
  const slack = tightest === null ? null : tightest.closes! - tightest.from;
  const float = Math.min(...work.map((entry) => entry.float));
  const watched = tightest !== null && tightest.closes! - tightest.opens < WATCHED;
  return {
    id: [first.kind, first.partId, first.stepId, first.coat, first.recipe ?? ''].join(' '),
    hand: first.hand,
    kind: first.kind,
    step: first.kind === 'prepare' ? null : (steps.get(first.stepId) ?? null),
    from: go[0]!.from,
    until: go.at(-1)!.until,
    work,
    turning: sum('turn'),
    cleaning: sum('clean'),
    opens: first.opens,
    closes: tightest?.closes ?? null,
    slack,
    float,
    urgency: watched ? 'must' : first.kind !== 'mix' && float >= MAY_WAIT ? 'may' : 'should',
    recipe: first.recipe,
  };
}
