import { type Plan } from '@zaffet/contract';
import { contours } from 'd3-contour';
import { stepTitle } from './names';
import { CHECK_MM, escapedText, svgLine, svgNumber, svgPage, svgRect, svgText } from './svg';

/*
 * Where a step does more and where less, to be traced onto the part: lines of equal strength at their own size, in tiles
 * that a home printer can print and that are laid edge to edge.
 */

/** A sheet of A4, what a home printer leaves white, and what the words on it take [mm]. */
const PAGE = { width: 210, height: 297 } as const;
const MARGIN = 12;
const HEAD = 24;
const TILE = { width: PAGE.width - 2 * MARGIN, height: PAGE.height - 2 * MARGIN - HEAD } as const;
const QUIET = '#5c6168';

/** Shares of what a step says that a line is drawn at [%], each dashed in its own way. */
const LEVELS = [
  { percent: 25, dash: '1 2' },
  { percent: 50, dash: '4 2' },
  { percent: 75, dash: '8 2' },
  { percent: 100, dash: '' },
  { percent: 150, dash: '12 2 1 2' },
] as const;

/** A tile to print. */
export interface TracePage {
  /** Column by letter, row by number, from the upper left. */
  readonly name: string;
  readonly svg: string;
}

/**
 * Tiles of a step's map on a part.
 * @returns null where the step has no map there
 */
export function tracePages(plan: Plan, partId: string, stepId: string): TracePage[] | null {
  const part = plan.piece.parts.find(({ id }) => id === partId);
  const step = plan.finishes.flatMap(({ steps }) => steps).find(({ id }) => id === stepId);
  const map = part?.maps[stepId];
  if (part === undefined || step === undefined || map === undefined) return null;
  const { widthMm, heightMm } = part;
  const [wide, high] = [widthMm / map.columns, heightMm / map.rows];
  const lines = LEVELS.flatMap(({ percent, dash }) => {
    const [shape] = contours().size([map.columns, map.rows]).thresholds([percent])([...map.percent]);
    const rings = shape!.coordinates.flat();
    if (rings.length === 0) return [];
    const path = rings
      .map((ring) => `M${ring.map(([x, y]) => `${svgNumber(x! * wide)},${svgNumber(y! * high)}`).join('L')}Z`)
      .join('');
    const dashed = dash === '' ? '' : ` stroke-dasharray="${dash}"`;
    return [{ percent, dashed, path }];
  });
  const [columns, rows] = [Math.ceil(widthMm / TILE.width), Math.ceil(heightMm / TILE.height)];
  const title = `${stepTitle(step, plan.media)}, ${part.name}`;
  return Array.from({ length: columns * rows }, (_, n): TracePage => {
    const [column, row] = [n % columns, Math.floor(n / columns)];
    const name = `${String.fromCharCode(65 + column)}${row + 1}`;
    const [left, top] = [column * TILE.width, row * TILE.height];
    const [width, height] = [Math.min(TILE.width, widthMm - left), Math.min(TILE.height, heightMm - top)];
    const [x, y] = [MARGIN, MARGIN + HEAD];
    const drawn = lines
      .map(({ path, dashed }) => `<path d="${path}" fill="none" stroke="#000" stroke-width="0.4"${dashed}/>`)
      .join('');
    const outline = part.oval
      ? `<ellipse cx="${svgNumber(widthMm / 2)}" cy="${svgNumber(heightMm / 2)}" rx="${svgNumber(widthMm / 2)}" ry="${svgNumber(heightMm / 2)}" fill="none" stroke="#000" stroke-width="0.2"/>`
      : '';
    return {
      name,
      svg: svgPage(
        PAGE,
        [
          `<defs><clipPath id="tile"><rect x="${left}" y="${top}" width="${svgNumber(width)}" height="${svgNumber(height)}"/></clipPath></defs>`,
          svgText(MARGIN, MARGIN + 5, 5, title, 'font-weight="bold"'),
          svgText(
            MARGIN,
            MARGIN + 10,
            3.2,
            `Tile ${name} of ${columns} across and ${rows} down, at its own size: cut along the frame, lay them edge to edge.`,
          ),
          ...lines.map(({ percent, dashed }, i) => {
            const at = MARGIN + 26 * i;
            return `<line x1="${at}" y1="${MARGIN + 15}" x2="${at + 10}" y2="${MARGIN + 15}" stroke="#000" stroke-width="0.4"${dashed}/>${svgText(at + 12, MARGIN + 16, 3, `${percent} %`)}`;
          }),
          svgLine(MARGIN, MARGIN + 20, MARGIN + CHECK_MM, MARGIN + 20, 0.3),
          svgText(MARGIN + CHECK_MM + 2, MARGIN + 21, 3, `${CHECK_MM} mm`, `fill="${QUIET}"`),
          `<g transform="translate(${svgNumber(x - left)} ${svgNumber(y - top)})"><g clip-path="url(#tile)">${outline}${drawn}</g></g>`,
          svgRect(x, y, width, height, `fill="none" stroke="${QUIET}" stroke-width="0.2"`),
        ],
        escapedText(`${title}, tile ${name}`),
      ),
    };
  });
}
