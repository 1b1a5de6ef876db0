import { type PrepHint, prepHints } from '@zaffet/core/prep';
import { type PartPlan } from './partPlan';
import { toModel } from './toModel';

/** What must be done to a part before its first coat. */
export function prepOf(plan: PartPlan): PrepHint[] {
  const { panel, air } = toModel(plan);
  const { fittings, moisture } = plan.part;
  return prepHints(panel, {
    moisture,
    air: air[0]!,
    takenOff: fittings.some(({ treatment }) => treatment === 'off'),
    masked: fittings.some(({ treatment }) => treatment === 'masked'),
  });
}
