import { type PrepStep } from '../plan';
import { SECONDS_PER_MINUTE } from '../units';
import { type Chain, doing, topFilm, windowAt } from './chain';
import { type Problem, type TaskKind, type WaitReason } from './types';

/** What the hands are at in one go for one part, as soon as the part lets them. Moments in s from the plan's start. */
export interface PartTask {
  readonly kind: TaskKind;
  /** Of preparation the first of its stages. */
  readonly stepId: string;
  /** The coat over the glue, where both are done in sections. */
  readonly topId: string | null;
  readonly prepares: readonly PrepStep[];
  readonly coat: number;
  readonly of: number;
  /** Earliest and latest start by what the part has done; null where waiting does no harm. */
  readonly opens: number;
  readonly closes: number | null;
  /** What it waits for until then, and since when; no reason where only the task before it has to end. */
  readonly reason: WaitReason | null;
  readonly since: number;
  /** How long hands are at it; of sections at all of them. */
  readonly hands: number;
  readonly sections: number;
  /** How far the second brush is behind the first [s]. */
  readonly lag: number;
}

/** The tasks of a part that has the hands to itself: what was begun at its moments, the rest as soon as it can. */
export function tasksAlone(chain: Chain, problem: Problem): PartTask[] {
  // What comes too late still has a moment it should have begun by.
  const told = { ...chain, keeps: [] };
  return chain.tasks.map((task, i): PartTask => {
    const { kind, step, top, prepares, coat, of, hands } = task;
    const point = chain.alone[i]!;
    const { opens, closes, reason } = windowAt(told, point, i);
    const how = doing(chain, point, task, opens, problem);
    return {
      kind,
      stepId: step?.id ?? prepares[0]!,
      topId: top?.id ?? null,
      prepares,
      coat,
      of,
      opens,
      closes,
      reason,
      since: reason === 'state' ? (topFilm(point)?.laidAt ?? point.ends) : Math.min(point.ends, opens),
      hands: kind === 'sections' ? Math.max(SECONDS_PER_MINUTE, how.until - opens) : hands,
      sections: how.sections,
      lag: how.lag,
    };
  });
}
