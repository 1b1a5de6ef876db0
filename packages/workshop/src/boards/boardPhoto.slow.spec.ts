import { readBoard } from '@zaffet/core/board';
import { foretell } from '@zaffet/core/calibrate';
import { type Plan } from '@zaffet/contract';
import { newPlan } from '../newPlan';
import { foldRun, type Run } from '../runs/fold';
import { BOARD_CAMERA_FOCAL, boardCells, boardPhoto, hiddenShop } from '../standins/boardCamera';
import { beginning, deviceOf } from '../testing/runs';
import { boardAsk, boardFor, boardLayers, isBoard } from '.';
import { crackingSteps } from './taught';
import { carriedOutAtEnd } from './photo';

let id = 0;
const next = (): string => `p${++id}`;
const PLAN = newPlan('wet-glue', 'Chest', 7, '2026-05-12T08:00:00.000Z', next);
const BOARD: Plan = boardFor(PLAN, null, 'how-thick', 3, next)!.plan;

/** The board carried out, cell by cell. */
function carried(board: Plan): Run {
  const bench = deviceOf('bench', board);
  const told = [bench(0, 'run-begun', beginning(board))];
  board.piece.parts.forEach((part, c) => {
    const { steps } = board.finishes.find(({ id: own }) => own === part.finish)!;
    steps.forEach((step, i) => {
      const of = { partId: part.id, stepId: step.id, coat: 0, minutesAgo: 0 };
      const minute = i === steps.length - 1 ? 300 * (i - 1) + 2 + c / 10 : 300 * i + c / 10;
      told.push(bench(minute, 'begun', of), bench(minute, 'done', of));
    });
  });
  return foldRun(told)!;
}

describe('a photograph of a board', () => {
  const run = carried(BOARD);

  it('is asked for of boards alone', () => {
    expect(isBoard(BOARD)).toBeTrue();
    expect(isBoard(PLAN)).toBeFalse();
  });

  it('knows the colours that can be seen on each cell', () => {
    for (const colours of boardLayers(run)) expect(colours.length).toBe(2);
  });

  it('comes of a shop that is off the tables, the same on every board of it', () => {
    const [a, b] = [hiddenShop(['pva', 'latex']), hiddenShop(['latex', 'pva', 'pva'])];
    const of = (shop: typeof a): Record<string, number> =>
      Object.fromEntries(shop.keys.map((key, i) => [key, shop.mean[i]!]));
    expect(of(a)).toEqual(of(b));
    expect(a.mean.some((value) => Math.abs(value) > 0.2)).toBeTrue();
  });

  it('reads what that shop makes, which is not what the tables foretell', () => {
    const cells = [...boardCells(run)];
    const picture = boardPhoto(run, cells, { width: 2800, height: 2100 });
    const read = readBoard(
      picture,
      boardAsk(run, { thicknessMm: 0, focal35: BOARD_CAMERA_FOCAL, checkLineMm: 100 }),
    );
    const shop = hiddenShop(['latex', 'pva']);
    read.cells.forEach((cell, n) => {
      const part = run.plan.piece.parts[n]!;
      const told = (learned: typeof shop | null): number => {
        const { plan, basis } = carriedOutAtEnd(run, part.id);
        const top = crackingSteps(plan)!.top.id;
        const cellOf = { id: 'c', board: 'b', basis: basis(null), top, read: {}, cracked: null };
        return 1000 * foretell(cellOf, learned, shop.keys).spacing.value!;
      };
      const [truth, tables] = [told(shop), told(null)];
      expect(cell.spacingMm).withContext(part.name).not.toBeNull();
      // One cell is one draw of a random pattern: nearer to its own shop than to the tables.
      expect(Math.abs(Math.log(cell.spacingMm! / truth)))
        .withContext(part.name)
        .toBeLessThan(Math.abs(Math.log(cell.spacingMm! / tables)) + 0.1);
      expect(Math.abs(Math.log(cell.spacingMm! / truth)))
        .withContext(part.name)
        .toBeLessThan(0.25);
    });
  });
});
