import {
  type FigureKey,
  medium,
  type MediumKey,
  type StartState,
  type Strokes,
  substrate,
  type SubstrateKey,
} from '@zaffet/core';

export const mediumName = (key: MediumKey): string => medium(key).name;
export const substrateName = (key: SubstrateKey): string => substrate(key).name;

/** What a layer is called in a sentence: glue, medium, top coat, base coat. */
export function layerWord(
  steps: readonly { readonly id: string; readonly medium: MediumKey }[],
  coatId: string,
): string {
  const i = steps.findIndex((step) => step.id === coatId);
  const step = steps[i];
  if (step === undefined) return 'coat';
  const { kind } = medium(step.medium);
  if (kind === 'crackle-medium') return 'medium';
  if (kind === 'wet-glue' || kind === 'cured-glue') return 'glue';
  if (kind === 'primer') return 'primer';
  if (i === steps.length - 1) return steps.length === 1 ? 'coat' : 'top coat';
  return i === 0 ? 'base coat' : `coat ${i + 1}`;
}

export const STROKE_NAMES: Readonly<Record<Strokes, string>> = {
  'one-way': 'One way',
  crosswise: 'Crosswise',
  swirled: 'Swirled',
  dabbed: 'Dabbed',
};

export const START_STATE_NAMES: Readonly<Record<StartState, string>> = {
  tacky: 'has set',
  'touch-dry': 'is touch-dry',
  recoat: 'takes a coat',
  'through-dry': 'is dry through',
};

/** What a figure is called, its unit, and a plain sentence on what it means. */
export const FIGURE_WORDS: Readonly<Record<FigureKey, { name: string; unit: string; meaning: string }>> = {
  spacing: {
    name: 'Crack spacing',
    unit: 'mm',
    meaning: 'How far a pin drawn across the panel travels between cracks, on average.',
  },
  opening: { name: 'Crack opening', unit: 'mm', meaning: 'How wide the cracks stand when the coat is dry.' },
  openArea: {
    name: 'Shows through',
    unit: '%',
    meaning: 'Share of the panel where the colour below shows in the cracks.',
  },
  firstCracks: {
    name: 'First cracks',
    unit: 'min',
    meaning: 'How long after brushing on the first cracks can be seen.',
  },
  strength: {
    name: 'How well it reads',
    unit: '%',
    meaning: '100 is a full, clear crackle; below 45 it looks weak, below 12 there is hardly any.',
  },
};
