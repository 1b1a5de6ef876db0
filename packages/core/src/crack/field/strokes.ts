import { exactCos, exactSin } from '../../numeric/exact';
import { noiseAt, type Octave } from '../../numeric/noise';
import { pathOctaves } from './octaves';
import { type FieldInput } from './types';

/** Slow map of the brush's marks over the panel: three values per node [A cos 2φ, A sin 2φ, thickness ratio]. */
export interface StrokeMap {
  readonly pitchMm: number;
  readonly columns: number;
  readonly rows: number;
  readonly values: Float32Array;
}

export const STROKE_CHANNELS = 3;
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
  const values = new Float32Array(columns * rows * STROKE_CHANNELS);
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
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const x = (column * pitchMm - 0.5 * input.widthMm) / spacingMm;
      const y = (row * pitchMm - 0.5 * input.heightMm) / spacingMm;
      // Strokes run along the panel's width, so that their normal points along its height.
      let normal = Math.PI / 2;
      let contrast = input.strokeContrast;
      noiseAt(waver, x, y, sample);
      if (input.strokes === 'dabbed') contrast = 0;
      else if (input.strokes === 'one-way') normal += sample.value;
      else if (input.strokes === 'crosswise') {
        normal += sample.value;
        noiseAt(blotch, x, y, sample);
        if (sample.value > 0) normal -= Math.PI / 2;
      } else {
        noiseAt(blotch, x, y, sample);
        const slope = Math.sqrt(sample.dx * sample.dx + sample.dy * sample.dy);
        if (slope > 0) {
          // Swirls follow the level lines of a slow noise: the normal is its slope.
          const cos = sample.dx / slope;
          const sin = sample.dy / slope;
          const at = (row * columns + column) * STROKE_CHANNELS;
          values[at] = contrast * (cos * cos - sin * sin);
          values[at + 1] = contrast * 2 * cos * sin;
          noiseAt(uneven, x, y, sample);
          values[at + 2] = bounded(1 + sample.value);
          continue;
        }
      }
      const at = (row * columns + column) * STROKE_CHANNELS;
      values[at] = contrast * exactCos(2 * normal);
      values[at + 1] = contrast * exactSin(2 * normal);
      noiseAt(uneven, x, y, sample);
      values[at + 2] = bounded(1 + sample.value);
    }
  }
  return { pitchMm, columns, rows, values };
}

/** Thickness of the thickest spot a hand leaves, against the mean. */
export const THICKEST = 1.3;

function bounded(ratio: number): number {
  return ratio < 0.7 ? 0.7 : ratio > THICKEST ? THICKEST : ratio;
}

/** Reads the map at a point into `out`, bilinear, clamped at the borders. */
export function strokesAt(map: StrokeMap, x: number, y: number, out: Float64Array): void {
  const { columns, rows, values } = map;
  let u = x / map.pitchMm;
  let v = y / map.pitchMm;
  u = u < 0 ? 0 : u > columns - 1.001 ? columns - 1.001 : u;
  v = v < 0 ? 0 : v > rows - 1.001 ? rows - 1.001 : v;
  const column = u | 0;
  const row = v | 0;
  const fu = u - column;
  const fv = v - row;
  const at = (row * columns + column) * STROKE_CHANNELS;
  const down = at + columns * STROKE_CHANNELS;
  for (let c = 0; c < STROKE_CHANNELS; c++) {
    const top = values[at + c]! + fu * (values[at + STROKE_CHANNELS + c]! - values[at + c]!);
    const bottom = values[down + c]! + fu * (values[down + STROKE_CHANNELS + c]! - values[down + c]!);
    out[c] = top + fv * (bottom - top);
  }
}
