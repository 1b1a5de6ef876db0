import { Injectable, type OnDestroy } from '@angular/core';
import { type Correction, type Picture, type Quad } from '@zaffet/core/photo';
import { type PhotoTold, type Run } from '@zaffet/workshop';
import { proxy } from 'comlink';
import { type BoardAnswer, type PhotoAnswer, type PhotoWorker, type Progress } from './photo-messages';
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

  /** Ends what is being worked on. */
  stop(): void {
    this.thread.cancel();
  }

  measure(
    picture: Picture,
    corners: Quad,
    size: { readonly width: number; readonly height: number },
  ): Promise<PhotoAnswer> {
    return this.thread.ask<PhotoAnswer>((remote) => remote.measure(picture, corners, size));
  }

  board(
    picture: Picture,
    run: Run,
    told: PhotoTold,
    corrections: readonly (readonly Correction[])[],
    progress: Progress,
  ): Promise<BoardAnswer> {
    return this.thread.ask<BoardAnswer>((remote) =>
      remote.board(picture, run, told, corrections, proxy(progress)),
    );
  }

  putRight(cell: number, corrections: readonly Correction[]): Promise<BoardAnswer> {
    return this.thread.ask<BoardAnswer>((remote) => remote.putRight(cell, corrections));
  }

  simulated(run: Run, progress: Progress): Promise<Picture> {
    return this.thread.ask<Picture>((remote) => remote.simulated(run, proxy(progress)));
  }
}
