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

/**
 * Inverse of the cumulative normal distribution, rational approximation.
 * @param p - between 0 and 1
 * @returns within 4.5e-4
 * @see Abramowitz & Stegun 1964, formula 26.2.23 (from memory)
 */
export function normalQuantile(p: number): number {
  const low = p < 0.5;
  const t = Math.sqrt(-2 * Math.log(low ? p : 1 - p));
  const x =
    t -
    (2.515517 + 0.802853 * t + 0.010328 * t * t) / (1 + 1.432788 * t + 0.189269 * t * t + 0.001308 * t ** 3);
  return low ? -x : x;
}

/** 10 % and 90 % points of the standard normal: an 80 % band reaches this many standard deviations each way. */
export const EIGHTY_PER_CENT = 1.2816;
