import { converter } from 'culori';
import { type Outcome } from '../outcome';

const toOklch = converter('oklch');

/** What a buyer of quiet taste stumbles over; common practice says restrained and neutral sells, the limits are assumed. */
export const RESTRAINT_CODES = ['much-shows', 'strong-contrast', 'strong-colour', 'bare-board'] as const;
export type RestraintCode = (typeof RESTRAINT_CODES)[number];

const MUCH = 0.3;
const STRONG_CONTRAST = 45;
/** Chroma in OKLCH: greyed paints stay under a tenth. */
const STRONG_COLOUR = 0.1;
const BARE = 0.02;

/** What is not restrained about a finish meant for sale; none when it is. */
export function restraint(result: Outcome): RestraintCode[] {
  const { layers, appearance, whole } = result;
  const coloured = layers.filter(({ id }) => appearance.layers.some((look) => look.id === id));
  const top = coloured.at(-1);
  const codes: RestraintCode[] = [];
  if (top !== undefined && 1 - top.share > MUCH) codes.push('much-shows');
  if ((appearance.contrast ?? 0) > STRONG_CONTRAST) codes.push('strong-contrast');
  if ((toOklch(whole.colour)?.c ?? 0) > STRONG_COLOUR) codes.push('strong-colour');
  if (whole.bareShare > BARE) codes.push('bare-board');
  return codes;
}
