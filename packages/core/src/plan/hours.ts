import { type StartRule, type WorkingHours } from './types';

/** A wait up to this is part of the sitting it began in, and is kept though the day has ended [s]; common practice. */
export const SITTING = 3600;
const DAY = 86400;

/** Time of day at a moment [s from the plan's start]. */
const clockAt = (moment: number, hours: WorkingHours): number =>
  (((hours.clockAtStart + moment) % DAY) + DAY) % DAY;

/** True where a moment lies in the working day. */
export function atWork(moment: number, hours: WorkingHours): boolean {
  const clock = clockAt(moment, hours);
  return clock >= hours.opens && clock < hours.closes;
}

/**
 * When a step that could begin at a moment really begins: what falls into the night is done next morning. Moments that
 * were set by the clock, and short waits after the step before, stay as they are.
 * @param moment - [s from the plan's start]
 * @param idle - how long the hands have rested by then [s]: after a night's wait comes the morning
 */
export function inHours(moment: number, start: StartRule, hours: WorkingHours | undefined, idle = 0): number {
  if (hours === undefined || start.rule === 'at' || atWork(moment, hours)) return moment;
  if (start.rule === 'after' && start.wait <= SITTING && idle <= SITTING) return moment;
  const clock = clockAt(moment, hours);
  return moment + (clock < hours.opens ? hours.opens - clock : DAY - clock + hours.opens);
}

/** The last working moment that is no later than a moment: what must be ready is prepared the evening before. */
export function byHours(moment: number, hours: WorkingHours | undefined): number {
  if (hours === undefined || atWork(moment, hours)) return moment;
  const clock = clockAt(moment, hours);
  return moment - (clock >= hours.closes ? clock - hours.closes : clock + DAY - hours.closes);
}
