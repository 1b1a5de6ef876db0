import { Injectable, type OnDestroy } from '@angular/core';
import { startFaceThread } from './face.client';
import { type FaceAnswer, type FaceRequest, type FaceWorker } from './messages';
import { Thread } from './thread';

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
  private readonly threads: Thread<FaceWorker>[] = [];
  private readonly free: Thread<FaceWorker>[] = [];
  private readonly waiting: Waiting[] = [];

  ngOnDestroy(): void {
    for (const thread of this.threads) thread.stop();
  }

  /** @param first - before all others that wait: what the page is about */
  draw(request: FaceRequest, first = false): Promise<FaceAnswer> {
    return new Promise((resolve, reject) => {
      const mine = { request, resolve, reject };
      if (first) this.waiting.unshift(mine);
      else this.waiting.push(mine);
      if (this.free.length === 0 && this.threads.length < this.size) {
        const thread = new Thread<FaceWorker>(startFaceThread);
        this.threads.push(thread);
        this.free.push(thread);
      }
      this.handOut();
    });
  }

  private handOut(): void {
    const thread = this.free.pop();
    if (thread === undefined) return;
    const next = this.waiting.shift();
    if (next === undefined) {
      this.free.push(thread);
      return;
    }
    void thread
      .ask<FaceAnswer>((face) => face.draw(next.request, null))
      .then(next.resolve, next.reject)
      .finally(() => {
        this.free.push(thread);
        this.handOut();
      });
  }
}
