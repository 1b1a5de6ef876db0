import { exactExp, exactLn } from '../../numeric/exact';
import { hash3, uniform } from '../../numeric/hash';
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
/** Along the rim, this many spacings wide, flaws are harder by up to this much: those a moving rim lets in come last. */
const RIM_BAND = 1;
const RIM_EXTRA = 0.3;
/** Each flaw strays within its cell of a square lattice, turned by the 20-21-29 triangle so that no row shows. */
const JITTER = 0.7;
const TURN_COS = 20 / 29;
const TURN_SIN = 21 / 29;

/** Where cracks may begin, weakest first; strengths about 1, axes are the normal chance would choose [rad]. */
export interface Flaws {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly strength: Float64Array;
  readonly axis: Float64Array;
}

/**
 * Flaws of a film: a jittered lattice round the panel's middle whose cell follows the mean spacing, so that a little
 * more paint stretches the pattern a little instead of dealing it anew.
 * @param density - flaws per square of the mean spacing
 * @param margin - strip along the edges left without [mm]
 * @param octaves - path noise, in units of the mean spacing from the panel's middle
 * @param finest - least ratio of the local spacing to the mean
 * @param spacingAt - that ratio at a place: where the web is wider fewer flaws are kept
 */
export function findFlaws(
  input: FieldInput,
  density: number,
  spacingMm: number,
  margin: number,
  octaves: readonly Octave[],
  pathScatter: number,
  finest: number,
  spacingAt: (x: number, y: number) => number,
): Flaws {
  const { widthMm, heightMm, seed } = input;
  const cell = (finest * spacingMm) / Math.sqrt(density);
  const reach = Math.ceil((0.5 * (TURN_COS + TURN_SIN) * Math.max(widthMm, heightMm)) / cell) + 1;
  const noise = { value: 0, dx: 0, dy: 0 };
  const xs: number[] = [];
  const ys: number[] = [];
  const strengths: number[] = [];
  const axes: number[] = [];
  for (let row = -reach; row <= reach; row++) {
    for (let column = -reach; column <= reach; column++) {
      // Most of a turned square lies beside the panel: cells that cannot stray into it are passed over.
      const cx = 0.5 * widthMm + (TURN_COS * column - TURN_SIN * row) * cell;
      const cy = 0.5 * heightMm + (TURN_SIN * column + TURN_COS * row) * cell;
      if (cx < -cell || cy < -cell || cx > widthMm + cell || cy > heightMm + cell) continue;
      const id = hash3(column, row, seed);
      const u = (column + JITTER * (uniform(id, seed, 1) - 0.5)) * cell;
      const v = (row + JITTER * (uniform(id, seed, 2) - 0.5)) * cell;
      const dx = TURN_COS * u - TURN_SIN * v;
      const dy = TURN_SIN * u + TURN_COS * v;
      const x = 0.5 * widthMm + dx;
      const y = 0.5 * heightMm + dy;
      if (x < margin || y < margin || x > widthMm - margin || y > heightMm - margin) continue;
      if (finest < 1 || input.local !== undefined) {
        const share = finest / spacingAt(x, y);
        if (uniform(id, seed, 5) > share * share) continue;
      }
      const weibull = exactExp(exactLn(-exactLn(uniform(id, seed, 3))) / WEIBULL);
      noiseAt(octaves, dx / spacingMm, dy / spacingMm, noise);
      const scatter = 1 + ((weibull / WEIBULL_MEAN - 1) * FLAW_SCATTER * input.scatter) / WEIBULL_SCATTER;
      const strength = Math.max(0.2, scatter * (1 + PATH_SHARE * pathScatter * noise.value));
      const inside = Math.min(x, y, widthMm - x, heightMm - y) / (RIM_BAND * spacingMm);
      const rim = inside < 1 ? RIM_EXTRA * input.scatter * (1 - inside) : 0;
      xs.push(x);
      ys.push(y);
      strengths.push(strength + rim);
      axes.push(uniform(id, seed, 4) * Math.PI);
    }
  }
  // Equal strengths keep the lattice's order: the sort is stable.
  const order = Uint32Array.from(xs, (_, i) => i).sort((a, b) => strengths[a]! - strengths[b]! || a - b);
  const sorted = (values: readonly number[]): Float64Array => Float64Array.from(order, (i) => values[i]!);
  return { x: sorted(xs), y: sorted(ys), strength: sorted(strengths), axis: sorted(axes) };
}
