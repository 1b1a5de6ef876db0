import { onTables } from '../basis';
import { type Learned } from '../media';
import { inverse } from '../numeric/fit';
import {
  BOARD_SCHOOLS,
  boardOf,
  cellOf,
  cellPlan,
  hiddenShop,
  judgeBoards,
  KNOWN_WORLD,
  WORLDS,
} from '../testing/boards';
import { after, coat, distress, FIRST, planOf, when } from '../testing/plans';
import { calibrate, type Cell, chooseCells, foretell, leaveOneOut, type Reading } from '.';

const { medium, glue, milk } = BOARD_SCHOOLS;
const board = (seed: number, world = KNOWN_WORLD): Cell[] =>
  boardOf(medium, seed, hiddenShop(medium, seed), world);
const factor = (cells: readonly Cell[], key: string): number =>
  calibrate(cells).lessons.find((lesson) => lesson.key === key)!.factor;

/** Two coats sanded through, and one reading of it. */
const sandedCell = (id: string, rounds: number, reading: 'worn' | 'under'): Cell => ({
  id,
  board: 'b',
  basis: onTables(
    planOf([
      coat('a', 'chalk', 90, FIRST, { colour: '#34505c' }),
      coat('b', 'chalk', 80, when('through-dry', 3600), { colour: '#d8cdb2' }),
      distress('s', 'sand', after(43_200), { grit: 120, rounds }),
    ]),
  ),
  top: 'b',
  read: { [reading]: 0.1 },
  cracked: null,
});
/** A hand that takes off more than the tables say. */
const deeper: Learned = { keys: ['wear:sand'], mean: [0.5], covariance: [[0.01]] };

describe('calibration', () => {
  it('finds the factors of a shop it was not told', () => {
    for (const seed of [2, 3, 5]) {
      const shop = hiddenShop(medium, seed);
      const { learned } = calibrate(board(seed));
      const off = (key: 'air' | 'dry:chalk'): number =>
        Math.abs(learned.mean[learned.keys.indexOf(key)]! - shop.mean[shop.keys.indexOf(key)]!);
      expect(off('air')).withContext(`air of shop ${seed}`).toBeLessThan(0.2);
    }
  });

  it('leaves less uncertain than before, and never more than there was', () => {
    for (const { within, withinBefore } of calibrate(board(3)).lessons)
      expect(within).toBeLessThan(withinBefore * 1.0001);
    const [one, nine] = [board(3).slice(0, 1), board(3)].map(
      (cells) => calibrate(cells).lessons.find(({ key }) => key === 'air')!.within,
    );
    expect(nine!).toBeLessThan(one!);
    expect(one!).toBeLessThan(1.4);
  });

  it('is the same whatever order the cells come in', () => {
    const cells = board(4);
    const [a, b] = [cells, [...cells].reverse()].map((of) => calibrate(of).learned);
    expect(b!.mean).toEqual(a!.mean);
    expect(b!.covariance).toEqual(a!.covariance);
  });

  it('learns how deep a hand goes from what was worn off, tool by tool', () => {
    const sanded = (id: string, rounds: number): Cell => sandedCell(id, rounds, 'worn');
    // A hand that takes off more than the table has it, on cells sanded little and much.
    const cells = [4, 8, 14].map((rounds): Cell => {
      const cell = sanded(`c${rounds}`, rounds);
      return { ...cell, read: { worn: foretell(cell, deeper, deeper.keys).worn.value! } };
    });
    const { learned } = calibrate(cells);
    expect(learned.keys).toContain('wear:sand');
    expect(learned.keys).not.toContain('wear:scrape');
    const unseen = sanded('c20', 20);
    const [tables, taught, truth] = [null, learned, deeper].map(
      (knows) => foretell(unseen, knows, learned.keys).worn,
    );
    expect(taught!.value!).toBeGreaterThan(tables!.value!);
    const off = (of: number): number =>
      Math.abs(Math.log(of / (1 - of)) - Math.log(truth!.value! / (1 - truth!.value!)));
    expect(off(taught!.value!)).toBeLessThan(0.5 * off(tables!.value!));
    expect(taught!.high! - taught!.low!).toBeLessThan(tables!.high! - tables!.low!);
  });

  it('learns the same of a hand from the colours that show, where nobody measured wear', () => {
    const sanded = (id: string, rounds: number): Cell => sandedCell(id, rounds, 'under');
    const cells = [4, 8, 14].map((rounds): Cell => {
      const cell = sanded(`c${rounds}`, rounds);
      return { ...cell, read: { under: foretell(cell, deeper, deeper.keys).under.value! } };
    });
    const { learned } = calibrate(cells);
    const [tables, taught, truth] = [null, learned, deeper].map(
      (knows) => foretell(sanded('c20', 20), knows, learned.keys).under.value!,
    );
    expect(taught!).toBeGreaterThan(tables!);
    expect(Math.abs(taught! - truth!)).toBeLessThan(0.5 * Math.abs(tables! - truth!));
  });

  it('hears least of a cell that does not fit the others', () => {
    const cells = board(6);
    const wrong = cells.map((cell, i): Cell =>
      i === 4 ? { ...cell, read: { ...cell.read, spacing: cell.read.spacing! * 4 } } : cell,
    );
    const { compared } = calibrate(wrong);
    const weight = (of: string): number =>
      compared.find(({ cell, reading }) => cell === of && reading === 'spacing')!.weight;
    expect(weight('c4')).toBeLessThan(0.3);
    expect(Math.max(...compared.map((one) => one.weight))).toBeGreaterThan(0.9);
    const moved = Math.abs(Math.log(factor(wrong, 'slip:crackle') / factor(cells, 'slip:crackle')));
    expect(moved).toBeLessThan(0.25);
  });

  it('foretells cells that nobody made at least twice as well, in bands that hold', () => {
    for (const school of [medium, glue]) {
      for (const { reading, before, after, held } of judgeBoards(school, 5, WORLDS['and outliers']!)) {
        expect(after)
          .withContext(reading)
          .toBeLessThan(reading === 'opening' ? 0.15 : 0.5 * before);
        expect(held).withContext(reading).toBeGreaterThan(0.6);
      }
    }
  });

  it('counts whether it cracked where nothing else could be read', () => {
    const plan = cellPlan(milk, 80, 60, 5400);
    const said = (cracked: boolean): Cell => ({ ...cellOf('a', plan), cracked });
    const share = (cells: readonly Cell[]): number => {
      const { learned } = calibrate(cells);
      return learned.mean.reduce((sum, value) => sum + value * value, 0);
    };
    // By the tables it cracks all over: that it did is no news, that it did not is.
    expect(share([said(true)])).toBeLessThan(1e-6);
    expect(share([said(false)])).toBeGreaterThan(0.01);
  });

  it('tells of a board that its factors cannot explain', () => {
    const plain = calibrate(board(5));
    expect(plain.disagree).toEqual([]);
    // Wide where it should be narrow: no factor turns the order of the cells round.
    const turned = board(5).map((cell, i, all): Cell => ({
      ...cell,
      read: { ...all[8 - i]!.read, spacing: all[8 - i]!.read.spacing! ** 3 / 1e-5 },
    }));
    expect(calibrate(turned).disagree.map((one) => one.board)).toEqual(['board 5']);
  });

  it('tells between which airs the cells dried', () => {
    const near = board(2);
    const far = board(2, WORLDS['and other air']!).map((cell) => ({ ...cell, id: `far ${cell.id}` }));
    const one = calibrate(near).airs;
    expect(one.humidity[1] - one.humidity[0]).toBeLessThan(0.02);
    const { humidity, temperature } = calibrate([...near, ...far]).airs;
    expect(humidity).toEqual([jasmine.any(Number), jasmine.any(Number)]);
    expect(humidity[1] - humidity[0]).toBeCloseTo(0.2, 1);
    expect(temperature[1] - temperature[0]).toBeCloseTo(5, 0);
  });

  it('refuses what says nothing', () => {
    expect(() => calibrate([])).toThrowError(/at least one cell/);
    expect(() => calibrate([cellOf('a', cellPlan(medium, 100, 85, 2700))])).toThrowError(/at least one cell/);
  });

  it('leaves each cell out in turn: better than the tables, told beside the plainest rule', () => {
    const rows = leaveOneOut(board(2));
    expect(rows.map(({ reading }) => reading)).toEqual([...medium.reads]);
    for (const { reading, count, fitted, tables, held } of rows) {
      expect(count).toBe(9);
      expect(fitted)
        .withContext(reading)
        .toBeLessThan(tables + 0.05);
      expect(held).toBeGreaterThan(0.5);
    }
  });

  it('narrows the bands of what it taught and keeps the tables’ for what it did not', () => {
    const { learned } = calibrate(board(3));
    const asked = cellOf('asked', cellPlan(medium, 110, 90, 3000));
    const width = (told: ReturnType<typeof foretell>[Reading]): number => Math.log(told.high! / told.low!);
    const [was, is] = [foretell(asked, null, learned.keys), foretell(asked, learned, learned.keys)];
    for (const reading of ['spacing', 'opening', 'first'] as const)
      expect(width(is[reading])).toBeLessThan(width(was[reading]));
    // Further from the board it is surer of less.
    const far = cellOf('far', cellPlan(medium, 260, 200, 3000));
    expect(width(foretell(far, learned, learned.keys).spacing)).toBeGreaterThan(width(is.spacing));
  });
});

describe('which cell next', () => {
  const reads = medium.reads;
  const candidates = [60, 100, 160].flatMap((below) =>
    [60, 85, 130].map((top) => ({
      cell: cellOf(`${below} ${top}`, cellPlan(medium, below, top, 2700)),
      reads,
    })),
  );
  const asked = [
    { cell: cellOf('asked', cellPlan(medium, 120, 100, 2700)), reads: ['spacing', 'opening'] as const },
  ];

  it('leaves less uncertain with each cell, and never chooses one twice', () => {
    const { chosen, before } = chooseCells(candidates, asked, 4);
    expect(new Set(chosen.map(({ index }) => index)).size).toBe(4);
    chosen.reduce((last, { left }) => {
      expect(left).toBeLessThan(last);
      return left;
    }, before);
  });

  it('chooses waits where a wait decides', () => {
    const waits = [300, 600, 1200, 1800, 2700].flatMap((wait) =>
      [50, 60, 75].map((top) => ({
        cell: cellOf(`${wait} ${top}`, cellPlan(milk, 80, top, wait)),
        reads: ['spacing', 'opening', 'touchBelow'] as const,
      })),
    );
    const goal = [600, 1500, 2400].map((wait) => ({
      cell: cellOf(`asked ${wait}`, cellPlan(milk, 80, 60, wait)),
      reads: ['spacing', 'opening'] as const,
    }));
    const { chosen } = chooseCells(waits, goal, 3);
    expect(new Set(chosen.map(({ index }) => waits[index]!.cell.id.split(' ')[0])).size).toBeGreaterThan(1);
  });

  it('knows less is to be learned once a board was made', () => {
    const { learned } = calibrate(board(3));
    expect(chooseCells(candidates, asked, 1, learned).before).toBeLessThan(
      chooseCells(candidates, asked, 1).before,
    );
  });
});

describe('the inverse of a small matrix', () => {
  it('times the matrix is one', () => {
    const matrix = [
      [4, 1, 0.5],
      [1, 3, -0.2],
      [0.5, -0.2, 2],
    ];
    const found = inverse(matrix);
    matrix.forEach((row, i) =>
      found[0]!.forEach((_, j) => {
        const product = row.reduce((sum, value, k) => sum + value * found[k]![j]!, 0);
        expect(product).toBeCloseTo(i === j ? 1 : 0, 12);
      }),
    );
  });
});
