import { type Plan, type PlanStep } from '@zaffet/contract';
import { handsOn } from '@zaffet/core/course';
import { stepTimes } from '@zaffet/core/forecast';
import { basisOf } from './basis';
import { type Circumstances, partPlan } from './partPlan';

/** A step of one part with the hands at it. Moments in s from the plan's start. */
export interface Sitting {
  readonly partId: string;
  readonly partName: string;
  readonly step: PlanStep;
  readonly at: number;
  /** How long the hands are at it [s]. */
  readonly hands: number;
  /** The part whose work still has the hands when this begins; null where they are free. */
  readonly clashes: string | null;
}

/**
 * What is done when, over all parts, each as if it alone had the painter; and where two of them want the hands at once.
 * Waits are left out: nothing is done then.
 * @throws InputError as `forecast`
 */
export function sittings(plan: Plan, circumstances: Circumstances = {}): Sitting[] {
  const all = plan.piece.parts.flatMap(({ id, name }) => {
    const part = partPlan(plan, id, null, circumstances);
    const basis = basisOf(part);
    return stepTimes(basis)
      .map(({ step, from }, i) => ({
        partId: id,
        partName: name,
        step: part.steps[i]!,
        at: from,
        hands: handsOn(step, basis.plan.panel),
      }))
      .filter(({ hands }) => hands > 0);
  });
  const sorted = all.sort((a, b) => a.at - b.at);
  let busy: { readonly partId: string; readonly name: string; readonly until: number } | null = null;
  return sorted.map((one): Sitting => {
    const clashes = busy !== null && busy.partId !== one.partId && one.at < busy.until ? busy.name : null;
    const until = one.at + one.hands;
    if (busy === null || until > busy.until) busy = { partId: one.partId, name: one.partName, until };
    return { ...one, clashes };
  });
}
