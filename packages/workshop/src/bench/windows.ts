import { isFilmStep, type PlanStep } from '@zaffet/contract';
import {
  type Belief,
  LIVE_FIGURES,
  LIVE_STATES,
  type LiveState,
  type Moment,
  momentBelieved,
  nextLook,
} from '@zaffet/core/live';
import { type StartState } from '@zaffet/core/plan';
import { type PartTask } from '@zaffet/core/schedule';
import { type Laid } from './beliefs';
import { type Band, type BenchFilm, type BenchTask, type TaskState } from './types';

/** A film on top, and what is believed of it. */
export interface Top {
  readonly coat: Laid;
  readonly belief: Belief;
}

const STATES: Readonly<Record<StartState, LiveState | null>> = {
  tacky: 'tacky',
  'touch-dry': 'touch',
  recoat: 'recoat',
  'through-dry': 'through',
  cured: null,
};

/** The state of the film below that lets a task begin, by its own rule. */
export function dueState(step: PlanStep | undefined, { kind, coat }: PartTask): LiveState | null {
  if (kind === 'buff') return 'touch';
  if (coat > 0) return 'recoat';
  return step?.start.rule === 'state' ? STATES[step.start.state] : null;
}

/** A task that opens this soon is not waited for [ms]. */
const AT_ONCE = 1000;

/** Whether it is too early for a task. */
export const isWaiting = ({ state, opens, below, reason }: BenchTask, now: number): boolean =>
  state === 'next' && opens !== null && (below !== null || reason !== null) && opens.at > now + AT_ONCE;

/** The state of the film below that is watched for: it lets a task begin, or ends its window. */
export function waitOf(
  step: PlanStep | undefined,
  task: PartTask,
  state: TaskState,
  top: Top | null,
): LiveState | null {
  if (top === null) return null;
  const { moments } = top.belief;
  const comes = (one: LiveState | null): LiveState | null =>
    one !== null && moments[one] !== undefined ? one : null;
  // Of glue it is told when its window closes: it opens by itself.
  if (task.kind === 'sections' && step === top.coat.step) return comes('skinned');
  // What is being laid waits for nothing.
  if (state === 'doing') return null;
  const due = comes(dueState(step, task));
  // A coat that goes on after minutes of its own still has to meet the film while it grabs.
  return due ?? (task.closes !== null && step !== undefined && isFilmStep(step) ? comes('tacky') : null);
}

/** A moment with its band: as wide as that of the state of the film that comes nearest to it. */
export function bandOf(at: number, top: Top | null): Band {
  const since = top === null ? 0 : (at - top.coat.laidAt) / 1000;
  if (top === null || since <= 0) return { at, low: at, high: at };
  const near = LIVE_STATES.flatMap((state) => momentBelieved(top.belief, state) ?? []).reduce<Moment | null>(
    (best, one) =>
      best === null || Math.abs(Math.log(one.at / since)) < Math.abs(Math.log(best.at / since)) ? one : best,
    null,
  );
  if (near === null) return { at, low: at, high: at };
  const { laidAt } = top.coat;
  const scaled = (moment: number): number => laidAt + 1000 * since * (moment / near.at);
  return { at, low: scaled(near.low), high: scaled(near.high) };
}

/** When a film comes into a state, as it is believed; null for one that is not known to come. */
export function momentOf({ coat, belief }: Top, state: LiveState): Band | null {
  const moment = momentBelieved(belief, state);
  if (moment === null) return null;
  const at = (seconds: number): number => coat.laidAt + 1000 * seconds;
  return { at: at(moment.at), low: at(moment.low), high: at(moment.high) };
}

/** Until when glue takes its coat: until it skins over, and never sooner than the schedule has the second brush follow. */
export function glueCloses(top: Top, { lag }: Pick<PartTask, 'lag'>): Band | null {
  const skins = momentOf(top, 'skinned');
  if (skins === null) return null;
  const follows = top.coat.laidAt + 1000 * lag;
  const { at, low, high } = skins;
  return { at: Math.max(at, follows), low: Math.max(low, follows), high: Math.max(high, follows) };
}

export function filmOf(partId: string, top: Top, current: BenchTask | null): BenchFilm {
  const { coat, belief } = top;
  const { laidAt, step } = coat;
  const states = Object.fromEntries(
    LIVE_STATES.flatMap((state) => {
      const moment = momentOf(top, state);
      return moment === null ? [] : [[state, moment] as const];
    }),
  );
  const figures = Object.fromEntries(
    LIVE_FIGURES.flatMap((figure) => {
      const of = momentBelieved(belief, figure);
      return of === null ? [] : [[figure, of] as const];
    }),
  );
  const last = Math.max(1, ...coat.looks.map(({ since }) => since));
  const look = current?.waitsFor == null ? null : nextLook(belief, current.waitsFor, last);
  const lookAt = look === null ? null : laidAt + 1000 * look;
  return { partId, stepId: step.id, laidAt, states, figures, lookAt };
}
