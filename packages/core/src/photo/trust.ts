import { type ContrastFrom } from './measure';
import { type Known, type PhotoReading, type Trust } from './types';

/*
 * What may be told of what was read. Limits were set on some three hundred synthetic cells of known truth, over blur,
 * noise, light and contrast, so that no figure told is off by more than a fifth.
 */

/** More of a picture than this at the top of the scale is glare. */
const GLARE = 0.05;
/** Lines looked across until a figure is told. */
const ENOUGH = 40;
/** Fewer of a blur between cracks are too fine, or about. */
const BETWEEN = { tells: 13.5, wellFrom: 20 } as const;
/** Openings in blurs, where the lines alone say how dark their floors are: a lens's own blur has longer tails. */
const LINES = { tells: 2.4, wellFrom: 3.2 } as const;
/** Openings from this on are told without marks, spacing from that on [px]. */
const BARE = { opening: 5, spacing: 3 } as const;
/** More blur than this is too much [px]. */
const BLURRED = 2.6;
/** Paint that differs by more than this over a cell [ln], where light was taken out, has a shine on it. */
const SHINES = 0.15;
/** Paint off its planned colour by more than this [ln] holds cracks too fine to see; more chips than this hide the cracks. */
const DARKER = 0.3;
const CHIPPED = 0.05;

interface Read {
  readonly clipped: number;
  readonly sums: readonly number[];
  readonly spacingPx: number;
  readonly openingPx: number;
  readonly contrast: number;
  readonly contrastFrom: ContrastFrom;
  readonly limit: number;
  readonly peak: number;
  readonly level: number;
  readonly differs: number;
  readonly chipped: number;
}

const all = (one: Trust): PhotoReading['trust'] => ({ spacing: one, opening: one, area: one });

/** Without marks of a known size and sharpness only what is wide enough in the picture is told. */
function bareTrust(read: Read, blur: number): PhotoReading['trust'] {
  if (read.clipped > GLARE) return all('glare');
  if (read.sums.length < ENOUGH) return all('too-few');
  if (read.chipped > CHIPPED) return { spacing: 'chipped', opening: 'chipped', area: 'about' };
  if (read.spacingPx < BETWEEN.tells * blur) return all('too-fine');
  if (read.openingPx < BARE.spacing) return all('too-thin');
  const opening: Trust =
    read.contrastFrom !== 'core' ? 'too-faint' : read.openingPx < BARE.opening ? 'too-thin' : 'about';
  return { spacing: 'about', opening, area: opening };
}

/** How far figures can be trusted, or why they are not told. */
export function trustIn(read: Read, known: Known): PhotoReading['trust'] {
  const { blur, noise, paint, overshoot } = known;
  if (noise === null) return bareTrust(read, blur);
  const { spacingPx, openingPx: width, contrast, peak } = read;
  if (read.clipped > GLARE || read.differs > SHINES) return all('glare');
  if (blur > BLURRED) return all('blurred');
  if (paint !== null && Math.abs(Math.log(read.level / paint)) > DARKER) return all('too-fine');
  if (read.chipped > CHIPPED) return { spacing: 'chipped', opening: 'chipped', area: 'about' };
  if (read.sums.length < ENOUGH) return all('too-few');
  const floor = read.contrastFrom === 'core' || read.contrastFrom === 'given';
  // The limit of ridges over the contrast, and over what most lines reach: how much fainter a crack may be and be found.
  const limit = read.limit / contrast;
  const reach = read.limit / peak;
  if (spacingPx < BETWEEN.tells * blur) return all('too-fine');
  if (floor && width < 0.5 * blur) return all('too-thin');
  if (limit > 0.2 && width < 4.5 * blur) return all('too-faint');
  if (reach > 0.2 && width < 1.5 * blur) return { spacing: 'too-faint', opening: 'too-thin', area: 'about' };
  const fine = spacingPx < BETWEEN.wellFrom * blur;
  const faint = limit > 0.2;
  const spacing: Trust =
    fine || faint || width < 1.6 * blur || (reach > 0.2 && width < 2.5 * blur) ? 'about' : 'measured';
  // Nothing says how dark a floor is: what was summed across is no width.
  if (read.contrastFrom === 'none') return { spacing: 'about', opening: 'too-thin', area: 'too-thin' };
  if (!floor && width < LINES.tells * blur) return { spacing, opening: 'too-thin', area: 'too-thin' };
  const soft = !floor && width < LINES.wellFrom * blur;
  const opening: Trust =
    width < 2 * blur || faint || soft || (overshoot > 0.04 && width < 5) ? 'about' : 'measured';
  return { spacing, opening, area: faint || fine ? 'about' : 'measured' };
}
