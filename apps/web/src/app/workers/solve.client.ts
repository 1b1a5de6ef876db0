import { Injectable, type OnDestroy } from '@angular/core';
import { proxy } from 'comlink';
import { type SolveAnswer, type SolveRequest, type SolveWorker } from './solve-messages';
import { Thread } from './thread';

/** A page's end of a solver on a thread of its own; stopped with the page. */
@Injectable()
export class SolveClient implements OnDestroy {
  private readonly thread = new Thread<SolveWorker>(
    () => new Worker(new URL('./solve.worker', import.meta.url), { type: 'module' }),
  );

  ngOnDestroy(): void {
    this.thread.stop();
  }

  find(request: SolveRequest, onProgress: (share: number) => void): Promise<SolveAnswer | null> {
    return this.thread.ask((solver) => solver.find(request, proxy(onProgress)));
  }

  stop(): void {
    if (this.thread.begun) void this.thread.remote.stop();
  }
}
