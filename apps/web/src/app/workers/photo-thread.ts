import { Injectable, type OnDestroy } from '@angular/core';
import { type Picture, type Quad } from '@zaffet/core/photo';
import { type PhotoAnswer, type PhotoWorker } from './photo-messages';
import { Thread } from './thread';

/** Photographs measured off the page's thread; stopped with what asked for it. */
@Injectable()
export class PhotoThread implements OnDestroy {
  private readonly thread = new Thread<PhotoWorker>(
    () => new Worker(new URL('./photo.worker', import.meta.url), { type: 'module' }),
  );

  ngOnDestroy(): void {
    this.thread.stop();
  }

  measure(
    picture: Picture,
    corners: Quad,
    size: { readonly width: number; readonly height: number },
  ): Promise<PhotoAnswer> {
    return this.thread.ask<PhotoAnswer>((remote) => remote.measure(picture, corners, size));
  }
}
