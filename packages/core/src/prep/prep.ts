import { type Panel } from '../plan';

/** What must be done before the first coat; `prepWords` in the contract says it in words. */
export const PREP_STEPS = [
  'test-old-paint',
  'loosen-flakes',
  'degrease',
  'dewax',
  'scuff',
  'stop-tannin',
  'seal-raw-wood',
  'seal-mdf',
] as const;
export type PrepStep = (typeof PREP_STEPS)[number];

/** A step with why it follows from this panel. */
export interface PrepHint {
  readonly step: PrepStep;
  readonly because: PrepReason;
  /** A caution stands before everything else and must be acknowledged. */
  readonly caution: boolean;
}

export type PrepReason =
  | 'age-unknown'
  | 'flaking'
  | 'always'
  | 'handled'
  | 'waxed'
  | 'slick'
  | 'tannin-wood'
  | 'raw-wood-drinks'
  | 'mdf-swells';

/**
 * Preparation that follows from a panel's surface and past, in working order. Common practice, no source.
 */
export function prepHints(panel: Panel): PrepHint[] {
  const { substrate, history } = panel;
  const hints: PrepHint[] = [];
  const add = (step: PrepStep, because: PrepReason, caution = false): void =>
    void hints.push({ step, because, caution });
  const bareWood = substrate === 'raw-softwood' || substrate === 'raw-hardwood';
  if (history.oldPaint === 'unknown') add('test-old-paint', 'age-unknown', true);
  if (history.condition === 'flaking') add('loosen-flakes', 'flaking', history.oldPaint === 'unknown');
  add('degrease', history.handled ? 'handled' : 'always');
  if (substrate === 'waxed') add('dewax', 'waxed');
  if (substrate === 'gloss' || substrate === 'sealed') add('scuff', 'slick');
  if (history.tannin && substrate !== 'sealed') add('stop-tannin', 'tannin-wood');
  if (bareWood && !history.tannin) add('seal-raw-wood', 'raw-wood-drinks');
  if (substrate === 'mdf-face' || substrate === 'mdf-edge') add('seal-mdf', 'mdf-swells');
  return hints;
}
