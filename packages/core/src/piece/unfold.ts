import { type Facing, type Placeable, type Placed } from './types';

/** Where a facing stands in the net: column and row of the cross round the front. */
const NET: Readonly<Partial<Record<Facing, { column: number; row: number }>>> = {
  back: { column: 1, row: 0 },
  top: { column: 1, row: 1 },
  left: { column: 0, row: 2 },
  front: { column: 1, row: 2 },
  right: { column: 2, row: 2 },
  bottom: { column: 1, row: 3 },
};

/**
 * Lays the parts of a piece out flat: the first part of each facing in a cross round the front, as a carton unfolds,
 * all others in rows below, each row as wide as the cross. Nothing overlaps.
 * @param gap - between parts [m]
 * @returns the parts with their places, and the sheet's size [m]
 */
export function unfold(
  parts: readonly Placeable[],
  gap: number,
): { placed: Placed[]; width: number; height: number } {
  const inNet = new Map<string, { column: number; row: number }>();
  const taken = new Set<Facing>();
  for (const part of parts) {
    const cell = NET[part.facing];
    if (cell === undefined || taken.has(part.facing)) continue;
    taken.add(part.facing);
    inNet.set(part.id, cell);
  }
  const widths = [0, 0, 0];
  const heights = [0, 0, 0, 0];
  for (const part of parts) {
    const cell = inNet.get(part.id);
    if (cell === undefined) continue;
    widths[cell.column] = Math.max(widths[cell.column]!, part.width);
    heights[cell.row] = Math.max(heights[cell.row]!, part.height);
  }
  const starts = (sizes: readonly number[]): number[] => {
    let at = 0;
    return sizes.map((size) => {
      const start = at;
      if (size > 0) at += size + gap;
      return start;
    });
  };
  const lefts = starts(widths);
  const tops = starts(heights);
  const placed: Placed[] = [];
  for (const part of parts) {
    const cell = inNet.get(part.id);
    if (cell === undefined) continue;
    const { column, row } = cell;
    // Neighbours meet where they meet on the piece: the lid on the front's upper edge, the sides beside it.
    const x =
      column === 0
        ? lefts[0]! + widths[0]! - part.width
        : column === 1
          ? lefts[1]! + 0.5 * (widths[1]! - part.width)
          : lefts[2]!;
    const y = row === 3 ? tops[3]! : tops[row]! + heights[row]! - part.height;
    placed.push({ ...part, x, y });
  }
  const right = (all: readonly Placed[]): number => Math.max(0, ...all.map(({ x, width }) => x + width));
  const bottom = (all: readonly Placed[]): number => Math.max(0, ...all.map(({ y, height }) => y + height));
  const others = parts.filter(({ id }) => !inNet.has(id));
  const rowWidth = Math.max(
    right(placed),
    1.6 * Math.sqrt(others.reduce((s, p) => s + p.width * p.height, 0)),
  );
  let x = 0;
  let y = placed.length === 0 ? 0 : bottom(placed) + gap;
  let rowHeight = 0;
  for (const part of others) {
    if (x > 0 && x + part.width > rowWidth) {
      x = 0;
      y += rowHeight + gap;
      rowHeight = 0;
    }
    placed.push({ ...part, x, y });
    x += part.width + gap;
    rowHeight = Math.max(rowHeight, part.height);
  }
  return { placed, width: right(placed), height: bottom(placed) };
}
