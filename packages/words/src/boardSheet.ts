import { isFilmStep, type Notation, type Plan, type UnitSystem } from '@zaffet/contract';
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
import { mmToMetres } from '@zaffet/core/units';
import { basisOf, isBoard, partPlan, sittings, timetable } from '@zaffet/workshop';
import { escapedText, svgLine, svgNumber, svgPage, svgRect, svgText } from './svg';
import { BOARD_PAGE_WORDS, BOARD_PAGES, type BoardPageKey } from './calibration';
import { mass, mm, um, volume } from './format';
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

const page = (shapes: readonly string[], title: string): string => svgPage(PAGE, shapes, escapedText(title));

/** The line to be measured, with its ends. */
const checkLine = (x: number, y: number, units: UnitSystem): string[] => [
  svgLine(x, y, x + CHECK_LINE.meant, y, 0.3),
  svgLine(x, y - 3, x, y + 3, 0.3),
  svgLine(x + CHECK_LINE.meant, y - 3, x + CHECK_LINE.meant, y + 3, 0.3),
  svgText(x, y + 8, 4, `From end to end ${mm(mmToMetres(CHECK_LINE.meant), units)}. Measure it:`),
  svgText(x, y + 14, 4, 'what it comes to is asked with the photograph.'),
];

/** A piece of the frame, at its own size. */
function framePage(name: BoardPageKey, piece: number, units: UnitSystem): string {
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
            svgRect(
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
    return svgRect(x - PATCH / 2, y - PATCH / 2, PATCH, PATCH, `fill="rgb(${level},${level},${level})"`);
  });
  // The board's two edges from this corner, with a tick a centimetre on the paper's side.
  const [ex, ey] = [-side.x * (BOARD.width / 2), -side.y * (BOARD.height / 2)];
  const ticks = [
    ...Array.from({ length: BOARD.width / 20 + 1 }, (_, k) => {
      const x = corner.x - side.x * 10 * k;
      return svgLine(x, corner.y, x, corner.y + side.y * (k % 5 === 0 ? 3 : 2), 0.15);
    }),
    ...Array.from({ length: BOARD.height / 20 + 1 }, (_, k) => {
      const y = corner.y - side.y * 10 * k;
      return svgLine(corner.x, y, corner.x + side.x * (k % 5 === 0 ? 3 : 2), y, 0.15);
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
  const path = `<polygon points="${outline.map(([x, y]) => `${svgNumber(x!)},${svgNumber(y!)}`).join(' ')}" fill="none" stroke="${QUIET}" stroke-width="0.2"/>`;
  // What is cut away carries what is to be read.
  const left = Math.min(corner.x, corner.x + ex) + 14;
  const top = Math.min(corner.y, corner.y + ey) + 40;
  return page(
    [
      path,
      ...marks,
      ...greys,
      ...ticks,
      svgText(left, top, 7, `${BOARD_PAGE_WORDS[name]} of the frame`),
      svgText(left, top + 10, 4, 'Print at its own size, not fitted to the page.'),
      svgText(left, top + 16, 4, `Cut along the line. Lay its inner edges against the ${where} corner`),
      svgText(
        left,
        top + 22,
        4,
        `of a board of ${mm(mmToMetres(BOARD.width), units)} by ${mm(mmToMetres(BOARD.height), units)}, flat, beside the other three.`,
      ),
      ...checkLine(left, top + 40, units),
    ],
    `Frame, ${where}`,
  );
}

/** What is done on a cell, step by step: what, of a film how much, and when. */
function cellFilms(plan: Plan, partId: string, units: UnitSystem): string[][] {
  const own = partPlan(plan, partId);
  const amounts = quantities(basisOf(own).plan);
  return own.steps.flatMap((step): string[][] => {
    const amount = amounts.find(({ stepId }) => stepId === step.id);
    if (amount === undefined || !isFilmStep(step))
      return isFilmStep(step) ? [] : [[stepTitle(step, plan.media), startWords(step.start)]];
    const thick = um(step.thicknessUm * 1e-6, units);
    const much = `${volume(amount.volume, units)}, ${mass(amount.mass, units)}`;
    return [[`${stepTitle(step, plan.media)}, ${thick}`, much, startWords(step.start)]];
  });
}

/** The cells on the board, at a scale, each with what goes on it, and the order of the work. */
function cellsPage(plan: Plan, { units, clock: face }: Notation): string {
  const scale = 0.3;
  const [left, top] = [MARGIN, 30];
  const place = (value: number): number => value * scale;
  const map = [
    svgRect(
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
        svgRect(x, y, side, side, `fill="none" stroke="${INK}" stroke-width="0.3"`),
        svgText(x + side / 2, y + side / 2 + 4, 11, String(n + 1), 'text-anchor="middle"'),
      ];
    }),
  ];
  const start = Date.parse(plan.startsAt);
  const clock = wallClock(plan, face);
  const order = sittings(plan, timetable(plan).table).map(
    (one) =>
      `${clock.dayTime(start + one.from * 1000)}  ${sittingTitle(one, plan)}: ${partsOf(one, plan).toLowerCase()}`,
  );
  const cells = plan.piece.parts.map(({ id, name }) => ({ name, films: cellFilms(plan, id, units) }));
  const first = cells[0]!.films;
  // Alike on all, in the same place from the first on.
  const unlike = first.findIndex((film, k) => cells.some(({ films }) => `${films[k]}` !== `${film}`));
  const same = unlike < 0 ? first : first.slice(0, unlike);
  const columns = 3;
  const own = cells.map(({ name, films }) => ({
    name,
    lines: films.slice(same.length).flat(),
  }));
  const below = top + place(BOARD.height) + 12;
  const all = same.map((line) =>
    line.length === 3 ? `${line[0]}: ${line[1]} a cell, ${line[2]}` : line.join(', '),
  );
  const from = below + (all.length === 0 ? 0 : 10 + 4 * all.length);
  const rows = Math.ceil(own.length / columns);
  const needed = 12 + 4 * Math.max(...own.map(({ lines }) => lines.length));
  // Long recipes on many cells are set smaller, so that the page holds them.
  const small = Math.min(1, (PAGE.height - MARGIN - from) / (needed * rows));
  const rowHeight = needed * small;
  const told = [
    ...(all.length === 0 ? [] : [svgText(left, below, 4.5, 'On every cell', 'font-weight="bold"')]),
    ...all.map((words, k) => svgText(left, below + 5 + 4 * k, 3, words)),
    ...own.flatMap(({ name, lines }, n) => {
      const [x, y] = [left + (n % columns) * 63, from + Math.floor(n / columns) * rowHeight];
      return [
        svgText(x, y, 4.5 * small, name, 'font-weight="bold"'),
        ...lines.map((words, k) => svgText(x, y + (5 + 4 * k) * small, 3 * small, words)),
      ];
    }),
  ];
  const right = left + place(BOARD.width) + 10;
  const most = Math.floor(place(BOARD.height) / 5) - 1;
  return page(
    [
      svgText(left, 18, 7, plan.name),
      svgText(
        left,
        25,
        3.6,
        `${mm(mmToMetres(CELL.side), units)} a cell, taped off, ${mm(mmToMetres(cellBox(1).left - cellBox(0).left - CELL.side), units)} between. Weigh each film as it is brushed.`,
      ),
      ...map,
      svgText(right, top + 4, 4.5, 'In this order', 'font-weight="bold"'),
      ...order.slice(0, most).map((words, k) => svgText(right, top + 10 + 5 * k, 3, words)),
      ...(order.length > most
        ? [svgText(right, top + 10 + 5 * most, 3, 'and on: see Days', `fill="${QUIET}"`)]
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
export function boardPages(plan: Plan, notation: Notation): BoardPage[] | null {
  if (!isBoard(plan)) return null;
  return BOARD_PAGES.map((name, n) => ({
    name,
    svg: n === 0 ? cellsPage(plan, notation) : framePage(name, n - 1, notation.units),
  }));
}
