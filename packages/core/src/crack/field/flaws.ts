import { exactExp, exactLn } from '../../numeric/exact';
import { uniform } from '../../numeric/hash';
import { noiseAt, type Octave } from '../../numeric/noise';
import { type FieldInput } from './types';

/** Scatter of flaw strengths on an ordinary film. */
const FLAW_SCATTER = 0.12;
/** How much of the path's noise the flaws feel. */
const PATH_SHARE = 0.15;
const WEIBULL = 8;
/** Mean and relative scatter of a Weibull variable of that modulus. */
const WEIBULL_MEAN = 0.942;
const WEIBULL_SCATTER = 0.148;
/** Ratios of the plastic number, the base of the low-discrepancy sequence in two dimensions (R2). */
const R2_X = 0.7548776662466927;
const R2_Y = 0.5698402909980532;

/** Where cracks may begin, weakest first; strengths about 1, axes are the normal chance would choose [rad]. */
export interface Flaws {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly strength: Float64Array;
  readonly axis: Float64Array;
}

/**
 * Flaws of a film: a low-discrepancy sequence with jitter, laid over the square of the panel's larger side.
 * @param density - flaws per square of the mean spacing
 * @param margin - strip along the edges left without [mm]
 */
export function findFlaws(
  input: FieldInput,
  density: number,
  spacingMm: number,
  margin: number,
  octaves: readonly Octave[],
  pathScatter: number,
): Flaws {
  const { widthMm, heightMm, seed } = input;
  const side = Math.max(widthMm, heightMm);
  const wanted = (density * side * side) / (spacingMm * spacingMm);
  const jitter = (0.9 * side) / Math.sqrt(wanted);
  const noise = { value: 0, dx: 0, dy: 0 };
  const found: { x: number; y: number; strength: number; axis: number; index: number }[] = [];
  for (let i = 1; i <= wanted; i++) {
    const fx = 0.5 + i * R2_X;
    const fy = 0.5 + i * R2_Y;
    const x = (fx - Math.floor(fx)) * side + (uniform(i, seed, 1) - 0.5) * jitter;
    const y = (fy - Math.floor(fy)) * side + (uniform(i, seed, 2) - 0.5) * jitter;
    if (x < margin || y < margin || x > widthMm - margin || y > heightMm - margin) continue;
    const weibull = exactExp(exactLn(-exactLn(uniform(i, seed, 3))) / WEIBULL);
    noiseAt(octaves, x, y, noise);
    const scatter = 1 + ((weibull / WEIBULL_MEAN - 1) * FLAW_SCATTER * input.scatter) / WEIBULL_SCATTER;
    const strength = Math.max(0.2, scatter * (1 + PATH_SHARE * pathScatter * noise.value));
    found.push({ x, y, strength, axis: uniform(i, seed, 4) * Math.PI, index: i });
  }
  found.sort((a, b) => a.strength - b.strength || a.index - b.index);
  return {
    x: Float64Array.from(found, (f) => f.x),
    y: Float64Array.from(found, (f) => f.y),
    strength: Float64Array.from(found, (f) => f.strength),
    axis: Float64Array.from(found, (f) => f.axis),
  };
}
