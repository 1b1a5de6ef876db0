import { isFilmStep, type Plan } from '@zaffet/contract';
import {
  ARM,
  BOARD,
  CELL,
  cellBox,
  CHECK_LINE,
  MARK,
  markModules,
  MARKS,
  MODULES,
  PATCH,
  patchesOf,
  PIECES,
} from '@zaffet/core/board';
import { quantities } from '@zaffet/core/quantity';
import { basisOf, isBoard, partPlan, sittings, timetable } from '@zaffet/workshop';
import { BOARD_PAGE_WORDS, BOARD_PAGES, type BoardPageKey } from './calibration';
import { figures, um, type UnitSystem, volume } from './format';
import { startWords, stepTitle } from './names';
import { partsOf, sittingTitle, wallClock } from './timetable';

/*
 * What is printed for a sample board, page by page, as SVG at its own size: four pieces of the frame a photograph is read
 * by, and the board's cells with what goes on each.
 */

/** A sheet of A4, and what a home printer leaves white on each side [mm]. */
const PAGE = { width: 210, height: 297 } as const;
const MARGIN = 12;

const INK = '#000';
const QUIET = '#5c6168';

const escaped = (text: string): string => text.replace(/[&<>"]/g, (letter) => `&#${letter.codePointAt(0)!};`);
const fixed = (value: number): string => Number(value.toFixed(3)).toString();

const rect = (x: number, y: number, width: number, height: number, rest: string): string =>
  `<rect x="${fixed(x)}" y="${fixed(y)}" width="${fixed(width)}" height="${fixed(height)}" ${rest}/>`;
const line = (x1: number, y1: number, x2: number, y2: number, wide = 0.2, colour = INK): string =>
  `<line x1="${fixed(x1)}" y1="${fixed(y1)}" x2="${fixed(x2)}" y2="${fixed(y2)}" stroke="${colour}" stroke-width="${wide}"/>`;
/** Text of so many millimetres. */
const text = (x: number, y: number, size: number, words: string, rest = ''): string =>
  `<text x="${fixed(x)}" y="${fixed(y)}" font-size="${size}" font-family="Roboto, sans-serif" ${rest}>${escaped(words)}</text>`;

const page = (shapes: readonly string[], title: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${PAGE.width}mm" height="${PAGE.height}mm" viewBox="0 0 ${PAGE.width} ${PAGE.height}"><title>${escaped(title)}</title>${rect(0, 0, PAGE.width, PAGE.height, 'fill="#fff"')}${shapes.join('')}</svg>`;

/** The line to be measured, with its ends. */
const checkLine = (x: number, y: number): string[] => [
  line(x, y, x + CHECK_LINE.meant, y, 0.3),
  line(x, y - 3, x, y + 3, 0.3),
  line(x + CHECK_LINE.meant, y - 3, x + CHECK_LINE.meant, y + 3, 0.3),
  text(x, y + 8, 4, `From end to end ${CHECK_LINE.meant} mm. Measure it:`),
  text(x, y + 14, 4, 'what it comes to is asked with the photograph.'),
];

/** A piece of the frame, at its own size. */
function framePage(name: BoardPageKey, piece: number): string {
  const where = BOARD_PAGE_WORDS[name].toLowerCase().replace(' piece', '');
  const { side } = PIECES[piece]!;
  const [wide, high] = [BOARD.width / 2 + ARM, BOARD.height / 2 + ARM];
  // Where the board's corner lies on the sheet.
  const corner = {
    x: side.x < 0 ? MARGIN + ARM : MARGIN + wide - ARM,
    y: side.y < 0 ? MARGIN + ARM : MARGIN + high - ARM,
  };
  const at = ({ x, y }: { readonly x: number; readonly y: number }): { x: number; y: number } => ({
    x: corner.x + x,
    y: corner.y + y,
  });
  const module = MARK / MODULES;
  const marks = MARKS.filter((mark) => mark.piece === piece).flatMap(({ id, off }) => {
    const { x, y } = at(off);
    return markModules(id).flatMap((white, k) =>
      white
        ? []
        : [
            rect(
              x - MARK / 2 + (k % MODULES) * module,
              y - MARK / 2 + Math.floor(k / MODULES) * module,
              module,
              module,
              `fill="${INK}" shape-rendering="crispEdges"`,
            ),
          ],
    );
  });
  const greys = patchesOf(piece).map(({ ink, off }) => {
    const { x, y } = at(off);
    const level = Math.round(255 * (1 - ink));
    return rect(x - PATCH / 2, y - PATCH / 2, PATCH, PATCH, `fill="rgb(${level},${level},${level})"`);
  });
  // The board's two edges from this corner, with a tick a centimetre on the paper's side.
  const [ex, ey] = [-side.x * (BOARD.width / 2), -side.y * (BOARD.height / 2)];
  const ticks = [
    ...Array.from({ length: BOARD.width / 20 + 1 }, (_, k) => {
      const x = corner.x - side.x * 10 * k;
      return line(x, corner.y, x, corner.y + side.y * (k % 5 === 0 ? 3 : 2), 0.15);
    }),
    ...Array.from({ length: BOARD.height / 20 + 1 }, (_, k) => {
      const y = corner.y - side.y * 10 * k;
      return line(corner.x, y, corner.x + side.x * (k % 5 === 0 ? 3 : 2), y, 0.15);
    }),
  ];
  const outer = { x: corner.x + side.x * ARM, y: corner.y + side.y * ARM };
  const outline = [
    [corner.x, corner.y],
    [corner.x + ex, corner.y],
    [corner.x + ex, outer.y],
    [outer.x, outer.y],
    [outer.x, corner.y + ey],
    [corner.x, corner.y + ey],
  ];
  const path = `<polygon points="${outline.map(([x, y]) => `${fixed(x!)},${fixed(y!)}`).join(' ')}" fill="none" stroke="${QUIET}" stroke-width="0.2"/>`;
  // What is cut away carries what is to be read.
  const left = Math.min(corner.x, corner.x + ex) + 14;
  const top = Math.min(corner.y, corner.y + ey) + 40;
  return page(
    [
      path,
      ...marks,
      ...greys,
      ...ticks,
      text(left, top, 7, `${BOARD_PAGE_WORDS[name]} of the frame`),
      text(left, top + 10, 4, 'Print at its own size, not fitted to the page.'),
      text(left, top + 16, 4, `Cut along the line. Lay its inner edges against the ${where} corner`),
      text(
        left,
        top + 22,
        4,
        `of a board of ${BOARD.width} × ${BOARD.height} mm, flat, beside the other three.`,
      ),
      ...checkLine(left, top + 40),
    ],
    `Frame, ${where}`,
  );
}

/** What goes on a cell, film by film: what, how much, when. */
function cellFilms(plan: Plan, partId: string, units: UnitSystem): string[][] {
  const own = partPlan(plan, partId);
  const amounts = quantities(basisOf(own).plan);
  return own.steps.flatMap((step): string[][] => {
    const amount = amounts.find(({ stepId }) => stepId === step.id);
    if (amount === undefined || !isFilmStep(step)) return [];
    const thick = um(step.thicknessUm * 1e-6, units);
    const much = `${volume(amount.volume, units)}, ${figures(1000 * amount.mass)} g`;
    return [[`${stepTitle(step, plan.media)}, ${thick}`, much, startWords(step.start)]];
  });
}

/** The cells on the board, at a scale, each with what goes on it, and the order of the work. */
function cellsPage(plan: Plan, units: UnitSystem): string {
  const scale = 0.3;
  const [left, top] = [MARGIN, 30];
  const place = (value: number): number => value * scale;
  const map = [
    rect(
      left,
      top,
      place(BOARD.width),
      place(BOARD.height),
      `fill="none" stroke="${INK}" stroke-width="0.3"`,
    ),
    ...plan.piece.parts.flatMap((_, n) => {
      const box = cellBox(n);
      const [x, y, side] = [left + place(box.left), top + place(box.top), place(CELL.side)];
      return [
        rect(x, y, side, side, `fill="none" stroke="${INK}" stroke-width="0.3"`),
        text(x + side / 2, y + side / 2 + 4, 11, String(n + 1), 'text-anchor="middle"'),
      ];
    }),
  ];
  const start = Date.parse(plan.startsAt);
  const clock = wallClock(plan);
  const order = sittings(plan, timetable(plan).table).map(
    (one) =>
      `${clock.dayTime(start + one.from * 1000)}  ${sittingTitle(one, plan)}: ${partsOf(one, plan).toLowerCase()}`,
  );
  const cells = plan.piece.parts.map(({ id, name }) => ({ name, films: cellFilms(plan, id, units) }));
  const first = cells[0]!.films;
  const same = first.filter((film, k) => cells.every(({ films }) => `${films[k]}` === `${film}`));
  const columns = 3;
  const own = cells.map(({ name, films }) => ({
    name,
    lines: films.filter((_, k) => !same.includes(first[k]!)).flat(),
  }));
  const below = top + place(BOARD.height) + 12;
  const all = same.map(([what, much, when]) => `${what}: ${much} a cell, ${when}`);
  const from = below + (all.length === 0 ? 0 : 10 + 4 * all.length);
  const rowHeight = 12 + 4 * Math.max(...own.map(({ lines }) => lines.length));
  const told = [
    ...(all.length === 0 ? [] : [text(left, below, 4.5, 'On every cell', 'font-weight="bold"')]),
    ...all.map((words, k) => text(left, below + 5 + 4 * k, 3, words)),
    ...own.flatMap(({ name, lines }, n) => {
      const [x, y] = [left + (n % columns) * 63, from + Math.floor(n / columns) * rowHeight];
      return [
        text(x, y, 4.5, name, 'font-weight="bold"'),
        ...lines.map((words, k) => text(x, y + 5 + 4 * k, 3, words)),
      ];
    }),
  ];
  const right = left + place(BOARD.width) + 10;
  const most = Math.floor(place(BOARD.height) / 5) - 1;
  return page(
    [
      text(left, 18, 7, plan.name),
      text(
        left,
        25,
        3.6,
        `${CELL.side} mm a cell, taped off, ${cellBox(1).left - cellBox(0).left - CELL.side} mm between. Weigh each film as it is brushed.`,
      ),
      ...map,
      text(right, top + 4, 4.5, 'In this order', 'font-weight="bold"'),
      ...order.slice(0, most).map((words, k) => text(right, top + 10 + 5 * k, 3, words)),
      ...(order.length > most
        ? [text(right, top + 10 + 5 * most, 3, 'and on: see Days', `fill="${QUIET}"`)]
        : []),
      ...told,
    ],
    plan.name,
  );
}

/** A page that is printed for a board. */
export interface BoardPage {
  readonly name: BoardPageKey;
  readonly svg: string;
}

/**
 * Everything that is printed for a board: its cells, and the four pieces of the frame.
 * @returns null where the plan is no board
 * @throws InputError as `forecast`
 */
export function boardPages(plan: Plan, units: UnitSystem = 'metric'): BoardPage[] | null {
  if (!isBoard(plan)) return null;
  return BOARD_PAGES.map((name, n) => ({
    name,
    svg: n === 0 ? cellsPage(plan, units) : framePage(name, n - 1),
  }));
}
