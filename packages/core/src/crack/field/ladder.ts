import { exactExp, exactLn } from '../../numeric/exact';
import { type Octave } from '../../numeric/noise';

/** Quarter octaves: 1, 1.19, 1.41, 1.68, 2 … mm, times a power of two. */
export function onLadder(x: number): number {
  const fourth = 1.189207115002721;
  let rung = 1;
  let value = x;
  while (value >= 2) {
    value *= 0.5;
    rung *= 2;
  }
  while (value < 1) {
    value *= 2;
    rung *= 0.5;
  }
  let step = 1;
  for (let i = 0; i < 4; i++) {
    if (value < step * 1.0905077326652577) return rung * step;
    step *= fourth;
  }
  return rung * 2;
}

/** Fixed wavelengths 2^e mm, weighted round the wanted one; fixed so that a change of it re-weights, not re-rolls. */
export function pathOctaves(wanted: number, seed: number): Octave[] {
  const octaves: { wavelength: number; weight: number; seed: number }[] = [];
  let sum = 0;
  for (let e = -5; e <= 8; e++) {
    let wavelength = 1;
    for (let i = 0; i < Math.abs(e); i++) wavelength *= e < 0 ? 0.5 : 2;
    const off = exactLn(wavelength / wanted) / exactLn(2) / 0.75;
    const weight = exactExp(-0.5 * off * off);
    if (weight < 0.2) continue;
    octaves.push({ wavelength, weight, seed: seed ^ (0x1000 + e) });
    sum += weight * weight;
  }
  const scale = 1 / Math.sqrt(sum);
  return octaves.map((octave) => ({ ...octave, weight: octave.weight * scale }));
}
