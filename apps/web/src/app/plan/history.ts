import { type Plan } from '@zaffet/contract';

/*
 * Undo is a list of plan values. Edits share what they do not touch, so a hundred entries cost little. Edits of one
 * gesture (a drag, a burst of arrow keys) are one entry: the plan as it was when the gesture began.
 */

/** Most steps that can be undone. */
const DEPTH = 100;

export interface History {
  readonly past: readonly Plan[];
  readonly present: Plan;
  readonly future: readonly Plan[];
  /** The gesture the last edit belonged to; null closes it. */
  readonly gesture: string | null;
}

export const startHistory = (plan: Plan): History => ({ past: [], present: plan, future: [], gesture: null });

/** Records an edit; an edit that changed nothing leaves the history as it is. */
export function record(history: History, plan: Plan, gesture: string | null): History {
  if (plan === history.present) return history;
  const goesOn = gesture !== null && gesture === history.gesture;
  return {
    past: goesOn ? history.past : [...history.past, history.present].slice(-DEPTH),
    present: plan,
    future: [],
    gesture,
  };
}

export function undo(history: History): History {
  const before = history.past.at(-1);
  if (before === undefined) return history;
  return {
    past: history.past.slice(0, -1),
    present: before,
    future: [history.present, ...history.future],
    gesture: null,
  };
}

export function redo(history: History): History {
  const next = history.future[0];
  if (next === undefined) return history;
  return {
    past: [...history.past, history.present],
    present: next,
    future: history.future.slice(1),
    gesture: null,
  };
}
