import { evenMap, type PanelMap } from '@zaffet/core/plan';
import { type MappedStep, type PlanStep } from '@zaffet/contract';
import { toolOf } from '@zaffet/core/tools';
import { type PartPlan } from './partPlan';

/** A step's map as the core has it; where it has none, one of a single value over the part. */
export function mapOfStep({ part }: PartPlan, step: MappedStep, value: number): PanelMap {
  const map = part.maps[step.id];
  return map === undefined
    ? evenMap(part.widthMm / 1000, part.heightMm / 1000, value / 100)
    : { columns: map.columns, rows: map.rows, values: map.percent.map((cell) => cell / 100) };
}

/** Whether a step takes a resist off: jelly is wiped, wax and salt are scraped. */
const takesOff = (step: PlanStep, resist: Extract<PlanStep, { kind: 'resist' }>): boolean =>
  resist.agent === 'jelly'
    ? step.kind === 'wipe'
    : step.kind === 'distress' && toolOf(step.tool).resistLift > 0;

/** Resists that lie under what a step is done to: nobody sees them, and they come off with it. */
export function hiddenUnder(
  steps: readonly PlanStep[],
  stepId: string,
): Extract<PlanStep, { kind: 'resist' }>[] {
  const at = steps.findIndex(({ id }) => id === stepId);
  return steps.slice(0, Math.max(0, at)).flatMap((resist, i) => {
    if (resist.kind !== 'resist') return [];
    const since = steps.slice(i + 1, at);
    const covered = since.some(({ kind }) => kind === 'coat' || kind === 'seal');
    return covered && !since.some((step) => takesOff(step, resist)) ? [resist] : [];
  });
}
