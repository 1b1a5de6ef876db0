import { exactExp } from '../../numeric/exact';

/** Four passes of [1 2 1]/4 along every crack. */
export function smoothWidths(width: Float32Array, previous: Int32Array): void {
  const n = width.length;
  const next = new Int32Array(n).fill(-1);
  for (let i = 0; i < n; i++) {
    const p = previous[i]!;
    if (p >= 0) next[p] = i;
  }
  let from = Float32Array.from(width);
  let to = new Float32Array(n);
  for (let pass = 0; pass < 4; pass++) {
    for (let i = 0; i < n; i++) {
      const p = previous[i]! >= 0 ? previous[i]! : i;
      const q = next[i]! >= 0 ? next[i]! : i;
      to[i] = 0.25 * (from[p]! + 2 * from[i]! + from[q]!);
    }
    [from, to] = [to, from];
  }
  width.set(from);
}

/** A tip that never met anything closes: w √(1 − e^(−2.2 r/ℓ)), r from the tip along its crack. */
export function taperFreeTip(
  last: number,
  width: Float32Array,
  previous: Int32Array,
  stepMm: number,
  pullLengthMm: number,
): void {
  let r = 0.5 * stepMm;
  for (let i = last; i >= 0; i = previous[i]!) {
    const factor = Math.sqrt(1 - exactExp((-2.2 * r) / pullLengthMm));
    if (factor > 0.98) break;
    width[i] = width[i]! * factor;
    r += stepMm;
  }
}
