import { calibrate, type Cell, leaveOneOut } from '@zaffet/core/calibrate';
import { boardFor, cellsOf, foldRun } from '@zaffet/workshop';
import { expose } from 'comlink';
import { type BoardsWorker, type MeasuredCell, type ToldRun } from './boards-messages';

function measured(runs: readonly ToldRun[]): { cells: MeasuredCell[]; read: Cell[] } {
  const cells: MeasuredCell[] = [];
  const read: Cell[] = [];
  for (const { id, events } of runs) {
    const run = foldRun(events);
    if (run === null) continue;
    for (const cell of cellsOf(id, run)) {
      const part = run.plan.piece.parts.find((one) => cell.id === `${id} ${one.id}`)!;
      cells.push({ id: cell.id, run: id, plan: run.plan.name, part: part.name });
      read.push(cell);
    }
  }
  return { cells, read };
}

const kept = (cells: readonly Cell[], leftOut: readonly string[]): Cell[] =>
  cells.filter(({ id }) => !leftOut.includes(id));

const worker: BoardsWorker = {
  learn: (runs, leftOut) => {
    const { cells, read } = measured(runs);
    const used = kept(read, leftOut);
    return { cells, calibration: used.length === 0 ? null : calibrate(used) };
  },
  leaveOut: (runs, leftOut) => leaveOneOut(kept(measured(runs).read, leftOut)),
  design: (plan, partId, question, size, learned) =>
    boardFor(
      plan,
      partId,
      question,
      size,
      () => crypto.getRandomValues(new Uint32Array(2)).join('-'),
      learned,
    ),
};

expose(worker);
