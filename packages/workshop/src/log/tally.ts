import { type Kept, type MeasuredFigure } from './compare';

/** How well figures of one kind were foretold. */
export interface Tally {
  readonly count: number;
  /** Inside the band in which 8 of 10 should be. */
  readonly inside: number;
  /** How many of so many are inside in 19 cases of 20, where the bands are right. */
  readonly expected: { readonly least: number; readonly most: number };
  /** Median of how far they came out off: of lengths a factor less 1, of shares the difference. */
  readonly off: number | null;
}

/** Share that a band promises. */
const PROMISED = 0.8;
/** Outside of what is expected, on each side, in 1 of 40 cases. */
const SELDOM = 0.025;

/** Fewest that are inside in all but so few cases: quantile of the binomial distribution. */
function binomialQuantile(n: number, below: number): number {
  let chance = (1 - PROMISED) ** n;
  let sum = chance;
  let k = 0;
  while (sum < below && k < n) {
    chance *= ((n - k) / (k + 1)) * (PROMISED / (1 - PROMISED));
    k += 1;
    sum += chance;
  }
  return k;
}

const LENGTHS: readonly MeasuredFigure[] = ['spacing', 'opening'];

/** How far a figure came out off: a length by how many times less 1, a share by points. */
function offOf({ key, measured, foretold }: Kept): number {
  const value = foretold.value!;
  if (!LENGTHS.includes(key)) return Math.abs(measured - value);
  return Math.exp(Math.abs(Math.log(Math.max(measured, 1e-9) / value))) - 1;
}

/** How well figures were foretold. */
export function tallyOf(kept: readonly Kept[]): Tally {
  const off = kept.map(offOf).sort((a, b) => a - b);
  const middle = off.length >> 1;
  return {
    count: kept.length,
    inside: kept.filter(({ inside }) => inside).length,
    expected: {
      least: binomialQuantile(kept.length, SELDOM),
      most: binomialQuantile(kept.length, 1 - SELDOM),
    },
    off:
      off.length === 0 ? null : off.length % 2 === 1 ? off[middle]! : (off[middle - 1]! + off[middle]!) / 2,
  };
}

/** Kinds of figures, each with its own, in the order in which they come. */
export function talliesBy<K extends string>(
  kept: readonly Kept[],
  kind: (one: Kept) => K,
): { readonly key: K; readonly tally: Tally }[] {
  const groups = new Map<K, Kept[]>();
  for (const one of kept) groups.set(kind(one), [...(groups.get(kind(one)) ?? []), one]);
  return [...groups].map(([key, own]) => ({ key, tally: tallyOf(own) }));
}
