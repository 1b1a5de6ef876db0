import { type Carrier } from '../air';
import { isOf, type Medium, type MediumLookup, mediumLookup } from '../media';
import { isFilm, type OldCoat, panelArea, type PanelPlan, type Step } from '../plan';
import { type ToolAction, toolOf } from '../tools';

/** Ways the work can hurt someone; `hazardWords` in the contract says the usual cautions. */
export const HAZARD_CODES = [
  'old-paint',
  'dust',
  'silica',
  'hot-air',
  'heat-and-solvent',
  'spray-mist',
  'flammable-vapour',
  'oily-rags',
  'bleach',
  'bleach-mixing',
  'blade',
  'splinters',
  'casein-keeping',
  'cups',
  'food-and-children',
  'mould',
  'mdf-dust',
  'lifting',
] as const;
export type HazardCode = (typeof HAZARD_CODES)[number];

/** Hazards of what is kept or used afterwards: they are shown, but no work waits until they are read. */
export const LATER_HAZARDS: readonly HazardCode[] = ['casein-keeping', 'cups', 'food-and-children'];

/** A hazard with the steps it comes from; `panel` where it comes from the piece itself. */
export interface Hazard {
  readonly code: HazardCode;
  readonly stepIds: readonly string[];
}

const FLAMMABLE: readonly Carrier[] = ['alcohol', 'spirit', 'thinner', 'propellant'];
/** Panels larger than this are lifted by two [m²]. */
const HEAVY = 0.8;

/** @param medium - the step's own, where it has one; `all` those of every step */
type Rule = (step: Step, plan: PanelPlan, medium: Medium | null, all: readonly Medium[]) => boolean;

/** Coats whose dust and fumes are what the caution is about. */
const OLD: readonly OldCoat[] = ['water-paint', 'oil-paint', 'varnish', 'shellac', 'unknown'];

const does = (step: Step, action: ToolAction): boolean =>
  step.kind === 'distress' && toolOf(step.tool).action === action;
const dry = (step: Step): boolean => does(step, 'sand');
const cuts = (step: Step): boolean => does(step, 'cut');
const bleaches = (step: Step): boolean => does(step, 'soften');
const bare = (plan: PanelPlan): boolean =>
  plan.panel.substrate.startsWith('raw-') || plan.panel.substrate === 'plywood';

/** Which steps carry which hazard; common practice. */
const RULES: Readonly<Record<HazardCode, Rule>> = {
  'old-paint': (step, plan) =>
    OLD.includes(plan.panel.history.coat) && (dry(step) || cuts(step) || step.kind === 'heat'),
  dust: (step) => dry(step),
  silica: (_step, _plan, medium) => medium !== null && isOf(medium, 'mineral-dust'),
  'hot-air': (step) => step.kind === 'heat',
  'heat-and-solvent': (step, _plan, _medium, all) =>
    step.kind === 'heat' && all.some((other) => isOf(other, 'solvent')),
  'spray-mist': (_step, _plan, medium) => medium?.carrier === 'propellant' || medium?.carrier === 'thinner',
  'flammable-vapour': (_step, _plan, medium) => medium !== null && FLAMMABLE.includes(medium.carrier),
  'oily-rags': (step, _plan, medium) =>
    medium !== null &&
    isFilm(step) &&
    (medium.oxidationHours > 0 || medium.kind === 'wax') &&
    medium.carrier !== 'propellant',
  bleach: bleaches,
  'bleach-mixing': bleaches,
  blade: cuts,
  splinters: (step, plan) => bare(plan) && step === plan.steps[0],
  'casein-keeping': (_step, _plan, medium) => medium !== null && isOf(medium, 'spoils'),
  cups: (_step, _plan, medium) => medium?.carrier === 'water' && medium.kind !== 'agent',
  'food-and-children': (step, plan) =>
    (plan.panel.use === 'food' || plan.panel.use === 'children') && step === plan.steps.at(-1),
  mould: (_step, plan) => plan.air.some((sample) => sample.humidity > 0.85),
  'mdf-dust': (step, plan) => dry(step) && plan.panel.substrate.startsWith('mdf'),
  lifting: (step, plan) => panelArea(plan.panel) > HEAVY && step === plan.steps[0],
};

/** The hazards of a plan with the steps they come from, in the order of `HAZARD_CODES`. */
export function hazards(plan: PanelPlan): Hazard[] {
  const media: MediumLookup = mediumLookup(plan.media);
  const withMedium = plan.steps.map((step) => ({
    step,
    medium: isFilm(step) ? media(step.medium) : step.kind === 'resist' ? media(step.agent) : null,
  }));
  const all = withMedium.flatMap(({ medium }) => medium ?? []);
  return HAZARD_CODES.flatMap((code) => {
    const stepIds = withMedium
      .filter(({ step, medium }) => RULES[code](step, plan, medium, all))
      .map(({ step }) => step.id);
    return stepIds.length === 0 ? [] : [{ code, stepIds }];
  });
}
