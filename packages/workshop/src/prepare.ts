import { mediumLookup } from '@zaffet/core/media';
import { beginningOf, type PrepHint, prepHints } from '@zaffet/core/prep';
import { type PartPlan } from './partPlan';
import { toModel } from './toModel';

/** What must be done to a part before its first coat. */
export function prepOf(plan: PartPlan): PrepHint[] {
  const { panel, air, steps, media } = toModel(plan);
  const { fittings, moisture } = plan.part;
  return prepHints(panel, {
    moisture,
    air: air[0]!,
    takenOff: fittings.some(({ treatment }) => treatment === 'off'),
    masked: fittings.some(({ treatment }) => treatment === 'masked'),
    begins: beginningOf(steps, mediumLookup(media)),
  });
}

/** Preparation that is still to be done: neither done nor found unneeded. */
export function prepLeft(plan: PartPlan): PrepHint[] {
  const { prepared, unneeded } = plan.part;
  return prepOf(plan).filter(({ step }) => !prepared.includes(step) && !unneeded.includes(step));
}
