import { SECONDS_PER_DAY } from '../units';
import { type Entry, type Schedule } from './types';

/** What a timetable costs. */
export interface Sums {
  /** All hands together [s]; of it cleaning, mixing and turning. */
  readonly hands: number;
  readonly cleaning: number;
  readonly mixing: number;
  readonly turning: number;
  readonly turns: number;
  /** Windows that leave less than twice what the work takes. */
  readonly tight: readonly Entry[];
}

/** Whether a window leaves so little that it must be watched. */
export const isTight = ({ closes, from, until }: Pick<Entry, 'closes' | 'from' | 'until'>): boolean =>
  closes !== null && closes - from < 2 * (until - from);

/** What a timetable takes of the hands. */
export function sumsOf({ entries }: Pick<Schedule, 'entries'>): Sums {
  const of = (kinds: readonly Entry['kind'][]): number =>
    entries.reduce((sum, { kind, from, until }) => sum + (kinds.includes(kind) ? until - from : 0), 0);
  return {
    hands: entries.reduce((sum, { from, until }) => sum + until - from, 0),
    cleaning: of(['clean']),
    mixing: of(['mix']),
    turning: of(['turn']),
    turns: entries.filter(({ kind }) => kind === 'turn').length,
    tight: entries.filter(isTight),
  };
}

/** A pause longer than this is said before all else [s]; common practice. */
const LONG_PAUSE = 7 * SECONDS_PER_DAY;

/** The longest time without any work, where it is longer than a week: since when, and what comes after it. */
export function longPauseOf({ entries }: Pick<Schedule, 'entries'>): { since: number; next: Entry } | null {
  const inOrder = [...entries].sort((a, b) => a.from - b.from);
  let longest: { since: number; next: Entry } | null = null;
  let until = inOrder[0]?.from ?? 0;
  for (const next of inOrder) {
    const most = longest === null ? LONG_PAUSE : longest.next.from - longest.since;
    if (next.from - until > most) longest = { since: until, next };
    until = Math.max(until, next.until);
  }
  return longest;
}
