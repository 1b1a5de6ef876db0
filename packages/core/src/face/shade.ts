import { hash3 } from '../numeric/hash';
import { brushRelief, tornEdge } from './texture';
import { type CrackRaster, type Finish, type Rgb } from './types';

/*
 * The picture is shaded from a relief in mm: film thickness with brush marks, islands whose rims curl up a little
 * and round off, cracks cut down to what lies below. Light comes from the upper left. A film is some hundredths of a
 * millimetre thick and a pixel some tenths wide: the relief is raised for the eye, equally everywhere.
 */

/** Light direction in the picture's plane (x right, y down), towards the light. */
const LIGHT_X = -0.62;
const LIGHT_Y = -0.78;
/** How much the relief is raised for the eye: true slopes of paint films are too small to see at arm's length. */
const RAISE = 4.2;
/** Rims of islands lift by this share of the film thickness. */
const CURL = 0.4;
/** The medium left in a crack darkens and deepens the colour below. */
const CRACK_DEPTH = 0.2;

const TO_LINEAR = new Float32Array(256);
for (let i = 0; i < 256; i++) {
  const c = i / 255;
  TO_LINEAR[i] = c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
}
const FROM_LINEAR = new Uint8ClampedArray(4097);
for (let i = 0; i <= 4096; i++) {
  const c = i / 4096;
  FROM_LINEAR[i] = Math.round(255 * (c <= 0.0031308 ? 12.92 * c : 1.055 * c ** (1 / 2.4) - 0.055));
}

const linear = (rgb: Rgb): [number, number, number] => [
  TO_LINEAR[rgb[0]]!,
  TO_LINEAR[rgb[1]]!,
  TO_LINEAR[rgb[2]]!,
];

/** Two passes of a running mean, near a Gauss of standard deviation 0.8 · radius. */
function blurred(source: Float32Array, columns: number, rows: number, radius: number): Float32Array {
  const across = new Float32Array(source.length);
  const result = Float32Array.from(source);
  const size = 2 * radius + 1;
  for (let pass = 0; pass < 2; pass++) {
    for (let row = 0; row < rows; row++) {
      const base = row * columns;
      let sum = 0;
      for (let k = -radius; k <= radius; k++) sum += result[base + bounded(k, columns)]!;
      for (let column = 0; column < columns; column++) {
        across[base + column] = sum / size;
        sum +=
          result[base + bounded(column + radius + 1, columns)]! -
          result[base + bounded(column - radius, columns)]!;
      }
    }
    for (let column = 0; column < columns; column++) {
      let sum = 0;
      for (let k = -radius; k <= radius; k++) sum += across[bounded(k, rows) * columns + column]!;
      for (let row = 0; row < rows; row++) {
        result[row * columns + column] = sum / size;
        sum +=
          across[bounded(row + radius + 1, rows) * columns + column]! -
          across[bounded(row - radius, rows) * columns + column]!;
      }
    }
  }
  return result;
}

function bounded(i: number, n: number): number {
  return i < 0 ? 0 : i >= n ? n - 1 : i;
}

/** Brush relief of both coats and the wander of torn edges; the same for every moment of a panel, so worked out once. */
export interface FaceTexture {
  readonly top: Float32Array;
  readonly below: Float32Array;
  readonly torn: Float32Array;
}

export function faceTexture(columns: number, rows: number, pitchMm: number, finish: Finish): FaceTexture {
  return {
    top: brushRelief(columns, rows, pitchMm, finish.strokes, finish.seed),
    below: brushRelief(columns, rows, pitchMm, 'one-way', finish.seed ^ 0x7f),
    torn: tornEdge(columns, rows, pitchMm, finish.seed),
  };
}

/**
 * Paints a raster of cracks as the panel looks: colours, brush marks, curled rims, shadows in the cracks.
 * @returns RGBA bytes, row by row
 */
export function shade(
  raster: CrackRaster,
  finish: Finish,
  texture: FaceTexture,
): Uint8ClampedArray<ArrayBuffer> {
  const { columns, rows, pitchMm, open, widthMm } = raster;
  const n = columns * rows;
  const rimPixels = Math.max(1, Math.round(0.28 / pitchMm));
  const near = blurred(open, columns, rows, rimPixels);
  const wide = blurred(open, columns, rows, 3 * rimPixels);

  const height = new Float32Array(n);
  const t = finish.thicknessMm;
  for (let i = 0; i < n; i++) {
    const film = 1 - open[i]!;
    // Near a crack the rim curls up, then falls over the edge.
    const rim = Math.min(1, 2.2 * wide[i]!) * CURL - Math.min(1, 2.6 * near[i]!) * 0.9;
    height[i] = t * (film * (1 + texture.top[i]! + rim) + 0.25 * open[i]! * texture.below[i]!);
  }

  const top = linear(finish.top);
  const below = linear(finish.below);
  const rgba = new Uint8ClampedArray(n * 4);
  const slopeScale = (RAISE * (0.5 + finish.raking)) / pitchMm;
  const shadowPixels = 1 + Math.round((0.12 + 0.25 * finish.raking) / pitchMm);
  for (let row = 0; row < rows; row++) {
    const up = Math.max(0, row - 1) * columns;
    const down = Math.min(rows - 1, row + 1) * columns;
    for (let column = 0; column < columns; column++) {
      const i = row * columns + column;
      const leftOf = Math.max(0, column - 1);
      const rightOf = Math.min(columns - 1, column + 1);
      const gx = 0.5 * (height[row * columns + rightOf]! - height[row * columns + leftOf]!) * slopeScale;
      const gy = 0.5 * (height[down + column]! - height[up + column]!) * slopeScale;
      // Lambert's law on the raised slope, normalised to 1 on the flat.
      const facing = (1 - gx * LIGHT_X - gy * LIGHT_Y) / Math.sqrt(1 + gx * gx + gy * gy);
      const light = facing < 0.25 ? 0.25 : facing > 1.22 ? 1.22 : facing;
      const share = open[i]!;
      // The wall on the light's side throws its shadow into the crack.
      const sx = bounded(column + Math.round(LIGHT_X * shadowPixels), columns);
      const sy = bounded(row + Math.round(LIGHT_Y * shadowPixels), rows);
      const wall = 1 - open[sy * columns + sx]!;
      const narrow = widthMm[i]! > 0 ? Math.min(1, 0.28 / widthMm[i]!) : 0;
      const floor = (1 - CRACK_DEPTH - 0.3 * wall - 0.22 * narrow) * (1 + 0.35 * texture.below[i]!);
      const grain = ((hash3(column, row, finish.seed) & 255) / 255 - 0.5) * 0.022;
      const film = light * (1 + 0.1 * texture.top[i]! + grain);
      for (let c = 0; c < 3; c++) {
        const value = (1 - share) * top[c]! * film + share * below[c]! * Math.max(0.2, floor + grain);
        const level = value <= 0 ? 0 : value >= 1 ? 4096 : (value * 4096) | 0;
        rgba[i * 4 + c] = FROM_LINEAR[level]!;
      }
      rgba[i * 4 + 3] = 255;
    }
  }
  return rgba;
}
