import { newPlan } from '../newPlan';
import { type PartPlan, partPlan } from '../partPlan';
import { type Plan } from '@zaffet/contract';

/** A valid plan over wet glue, the same each time. */
export function samplePlan(): Plan {
  let next = 0;
  return newPlan('wet-glue', 'Sample', 7, '2026-05-12T08:00:00.000Z', () => `id-${++next}`);
}

export const samplePart = (): PartPlan => partPlan(samplePlan());
