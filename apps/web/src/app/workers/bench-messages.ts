import { type RunEvent, type Shelf } from '@zaffet/contract';
import { type Look } from '@zaffet/core/live';
import { type Bench, type Mixing } from '@zaffet/workshop';

/** A look that was not told yet. */
export interface AskedLook {
  readonly partId: string;
  readonly stepId: string;
  /** ms since 1970, by the server's clock. */
  readonly at: number;
  readonly look: Omit<Look, 'since'>;
}

/** What the bench's thread is asked. */
export interface BenchWorker {
  /** How a run stands, with one part in hand; null while its plan has not come. */
  stand(events: readonly RunEvent[], now: number, inHand: string | null): Bench | null;
  /** What the plan of a run is mixed of, measured with what the shelf has; null while it has not come. */
  mixes(events: readonly RunEvent[], shelf: Shelf): Mixing | null;
  /** Whether a look can hardly be right. */
  doubts(events: readonly RunEvent[], asked: AskedLook): boolean;
}
