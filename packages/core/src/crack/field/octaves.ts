import { exactExp, exactLn } from '../../numeric/exact';
import { type Octave } from '../../numeric/noise';

/** Fixed wavelengths 2^e, weighted round the wanted one; fixed so that a change of it re-weights, not re-rolls. */
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
