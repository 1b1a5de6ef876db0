import { exactCos, exactSin } from '../numeric/exact';
import { noiseValue } from '../numeric/noise';
import { normalQuantile } from '../numeric/normal';

/*
 * Patterns over a panel as normal scores: at every point a value spread like the standard normal, so that a share of
 * the area lies above a level whatever the pattern looks like. Coordinates are mm on the panel, not pixels of a view:
 * another crop or pitch sees the same pattern.
 */

/** Which points of the panel a raster stands for. */
export interface Grid {
  readonly columns: number;
  readonly rows: number;
  readonly pitchMm: number;
  /** Upper left corner on the panel. */
  readonly leftMm: number;
  readonly topMm: number;
}

/** Fills a raster from a function of mm, evaluated every so many pixels and interpolated in between. */
export function sampled(
  grid: Grid,
  stepX: number,
  stepY: number,
  value: (x: number, y: number) => number,
): Float32Array {
  const { columns, rows, pitchMm, leftMm, topMm } = grid;
  const nx = Math.ceil(columns / stepX) + 2;
  const ny = Math.ceil(rows / stepY) + 2;
  const nodes = new Float32Array(nx * ny);
  for (let j = 0; j < ny; j++) {
    for (let i = 0; i < nx; i++)
      nodes[j * nx + i] = value(leftMm + i * stepX * pitchMm, topMm + j * stepY * pitchMm);
  }
  if (stepX === 1 && stepY === 1) {
    const whole = new Float32Array(columns * rows);
    for (let row = 0; row < rows; row++)
      whole.set(nodes.subarray(row * nx, row * nx + columns), row * columns);
    return whole;
  }
  const result = new Float32Array(columns * rows);
  for (let row = 0; row < rows; row++) {
    const j = Math.floor(row / stepY);
    const fy = row / stepY - j;
    for (let column = 0; column < columns; column++) {
      const i = Math.floor(column / stepX);
      const fx = column / stepX - i;
      const at = j * nx + i;
      const upper = nodes[at]! + fx * (nodes[at + 1]! - nodes[at]!);
      const lower = nodes[at + nx]! + fx * (nodes[at + nx + 1]! - nodes[at + nx]!);
      result[row * columns + column] = upper + fy * (lower - upper);
    }
  }
  return result;
}

/** One ingredient of a pattern. */
export interface Strand {
  /** Size of its blotches along x and y [mm]. */
  readonly along: number;
  readonly across: number;
  readonly weight: number;
}

/** Turn of the first strand's lattice [rad]; each further one is turned by a radian more. */
const TURN = 0.55;
/** Standard deviation of one octave of the noise with weight 1, measured. */
const NOISE_SPREAD = 1.03;

/** A raster of normal scores from strands of noise; weights are scaled so that their squares add up to one. */
export function scores(grid: Grid, strands: readonly Strand[], seed: number): Float32Array {
  const sum = Math.sqrt(strands.reduce((all, strand) => all + strand.weight ** 2, 0));
  const total = new Float32Array(grid.columns * grid.rows);
  strands.forEach((strand, k) => {
    const weight = strand.weight / sum / NOISE_SPREAD;
    const own = seed ^ (0x51 + 77 * k);
    const cos = exactCos(TURN + k);
    const sin = exactSin(TURN + k);
    const per = (size: number): number => Math.max(1, Math.min(16, Math.floor((0.27 * size) / grid.pitchMm)));
    const part = sampled(grid, per(strand.along), per(strand.across), (x, y) => {
      // Turned where blotches are round, so that no edge runs along the lattice of the noise.
      const u = x / strand.along;
      const v = y / strand.across;
      return weight * noiseValue(u * cos - v * sin + 3.7 * k, u * sin + v * cos - 1.3 * k, own);
    });
    for (let i = 0; i < total.length; i++) total[i] = total[i]! + part[i]!;
  });
  return total;
}

/** Level above which a share of the standard normal lies. */
export function levelOf(share: number): number {
  if (share <= 0) return Infinity;
  return share >= 1 ? -Infinity : -normalQuantile(share);
}

/** Rises smoothly from 0 at −width to 1 at +width. */
export function soft(margin: number, width: number): number {
  if (margin <= -width) return 0;
  if (margin >= width) return 1;
  const t = (margin + width) / (2 * width);
  return t * t * (3 - 2 * t);
}
