import { hash3 } from './hash';

/** One octave of gradient noise: a lattice of random slopes, turned by its own angle so that no axis shows. */
export interface Octave {
  /** Lattice pitch, in the unit of the coordinates. */
  readonly wavelength: number;
  readonly weight: number;
  readonly seed: number;
}

/** Value and slope of the noise at a point; written by `noiseAt`. */
export interface NoiseSample {
  value: number;
  dx: number;
  dy: number;
}

/** Unit slopes in sixteen directions, as exact decimals so that every engine holds the same bits. */
const SLOPES = new Float64Array([
  1, 0, 0.9238795325112867, 0.3826834323650898, 0.7071067811865476, 0.7071067811865476, 0.3826834323650898,
  0.9238795325112867, 0, 1, -0.3826834323650898, 0.9238795325112867, -0.7071067811865476, 0.7071067811865476,
  -0.9238795325112867, 0.3826834323650898, -1, 0, -0.9238795325112867, -0.3826834323650898,
  -0.7071067811865476, -0.7071067811865476, -0.3826834323650898, -0.9238795325112867, 0, -1,
  0.3826834323650898, -0.9238795325112867, 0.7071067811865476, -0.7071067811865476, 0.9238795325112867,
  -0.3826834323650898,
]);
/** A turn by the angle of the 20-21-29 triangle, repeated per octave. */
const TURN_COS = 20 / 29;
const TURN_SIN = 21 / 29;
/** Gradient noise of this kind has a root mean square near 0.25; scaled to about one. */
const TO_UNIT = 4;

/**
 * Sum of gradient-noise octaves with its analytic slope (Perlin 2002, improved noise: quintic blend).
 * @param out - receives value (root mean square about the root of the summed squared weights) and slope
 */
export function noiseAt(octaves: readonly Octave[], x: number, y: number, out: NoiseSample): void {
  let value = 0;
  let dx = 0;
  let dy = 0;
  let cos = 1;
  let sin = 0;
  for (let i = 0; i < octaves.length; i++) {
    const octave = octaves[i]!;
    const nextCos = cos * TURN_COS - sin * TURN_SIN;
    sin = cos * TURN_SIN + sin * TURN_COS;
    cos = nextCos;
    const inv = 1 / octave.wavelength;
    const u = (cos * x + sin * y) * inv;
    const v = (cos * y - sin * x) * inv;
    const iu = Math.floor(u);
    const iv = Math.floor(v);
    const fu = u - iu;
    const fv = v - iv;
    const seed = octave.seed;
    const g00 = (hash3(iu, iv, seed) & 15) * 2;
    const g10 = (hash3(iu + 1, iv, seed) & 15) * 2;
    const g01 = (hash3(iu, iv + 1, seed) & 15) * 2;
    const g11 = (hash3(iu + 1, iv + 1, seed) & 15) * 2;
    const n00 = SLOPES[g00]! * fu + SLOPES[g00 + 1]! * fv;
    const n10 = SLOPES[g10]! * (fu - 1) + SLOPES[g10 + 1]! * fv;
    const n01 = SLOPES[g01]! * fu + SLOPES[g01 + 1]! * (fv - 1);
    const n11 = SLOPES[g11]! * (fu - 1) + SLOPES[g11 + 1]! * (fv - 1);
    const su = fu * fu * fu * (fu * (fu * 6 - 15) + 10);
    const sv = fv * fv * fv * (fv * (fv * 6 - 15) + 10);
    const du = 30 * fu * fu * (fu * (fu - 2) + 1);
    const dv = 30 * fv * fv * (fv * (fv - 2) + 1);
    const k = n00 - n10 - n01 + n11;
    const w = octave.weight * TO_UNIT;
    value += w * (n00 + su * (n10 - n00) + sv * (n01 - n00) + su * sv * k);
    const slopeU =
      SLOPES[g00]! +
      su * (SLOPES[g10]! - SLOPES[g00]!) +
      sv * (SLOPES[g01]! - SLOPES[g00]!) +
      su * sv * (SLOPES[g00]! - SLOPES[g10]! - SLOPES[g01]! + SLOPES[g11]!) +
      du * (n10 - n00 + sv * k);
    const slopeV =
      SLOPES[g00 + 1]! +
      su * (SLOPES[g10 + 1]! - SLOPES[g00 + 1]!) +
      sv * (SLOPES[g01 + 1]! - SLOPES[g00 + 1]!) +
      su * sv * (SLOPES[g00 + 1]! - SLOPES[g10 + 1]! - SLOPES[g01 + 1]! + SLOPES[g11 + 1]!) +
      dv * (n01 - n00 + su * k);
    dx += w * inv * (cos * slopeU - sin * slopeV);
    dy += w * inv * (sin * slopeU + cos * slopeV);
  }
  out.value = value;
  out.dx = dx;
  out.dy = dy;
}

/** One octave of the same noise at wavelength 1, without slope and without turning: root mean square near one. */
export function noiseValue(x: number, y: number, seed: number): number {
  const iu = Math.floor(x);
  const iv = Math.floor(y);
  const fu = x - iu;
  const fv = y - iv;
  const g00 = (hash3(iu, iv, seed) & 15) * 2;
  const g10 = (hash3(iu + 1, iv, seed) & 15) * 2;
  const g01 = (hash3(iu, iv + 1, seed) & 15) * 2;
  const g11 = (hash3(iu + 1, iv + 1, seed) & 15) * 2;
  const n00 = SLOPES[g00]! * fu + SLOPES[g00 + 1]! * fv;
  const n10 = SLOPES[g10]! * (fu - 1) + SLOPES[g10 + 1]! * fv;
  const n01 = SLOPES[g01]! * fu + SLOPES[g01 + 1]! * (fv - 1);
  const n11 = SLOPES[g11]! * (fu - 1) + SLOPES[g11 + 1]! * (fv - 1);
  const su = fu * fu * fu * (fu * (fu * 6 - 15) + 10);
  const sv = fv * fv * fv * (fv * (fv * 6 - 15) + 10);
  return TO_UNIT * (n00 + su * (n10 - n00) + sv * (n01 - n00) + su * sv * (n00 - n10 - n01 + n11));
}
