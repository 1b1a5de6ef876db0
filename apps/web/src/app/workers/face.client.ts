import { Injectable, type OnDestroy } from '@angular/core';
import { type Naturalness } from '@zaffet/core/measure';
import { proxy } from 'comlink';
import { type FaceAnswer, type FaceRequest, type FaceWorker, type MomentsRequest } from './messages';
import { Thread } from './thread';

/** Starts a thread that grows and draws faces: the one place that knows where it lies. */
export const startFaceThread = (): Worker =>
  new Worker(new URL('./face.worker', import.meta.url), { type: 'module' });

/**
 * A page's end of a face worker of its own, started when first asked and stopped with the page: what one page still
 * wants drawn must not overtake the next.
 */
@Injectable()
export class FaceClient implements OnDestroy {
  private readonly thread = new Thread<FaceWorker>(startFaceThread);

  ngOnDestroy(): void {
    this.thread.stop();
  }

  draw(request: FaceRequest, onProgress?: (share: number) => void): Promise<FaceAnswer> {
    return this.thread.ask<FaceAnswer>((face) => face.draw(request, onProgress ? proxy(onProgress) : null));
  }

  natural(request: FaceRequest): Promise<Naturalness | null> {
    return this.thread.ask((face) => face.natural(request));
  }

  moments(request: MomentsRequest): Promise<number[]> {
    return this.thread.ask((face) => face.moments(request));
  }
}
