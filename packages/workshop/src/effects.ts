import { type CoatStep, type PlanStep, type Wants } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { type Wish, type WishKey, wishValues } from '@zaffet/core/solve';
import { NO_WANTS } from './newPlan';
import { type PartPlan, withSteps } from './partPlan';
import { schoolPlan } from './recipes';
import { type School } from './schools';
import { basisOf } from './basis';

interface Effect {
  readonly name: string;
  /** What it looks like: true of the figures that `looksSo` asks for. */
  readonly words: string;
  readonly looksSo: (figures: Figures) => boolean;
  readonly school: School;
  /** What is done otherwise than mostly, by the place of the step in its school. */
  readonly changes?: Readonly<Record<number, Partial<CoatStep>>>;
}

/** Figures of a whole part; what does not crack has a spacing and an opening of 0. */
type Figures = Readonly<Record<WishKey, number>>;

/** An eye resolves about one minute of arc: so much at arm's length [m]; ISO 8596. */
const SEEN_AT_ARMS_LENGTH = 0.2e-3;

const TABLE = {
  hairline: {
    name: 'Hairline web',
    words: 'Cracks so fine that you see them from near only.',
    looksSo: ({ opening, spacing }) => opening > 0 && opening < SEEN_AT_ARMS_LENGTH && spacing < 2e-3,
    school: 'hide-glue',
    changes: { 1: { dilution: 0.5, thicknessUm: 40 }, 2: { thicknessUm: 45, strokes: 'dabbed' } },
  },
  small: {
    name: 'Small crackle',
    words: 'A thin top coat, cracked every few millimetres.',
    looksSo: ({ spacing, opening }) => spacing > 1e-3 && spacing < 6e-3 && opening > SEEN_AT_ARMS_LENGTH,
    school: 'dried-medium',
    changes: { 2: { thicknessUm: 70 } },
  },
  wide: {
    name: 'Wide islands',
    words: 'Heavy paint, few cracks, each a millimetre wide or more.',
    looksSo: ({ spacing, opening }) => spacing > 8e-3 && opening >= 1e-3,
    school: 'wet-glue',
    changes: { 1: { thicknessUm: 240 }, 2: { thicknessUm: 210, strokes: 'swirled' } },
  },
  varnish: {
    name: 'Old varnish',
    words: 'Dark hairlines in a clear coat.',
    looksSo: ({ opening, under }) => opening > 0 && opening < 0.4e-3 && under < 0.1,
    school: 'fissures',
  },
  chippy: {
    name: 'Chippy',
    words: 'Large parts of the paint flaked off, edges loose.',
    looksSo: ({ chips }) => chips > 0.25,
    school: 'chippy-milk',
  },
  flaking: {
    name: 'Flaking',
    words: 'Jagged pieces gone, as on salvaged timber.',
    looksSo: ({ chips, spacing }) => chips > 0.15 && spacing > 0,
    school: 'brittle-ground',
  },
  spots: {
    name: 'Clean bare spots',
    words: 'Clean spots where wax lay, down to the layer below.',
    looksSo: ({ chips }) => chips > 0.08,
    school: 'wax-resist',
  },
  peeled: {
    name: 'Peeled',
    words: 'Paint that let go in sheets.',
    looksSo: ({ chips }) => chips > 0.1,
    school: 'jelly-resist',
  },
  craters: {
    name: 'Craters',
    words: 'As if sand and salt had eaten it.',
    looksSo: ({ chips }) => chips > 0.1,
    school: 'salt-resist',
  },
  sanded: {
    name: 'Rubbed edges',
    words: 'Worn where hands and cloths went.',
    looksSo: ({ worn, chips }) => worn > 0.05 && chips < worn,
    school: 'barrier',
  },
  wiped: {
    name: 'Soft and wiped',
    words: 'Colours running into each other.',
    looksSo: ({ worn }) => worn > 0.1,
    school: 'wet-distress',
  },
  layered: {
    name: 'Many colours',
    words: 'Each peeks through the next.',
    looksSo: ({ under }) => under > 0.3,
    school: 'dry-brushed',
  },
  cut: {
    name: 'Cut back',
    words: 'Rough patches cut through by a blade.',
    looksSo: ({ worn }) => worn > 0.03,
    school: 'thick-base',
  },
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

/** Whether a part looks as the words of an effect say. */
export function looksLike(made: PartPlan, key: EffectKey): boolean {
  const values = wishValues(forecast(basisOf(made)));
  return EFFECTS[key].looksSo({
    spacing: values.spacing ?? 0,
    opening: values.opening ?? 0,
    chips: values.chips ?? 0,
    worn: values.worn ?? 0,
    under: values.under ?? 0,
  });
}

/** What is wanted of a part, in the units of the core. */
export const wishOf = ({ spacingMm, openingMm, chips, worn, under }: Wants): Wish => ({
  ...(spacingMm === null ? {} : { spacing: spacingMm / 1000 }),
  ...(openingMm === null ? {} : { opening: openingMm / 1000 }),
  ...(chips === null ? {} : { chips }),
  ...(worn === null ? {} : { worn }),
  ...(under === null ? {} : { under }),
});
