import { type Plan, type RunEvent } from '@zaffet/contract';
import { type Calibration, type LeftOut } from '@zaffet/core/calibrate';
import { type Learned } from '@zaffet/core/media';
import { type BoardDesign, type BoardQuestion, type BoardSize } from '@zaffet/workshop';

/** A run with all that was told of it. */
export interface ToldRun {
  readonly id: string;
  readonly events: readonly RunEvent[];
}

/** A part that was measured. */
export interface MeasuredCell {
  readonly id: string;
  readonly run: string;
  readonly plan: string;
  readonly part: string;
}

/** What runs teach. */
export interface Taught {
  readonly cells: readonly MeasuredCell[];
  /** Null where nothing was measured. */
  readonly calibration: Calibration | null;
}

/** What the thread of boards is asked. */
export interface BoardsWorker {
  /** Fits what is uncertain to all that was measured, but for cells that are left out. */
  learn(runs: readonly ToldRun[], leftOut: readonly string[]): Taught;
  /** How well each cell is foretold by the others. */
  leaveOut(runs: readonly ToldRun[], leftOut: readonly string[]): readonly LeftOut[];
  /** A board for a question about a part's finish; null where nothing of it cracks. */
  design(
    plan: Plan,
    partId: string,
    question: BoardQuestion,
    size: BoardSize,
    learned: Learned | null,
  ): BoardDesign | null;
}
