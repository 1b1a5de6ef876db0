import { cellsAt } from '../../numeric/bilinear';
import { exactCos, exactSin } from '../../numeric/exact';
import { noiseAt, type Octave } from '../../numeric/noise';
import { pathOctaves } from './octaves';
import { type FieldInput } from './types';

/**
 * Slow map of how the film lies over the panel. Values per node: A cos 2φ, A sin 2φ, square of the pull length's
 * ratio to the mean, ratio of the strain.
 */
export interface StrokeMap {
  readonly pitchMm: number;
  readonly columns: number;
  readonly rows: number;
  readonly values: Float32Array;
  /** Values per node: the last one only where the plan lays the film unevenly. */
  readonly channels: number;
  /** Least and greatest ratio of pull length and of strain that the plan, not the hand, gives a place. */
  readonly leastPull: number;
  readonly greatestPull: number;
  readonly greatestStrain: number;
}

/** A hand wavers: slow turns of the stroke's direction [rad] and of the thickness [share], root mean square. */
const WAVER = 0.13;
const UNEVEN = 0.08;
/** Strokes change direction over about a hand's width, or over a few islands when those are larger. */
const HAND_MM = 40;

/**
 * Lays out the brush marks. φ is the normal of the weak direction: grooves lie along the stroke, the film is
 * thinner and weaker across them.
 */
export function strokeMap(input: FieldInput, spacingMm: number): StrokeMap {
  const pitchMm = Math.max(2, spacingMm / 3);
  const columns = Math.ceil(input.widthMm / pitchMm) + 2;
  const rows = Math.ceil(input.heightMm / pitchMm) + 2;
  const channels = input.local === undefined ? 3 : 4;
  const values = new Float32Array(columns * rows * channels);
  // In units of the spacing from the panel's middle, like the flaws: a thicker coat stretches the whole pattern.
  const hand = Math.max(HAND_MM / spacingMm, 3);
  const octaves = (wanted: number, share: number, channel: number): Octave[] =>
    pathOctaves(wanted, input.seed ^ channel).map((octave) => ({ ...octave, weight: octave.weight * share }));
  const waver = [
    ...octaves(hand, WAVER * input.scatter, 0x51000),
    ...octaves(hand / 3, (WAVER / 2) * input.scatter, 0x52000),
  ];
  const blotch = octaves(hand, 1, 0x53000);
  const uneven = octaves(hand * 0.8, UNEVEN * input.scatter, 0x54000);
  const sample = { value: 0, dx: 0, dy: 0 };
  const { local } = input;
  let leastPull = 1;
  let greatestPull = 1;
  let greatestStrain = 1;
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const x = (column * pitchMm - 0.5 * input.widthMm) / spacingMm;
      const y = (row * pitchMm - 0.5 * input.heightMm) / spacingMm;
      const at = (row * columns + column) * channels;
      // Strokes run along the panel's width, so that their normal points along its height.
      let cos = -1;
      let sin = 0;
      let contrast = input.strokeContrast;
      if (input.strokes === 'swirled') {
        noiseAt(blotch, x, y, sample);
        const slope = Math.sqrt(sample.dx * sample.dx + sample.dy * sample.dy);
        // Swirls follow the level lines of a slow noise: the normal is its slope.
        const nx = slope > 0 ? sample.dx / slope : 0;
        const ny = slope > 0 ? sample.dy / slope : 1;
        cos = nx * nx - ny * ny;
        sin = 2 * nx * ny;
      } else if (input.strokes === 'dabbed') contrast = 0;
      else {
        noiseAt(waver, x, y, sample);
        let normal = Math.PI / 2 + sample.value;
        if (input.strokes === 'crosswise') {
          noiseAt(blotch, x, y, sample);
          if (sample.value > 0) normal -= Math.PI / 2;
        }
        cos = exactCos(2 * normal);
        sin = exactSin(2 * normal);
      }
      values[at] = contrast * cos;
      values[at + 1] = contrast * sin;
      noiseAt(uneven, x, y, sample);
      // Pull length of a thicker or thinner spot: between √h (slipping) and h (bonded); √h holds for crackle.
      values[at + 2] = bounded(1 + sample.value);
      if (local === undefined) continue;
      const pull = cellsAt(
        local,
        local.pull,
        (column * pitchMm) / input.widthMm,
        (row * pitchMm) / input.heightMm,
      );
      const strain = cellsAt(
        local,
        local.strain,
        (column * pitchMm) / input.widthMm,
        (row * pitchMm) / input.heightMm,
      );
      values[at + 2] = values[at + 2]! * pull * pull;
      values[at + 3] = strain;
      leastPull = Math.min(leastPull, pull);
      greatestPull = Math.max(greatestPull, pull);
      greatestStrain = Math.max(greatestStrain, strain);
    }
  }
  return { pitchMm, columns, rows, values, channels, leastPull, greatestPull, greatestStrain };
}

/** Thickness of the thickest spot a hand leaves, against the mean. */
export const THICKEST = 1.3;

function bounded(ratio: number): number {
  return ratio < 0.7 ? 0.7 : ratio > THICKEST ? THICKEST : ratio;
}

/** Reads the map at a point into `out`, bilinear, clamped at the borders. */
export function strokesAt(map: StrokeMap, x: number, y: number, out: Float64Array): void {
  const { columns, rows, values, channels } = map;
  let u = x / map.pitchMm;
  let v = y / map.pitchMm;
  u = u < 0 ? 0 : u > columns - 1.001 ? columns - 1.001 : u;
  v = v < 0 ? 0 : v > rows - 1.001 ? rows - 1.001 : v;
  const column = u | 0;
  const row = v | 0;
  const fu = u - column;
  const fv = v - row;
  const at = (row * columns + column) * channels;
  const down = at + columns * channels;
  // Read for every step of every tip: the three channels that are always there without a loop.
  out[0] = between(values, at, down, channels, fu, fv);
  out[1] = between(values, at + 1, down + 1, channels, fu, fv);
  out[2] = between(values, at + 2, down + 2, channels, fu, fv);
  if (channels > 3) out[3] = between(values, at + 3, down + 3, channels, fu, fv);
}

function between(
  values: Float32Array,
  at: number,
  down: number,
  right: number,
  fu: number,
  fv: number,
): number {
  const top = values[at]! + fu * (values[at + right]! - values[at]!);
  const bottom = values[down]! + fu * (values[down + right]! - values[down]!);
  return top + fv * (bottom - top);
}
