import { type HotJet } from './wetSurface';

/** Thermal effusivity of wood under paint [J/(m² K √s)]; assumed. */
const EFFUSIVITY = 450;

/**
 * exp(x²) · erfc(x), by its continued fraction from 2 on and the series of erf below.
 * @see Abramowitz & Stegun 1964, Handbook of Mathematical Functions, 7.1.5 and 7.1.14
 */
export function scaledErfc(x: number): number {
  if (x < 2) {
    let term = x;
    let sum = x;
    for (let n = 1; n < 60; n++) {
      term *= (-x * x) / n;
      sum += term / (2 * n + 1);
    }
    return Math.exp(x * x) * (1 - (2 / Math.sqrt(Math.PI)) * sum);
  }
  let tail = 0;
  for (let k = 40; k >= 1; k--) tail = k / 2 / (x + tail);
  return 1 / (Math.sqrt(Math.PI) * (x + tail));
}

/**
 * How hot a dry surface gets at most when hot air is held on one place: a half-space heated by convection,
 * T = T0 + (Tj − T0)[1 − exp(B²) erfc B], B = h √t/b (Carslaw & Jaeger 1959, from memory). An upper bound: the air of a
 * tool that is kept moving is on a place only part of the time. Never a permission: real tools run far hotter.
 * @param start - surface before [K]
 * @param duration - [s]
 * @returns [K]
 */
export function hotSurface(jet: HotJet, start: number, duration: number): number {
  const b = (jet.convective * Math.sqrt(duration)) / EFFUSIVITY;
  return start + (jet.temperature - start) * (1 - scaledErfc(b));
}
