import { type Basis } from '@zaffet/core/basis';
import { type PartPlan } from './partPlan';
import { toModel } from './toModel';

/** What the forecast of a part rests on: the only maker of a basis outside the core. */
export function basisOf(part: PartPlan): Basis {
  const { shop, moments, known } = part.circumstances;
  return {
    plan: toModel(part),
    shop,
    ...(moments === undefined ? {} : { moments }),
    ...(known === undefined ? {} : { known }),
  };
}
