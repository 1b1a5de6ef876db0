/*
 * Elementary functions from + − × ÷ and √ alone. The engines of different machines may differ in the last bit of
 * Math.exp and its like, and crack growth amplifies a last bit into another pattern; these give the same bits
 * everywhere. Accuracy is near double precision over the ranges named.
 */

const LN2 = 0.6931471805599453;

/** 2^k for whole k, −1000 … 1000, by repeated multiplication (exact). */
function powerOfTwo(k: number): number {
  let result = 1;
  const base = k < 0 ? 0.5 : 2;
  for (let i = Math.abs(k); i > 0; i--) result *= base;
  return result;
}

/** eˣ for |x| ≤ 600, relative error below 1e-15. */
export function exactExp(x: number): number {
  const k = Math.floor(x / LN2 + 0.5);
  const r = x - k * LN2;
  let term = 1;
  let sum = 1;
  for (let n = 1; n <= 16; n++) {
    term *= r / n;
    sum += term;
  }
  return sum * powerOfTwo(k);
}

/** Natural logarithm for x > 0, by the area-tangent series after scaling into [√½, √2). */
export function exactLn(x: number): number {
  let m = x;
  let k = 0;
  while (m >= 1.4142135623730951) {
    m *= 0.5;
    k++;
  }
  while (m < 0.7071067811865476) {
    m *= 2;
    k--;
  }
  const y = (m - 1) / (m + 1);
  const y2 = y * y;
  let term = y;
  let sum = 0;
  for (let n = 1; n <= 31; n += 2) {
    sum += term / n;
    term *= y2;
  }
  return 2 * sum + k * LN2;
}

/** Sine for |x| ≤ 2π, by its series after folding; absolute error below 1e-15. */
export function exactSin(x: number): number {
  const half = Math.floor(x / Math.PI + 0.5);
  const r = x - half * Math.PI;
  const r2 = r * r;
  let term = r;
  let sum = r;
  for (let n = 3; n <= 23; n += 2) {
    term *= -r2 / ((n - 1) * n);
    sum += term;
  }
  return half % 2 === 0 ? sum : -sum;
}

export function exactCos(x: number): number {
  return exactSin(x + Math.PI / 2);
}

/** Rounds to 20 binary digits, about 1e-6 relative: what goes through exp and pow on the way in is made equal here. */
export function quantise(x: number): number {
  if (x === 0 || !Number.isFinite(x)) return x;
  let scale = 1;
  let m = Math.abs(x);
  while (m >= 1048576) {
    m *= 0.5;
    scale *= 2;
  }
  while (m < 524288) {
    m *= 2;
    scale *= 0.5;
  }
  return (x < 0 ? -1 : 1) * Math.floor(m + 0.5) * scale;
}
