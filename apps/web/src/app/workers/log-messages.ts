import { type Learned } from '@zaffet/core/media';
import { type ComparedPart, type Kept } from '@zaffet/workshop';
import { type ToldRun } from './boards-messages';

/** What the thread of the log is asked. */
export interface LogWorker {
  /** What was foretold of a run, and what came out. */
  compare(run: ToldRun, learned: Learned | null): readonly ComparedPart[];
  /** How well measured runs were foretold. */
  kept(runs: readonly ToldRun[]): readonly Kept[];
}
