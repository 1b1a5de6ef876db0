import { evenMap, type PanelMap } from '@zaffet/core/plan';
import { type MappedStep } from '@zaffet/contract';
import { type PartPlan } from './partPlan';

/** A step's map as the core has it; where it has none, one of a single value over the part. */
export function mapOfStep({ part }: PartPlan, step: MappedStep, value: number): PanelMap {
  const map = part.maps[step.id];
  return map === undefined
    ? evenMap(part.widthMm / 1000, part.heightMm / 1000, value / 100)
    : { columns: map.columns, rows: map.rows, values: map.percent.map((cell) => cell / 100) };
}
