import { type Colour, LINEAR } from '../colour';
import { type Correction } from '../photo';
import {
  type BoardAsk,
  boardReading,
  type BoardReading,
  CELL,
  type CellReading,
  lookAtBoard,
  type Painted,
  photograph,
  PLAIN_SHOT,
  putRight,
  readBoard,
  type Shot,
  SHOT_FOCAL,
} from '.';
import { BOARD, cellBox, MARK, MARKS, onBoard, paperPlaces, PATCH, patchesOf, PIECES, QUIET } from './frame';
import { markModules } from './marks';
import { frameIn } from './seen';

/** Four megapixels: marks and wide stripes are read as well as in twelve. */
const SMALL: Shot = { ...PLAIN_SHOT, width: 2400, height: 1800, blur: 0.8, slipMm: 0 };
const CREAM = '#e2d9c3';
const DEEP = '#2f4c50';
const bytes = (hex: string): number[] => [1, 3, 5].map((i) => Number.parseInt(hex.slice(i, i + 2), 16));
const linear = (hex: string): Colour => bytes(hex).map((byte) => LINEAR[byte]!) as unknown as Colour;

/** A cell with straight cracks both ways, each so many millimetres apart and so wide. */
function grid(everyMm: number, wideMm: number, paint = CREAM, floor = DEEP): Painted {
  const side = 640;
  const perMm = side / CELL.side;
  const rgba = new Uint8ClampedArray(4 * side * side).fill(255);
  const isCrack = (at: number): boolean => (at / perMm) % everyMm < wideMm;
  for (let i = 0; i < side * side; i++)
    rgba.set(bytes(isCrack(i % side) || isCrack(Math.floor(i / side)) ? floor : paint), 4 * i);
  return { columns: side, rows: side, rgba };
}

const ask = (cells: number, more: Partial<BoardAsk> = {}): BoardAsk => ({
  cells,
  thicknessMm: 0,
  focal35: SHOT_FOCAL,
  checkLineMm: 100,
  layers: Array.from({ length: cells }, () => [linear(DEEP), linear(CREAM)]),
  ...more,
});
const read = (
  cells: readonly Painted[],
  shot: Partial<Shot> = {},
  more: Partial<BoardAsk> = {},
): BoardReading => readBoard(photograph(cells, linear(DEEP), { ...SMALL, ...shot }), ask(cells.length, more));
const off = (value: number | null, truth: number): number => Math.abs(value! / truth - 1);

/** Of straight lines none is hidden in another: they read as much too close as paint's own are read too far apart. */
const STRAIGHT = 0.975;
/** Of 8 mm by 2 mm: cracks are 8 mm apart both ways, and open over 1 − (6/8)². */
const GRID = { every: 8, wide: 2, open: 1 - (6 / 8) ** 2 };
const cell = grid(GRID.every, GRID.wide);

describe('frame', () => {
  it('has twelve marks that differ in twelve bits at least, however they are turned', () => {
    const turned = (modules: boolean[]): boolean[] =>
      modules.map((_, i) => modules[8 * (7 - (i % 8)) + Math.floor(i / 8)]!);
    const all = MARKS.map(({ id }) => markModules(id));
    expect(new Set(MARKS.map(({ id }) => id)).size).toBe(12);
    for (const [n, one] of all.entries()) {
      expect(one.filter((white, i) => white && (i % 8 === 0 || i % 8 === 7 || i < 8 || i > 55))).toEqual([]);
      for (const other of all.slice(n + 1)) {
        let other4 = other;
        for (let turn = 0; turn < 4; turn++) {
          other4 = turned(other4);
          expect(one.filter((white, i) => white !== other4[i]).length).toBeGreaterThanOrEqual(12);
        }
      }
    }
  });

  it('keeps marks, greys and paper apart, clear of the board and on its sheet', () => {
    const boxes = [
      ...MARKS.map(({ piece, off: at }) => ({ ...onBoard(piece, at, 1), half: MARK / 2 + QUIET })),
      ...PIECES.flatMap((_, piece) =>
        patchesOf(piece).map(({ off: at }) => ({ ...onBoard(piece, at, 1), half: PATCH / 2 })),
      ),
    ];
    boxes.forEach((a, n) => {
      const onIt =
        a.x + a.half > 0 && a.x - a.half < BOARD.width && a.y + a.half > 0 && a.y - a.half < BOARD.height;
      expect(onIt).toBeFalse();
      for (const b of boxes.slice(n + 1))
        expect(Math.max(Math.abs(a.x - b.x), Math.abs(a.y - b.y)))
          .withContext(`${n}`)
          .toBeGreaterThanOrEqual(a.half + b.half);
    });
    for (const place of paperPlaces(1))
      expect(
        boxes.some((b) => Math.max(Math.abs(place.x - b.x), Math.abs(place.y - b.y)) < b.half),
      ).toBeFalse();
    for (let n = 0; n < 9; n++) {
      const { left, top, width, height } = cellBox(n);
      expect(left + width).toBeLessThan(BOARD.width);
      expect(top + height).toBeLessThan(BOARD.height);
    }
  });

  it('is found to a fraction of a pixel, aslant too, and tells how sharp the picture is', () => {
    for (const [tilt, k1, blur] of [
      [0, 0, 1],
      [25, 0.03, 1],
      [12, -0.03, 2],
    ] as const) {
      const seen = frameIn(photograph([], linear(DEEP), { ...SMALL, tilt, k1, blur }), 1);
      expect(seen.marks).toBeGreaterThanOrEqual(11);
      expect(seen.camera.residual).withContext(`${tilt}°`).toBeLessThan(0.3);
      // A pixel and what lies between pixels blur as well.
      expect(off(seen.blur.sigma, Math.hypot(blur, 0.45)))
        .withContext(`${blur}`)
        .toBeLessThan(0.1);
      expect(seen.light.off).toBeLessThan(0.01);
    }
  });

  it('tells what its pieces were pushed by', () => {
    const seen = frameIn(photograph([], linear(DEEP), { ...SMALL, slipMm: 1.2, seed: 5 }), 1);
    expect(Math.max(...seen.camera.slips.map(({ dx, dy }) => Math.hypot(dx, dy)))).toBeGreaterThan(0.8);
    expect(seen.camera.residual).toBeLessThan(0.3);
  });
});

describe('a board read from a photograph', () => {
  it('has the spacing, the opening, the open area and the layers it was painted with', () => {
    const { cells, notes } = read([cell, cell, cell, grid(12, 1.5)]);
    expect(notes).toEqual([]);
    for (const one of cells.slice(0, 3)) {
      expect(off(one.spacingMm, STRAIGHT * GRID.every)).toBeLessThan(0.03);
      expect(off(one.openingMm, GRID.wide)).toBeLessThan(0.05);
      expect(Math.abs(one.openArea! - GRID.open)).toBeLessThan(0.015);
      expect(Math.abs(one.layers!.shares[0]! - GRID.open)).toBeLessThan(0.02);
      // Islands are squares of 6 mm: as a circle of their area.
      expect(off(one.layers!.islandMm, (2 * 6) / Math.sqrt(Math.PI))).toBeLessThan(0.1);
      expect(off(one.alongMm, one.acrossMm!)).toBeLessThan(0.05);
    }
    expect(off(cells[3]!.spacingMm, STRAIGHT * 12)).toBeLessThan(0.05);
  });

  it('reads the same aslant, in uneven light, bent by a lens, and of light cracks in dark paint', () => {
    const askew = read([cell], { tilt: 22, azimuth: 120, k1: 0.03, light: 2.2, vignette: 0.4 });
    const light = read([grid(8, 2, DEEP, CREAM)], {}, { layers: [[linear(CREAM), linear(DEEP)]] });
    for (const [one] of [askew.cells, light.cells]) {
      expect(off(one!.spacingMm, STRAIGHT * GRID.every)).toBeLessThan(0.03);
      expect(off(one!.openingMm, GRID.wide)).toBeLessThan(0.06);
    }
  });

  it('allows for a thick board, which lies nearer to the camera than its frame', () => {
    const thick = photograph([cell, cell, cell], linear(DEEP), { ...SMALL, tilt: 0, thicknessMm: 18 });
    const told = readBoard(thick, ask(3, { thicknessMm: 18 }));
    const untold = readBoard(thick, ask(3));
    expect(off(told.cells[1]!.spacingMm, STRAIGHT * GRID.every)).toBeLessThan(0.03);
    expect(untold.cells[1]!.spacingMm! / told.cells[1]!.spacingMm!).toBeCloseTo(1.04, 1.5);
    expect(readBoard(thick, ask(1, { thicknessMm: 18, focal35: null })).notes).toContain('no-focal-length');
  });

  it('takes a frame that was printed small for what it is, once its line was measured', () => {
    const small = photograph([cell, cell], linear(DEEP), { ...SMALL, printed: 0.96 });
    const told = readBoard(small, ask(2, { checkLineMm: 96 }));
    expect(off(told.cells[0]!.spacingMm, STRAIGHT * GRID.every)).toBeLessThan(0.03);
    expect(told.residual).toBeLessThan(0.3);
  });

  it('says what cannot be read instead of a wrong number', () => {
    const { cells } = read([cell, grid(1.2, 0.3), grid(8, 0.12), grid(500, 0)]);
    expect(cells[1]!.spacingMm).toBeNull();
    expect(['too-fine', 'too-few', 'too-thin']).toContain(cells[1]!.trust.spacing);
    expect(cells[2]!.openingMm).toBeNull();
    expect([cells[3]!.spacingMm, cells[3]!.trust.spacing]).toEqual([null, 'too-few']);
    const shone = read(
      Array.from({ length: 5 }, () => cell),
      { glare: 0.8 },
    ).cells;
    expect([shone[0]!.trust.spacing, shone[4]!.trust.spacing]).toEqual(['measured', 'glare']);
    expect([shone[4]!.spacingMm, shone[4]!.layers]).toEqual([null, null]);
    const [blurred] = read([cell], { blur: 2.8 }).cells;
    expect([blurred!.spacingMm, blurred!.trust.opening]).toEqual([null, 'blurred']);
  });

  it('goes by what somebody put right', () => {
    const picture = photograph([cell], linear(DEEP), SMALL);
    // Between two cracks, which lie 8 mm apart.
    const points = [
      { x: -5, y: 38 },
      { x: 90, y: 38 },
    ];
    const board = lookAtBoard(picture, ask(1));
    const [before] = boardReading(board).cells;
    const after = (correction: Correction): CellReading =>
      boardReading(putRight(board, 0, [correction])).cells[0]!;
    expect(after({ kind: 'erase', widthMm: 200, points }).trust.spacing).toBe('too-few');
    const drawn = after({ kind: 'draw', widthMm: 1, points });
    const count = (mask: Uint8Array): number => mask.reduce((sum, one) => sum + one, 0);
    expect(count(drawn.cracks.mask)).toBeGreaterThan(count(before!.cracks.mask));
  });

  it('refuses a picture without a frame, and a line nobody can have measured', () => {
    const blank = { width: 800, height: 600, data: new Uint8ClampedArray(4 * 800 * 600).fill(200) };
    expect(() => readBoard(blank, ask(3))).toThrowError(/0 of 12.*set four corners/);
    expect(() => readBoard(blank, ask(3, { checkLineMm: 60 }))).toThrowError(/own size/);
    expect(() => readBoard(blank, ask(10))).toThrowError(/1 to 9/);
    expect(() => readBoard(blank, ask(3, { thicknessMm: -1 }))).toThrowError(/thickness/);
  });
});
