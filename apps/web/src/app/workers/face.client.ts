import { Injectable } from '@angular/core';
import { proxy, type Remote, wrap } from 'comlink';
import { type FaceAnswer, type FaceRequest, type FaceWorker, type MomentsRequest } from './messages';

/** The page's end of the face worker, started when first asked. */
@Injectable({ providedIn: 'root' })
export class FaceClient {
  private remote: Remote<FaceWorker> | null = null;

  private get worker(): Remote<FaceWorker> {
    this.remote ??= wrap<FaceWorker>(
      new Worker(new URL('./face.worker', import.meta.url), { type: 'module' }),
    );
    return this.remote;
  }

  draw(request: FaceRequest, onProgress?: (share: number) => void): Promise<FaceAnswer> {
    return this.worker.draw(request, onProgress ? proxy(onProgress) : null);
  }

  moments(request: MomentsRequest): Promise<number[]> {
    return this.worker.moments(request);
  }
}
