import { Injectable, type OnDestroy } from '@angular/core';
import { proxy, type Remote, wrap } from 'comlink';
import { type FaceAnswer, type FaceRequest, type FaceWorker, type MomentsRequest } from './messages';

/**
 * A page's end of a face worker of its own, started when first asked and stopped with the page: what one page still
 * wants drawn must not overtake the next.
 */
@Injectable()
export class FaceClient implements OnDestroy {
  private thread: Worker | null = null;
  private remote: Remote<FaceWorker> | null = null;

  ngOnDestroy(): void {
    this.thread?.terminate();
  }

  private get worker(): Remote<FaceWorker> {
    this.thread ??= new Worker(new URL('./face.worker', import.meta.url), { type: 'module' });
    this.remote ??= wrap<FaceWorker>(this.thread);
    return this.remote;
  }

  draw(request: FaceRequest, onProgress?: (share: number) => void): Promise<FaceAnswer> {
    return this.worker.draw(request, onProgress ? proxy(onProgress) : null);
  }

  moments(request: MomentsRequest): Promise<number[]> {
    return this.worker.moments(request);
  }
}
