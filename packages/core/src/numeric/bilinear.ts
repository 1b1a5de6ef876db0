/** Values on a grid of cells, row by row; a cell's value stands in its middle. */
export interface Cells {
  readonly columns: number;
  readonly rows: number;
}

/**
 * Reads cells between their middles.
 * @param u - from 0 at the left rim to 1 at the right; beyond the outermost middles their values hold
 * @param v - the same from the upper rim to the lower
 */
export function cellsAt({ columns, rows }: Cells, values: readonly number[], u: number, v: number): number {
  const x = Math.min(columns - 1, Math.max(0, u * columns - 0.5));
  const y = Math.min(rows - 1, Math.max(0, v * rows - 0.5));
  const column = Math.max(0, Math.min(columns - 2, Math.floor(x)));
  const row = Math.max(0, Math.min(rows - 2, Math.floor(y)));
  const right = Math.min(columns - 1, column + 1) - column;
  const down = (Math.min(rows - 1, row + 1) - row) * columns;
  const at = row * columns + column;
  const fx = x - column;
  const upper = values[at]! + fx * (values[at + right]! - values[at]!);
  const lower = values[at + down]! + fx * (values[at + down + right]! - values[at + down]!);
  return upper + (y - row) * (lower - upper);
}
