import { Injectable, type OnDestroy } from '@angular/core';
import { proxy, type Remote, wrap } from 'comlink';
import { type SolveAnswer, type SolveRequest, type SolveWorker } from './solve-messages';

/** A page's end of a solver on a thread of its own; stopped with the page. */
@Injectable()
export class SolveClient implements OnDestroy {
  private thread: Worker | null = null;
  private remote: Remote<SolveWorker> | null = null;

  ngOnDestroy(): void {
    this.thread?.terminate();
  }

  private get worker(): Remote<SolveWorker> {
    this.thread ??= new Worker(new URL('./solve.worker', import.meta.url), { type: 'module' });
    this.remote ??= wrap<SolveWorker>(this.thread);
    return this.remote;
  }

  find(request: SolveRequest, onProgress: (share: number) => void): Promise<SolveAnswer | null> {
    return this.worker.find(request, proxy(onProgress));
  }

  stop(): void {
    void this.remote?.stop();
  }
}
