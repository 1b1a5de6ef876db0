import { type StrokeMap, strokesAt } from './strokes';
import { type FieldInput } from './types';

/**
 * The film at the point last asked. A class because it is asked for every step of every tip: its numbers are
 * written in place.
 */
export class LocalFilm {
  /** Pull length [mm], and its ratio to the mean film's. */
  pull = 0;
  pullRatio = 1;
  /** Final free strain, and its ratio to the mean film's. */
  strain: number;
  strainRatio = 1;
  /** A tip does not see its own crack within this length of it [mm]. */
  exclude: number;
  private strokeA = 0;
  private strokeB = 0;
  private readonly read = new Float64Array([0, 0, 1, 1]);

  constructor(
    private readonly input: FieldInput,
    private readonly map: StrokeMap,
    private readonly stepMm: number,
  ) {
    this.strain = input.strain;
    this.exclude = Math.max(2.2 * input.pullLengthMm, 4 * stepMm);
  }

  /** Asks the film at a point [mm]. */
  at(x: number, y: number): void {
    strokesAt(this.map, x, y, this.read);
    this.strokeA = this.read[0]!;
    this.strokeB = this.read[1]!;
    this.pullRatio = Math.sqrt(this.read[2]!);
    this.pull = this.input.pullLengthMm * this.pullRatio;
    if (this.map.channels < 4) return;
    this.strainRatio = this.read[3]!;
    this.strain = this.input.strain * this.strainRatio;
    this.exclude = Math.max(2.2 * this.pull, 4 * this.stepMm);
  }

  /**
   * Strength and toughness factor for a crack whose normal has the doubled angle (c2, s2): below 1 across the
   * strokes, above 1 along them. Grooves take from the film what ridges gain, so that the mean stays 1.
   */
  weakness(c2: number, s2: number): number {
    const contrast = Math.sqrt(this.strokeA * this.strokeA + this.strokeB * this.strokeB);
    return 1 - (0.5 * (this.strokeA * c2 + this.strokeB * s2)) / (1 - 0.5 * contrast);
  }
}
