import { type Bench, type BenchTask } from './types';

/** What an alarm is about: a look that may pay, work that may begin, a window that may close soon. */
export const ALARM_KINDS = ['look', 'go', 'closing'] as const;
export type AlarmKind = (typeof ALARM_KINDS)[number];

/** A moment that is rung for [ms since 1970]. */
export interface Alarm {
  /** Of its task and kind: rung once, wherever it moves. */
  readonly id: string;
  readonly kind: AlarmKind;
  readonly partId: string;
  readonly task: BenchTask;
  readonly at: number;
}

/** What may be done from the moment on that something else was told is not waited for: somebody stands there [ms]. */
const AT_ONCE = 1000;

/**
 * Alarms of a run, by the clock: look when a window may be open, go when it most likely is, and when it may close soon.
 */
export function alarmsOf({ parts, begunAt }: Pick<Bench, 'parts' | 'begunAt'>): Alarm[] {
  const all = parts.flatMap(({ tasks }) => tasks);
  const told = all.flatMap(({ state, from, until }) =>
    state === 'done' ? [from, until] : state === 'doing' ? [from] : [],
  );
  const waitedFor = (at: number): boolean =>
    [begunAt, ...told].every((moment) => Math.abs(at - moment) > AT_ONCE);
  return all
    .flatMap((task): Alarm[] => {
      const { key, partId, state, opens, closes, waitsFor } = task;
      if (state !== 'next' && !(state === 'doing' && task.kind === 'sections')) return [];
      const alarm = (kind: AlarmKind, at: number): Alarm => ({
        id: `${key} ${kind}`,
        kind,
        partId,
        task,
        at,
      });
      const looks = waitsFor !== null && waitsFor !== 'skinned' && opens !== null && opens.low < opens.at;
      return [
        ...(looks ? [alarm('look', opens.low)] : []),
        ...(state === 'next' && opens !== null && waitedFor(opens.at) ? [alarm('go', opens.at)] : []),
        ...(closes === null ? [] : [alarm('closing', closes.low)]),
      ];
    })
    .sort((a, b) => a.at - b.at);
}

/** Alarms that are due: since the last time anybody asked, and no older than is worth telling. */
export const due = (alarms: readonly Alarm[], since: number, now: number): Alarm[] =>
  alarms.filter(({ at }) => at > since && at <= now);
