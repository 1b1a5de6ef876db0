import { inject, Injectable, signal } from '@angular/core';
import { FaceClient } from '../../workers/face.client';
import { type FaceAnswer, type FaceRequest } from '../../workers/messages';

/** A face wanted now, and the sharp one wanted once the hand rests. */
export interface FaceWish {
  readonly now: FaceRequest;
  readonly rested: FaceRequest | null;
}

/** After the last change, the fine field is grown when nothing else was asked for this long [ms]. */
const REST = 160;

/** A growth shorter than this shows no bar [ms]. */
const PATIENCE = 300;

/**
 * Keeps the picture up with the hand: one request at a time, always the newest wish, then the fine one. Provided by
 * the Face, so that it lives and dies with it.
 */
@Injectable()
export class FacePainter {
  private readonly client = inject(FaceClient);
  readonly answer = signal<FaceAnswer | null>(null);
  /** Share of a long growth done; null when none is running. */
  readonly progress = signal<number | null>(null);
  readonly trouble = signal<string | null>(null);
  private wish: FaceWish | null = null;
  private busy = false;
  private timer: ReturnType<typeof setTimeout> | undefined;

  show(wish: FaceWish): void {
    this.wish = wish;
    clearTimeout(this.timer);
    if (!this.busy) void this.work();
  }

  private async work(): Promise<void> {
    this.busy = true;
    while (this.wish !== null) {
      const wish = this.wish;
      this.wish = null;
      await this.draw(wish.now, false);
      if (this.wish === null && wish.rested !== null) {
        const { rested } = wish;
        this.timer = setTimeout(() => void this.draw(rested, true), REST);
      }
    }
    this.busy = false;
  }

  private async draw(request: FaceRequest, report: boolean): Promise<void> {
    try {
      const begun = performance.now();
      const tell = (share: number): void => {
        if (performance.now() - begun > PATIENCE) this.progress.set(share);
      };
      const answer = await this.client.draw(request, report ? tell : undefined);
      if (answer.outcome === 'done') this.answer.set(answer);
      else if (report && this.wish === null && !this.busy) {
        // Overtaken by what came to nothing: the fine picture is still wanted.
        this.timer = setTimeout(() => void this.draw(request, true), REST);
      }
      this.trouble.set(null);
    } catch {
      this.trouble.set(
        'The picture could not be drawn. Change anything to try again; the figures still hold.',
      );
    } finally {
      if (report) this.progress.set(null);
    }
  }
}
