/**
 * Cumulative normal distribution, by the rational approximation of the error function.
 * @returns 0 … 1, within 1.5e-7
 * @see Abramowitz & Stegun 1964, Handbook of Mathematical Functions, formula 7.1.26
 */
export function normalCdf(x: number): number {
  const z = Math.abs(x) / Math.SQRT2;
  const k = 1 / (1 + 0.3275911 * z);
  const tail =
    k *
    (0.254829592 + k * (-0.284496736 + k * (1.421413741 + k * (-1.453152027 + k * 1.061405429)))) *
    Math.exp(-z * z);
  return x >= 0 ? 1 - 0.5 * tail : 0.5 * tail;
}

/** 10 % and 90 % points of the standard normal: an 80 % band reaches this many standard deviations each way. */
export const EIGHTY_PER_CENT = 1.2816;
