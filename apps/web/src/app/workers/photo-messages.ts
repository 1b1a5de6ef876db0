import { type BoardReading } from '@zaffet/core/board';
import { type Correction, type PhotoReading, type Picture, type Quad } from '@zaffet/core/photo';
import { type PhotoTold, type Run } from '@zaffet/workshop';

/** What was read, or why nothing could be. */
export interface PhotoAnswer {
  readonly read: PhotoReading | null;
  readonly refused: string | null;
}

/** The same of a whole board. */
export interface BoardAnswer {
  readonly read: BoardReading | null;
  readonly refused: string | null;
}

/** Called with how much of the work is done. */
export type Progress = (done: number, of: number) => void;

/** What the thread of photographs is asked. */
export interface PhotoWorker {
  /** Measures the cracks of a rectangle in a picture, by its corners and its sides [mm]. */
  measure(
    picture: Picture,
    corners: Quad,
    size: { readonly width: number; readonly height: number },
  ): PhotoAnswer;
  /** Reads the board of a run in its frame, with what was put right on each cell; it is kept, to be put right again. */
  board(
    picture: Picture,
    run: Run,
    told: PhotoTold,
    corrections: readonly (readonly Correction[])[],
    progress: Progress,
  ): BoardAnswer;
  /** The board that was read last, with a cell put right by hand. */
  putRight(cell: number, corrections: readonly Correction[]): BoardAnswer;
  /** What the simulated camera sees of a run's board. */
  simulated(run: Run, progress: Progress): Picture;
}
