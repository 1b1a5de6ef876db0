import { type StartRule, type Stretch, type WorkTime } from './types';

/** A wait up to this is part of the sitting it began in, and is kept though the day has ended [s]; common practice. */
export const SITTING = 3600;

/** Index of the first stretch that ends after a moment; the number of stretches where none does. */
export function stretchFrom(work: WorkTime, moment: number): number {
  let low = 0;
  let high = work.length;
  while (low < high) {
    const mid = (low + high) >> 1;
    if (work[mid]!.closes > moment) high = mid;
    else low = mid + 1;
  }
  return low;
}

/** The stretch that a moment lies in, or the next one; null after the last. */
export const nextStretch = (work: WorkTime, moment: number): Stretch | null =>
  work[stretchFrom(work, moment)] ?? null;

/** True where a moment lies in working time. */
export function atWork(moment: number, work: WorkTime): boolean {
  const stretch = nextStretch(work, moment);
  return stretch !== null && stretch.opens <= moment;
}

/**
 * When a step of one part, timed by itself, really begins: what falls into the night is done next morning. Moments that
 * were set by the clock, and short waits after the step before, stay as they are; so does what comes after the last
 * stretch.
 * @param moment - [s from the plan's start]
 * @param idle - how long the hands have rested by then [s]: after a night's wait comes the morning
 */
export function inHours(moment: number, start: StartRule, work: WorkTime | undefined, idle = 0): number {
  if (work === undefined || start.rule === 'at') return moment;
  if (start.rule === 'after' && start.wait <= SITTING && idle <= SITTING) return moment;
  return Math.max(moment, nextStretch(work, moment)?.opens ?? moment);
}
