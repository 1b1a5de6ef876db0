import { type Basis } from '../basis';
import { mediumLookup } from '../media';
import { isFilm, PLAN_RANGES, type PanelPlan, roundsFor, SETTABLES, type Step } from '../plan';
import { toolOf } from '../tools';
import { type Setting } from './types';

/** A setting with its range, and where it stands in the plan as it is mostly done. */
export interface Knob extends Omit<Setting, 'value'> {
  readonly usual: number;
  readonly low: number;
  readonly high: number;
}

/** Films may be laid this much thinner or thicker than usual before they are another way of working. */
const THINNEST = 0.4;
const THICKEST = 2.4;
/** Waits after a step that the solver may choose [s]: how tacky something is, within the hours of one sitting. */
const WAIT = { low: 20, high: 3 * 3600 };
/** Rounds times pressure. */
const WORK = { low: 0.3, high: 60 };
const SHARE = { low: 0.02, high: 0.95 };

/** The numbers of a plan that decide its look and that a hand can set. */
export function knobsOf({ plan, shop }: Basis): Knob[] {
  const media = mediumLookup(plan.media, shop.learned);
  return plan.steps.flatMap((step, i): Knob[] => {
    const knobs: Knob[] = [];
    if (step.kind === 'coat') {
      const { min, max } = PLAN_RANGES.thickness;
      // The first coat only has to hide; all later ones make the look.
      if (i > 0)
        knobs.push({
          stepId: step.id,
          kind: 'thickness',
          usual: step.thickness,
          low: Math.max(min, step.thickness * THINNEST),
          high: Math.min(max, step.thickness * THICKEST),
        });
      const below = plan.steps[i - 1];
      const onFilm = below !== undefined && isFilm(below);
      // How wet the layer below is tells most where it slips or is a sealer; waits elsewhere only have to be long enough.
      const decides = onFilm && (media(below.medium).slipRate > 0 || media(below.medium).kind === 'clear');
      if (step.start.rule === 'after' && decides)
        knobs.push({ stepId: step.id, kind: 'wait', usual: Math.max(WAIT.low, step.start.wait), ...WAIT });
      if (step.cover.style !== 'full')
        knobs.push({ stepId: step.id, kind: 'cover', usual: step.cover.share, ...SHARE });
    }
    if (step.kind === 'resist') knobs.push({ stepId: step.id, kind: 'resist', usual: step.share, ...SHARE });
    if (step.kind === 'distress' && toolOf(step.tool).action !== 'soften')
      knobs.push({ stepId: step.id, kind: 'work', usual: step.rounds * step.pressure, ...WORK });
    return knobs;
  });
}

/** What a hand can tell apart: films to a micrometre of the gauge, waits to half a minute, shares to a point. */
const HAND_STEP: Readonly<Record<Exclude<Setting['kind'], 'work'>, number>> = {
  thickness: 1e-6,
  wait: 30,
  resist: 0.01,
  cover: 0.01,
};
const PRESSURE_STEP = 0.1;

/** A setting as a hand can keep it. */
export function handled(setting: Setting): Setting {
  const { kind, value } = setting;
  if (kind === 'work') {
    const { rounds, pressure } = roundsFor(value);
    const kept = Math.max(PLAN_RANGES.pressure.min, Math.round(pressure / PRESSURE_STEP) * PRESSURE_STEP);
    return { ...setting, value: rounds * kept };
  }
  const step = HAND_STEP[kind];
  return { ...setting, value: Math.max(step, Math.round(value / step) * step) };
}

const withSetting = (step: Step, { kind, value }: Setting): Step => SETTABLES[kind].write(step, value);

/** A plan with its numbers set. */
export function withSettings(plan: PanelPlan, settings: readonly Setting[]): PanelPlan {
  return {
    ...plan,
    steps: plan.steps.map((step) =>
      settings.filter(({ stepId }) => stepId === step.id).reduce(withSetting, step),
    ),
  };
}
