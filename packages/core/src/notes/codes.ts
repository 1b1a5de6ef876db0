/** Something the plan says about itself; `findingWords` in the contract says it in words. */
export interface Finding {
  readonly code: FindingCode;
  readonly level: FindingLevel;
  readonly stepId: string;
  /** Numbers the sentence needs, SI. */
  readonly values: Readonly<Record<string, number>>;
}

export const FINDING_LEVELS = ['stop', 'warn', 'tip', 'good'] as const;
export type FindingLevel = (typeof FINDING_LEVELS)[number];

export const FINDING_CODES = [
  // Moments and slip.
  'glue-still-open',
  'glue-grabs',
  'glue-closing',
  'glue-dried',
  'medium-wet',
  'medium-ready',
  'hide-not-cured',
  'hide-ready',
  'base-not-dry',
  'damp-below',
  'sealer-dry',
  'sealer-tacky',
  'start-never',
  'section-large',
  // What comes of it.
  'overworked',
  'second-coat-closes',
  'too-thin',
  'cracks-unknown',
  'crackle-missing',
  'weak-crackle',
  'paint-before-paint',
  'crackle-everywhere',
  'lever-glue',
  'lever-top',
  'contrast-low',
  'soaks-in',
  'flakes-badly',
  'poor-hold',
  // The air.
  'never-dry',
  'damp-air',
  'cold-air',
  'blush',
  // What does not go together.
  'tannin-bleeds',
  'wax-below',
  'fresh-oil-below',
  'unknown-below',
  'paint-over-wax',
  'clear-over-wax',
  'water-over-fresh-oil',
  'spray-recoat',
  'milk-old',
  'wax-thick',
  'lay-flat',
  'ground-rough',
  // Resists.
  'jelly-unsealed',
  'jelly-judge',
  'jelly-left',
  'jelly-not-degreased',
  'salt-loose',
  'salt-left',
  'salt-pale',
  'wax-left',
  // Taking off again.
  'blade-hard',
  'cloth-in-vain',
  'bleach-dried',
  'bare-shows',
  'barrier-holds',
  'nothing-comes-off',
  'scorches',
  // Finishing.
  'dark-wax-bare',
  'dark-wax-much',
  'wax-on-wet-dark',
  'buff-early',
  'buff-late',
  'use-unsealed',
  'use-wax-only',
  'seal-thick',
  'dust-left',
  // Companion work.
  'fabric-late',
  'transfer-soon',
  'wash-on-sealed',
  'glaze-unprotected',
  // Stops for safety.
  'heat-on-solvent',
  'heat-on-grease',
  'heat-on-bleach',
  'heat-on-old-paint',
  'sand-old-paint',
  'bleach-on-casein',
  'bleach-after-alcohol',
] as const;
export type FindingCode = (typeof FINDING_CODES)[number];

export type AddFinding = (
  code: FindingCode,
  level: FindingLevel,
  stepId: string,
  values?: Readonly<Record<string, number>>,
) => void;
