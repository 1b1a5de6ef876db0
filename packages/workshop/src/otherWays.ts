import { type DayStretch, type Plan, WEEKDAYS, type WorkFile } from '@zaffet/contract';
import { type Schedule, type Sums, sumsOf } from '@zaffet/core/schedule';
import { beginAt } from './begin';
import { onWall, workTime } from './calendar';
import { type Given, timetable } from './timetable';

/** What could be done otherwise, one thing at a time. */
export const WAYS = [
  'standing',
  'one-more',
  'weekend',
  'evenings',
  'longer-days',
  'from-tomorrow',
  'after-ten',
  'no-preparation',
  'no-pins',
  'no-daylight',
  'no-order',
] as const;
export type Way = (typeof WAYS)[number];

/** One thing changed: the plan with it, and what it comes to. */
export interface OtherWay {
  readonly way: Way;
  readonly plan: Plan;
  readonly outcome: Schedule['outcome'];
  /** ms since 1970; null where a film never dries. */
  readonly ready: number | null;
  readonly days: number;
  readonly sums: Omit<Sums, 'tight'>;
  readonly tight: number;
  /** Sooner than as it is [s]; below 0 later. */
  readonly gains: number;
}

const EVENING: DayStretch = { opensMin: 1080, closesMin: 1320 };
const TEN = 600;
/** A day that is longer by so much [min]. */
const LONGER = 120;
const DAY_MIN = 1440;

const weekOf = (
  work: WorkFile,
  day: (stretches: readonly DayStretch[], name: (typeof WEEKDAYS)[number]) => readonly DayStretch[],
): WorkFile => ({
  ...work,
  week: Object.fromEntries(WEEKDAYS.map((name) => [name, day(work.week[name], name)])) as WorkFile['week'],
});
const withWork = (plan: Plan, work: WorkFile): Plan => ({ ...plan, work });

/** A plan with one thing changed; null where there is nothing of the kind to change. */
function changed(plan: Plan, way: Way): Plan | null {
  const { work, timing, piece } = plan;
  switch (way) {
    case 'standing': {
      const turned = piece.parts.filter(
        ({ flat, body, facing }) => flat && body !== null && facing !== 'top',
      );
      const parts = piece.parts.map((part) => (part.body === null ? part : { ...part, flat: false }));
      return turned.length === 0 ? null : { ...plan, piece: { ...piece, parts } };
    }
    case 'one-more':
      return work === null || work.people >= 3 || piece.parts.length === 1
        ? null
        : withWork(plan, { ...work, people: work.people + 1 });
    case 'weekend': {
      if (work === null || (work.week.sat.length > 0 && work.week.sun.length > 0)) return null;
      const usual = work.week.fri.length > 0 ? work.week.fri : work.week.mon;
      return withWork(plan, { ...work, week: { ...work.week, sat: usual, sun: usual } });
    }
    case 'evenings':
      return work === null
        ? null
        : withWork(
            plan,
            weekOf(work, (day) =>
              day.length === 0 || day.length >= 4 || day.at(-1)!.closesMin > EVENING.opensMin
                ? day
                : [...day, EVENING],
            ),
          );
    case 'longer-days':
      return work === null
        ? null
        : withWork(
            plan,
            weekOf(work, (day) =>
              day.map((stretch, i) =>
                i === day.length - 1
                  ? { ...stretch, closesMin: Math.min(DAY_MIN, stretch.closesMin + LONGER) }
                  : stretch,
              ),
            ),
          );
    case 'after-ten':
      return work === null
        ? null
        : withWork(
            plan,
            weekOf(work, (day) =>
              day.flatMap((stretch) =>
                stretch.closesMin <= TEN ? [] : [{ ...stretch, opensMin: Math.max(TEN, stretch.opensMin) }],
              ),
            ),
          );
    case 'from-tomorrow': {
      const at = tomorrow(plan);
      return at === null
        ? null
        : beginAt(plan, new Date(Date.parse(plan.startsAt) + at * 1000).toISOString());
    }
    case 'no-preparation':
      return timing.prepares ? { ...plan, timing: { ...timing, prepares: false } } : null;
    case 'no-pins':
      return timing.pins.length > 0 ? { ...plan, timing: { ...timing, pins: [] } } : null;
    case 'no-daylight':
      return work === null || work.daylight === null ? null : withWork(plan, { ...work, daylight: null });
    case 'no-order':
      return timing.order.length > 0 ? { ...plan, timing: { ...timing, order: [] } } : null;
  }
}

/** The first stretch of work of a later day [s from the plan's start]; null where there is none. */
function tomorrow(plan: Plan): number | null {
  const { work } = workTime(plan);
  const first = work?.[0];
  if (work === undefined || first === undefined) return null;
  // A night lies between: the first gap of four hours and more.
  const i = work.findIndex(({ opens }, k) => k > 0 && opens - work[k - 1]!.closes >= 4 * 3600);
  return work[i]?.opens ?? null;
}

/**
 * What else could be done, one thing changed at a time: each the very timetable that the plan gets with it.
 * @throws InputError as `forecast`
 */
export function otherWays(plan: Plan, table: Schedule, given: Given = {}): OtherWay[] {
  return WAYS.flatMap((way) => {
    const other = changed(plan, way);
    if (other === null) return [];
    const { table: found } = timetable(other, given);
    const { tight, ...sums } = sumsOf(found);
    const ready = readyOf(other, found);
    const now = readyOf(plan, table);
    return [
      {
        way,
        plan: other,
        outcome: found.outcome,
        ready,
        days: daysOf(other, found),
        sums,
        tight: tight.length,
        gains: ready === null || now === null ? 0 : (now - ready) / 1000,
      },
    ];
  });
}

const readyOf = ({ startsAt }: Plan, { ready }: Schedule): number | null =>
  ready === null ? null : Date.parse(startsAt) + ready * 1000;

/** Days of the shop's calendar on which somebody works. */
function daysOf({ startsAt, work }: Plan, { entries }: Schedule): number {
  const zone = work?.zone ?? '+00:00';
  return new Set(entries.map(({ from }) => onWall(Date.parse(startsAt) + from * 1000, zone).toDateString()))
    .size;
}
