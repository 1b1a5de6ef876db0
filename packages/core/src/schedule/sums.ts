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
