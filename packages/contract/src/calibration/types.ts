import { type Learned } from '@zaffet/core/media';

/** What a shop has learned, as it is filed: factors on the tables with what is left uncertain of them. */
export type LearnedFile = Omit<Learned, 'steps'>;

/** What was learned from which runs; nothing where it was taken back. */
export interface CalibrationFile {
  readonly learned: LearnedFile | null;
  /** Runs it was fitted to. */
  readonly runs: readonly string[];
  /** Cells that were left out of it: a run's id and a part's. */
  readonly leftOut: readonly string[];
}

/** A calibration as the workshop keeps it: never changed, the newest holds. */
export interface KeptCalibration extends CalibrationFile {
  readonly id: number;
  /** ISO 8601 */
  readonly at: string;
}
