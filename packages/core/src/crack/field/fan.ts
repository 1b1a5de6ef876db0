import { exactCos, exactSin } from '../../numeric/exact';
import { type LocalFilm } from './localFilm';

/** Directions in which a tip or a flaw looks for free surfaces, and what their stresses add up to. */
export class Fan {
  readonly cos: Float64Array;
  readonly sin: Float64Array;
  readonly cos2: Float64Array;
  readonly sin2: Float64Array;
  /** Second harmonic and mean of what was last weighed. */
  a = 0;
  b = 0;
  mean = 0;

  /** @param directions - over half a turn */
  constructor(readonly directions: number) {
    const angles = Float64Array.from({ length: directions }, (_, i) => (Math.PI * (i + 0.23)) / directions);
    this.cos = angles.map(exactCos);
    this.sin = angles.map(exactSin);
    this.cos2 = angles.map((angle) => exactCos(2 * angle));
    this.sin2 = angles.map((angle) => exactSin(2 * angle));
  }

  /** Weighs the stress seen in every `stride`th direction by how weak the film is across it. */
  weigh(seen: Float64Array, film: LocalFilm, stride = 1): void {
    let a = 0;
    let b = 0;
    let mean = 0;
    const n = Math.floor(this.directions / stride);
    for (let i = 0; i < n; i++) {
      const j = Math.floor(i * stride);
      const v = seen[i]! / film.weakness(this.cos2[j]!, this.sin2[j]!);
      a += v * this.cos2[j]!;
      b += v * this.sin2[j]!;
      mean += v;
    }
    this.a = (2 * a) / n;
    this.b = (2 * b) / n;
    this.mean = mean / n;
  }
}
