import { mixParts } from './mix';
import { fromHex, toHex } from './rgb';

/*
 * Several colours in one coat. The first takes its share of the panel by a pattern of its own, the second its share of
 * what is left by another, and so on: any two colours may lie beside each other. At their borders neighbours run into
 * each other as far as the painter lets them.
 */

/** How colours of one coat meet: beside each other, drawn into each other at their borders, or worked in wet. */
export const MANNERS = ['side-by-side', 'blended', 'wet-in-wet'] as const;
export type Manner = (typeof MANNERS)[number];

/** One of the colours of a coat, with the share of the coat that it takes. */
export interface Toned {
  readonly colour: string;
  readonly share: number;
}

/** Mixtures told apart between two colours: 0 all of the one … this many all of the other. */
export const MIXTURES = 8;

/** The colours of a coat, and what they come to. */
export interface Blend {
  readonly tones: readonly Toned[];
  /** For each colour but the last: share of what is left to it up to where it is itself, and from where it is gone. */
  readonly splits: readonly { readonly own: number; readonly gone: number }[];
  /** Mixtures of colour i with colour j, by steps; empty where i is not before j. */
  readonly mixed: readonly (readonly (readonly string[])[])[];
  /** All of it as the eye mixes it from across the room. */
  readonly mean: string;
}

/** Of the narrower of two neighbours so much runs into the other; by eye. */
const RUNS: Readonly<Record<Manner, number>> = { 'side-by-side': 0.03, blended: 0.45, 'wet-in-wet': 0.9 };
/** Coats that are kept. */
const KEPT = 50;

const known = new Map<string, Blend>();

/**
 * The colours of a coat of several.
 * @param tones - shares add up to 1
 */
export function blendOf(tones: readonly Toned[], manner: Manner): Blend {
  const key = `${manner} ${tones.map(({ colour, share }) => `${colour} ${share}`).join(' ')}`;
  let blend = known.get(key);
  if (blend === undefined) {
    if (known.size >= KEPT) known.clear();
    blend = blended(tones, RUNS[manner]);
    known.set(key, blend);
  }
  return blend;
}

/** How far a colour has given way at a place of its pattern, in steps of mixture. @param at - 0 … 1, alike often */
export const stepAt = ({ own, gone }: Blend['splits'][number], at: number): number =>
  at <= own ? 0 : at >= gone ? MIXTURES : Math.round((MIXTURES * (at - own)) / (gone - own));

function blended(tones: readonly Toned[], runs: number): Blend {
  const left = tones.map((_, i) => tones.slice(i).reduce((sum, { share }) => sum + share, 0));
  const splits = tones.slice(0, -1).map(({ share }, i) => {
    const middle = left[i]! > 0 ? share / left[i]! : 0;
    const half = 0.5 * runs * Math.min(middle, 1 - middle);
    return { own: middle - half, gone: middle + half };
  });
  const mixed = tones.map(({ colour }, i) =>
    tones.map((other, j) => (j > i ? mixtures(colour, other.colour) : [])),
  );
  return { tones, splits, mixed, mean: meanOf(tones, splits, mixed, left) };
}

const mixtures = (a: string, b: string): string[] =>
  Array.from({ length: MIXTURES + 1 }, (_, step) => {
    if (step === 0) return a;
    if (step === MIXTURES) return b;
    return mixParts([
      { colour: a, parts: MIXTURES - step },
      { colour: b, parts: step },
    ]);
  });

/** Places of a pattern that the mean is taken over. */
const PLACES = 200;

function meanOf(
  tones: readonly Toned[],
  splits: Blend['splits'],
  mixed: Blend['mixed'],
  left: readonly number[],
): string {
  const sum = [0, 0, 0];
  const add = (hex: string, weight: number): void => {
    fromHex(hex).forEach((channel, c) => (sum[c] = sum[c]! + weight * channel));
  };
  let reached = 1;
  splits.forEach((split, i) => {
    let passed = 0;
    for (let k = 0; k < PLACES; k++) {
      const step = stepAt(split, (k + 0.5) / PLACES);
      if (step === MIXTURES) passed++;
      else
        for (let j = i + 1; j < tones.length; j++) {
          // Where nothing is left for the others it is all the same which of them it does not mix with.
          const beside = left[i + 1]! > 0 ? tones[j]!.share / left[i + 1]! : j === i + 1 ? 1 : 0;
          add(mixed[i]![j]![step]!, (reached / PLACES) * beside);
        }
    }
    reached *= passed / PLACES;
  });
  add(tones.at(-1)!.colour, reached);
  return toHex([sum[0]!, sum[1]!, sum[2]!]);
}
