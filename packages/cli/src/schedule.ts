import { type Plan } from '@zaffet/contract';
import { type Schedule, sumsOf } from '@zaffet/core/schedule';
import {
  calendarFile,
  duration,
  missedText,
  obstacleText,
  partsOf,
  sittingDetail,
  sittingTitle,
  timetableCsv,
  URGENCY_WORDS,
} from '@zaffet/words';
import { sittings, timetable } from '@zaffet/workshop';
import { type Asked, readWholePlan, shopOf } from './predict';

/** A timetable as plain JSON: instants in ISO 8601, minutes. */
export interface Timetable {
  readonly plan: string;
  /** Why there is none, in a sentence; null where there is one. */
  readonly obstacle: string | null;
  /** Windows that no order of the work keeps, a sentence each. */
  readonly missed: readonly string[];
  readonly readyAt: string | null;
  /** What the plan is due by; null where it has no deadline. */
  readonly dueAt: string | null;
  /** How much later than that it is ready [min]; 0 in time, null where it has no deadline or is never ready. */
  readonly lateMin: number | null;
  /** In eight of ten airs that differ from what is expected it is ready between these. */
  readonly readyBetween: readonly [string, string] | null;
  readonly handsMin: number;
  readonly cleaningMin: number;
  readonly mixingMin: number;
  readonly turningMin: number;
  readonly sittings: readonly {
    from: string;
    until: string;
    hand: number;
    what: string;
    parts: string;
    how: string;
    opens: string;
    closes: string | null;
    urgency: string;
  }[];
  /** When each step of each part begins. */
  readonly steps: readonly { part: string; step: string; at: string }[];
}

export const FORMATS = ['json', 'csv', 'ics'] as const;
export type TimetableFormat = (typeof FORMATS)[number];

const minutes = (seconds: number): number => Math.round(seconds / 6) / 10;

/**
 * The timetable of a plan file over all its parts, as JSON, CSV or an iCalendar file.
 * @throws ZaffetError as `predict`
 */
export async function scheduleText(
  path: string,
  asked: Asked,
  format: TimetableFormat,
  made: number,
): Promise<string> {
  const plan = await readWholePlan(path, asked);
  const { table } = timetable(plan, { shop: await shopOf(asked) });
  switch (format) {
    case 'csv':
      return `${timetableCsv(plan, table)}\r\n`;
    case 'ics':
      return calendarFile(plan, table, plan.name, made, '24');
    case 'json':
      return `${JSON.stringify(told(plan, table), null, 2)}\n`;
  }
}

/** How much later than its deadline a plan is ready [min]. */
function lateOf({ timing, startsAt }: Plan, { ready }: Schedule): number | null {
  if (timing.deadlineAt === null || ready === null) return null;
  const due = (Date.parse(timing.deadlineAt) - Date.parse(startsAt)) / 1000;
  return minutes(Math.max(0, ready - due));
}

function late(plan: Plan, table: Schedule): string[] {
  if (plan.timing.deadlineAt === null) return [];
  const lateMin = lateOf(plan, table);
  if (lateMin === 0) return [];
  const text =
    lateMin === null ? 'it never dries in this air' : `it is ready ${duration(lateMin * 60)} later`;
  return [`The deadline ${plan.timing.deadlineAt} is missed: ${text}.`];
}

function told(plan: Plan, table: Schedule): Timetable {
  const start = Date.parse(plan.startsAt);
  const instant = (moment: number): string => new Date(start + moment * 1000).toISOString();
  const sums = sumsOf(table);
  return {
    plan: plan.name,
    obstacle: table.obstacle === null ? null : obstacleText(table.obstacle, plan),
    missed: [...table.missed.map((entry) => missedText(entry, plan)), ...late(plan, table)],
    readyAt: table.ready === null ? null : instant(table.ready),
    dueAt: plan.timing.deadlineAt,
    lateMin: lateOf(plan, table),
    readyBetween: table.band === null ? null : [instant(table.band[0]), instant(table.band[1])],
    handsMin: minutes(sums.hands),
    cleaningMin: minutes(sums.cleaning),
    mixingMin: minutes(sums.mixing),
    turningMin: minutes(sums.turning),
    sittings: sittings(plan, table).map((sitting) => ({
      from: instant(sitting.from),
      until: instant(sitting.until),
      hand: sitting.hand + 1,
      what: sittingTitle(sitting, plan),
      parts: partsOf(sitting, plan),
      how: sittingDetail(sitting, plan),
      opens: instant(sitting.opens),
      closes: sitting.closes === null ? null : instant(sitting.closes),
      urgency: URGENCY_WORDS[sitting.urgency],
    })),
    steps: plan.piece.parts.flatMap(({ id, name }) =>
      Object.entries(table.moments[id] ?? {}).flatMap(([step, moment]) =>
        'notBefore' in moment ? [{ part: name, step, at: instant(moment.notBefore) }] : [],
      ),
    ),
  };
}
