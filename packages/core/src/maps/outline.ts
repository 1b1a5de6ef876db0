import { fromRim, mapAt, OUTLINE_CELLS, type PanelMap, type PanelSize } from '../plan';
import { type Region } from './zones';

/** Cells across the narrowest place, so that it comes out at its size. */
const ACROSS = 4;
/** Cells are no wider than those painted by hand [m]. */
const WIDEST = 0.004;

/**
 * Where a step goes that is done in some regions only, or leaves some out: 1 inside, 0 outside, sharp as a tape's edge.
 * @param size - of the panel [m]
 * @param only - where it goes; all over where null
 * @param except - what it leaves out
 */
export function outlineMap(
  size: PanelSize,
  only: readonly Region[] | null,
  except: readonly Region[],
): PanelMap {
  const { width, height } = size;
  const narrowest = Math.min(
    ...[...(only ?? []), ...except].flatMap((region) => [region.width, region.height]),
  );
  const cell = Math.max(Math.max(width, height) / OUTLINE_CELLS.max, Math.min(WIDEST, narrowest / ACROSS));
  const columns = Math.max(2, Math.round(width / cell));
  const rows = Math.max(2, Math.round(height / cell));
  const inside = (region: Region, x: number, y: number): number =>
    Math.min(1, Math.max(0, 0.5 + fromRim(region, x - region.left, y - region.top) / cell));
  const values = Array.from({ length: columns * rows }, (_, i) => {
    const x = (((i % columns) + 0.5) / columns) * width;
    const y = ((Math.floor(i / columns) + 0.5) / rows) * height;
    const goes = only === null ? 1 : Math.max(0, ...only.map((region) => inside(region, x, y)));
    return goes * (1 - Math.max(0, ...except.map((region) => inside(region, x, y))));
  });
  return { columns, rows, values };
}

/** What a map says inside an outline; nothing outside it. */
export function withinOutline(map: PanelMap, outline: PanelMap): PanelMap {
  const { columns, rows } = outline;
  const values = outline.values.map((share, i) =>
    share === 0
      ? 0
      : share * mapAt(map, ((i % columns) + 0.5) / columns, (Math.floor(i / columns) + 0.5) / rows),
  );
  return { columns, rows, values };
}
