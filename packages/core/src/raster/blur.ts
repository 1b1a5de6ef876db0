import { type Grid } from './scores';

/** Two passes of a running mean each way, near a Gauss of standard deviation 0.8 · radius. Rows are swept whole. */
export function blurred(source: Float32Array, { columns, rows }: Grid, radius: number): Float32Array {
  const per = 1 / (2 * radius + 1);
  const from = Float32Array.from(source);
  const to = new Float32Array(source.length);
  for (let twice = 0; twice < 2; twice++) {
    for (let row = 0; row < rows; row++) {
      const base = row * columns;
      const last = base + columns - 1;
      let sum = from[base]! * (radius + 1);
      for (let k = 1; k <= radius; k++) sum += from[Math.min(base + k, last)]!;
      for (let column = 0; column < columns; column++) {
        const at = base + column;
        to[at] = sum * per;
        const enters = at + radius + 1;
        const leaves = at - radius;
        sum += from[enters > last ? last : enters]! - from[leaves < base ? base : leaves]!;
      }
    }
    const sums = new Float32Array(columns);
    for (let k = -radius; k <= radius; k++) {
      const base = Math.min(Math.max(k, 0), rows - 1) * columns;
      for (let column = 0; column < columns; column++) sums[column] = sums[column]! + to[base + column]!;
    }
    for (let row = 0; row < rows; row++) {
      const base = row * columns;
      const enters = Math.min(row + radius + 1, rows - 1) * columns;
      const leaves = Math.max(row - radius, 0) * columns;
      for (let column = 0; column < columns; column++) {
        from[base + column] = sums[column]! * per;
        sums[column] = sums[column]! + to[enters + column]! - to[leaves + column]!;
      }
    }
  }
  return from;
}
