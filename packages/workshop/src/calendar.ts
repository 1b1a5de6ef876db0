import { TZDate, tzOffset } from '@date-fns/tz';
import { type DayStretch, type Plan, WEEKDAYS, type WorkFile } from '@zaffet/contract';
import { type Stretch, type WorkTime } from '@zaffet/core/plan';

/** Days that are gone through: longer than any plan takes whose steps may each wait a fortnight. */
const DAYS = 120;
const WEEK = 7;
const MS = 1000;

interface Day {
  readonly year: number;
  readonly month: number;
  readonly day: number;
  /** Minutes the wall clock is ahead of UTC; null where that changes in these days. */
  readonly offset: number | null;
}

/** The days of the shop's calendar from one instant on. */
function daysFrom(zone: string, startsAt: string): Day[] {
  const first = new TZDate(Date.parse(startsAt), zone);
  const [year, month, day] = [first.getFullYear(), first.getMonth(), first.getDate()];
  const dates = Array.from({ length: DAYS }, (_, i) => new Date(Date.UTC(year, month, day + i)));
  const known = new Map<number, number>();
  const offset = (date: Date): number => {
    const at = date.getTime();
    const told = known.get(at) ?? tzOffset(zone, date);
    known.set(at, told);
    return told;
  };
  return dates.map((date, i) => {
    const week = Math.floor(i / WEEK) * WEEK;
    const [before, after] = [dates[Math.max(0, week - 1)]!, dates[week + WEEK] ?? date];
    // Clocks are asked for a whole week at once where they are not changed in it.
    const [from, until] = [offset(before), offset(after)];
    return {
      year: date.getUTCFullYear(),
      month: date.getUTCMonth(),
      day: date.getUTCDate(),
      offset: from === until ? from : null,
    };
  });
}

/** A day as it is written: `2026-05-14`. */
const written = ({ year, month, day }: Day): string =>
  new Date(Date.UTC(year, month, day)).toISOString().slice(0, 10);
/** Monday is the first of a week. */
const weekday = ({ year, month, day }: Day): number =>
  (new Date(Date.UTC(year, month, day)).getUTCDay() + 6) % 7;

/** Stretches in order, those that touch or overlap as one [s from the start], none that has ended by then. */
function joined(stretches: readonly Stretch[]): Stretch[] {
  const all: Stretch[] = [];
  for (const stretch of [...stretches].sort((a, b) => a.opens - b.opens)) {
    const last = all.at(-1);
    if (last !== undefined && stretch.opens <= last.closes)
      all[all.length - 1] = { opens: last.opens, closes: Math.max(last.closes, stretch.closes) };
    else all.push(stretch);
  }
  return all.filter(({ closes }) => closes > 0);
}

function stretchesOf(
  zone: string,
  startsAt: string,
  days: readonly { day: Day; stretches: readonly DayStretch[] }[],
): Stretch[] {
  const start = Date.parse(startsAt);
  return days.flatMap(({ day: { year, month, day, offset }, stretches }) => {
    const at = (minute: number): number =>
      offset === null
        ? new TZDate(year, month, day, 0, minute, zone).getTime()
        : Date.UTC(year, month, day, 0, minute - offset);
    return stretches.map(({ opensMin, closesMin }) => ({
      opens: (at(opensMin) - start) / MS,
      closes: (at(closesMin) - start) / MS,
    }));
  });
}

const known = new WeakMap<WorkFile, { startsAt: string; work: WorkTime; daylight: WorkTime | undefined }>();

/** When there is somebody to work, and when there is daylight to judge by [s from the plan's start]. */
export function workTime({ work, startsAt }: Pick<Plan, 'work' | 'startsAt'>): {
  readonly work: WorkTime | undefined;
  readonly daylight: WorkTime | undefined;
} {
  if (work === null) return { work: undefined, daylight: undefined };
  const before = known.get(work);
  if (before?.startsAt === startsAt) return before;
  const { zone, week, daysOff, extra, daylight } = work;
  const days = daysFrom(zone, startsAt);
  const start = Date.parse(startsAt);
  const usual = days.map((day) => ({
    day,
    stretches: daysOff.includes(written(day)) ? [] : week[WEEKDAYS[weekday(day)]!],
  }));
  const told = {
    startsAt,
    work: joined([
      ...stretchesOf(zone, startsAt, usual),
      ...extra.map(({ from, until }) => ({
        opens: (Date.parse(from) - start) / MS,
        closes: (Date.parse(until) - start) / MS,
      })),
    ]),
    daylight:
      daylight === null
        ? undefined
        : joined(
            stretchesOf(
              zone,
              startsAt,
              days.map((day) => ({ day, stretches: [daylight] })),
            ),
          ),
  };
  known.set(work, told);
  return told;
}

/** The clock on the shop's wall: an instant as a date that reads so. */
export const onWall = (at: number, zone: string): Date => new TZDate(at, zone);

/** The instant [ms since 1970] at which that clock reads a time, written as `2026-05-12T08:00:00`. */
export function onClock(written: string, zone: string): number {
  const [year, month, day, hour, minute, second] = written.split(/[-T:]/).map(Number) as number[];
  return new TZDate(year!, month! - 1, day!, hour!, minute!, second!, zone).getTime();
}

/** Five in the afternoon [min from midnight]. */
const FIVE = 1020;

/** When work ends on a day [min from its midnight]; at five where nobody works then. @param day - as the workshop's clock reads it */
export function workEndsMin(work: WorkFile | null, day: Date): number {
  const stretches = work?.week[WEEKDAYS[(day.getDay() + 6) % WEEK]!] ?? [];
  return stretches.at(-1)?.closesMin ?? FIVE;
}

/** Eight to five with an hour at noon, from Monday to Friday: what is offered first. */
export function usualWork(zone: string): WorkFile {
  const day: DayStretch[] = [
    { opensMin: 480, closesMin: 720 },
    { opensMin: 780, closesMin: FIVE },
  ];
  return {
    zone,
    week: { mon: day, tue: day, wed: day, thu: day, fri: day, sat: [], sun: [] },
    daysOff: [],
    extra: [],
    people: 1,
    daylight: null,
    minutes: {},
  };
}
