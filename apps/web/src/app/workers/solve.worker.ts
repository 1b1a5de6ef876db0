import { solveStepwise } from '@zaffet/core/solve';
import { expose } from 'comlink';
import { type SolveAnswer, type SolveRequest, type SolveWorker } from './solve-messages';
import { Turns } from './thread';

/** Looks for recipes off the page's thread, school by school, so that it can be told to stop in between. */
const turns = new Turns();

const worker: SolveWorker = {
  async find({ wish, candidates, deadline }: SolveRequest, onProgress): Promise<SolveAnswer | null> {
    const stillMine = turns.take();
    const steps = solveStepwise(wish, candidates, deadline ?? Infinity);
    for (;;) {
      const next = steps.next();
      if (next.done === true) return next.value;
      onProgress(next.value.done / next.value.of);
      await new Promise<void>((resolve) => setTimeout(resolve, 0));
      if (!stillMine()) return null;
    }
  },
  stop(): void {
    turns.take();
  },
};

expose(worker);
