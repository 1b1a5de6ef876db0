import { boardReading, type LookedAt, lookAtBoard, type Painted, putRight } from '@zaffet/core/board';
import { InputError } from '@zaffet/core/errors';
import { measurePhoto } from '@zaffet/core/photo';
import { boardAsk, boardCells, boardPhoto } from '@zaffet/workshop';
import { expose, transfer } from 'comlink';
import { type PhotoWorker } from './photo-messages';

/** An answer, or what the core refused it for. */
function answer<T>(read: () => T): { read: T | null; refused: string | null } {
  try {
    return { read: read(), refused: null };
  } catch (error) {
    if (error instanceof InputError) return { read: null, refused: error.message };
    throw error;
  }
}

let board: LookedAt | null = null;

const worker: PhotoWorker = {
  measure: (picture, corners, size) => answer(() => measurePhoto(picture, corners, size)),
  board: (picture, run, told, corrections, progress) =>
    answer(() => {
      const ask = boardAsk(run, told);
      board = lookAtBoard(picture, ask, (done) => {
        progress(done, ask.cells);
      });
      corrections.forEach((own, cell) => {
        if (own.length > 0) board = putRight(board!, cell, own);
      });
      return boardReading(board);
    }),
  putRight: (cell, corrections) =>
    answer(() => {
      board = putRight(board!, cell, corrections);
      return boardReading(board);
    }),
  simulated: (run, progress) => {
    const cells: Painted[] = [];
    const of = run.plan.piece.parts.length + 1;
    for (const cell of boardCells(run)) {
      cells.push(cell);
      progress(cells.length, of);
    }
    const picture = boardPhoto(run, cells);
    return transfer(picture, [picture.data.buffer]);
  },
};

expose(worker);
