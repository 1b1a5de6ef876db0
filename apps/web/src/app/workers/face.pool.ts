import { Injectable, type OnDestroy } from '@angular/core';
import { type Remote, wrap } from 'comlink';
import { startFaceThread } from './face.client';
import { type FaceAnswer, type FaceRequest, type FaceWorker } from './messages';

/** Few machines of a workshop have more to spare, and every worker keeps its own patterns. */
const MOST_WORKERS = 4;

interface Waiting {
  readonly request: FaceRequest;
  readonly resolve: (answer: FaceAnswer) => void;
  readonly reject: (reason: unknown) => void;
}

/**
 * Draws many faces at once, each on the next worker that is free, and none overtakes another. For pages that show
 * several panels; stopped with the page.
 */
@Injectable()
export class FacePool implements OnDestroy {
  private readonly size = Math.max(1, Math.min(MOST_WORKERS, navigator.hardwareConcurrency));
  private readonly threads: Worker[] = [];
  private readonly free: Remote<FaceWorker>[] = [];
  private readonly waiting: Waiting[] = [];

  ngOnDestroy(): void {
    for (const thread of this.threads) thread.terminate();
  }

  /** @param first - before all others that wait: what the page is about */
  draw(request: FaceRequest, first = false): Promise<FaceAnswer> {
    return new Promise((resolve, reject) => {
      const mine = { request, resolve, reject };
      if (first) this.waiting.unshift(mine);
      else this.waiting.push(mine);
      if (this.free.length === 0 && this.threads.length < this.size) {
        const thread = startFaceThread();
        this.threads.push(thread);
        this.free.push(wrap<FaceWorker>(thread));
      }
      this.handOut();
    });
  }

  private handOut(): void {
    const worker = this.free.pop();
    if (worker === undefined) return;
    const next = this.waiting.shift();
    if (next === undefined) {
      this.free.push(worker);
      return;
    }
    void worker
      .draw(next.request, null)
      .then(next.resolve, next.reject)
      .finally(() => {
        this.free.push(worker);
        this.handOut();
      });
  }
}
