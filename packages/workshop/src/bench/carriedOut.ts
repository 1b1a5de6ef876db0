import { type Basis, type ShopData } from '@zaffet/core/basis';
import { type Learned } from '@zaffet/core/media';
import { basisOf } from '../basis';
import { type PartPlan, partPlan, shopKnowing, withSteps } from '../partPlan';
import { type Run, stepKey } from '../runs/fold';
import { knownOf } from '../runs/known';

/** A part as far as it has come, without what was left out. */
export interface Worked {
  readonly plan: PartPlan;
  readonly basis: (learned: Learned | null) => Basis;
}

/** A part as it was carried out up to a moment: what was skipped left out, what was told as it was. */
export function carriedOut(run: Run, partId: string, now: number): Worked {
  const done = { ...knownOf(run, partId, now), answers: [] };
  const of = partPlan(run.plan, partId, null, {
    shop: shopKnowing(run.learned),
    known: { [partId]: done },
  });
  const elsewhere = run.putIn.filter((one) => one.partId !== partId).map(({ stepId }) => stepId);
  const plan = withSteps(
    of,
    of.steps.filter(({ id }) => run.steps[stepKey(partId, id)]?.skipped == null && !elsewhere.includes(id)),
  );
  const told = basisOf(plan);
  return { plan, basis: (learned) => ({ ...told, shop: shopOf(plan.circumstances.shop, learned) }) };
}

const shopOf = (shop: ShopData, learned: Learned | null): ShopData => ({ ...shop, learned });
