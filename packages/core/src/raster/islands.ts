import { type Grid } from './scores';

/** Open more than this, a pixel divides islands. */
const DIVIDES = 0.3;

/** Islands between cracks on a grid; arrays per island are trimmed to their number. */
export interface Islands {
  /** Island of each pixel, −1 in a crack. */
  readonly label: Int32Array;
  /** Area [mm²]. */
  readonly areaMm2: Float64Array;
  /** Middle, from the grid's own corner [mm]. */
  readonly xMm: Float64Array;
  readonly yMm: Float64Array;
  /** Cut by the border of the grid, so that its area is not known. */
  readonly cut: Uint8Array;
}

/**
 * Connected pieces of film, four neighbours to a pixel.
 * @param open - how far each pixel is open, 0 … 1, row by row
 */
export function findIslands(open: Float32Array, grid: Grid): Islands {
  const { columns, pitchMm } = grid;
  const n = open.length;
  const label = new Int32Array(n).fill(-1);
  const stack = new Int32Array(n);
  const area: number[] = [];
  const xs: number[] = [];
  const ys: number[] = [];
  const cuts: number[] = [];
  for (let start = 0; start < n; start++) {
    if (label[start]! >= 0 || open[start]! >= DIVIDES) continue;
    const id = area.length;
    let sumX = 0;
    let sumY = 0;
    let count = 0;
    let cut = 0;
    let size = 1;
    stack[0] = start;
    label[start] = id;
    while (size > 0) {
      const at = stack[--size]!;
      const column = at % columns;
      sumX += column;
      sumY += (at - column) / columns;
      count++;
      if (column === 0 || column === columns - 1 || at < columns || at >= n - columns) cut = 1;
      for (let side = 0; side < 4; side++) {
        const next = side === 0 ? at - 1 : side === 1 ? at + 1 : side === 2 ? at - columns : at + columns;
        if (next < 0 || next >= n || (side === 0 && column === 0) || (side === 1 && column === columns - 1))
          continue;
        if (label[next]! >= 0 || open[next]! >= DIVIDES) continue;
        label[next] = id;
        stack[size++] = next;
      }
    }
    area.push(count * pitchMm * pitchMm);
    xs.push((sumX / count) * pitchMm);
    ys.push((sumY / count) * pitchMm);
    cuts.push(cut);
  }
  return {
    label,
    areaMm2: Float64Array.from(area),
    xMm: Float64Array.from(xs),
    yMm: Float64Array.from(ys),
    cut: Uint8Array.from(cuts),
  };
}
