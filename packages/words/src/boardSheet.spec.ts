import { type Plan, METRIC } from '@zaffet/contract';
import { BOARD, PIECES, readBoard } from '@zaffet/core/board';
import { type Picture } from '@zaffet/core/photo';
import { boardFor, newPlan } from '@zaffet/workshop';
import { type BoardPage, boardPages } from './boardSheet';
import { BOARD_PAGES } from './calibration';

const ids = (): (() => string) => {
  let n = 0;
  return () => `b${++n}`;
};
const PLAN = newPlan('dried-medium', 'Lamp shelf', 7, '2026-07-06T08:00:00.000Z', ids());
const design = (size: 3 | 5 | 9): Plan => boardFor(PLAN, null, 'how-thick', size, ids())!.plan;

const numbers = (tag: string, ...names: string[]): number[] =>
  names.map((name) => Number(new RegExp(`\\b${name}="([-\\d.]+)"`).exec(tag)![1]));

/** Pixels for a millimetre, and what is seen round the frame [mm]. */
const PPM = 6;
const ROUND = 45;

/** What four pieces show when they lie against a board: each rectangle of the drawings, as grey as it is filled. */
function laidOut(pages: readonly BoardPage[]): Picture {
  const [width, height] = [(BOARD.width + 2 * ROUND) * PPM, (BOARD.height + 2 * ROUND) * PPM];
  const data = new Uint8ClampedArray(4 * width * height).fill(120);
  const fill = (x: number, y: number, wide: number, high: number, grey: number): void => {
    for (let row = Math.round(y * PPM); row < Math.round((y + high) * PPM); row++)
      data.fill(
        grey,
        4 * (row * width + Math.round(x * PPM)),
        4 * (row * width + Math.round((x + wide) * PPM)),
      );
  };
  pages.forEach(({ svg }, piece) => {
    const points = /points="([^"]+)"/
      .exec(svg)![1]!
      .split(' ')
      .map((point) => point.split(',').map(Number) as [number, number]);
    const [corner] = points as [[number, number]];
    const on = (x: number, y: number): [number, number] => [
      PIECES[piece]!.corner.x + ROUND + x - corner[0],
      PIECES[piece]!.corner.y + ROUND + y - corner[1],
    ];
    // An L is its two arms.
    for (const [a, b] of [
      [points[0]!, points[3]!],
      [points[1]!, points[3]!],
      [points[3]!, points[5]!],
    ] as const) {
      const [x, y] = on(Math.min(a[0], b[0]), Math.min(a[1], b[1]));
      fill(x, y, Math.abs(a[0] - b[0]), Math.abs(a[1] - b[1]), 238);
    }
    const [, ...rects] = svg.match(/<rect [^>]+>/g)!;
    for (const tag of rects) {
      const [x, y, wide, high] = numbers(tag, 'x', 'y', 'width', 'height') as [
        number,
        number,
        number,
        number,
      ];
      const grey = /rgb\((\d+)/.exec(tag)?.[1];
      fill(...on(x, y), wide, high, grey === undefined ? 50 : Math.round(50 + (188 * Number(grey)) / 255));
    }
  });
  return { width, height, data };
}

describe('sheet of a board', () => {
  const pages = boardPages(design(9), METRIC)!;

  it('is a page of cells and the four pieces of the frame, each of them A4 at its own size', () => {
    expect(pages.map(({ name }) => name)).toEqual([...BOARD_PAGES]);
    for (const { svg } of pages) expect(svg).toContain('width="210mm" height="297mm" viewBox="0 0 210 297"');
    expect(boardPages(PLAN, METRIC)).toBeNull();
  });

  it('prints a frame in which its own marks are found where they belong', () => {
    const { marks, residual, slipMm, blur } = readBoard(laidOut(pages.slice(1)), {
      cells: 1,
      thicknessMm: 0,
      focal35: null,
      checkLineMm: 100,
      layers: [],
    });
    expect(marks).toBe(12);
    expect(residual).toBeLessThan(0.15);
    expect(slipMm).toBeLessThan(0.1);
    expect(blur).toBeLessThan(0.8);
  });

  it('has a line of 100 mm on each piece, within a tenth of a millimetre, and nothing that leaves the page', () => {
    for (const { svg } of pages.slice(1)) {
      const lines = svg.match(/<line [^>]+>/g)!.map((tag) => numbers(tag, 'x1', 'y1', 'x2', 'y2'));
      const long = lines.filter(([x1, , x2]) => Math.abs(x2! - x1!) > 50);
      expect(long.map(([x1, , x2]) => Math.abs(x2! - x1!))).toEqual([100]);
      for (const [x1, y1, x2, y2] of lines) {
        expect(Math.min(x1!, x2!, y1!, y2!)).toBeGreaterThan(5);
        expect(Math.max(x1!, x2!)).toBeLessThan(205);
        expect(Math.max(y1!, y2!)).toBeLessThan(292);
      }
    }
  });

  it('says of each cell how thick, how much and when, and no more of it than fits', () => {
    for (const size of [3, 5, 9] as const) {
      const plan = design(size);
      const [{ svg }] = boardPages(plan, METRIC)! as [BoardPage];
      for (const { name } of plan.piece.parts) expect(svg).toContain(`>${name}<`);
      expect(svg.match(/ mL, /g)!.length).toBeGreaterThanOrEqual(size);
      expect(svg).toContain('µm');
      const bottoms = svg.match(/<text [^>]+>/g)!.map((tag) => numbers(tag, 'y')[0]!);
      expect(Math.max(...bottoms)).toBeLessThan(290);
    }
  });

  it('keeps letters of a name that mean something else in a drawing', () => {
    const [{ svg }] = boardPages({ ...design(3), name: 'A <b> & "c"' }, METRIC)! as [BoardPage];
    expect(svg).toContain('A &#60;b&#62; &#38; &#34;c&#34;');
  });
});
