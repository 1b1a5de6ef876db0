import { type PlanStep } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { type Candidate, type Recipe, type Wish, wishOutcomes } from '@zaffet/core/solve';
import { basisOf } from './basis';
import { type PartPlan } from './partPlan';
import { withSettingsFiled } from './recipes';

/** Steps that give a look. */
export interface LookWay {
  /** Whether the plan's technique stays. */
  readonly keeps: boolean;
  readonly after: PartPlan;
  /** All steps of the finish, also those that this part leaves out. */
  readonly steps: readonly PlanStep[];
}

/** Whether a part gives a look as it is planned. @throws InputError as `forecast` */
export const gives = (plan: PartPlan, wish: Wish): boolean => wishOutcomes(forecast(basisOf(plan)), wish).met;

/** What to solve for `lookWay`: the plan's technique, and another one. */
export const lookCandidates = (plan: PartPlan, other: PartPlan): Candidate[] => [
  { key: 'present', basis: basisOf(plan) },
  { key: 'other', basis: basisOf(other) },
];

/**
 * How to get a look: by the plan's technique where that one can reach it and stays within its rules, else by another.
 * @param other - the part done in another technique
 * @param recipes - of `lookCandidates`
 * @returns null where neither reaches it
 * @throws InputError as `forecast`
 */
export function lookWay(
  plan: PartPlan,
  other: PartPlan,
  wish: Wish,
  recipes: readonly Pick<Recipe, 'key' | 'settings' | 'met' | 'risks'>[],
): LookWay | null {
  if (gives(plan, wish)) return { keeps: true, after: plan, steps: plan.finish.steps };
  const [present, changed] = ['present', 'other'].map((name) => recipes.find(({ key }) => key === name));
  const before = new Set(forecast(basisOf(plan)).findings.map(({ code }) => code));
  if (present?.met === true && present.risks.every(({ code }) => before.has(code))) {
    const after = withSettingsFiled(plan, present.settings);
    const steps = plan.finish.steps.map((step) => after.steps.find(({ id }) => id === step.id) ?? step);
    return { keeps: true, after, steps };
  }
  if (gives(other, wish)) return { keeps: false, after: other, steps: other.steps };
  if (changed?.met !== true) return null;
  const after = withSettingsFiled(other, changed.settings);
  return { keeps: false, after, steps: after.steps };
}
