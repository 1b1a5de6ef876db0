import { type Candidate, type Recipe, type Wish } from '@zaffet/core/solve';

/** What is wished for, and the ways of working to try. */
export interface SolveRequest {
  readonly wish: Wish;
  readonly candidates: readonly Candidate[];
  /** All must be dry by then [s from the start]; null where there is time. */
  readonly deadline: number | null;
}

export type SolveAnswer = readonly Recipe[];

export interface SolveWorker {
  /** Recipes, the best first; null when it was stopped or asked anew meanwhile. */
  find(request: SolveRequest, onProgress: (share: number) => void): Promise<SolveAnswer | null>;
  stop(): void;
}
