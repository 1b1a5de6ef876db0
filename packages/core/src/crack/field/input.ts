import { InputError } from '../../errors';
import { quantise } from '../../numeric/exact';
import { type CrackLaw } from '../types';
import { type FieldInput, type LocalLaw, type Strokes } from './types';

/** How much weaker a film is across the strokes that laid it; assumed, from how plainly boards show the brush. */
const STROKE_CONTRAST: Readonly<Record<Strokes, number>> = {
  'one-way': 0.45,
  crosswise: 0.32,
  swirled: 0.36,
  dabbed: 0,
};

/** Most islands one field may hold; about two seconds of growth and 60 MB. */
export const MAX_ISLANDS = 24000;

/** What to grow: which window of the film, how fine, from which seed. */
export interface FieldWindow {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly edges: FieldInput['edges'];
  readonly seed: number;
  readonly strokes: Strokes;
  readonly quality: FieldInput['quality'];
  readonly local?: LocalLaw;
}

/**
 * The field's input from the law of a coat: the same physics as the closed form. Values are rounded to 1e-6 so that
 * the last bits of `exp` and `pow` of one machine's engine do not grow into another pattern.
 * @throws InputError `field.width`, `field.height` or `field.seed` on a window that cannot be grown
 */
export function fieldInput(law: CrackLaw, window: FieldWindow): FieldInput {
  for (const field of ['widthMm', 'heightMm'] as const) {
    const value = window[field];
    if (!(value >= 5 && value <= 3000)) {
      throw new InputError({
        code: `field.${field}`,
        field: `field.${field}`,
        value,
        allowed: 'from 5 to 3000 mm',
      });
    }
  }
  if (!Number.isInteger(window.seed)) {
    throw new InputError({
      code: 'field.seed',
      field: 'field.seed',
      value: window.seed,
      allowed: 'a whole number',
    });
  }
  return {
    ...window,
    pullLengthMm: quantise(law.pullLengthUm / 1000),
    // The closed form gathers slip as a compliance; no friction limit is known for these media.
    slipNumber: 0,
    strengthRatio: quantise(law.strengthRatio),
    strain: quantise(law.strain),
    fractureLengthMm: quantise(law.fractureLengthUm / 1000),
    strokeContrast: STROKE_CONTRAST[window.strokes],
    scatter: 1,
  };
}
