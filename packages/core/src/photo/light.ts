import { solved } from '../numeric/fit';

/*
 * Light over a board, as white paper round it has it: for each channel a polynomial of third degree of its logarithm.
 */

/** A channel at this is as bright as a picture can say. */
export const CLIPPED = 253;

/** Weights of red, green and blue in luminance (ITU-R BT.709). */
export const LUMINANCE = [0.2126, 0.7152, 0.0722] as const;

export interface Light {
  /** Ten coefficients for each of red, green and blue. */
  readonly channels: readonly (readonly number[])[];
  /** How far paper is off it [ln, standard deviation]. */
  readonly off: number;
}

/** Millimetres that are brought to order one. */
const UNIT = 200;
const terms = (x: number, y: number): number[] => {
  const [u, v] = [x / UNIT - 0.75, y / UNIT - 1];
  return [1, u, v, u * u, u * v, v * v, u * u * u, u * u * v, u * v * v, v * v * v];
};
const ROUNDS = 3;
/** Medians beyond which paper has a shadow or a blot on it, and what they are at least [ln]. */
const MEDIANS = { beyond: 4, least: 0.02 } as const;
const PRIOR = 1e-3;
/** A median of absolute values, as a standard deviation. */
const SPREAD = 1.4826;

/** Paper at a place [mm] as linear red, green and blue. */
export interface Paper {
  readonly x: number;
  readonly y: number;
  readonly rgb: readonly [number, number, number];
}

/** Light through what paper shows, at least forty places of it; null where there are fewer. */
export function lightFrom(paper: readonly Paper[]): Light | null {
  if (paper.length < 40) return null;
  const all = paper.map(({ x, y, rgb }) => ({ terms: terms(x, y), ln: rgb.map(Math.log) }));
  let kept = all;
  let channels: number[][] = [];
  let off = 0;
  for (let round = 0; round < ROUNDS; round++) {
    channels = [0, 1, 2].map((channel) => {
      const matrix = Array.from({ length: 10 }, (_, i) =>
        Array.from({ length: 10 }, (__, j) =>
          kept.reduce((sum, one) => sum + one.terms[i]! * one.terms[j]!, i === j ? PRIOR : 0),
        ),
      );
      const right = Array.from({ length: 10 }, (_, i) =>
        kept.reduce((sum, one) => sum + one.terms[i]! * one.ln[channel]!, 0),
      );
      return solved(matrix, right);
    });
    const away = all.map((one) =>
      Math.abs(one.ln[1]! - one.terms.reduce((sum, term, i) => sum + term * channels[1]![i]!, 0)),
    );
    const median = away.toSorted((a, b) => a - b)[away.length >> 1]!;
    kept = all.filter((_, i) => away[i]! < Math.max(MEDIANS.least, MEDIANS.beyond * median));
    off = SPREAD * median;
  }
  return { channels, off };
}

/** What white paper would be at a place [mm]: linear red, green and blue. */
export function whiteAt({ channels }: Light, x: number, y: number): [number, number, number] {
  const at = terms(x, y);
  const one = (channel: number): number =>
    Math.exp(channels[channel]!.reduce((sum, value, i) => sum + value * at[i]!, 0));
  return [one(0), one(1), one(2)];
}
