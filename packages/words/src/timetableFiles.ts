import { type Plan, type ClockFace } from '@zaffet/contract';
import { type Schedule } from '@zaffet/core/schedule';
import { type Sitting, sittings } from '@zaffet/workshop';
import ical, { ICalAlarmType, ICalCalendarMethod } from 'ical-generator';
import Papa from 'papaparse';
import { partsOf, sittingDetail, sittingTitle, URGENCY_WORDS, urgencyText, wallClock } from './timetable';

import { oneLine, plainLines } from './plainLine';

/** Minutes before a sitting that a calendar gives a sign. */
const SIGN_MIN = 5;

/** A stable name of an event: a new timetable moves it instead of adding another. */
const uidOf = (planId: string, { id }: Sitting): string =>
  `${planId}-${id}`.replace(/[^A-Za-z0-9-]+/g, '-').toLowerCase() + '@zaffet';

/**
 * A timetable as an iCalendar file (RFC 5545): an event a sitting, in UTC; a sign five minutes before it, and for what
 * must not be late another one when it may begin.
 * @param planId - tells the plan's events from others
 * @param made - when the file is made [ms since 1970]; also the number by which newer events replace older ones
 */
export function calendarFile(
  plan: Plan,
  table: Schedule,
  planId: string,
  made: number,
  face: ClockFace,
): string {
  const start = Date.parse(plan.startsAt);
  const clock = wallClock(plan, face);
  const calendar = ical({
    name: oneLine(plan.name),
    method: ICalCalendarMethod.PUBLISH,
    prodId: { company: 'Zaffet', product: 'Days' },
  });
  for (const sitting of sittings(plan, table)) {
    const from = start + sitting.from * 1000;
    const event = calendar.createEvent({
      id: uidOf(planId, sitting),
      start: new Date(from),
      end: new Date(start + sitting.until * 1000),
      stamp: new Date(made),
      sequence: Math.floor(made / 1000 / 60) % 2_000_000_000,
      summary: oneLine(`${sittingTitle(sitting, plan)}: ${partsOf(sitting, plan)}`),
      description: plainLines(
        [sittingDetail(sitting, plan), urgencyText(sitting, start, clock)].filter(Boolean).join('\n'),
      ),
    });
    event.createAlarm({ type: ICalAlarmType.display, trigger: SIGN_MIN * 60 });
    if (sitting.urgency === 'must' && sitting.opens > sitting.from)
      event.createAlarm({ type: ICalAlarmType.display, trigger: new Date(start + sitting.opens * 1000) });
  }
  return calendar.toString();
}

/** A timetable as CSV: a line an entry; instants in ISO 8601, times in minutes. */
export function timetableCsv(plan: Plan, table: Schedule): string {
  const start = Date.parse(plan.startsAt);
  const instant = (moment: number): string => new Date(start + moment * 1000).toISOString();
  const minutes = (seconds: number): number => Math.round(seconds / 6) / 10;
  const rows = sittings(plan, table).flatMap((sitting) =>
    sitting.work.map((entry) => ({
      from: instant(entry.from),
      until: instant(entry.until),
      hand: entry.hand + 1,
      what: sittingTitle({ ...sitting, work: [entry] }, plan),
      part: plan.piece.parts.find(({ id }) => id === entry.partId)?.name ?? '',
      kind: entry.kind,
      hands_min: minutes(entry.until - entry.from),
      sections: entry.sections,
      opens: instant(entry.opens),
      closes: entry.closes === null ? '' : instant(entry.closes),
      slack_min: entry.closes === null ? '' : minutes(entry.closes - entry.from),
      urgency: URGENCY_WORDS[sitting.urgency],
    })),
  );
  return Papa.unparse(rows, { newline: '\r\n', escapeFormulae: true });
}
