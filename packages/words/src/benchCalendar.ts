import { type Plan } from '@zaffet/contract';
import { type Alarm, type AlarmKind, alarmsOf, type Bench, type BenchTask } from '@zaffet/workshop';
import ical, { ICalAlarmType, ICalCalendarMethod } from 'ical-generator';
import { oneLine } from './plainLine';
import { sittingTitle } from './timetable';

/** An event without a length is not seen in a calendar [ms]. */
const LENGTH = 5 * 60_000;

/** What a task is called at the bench. */
export function taskTitle({ kind, stepId, prepares, coat, of }: BenchTask, plan: Plan): string {
  const step =
    kind === 'prepare'
      ? null
      : (plan.finishes.flatMap(({ steps }) => steps).find(({ id }) => id === stepId) ?? null);
  return sittingTitle({ kind, step, recipe: null, work: [{ stepId, prepares, coat, of }] }, plan);
}

const SAYS: Readonly<Record<AlarmKind, (what: string, part: string) => string>> = {
  look: (what, part) => `Look at the ${part}: it may be ready for ${what}`,
  go: (what, part) => `The ${part} is ready for ${what}`,
  closing: (what, part) => `${what} on the ${part}: soon too late`,
};

/** What an alarm says. */
export function alarmText({ kind, partId, task }: Alarm, plan: Plan): string {
  const part = (plan.piece.parts.find(({ id }) => id === partId)?.name ?? 'a part').toLowerCase();
  return SAYS[kind](taskTitle(task, plan), part);
}

/**
 * The alarms of a run as an iCalendar file (RFC 5545), for a device that goes to sleep: an event an alarm, in UTC, that
 * rings when it begins. A later file moves what moved.
 * @param made - when the file is made [ms since 1970]; what lies before it is left out
 */
export function benchCalendar(
  bench: Pick<Bench, 'parts' | 'begunAt'>,
  plan: Plan,
  runId: string,
  made: number,
): string {
  const calendar = ical({
    name: oneLine(`${plan.name}, at the bench`),
    method: ICalCalendarMethod.PUBLISH,
    prodId: { company: 'Zaffet', product: 'Bench' },
  });
  for (const alarm of alarmsOf(bench)) {
    if (alarm.at < made) continue;
    const event = calendar.createEvent({
      id: `${runId}-${alarm.id}`.replace(/[^A-Za-z0-9-]+/g, '-').toLowerCase() + '@zaffet',
      start: new Date(alarm.at),
      end: new Date(alarm.at + LENGTH),
      stamp: new Date(made),
      sequence: Math.floor(made / 1000 / 60) % 2_000_000_000,
      summary: oneLine(alarmText(alarm, plan)),
    });
    event.createAlarm({ type: ICalAlarmType.audio, trigger: 0 });
  }
  return calendar.toString();
}
