import { type CoatStep, type PlanStep, type Wants } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { wishValues } from '@zaffet/core/solve';
import { NO_WANTS } from './newPlan';
import { type PartPlan, withSteps } from './partPlan';
import { schoolPlan } from './recipes';
import { type School } from './schools';
import { basisOf } from './basis';

interface Effect {
  readonly name: string;
  readonly words: string;
  readonly school: School;
  /** What is done otherwise than mostly, by the place of the step in its school. */
  readonly changes?: Readonly<Record<number, Partial<CoatStep>>>;
}

const TABLE = {
  hairline: {
    name: 'Hairline web',
    words: 'So fine that one sees it from near.',
    school: 'hide-glue',
    changes: { 1: { dilution: 0.5, thicknessUm: 40 }, 2: { thicknessUm: 45, strokes: 'dabbed' } },
  },
  small: {
    name: 'Small crackle',
    words: 'A thin, quick top coat.',
    school: 'dried-medium',
    changes: { 2: { thicknessUm: 70 } },
  },
  wide: {
    name: 'Wide islands',
    words: 'Heavy paint, wide cracks, much below.',
    school: 'wet-glue',
    changes: { 1: { thicknessUm: 240 }, 2: { thicknessUm: 210, strokes: 'swirled' } },
  },
  varnish: { name: 'Old varnish', words: 'Dark hairlines in a clear coat.', school: 'fissures' },
  chippy: { name: 'Chippy', words: 'Flakes gone in places, edges loose.', school: 'chippy-milk' },
  flaking: { name: 'Flaking', words: 'Jagged pieces off, as salvaged timber.', school: 'brittle-ground' },
  spots: { name: 'Clean bare spots', words: 'Down to one layer where it was waxed.', school: 'wax-resist' },
  peeled: { name: 'Peeled', words: 'Paint that let go in sheets.', school: 'jelly-resist' },
  craters: { name: 'Craters', words: 'As if sand and salt had eaten it.', school: 'salt-resist' },
  sanded: { name: 'Rubbed edges', words: 'Worn where hands and cloths went.', school: 'barrier' },
  wiped: { name: 'Soft and wiped', words: 'Colours running into each other.', school: 'wet-distress' },
  layered: { name: 'Many colours', words: 'Each peeks through the next.', school: 'dry-brushed' },
  cut: { name: 'Cut back', words: 'Rough patches under a blade.', school: 'thick-base' },
} as const satisfies Record<string, Effect>;

export type EffectKey = keyof typeof TABLE;
export const EFFECT_KEYS = Object.keys(TABLE) as EffectKey[];
export const EFFECTS: Readonly<Record<EffectKey, Effect>> = TABLE;

/** A part done so that it shows an effect, in its own colours and air. */
export function effectPlan(plan: PartPlan, key: EffectKey, nextId: () => string): PartPlan {
  const { school, changes } = EFFECTS[key];
  const made = schoolPlan(plan, school, nextId);
  const steps = made.steps.map((step, i): PlanStep =>
    changes?.[i] === undefined ? step : ({ ...step, ...changes[i] } as PlanStep),
  );
  return withSteps(made, steps);
}

/** Shares under this are not wished for by name. */
const TOLD = 0.02;

/** The figures an effect comes to on a part: what one wishes for by choosing it. */
export function effectWants(made: PartPlan): Wants {
  const values = wishValues(forecast(basisOf(made)));
  const share = (value: number | null): number | null =>
    value === null || value < TOLD ? null : Math.round(value * 100) / 100;
  const { spacing, opening } = values;
  // A web of which hardly anything opens is no wish.
  const cracks = spacing !== null && opening !== null && opening > 2e-5;
  const chips = share(values.chips);
  const worn = share(values.worn);
  return {
    ...NO_WANTS,
    spacingMm: cracks ? Math.round(spacing * 1e4) / 10 : null,
    openingMm: cracks ? Math.round(opening * 1e5) / 100 : null,
    chips,
    worn,
    under: cracks ? null : share(values.under),
  };
}
