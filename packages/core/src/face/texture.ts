import { type Strokes } from '../crack';
import { type Grid, sampled } from '../raster';
import { noiseAt, type Octave } from '../numeric/noise';

/** Bristle marks lie about this far apart [mm] and run this many times as long. */
const BRISTLE_MM = 0.9;
const RUN = 22;
/** Marks change slowly along the stroke: sampled every so many pixels there, in between interpolated. */
const SPARSE = 8;

/**
 * Relief a brush leaves in a film, as a share of its thickness about 1: bristle ridges along the strokes, slow
 * unevenness of the hand. Row by row, same grid as the picture.
 */
export function brushRelief(
  columns: number,
  rows: number,
  pitchMm: number,
  strokes: Strokes,
  seed: number,
): Float32Array {
  const grid: Grid = { columns, rows, pitchMm, leftMm: 0, topMm: 0 };
  const bristle = Math.max(BRISTLE_MM, 2.2 * pitchMm);
  const fine: Octave[] = [
    { wavelength: bristle, weight: 0.6, seed: seed ^ 0x21 },
    { wavelength: 2.6 * bristle, weight: 0.5, seed: seed ^ 0x22 },
  ];
  const slow: Octave[] = [
    { wavelength: 38, weight: 0.6, seed: seed ^ 0x23 },
    { wavelength: 13, weight: 0.35, seed: seed ^ 0x24 },
  ];
  const patch: Octave[] = [{ wavelength: 44, weight: 1, seed: seed ^ 0x25 }];
  const dab: Octave[] = [
    { wavelength: 3.4 * bristle, weight: 0.7, seed: seed ^ 0x26 },
    { wavelength: 9, weight: 0.5, seed: seed ^ 0x27 },
  ];
  const s = { value: 0, dx: 0, dy: 0 };
  const at = (octaves: readonly Octave[], x: number, y: number): number => {
    noiseAt(octaves, x, y, s);
    return s.value;
  };
  const unevenness = sampled(grid, SPARSE, SPARSE, (x, y) => at(slow, x, y));
  // Strokes bow a little with the hand's slow wander.
  const lying = (x: number, y: number): number => at(fine, x / RUN, y + 1.4 * at(slow, x, y));
  const standing = (x: number, y: number): number => at(fine, x + 1.4 * at(slow, x, y) + 917, y / RUN);

  let ridges: Float32Array;
  if (strokes === 'dabbed') {
    ridges = sampled(grid, 2, 2, (x, y) => 0.8 * at(dab, x, y));
  } else if (strokes === 'swirled') {
    // Swirls follow the level lines of a slow noise.
    ridges = sampled(grid, 1, 2, (x, y) => at(fine, at(patch, x, y) * 26, (x + y) / (RUN * 0.8)));
  } else {
    ridges = sampled(grid, SPARSE, 1, lying);
    if (strokes === 'crosswise') {
      const upright = sampled(grid, 1, SPARSE, standing);
      const blend = sampled(grid, SPARSE, SPARSE, (x, y) =>
        Math.min(1, Math.max(0, 0.5 + 1.6 * at(patch, x, y))),
      );
      for (let i = 0; i < ridges.length; i++) ridges[i] = ridges[i]! + blend[i]! * (upright[i]! - ridges[i]!);
    }
  }
  for (let i = 0; i < ridges.length; i++) ridges[i] = 0.21 * ridges[i]! + 0.1 * unevenness[i]!;
  return ridges;
}

/** How a torn edge wanders, about 0 with root mean square near 1: paint tears along its grain, never in a clean line. */
export function tornEdge(columns: number, rows: number, pitchMm: number, seed: number): Float32Array {
  const octaves: Octave[] = [
    { wavelength: Math.max(0.45, 2 * pitchMm), weight: 0.5, seed: seed ^ 0x31 },
    { wavelength: 1.9, weight: 0.85, seed: seed ^ 0x32 },
  ];
  const s = { value: 0, dx: 0, dy: 0 };
  return sampled({ columns, rows, pitchMm, leftMm: 0, topMm: 0 }, 2, 2, (x, y) => {
    noiseAt(octaves, x, y, s);
    return s.value;
  });
}
