import { mediumName, type Plan, substrateName } from '@zaffet/contract';
import { type CoatForecast, type Forecast } from '@zaffet/core';

/** One coat as the Section draws it, heights in µm above the panel. */
export interface Slab {
  readonly id: string;
  readonly title: string;
  readonly detail: string;
  readonly note: string;
  readonly colour: string;
  readonly clear: boolean;
  readonly bottomUm: number;
  readonly topUm: number;
  readonly wetTopUm: number;
  readonly wetUm: number;
  readonly dryUm: number;
  /** Wet per dry thickness: how far the wet surface moves when the dry one is dragged. */
  readonly wetPerDry: number;
  /** Cracked open, as seen cut through; null where it is not. */
  readonly cracked: { readonly openShare: number } | null;
}

export interface Stack {
  readonly slabs: readonly Slab[];
  readonly substrate: string;
  readonly totalUm: number;
}

function noteOf(plan: Plan, coat: CoatForecast, index: number): string {
  const step = plan.steps[index];
  if (!step) return '';
  const passes = `${step.passes} ${step.passes === 1 ? 'pass' : 'passes'}`;
  const strokes = { 'one-way': 'one way', crosswise: 'crosswise', swirled: 'swirled', dabbed: 'dabbed' }[
    step.strokes
  ];
  const water = step.dilution > 0 ? `, ${Math.round(step.dilution * 100)} % water` : '';
  return coat.curve.medium.slipRate > 0 ? `${strokes}${water}` : `${strokes}, ${passes}${water}`;
}

/** The stack cut through, from the ground up. */
export function stackOf(plan: Plan, forecast: Forecast): Stack {
  let height = 0;
  const slabs = forecast.coats.map((coat, i): Slab => {
    const step = plan.steps[i]!;
    const dryUm = coat.curve.solidsUm;
    const bottomUm = height;
    height += dryUm;
    const clear = coat.curve.medium.slipRate > 0;
    return {
      id: step.id,
      title: step.colourName || mediumName(step.medium),
      detail: `${step.thicknessUm} wet → ${Math.round(dryUm)} dry`,
      note: noteOf(plan, coat, i),
      colour: step.colour,
      clear,
      bottomUm,
      topUm: height,
      wetTopUm: bottomUm + step.thicknessUm,
      wetUm: step.thicknessUm,
      dryUm,
      wetPerDry: step.thicknessUm / dryUm,
      cracked: forecast.crackedCoat === i && coat.crack ? { openShare: coat.crack.pattern.openArea } : null,
    };
  });
  return { slabs, substrate: substrateName(plan.piece.parts[0].substrate), totalUm: height };
}
