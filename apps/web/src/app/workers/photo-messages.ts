import { type PhotoReading, type Picture, type Quad } from '@zaffet/core/photo';

/** What was read, or why nothing could be. */
export interface PhotoAnswer {
  readonly read: PhotoReading | null;
  readonly refused: string | null;
}

/** What the thread of photographs is asked. */
export interface PhotoWorker {
  /** Measures the cracks of a rectangle in a picture, by its corners and its sides [mm]. */
  measure(
    picture: Picture,
    corners: Quad,
    size: { readonly width: number; readonly height: number },
  ): PhotoAnswer;
}
