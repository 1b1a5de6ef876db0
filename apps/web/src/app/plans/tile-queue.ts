import { inject, Injectable } from '@angular/core';
import { FaceClient } from '../workers/face.client';
import { type FaceAnswer, type FaceRequest } from '../workers/messages';

/** Draws tiles one after another: the worker serves its newest request, so tiles must not overtake each other. */
@Injectable()
export class TileQueue {
  private readonly faces = inject(FaceClient);
  private last: Promise<unknown> = Promise.resolve();

  draw(request: FaceRequest): Promise<FaceAnswer> {
    const next = this.last.then(() => this.faces.draw(request));
    this.last = next.catch(() => undefined);
    return next;
  }
}
