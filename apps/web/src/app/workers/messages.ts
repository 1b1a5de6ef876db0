import {
  type CrackLaw,
  type FaceView,
  type FieldFigures,
  type Finish,
  type PanelPlan,
  type Strokes,
} from '@zaffet/core';

/** What the Face wants drawn. Buffers travel, nothing is shared. */
export interface FaceRequest {
  /** What cracks; null where nothing does and a plain coat is drawn. */
  readonly law: CrackLaw | null;
  readonly view: FaceView;
  readonly strokes: Strokes;
  readonly seed: number;
  readonly quality: 'coarse' | 'full';
  readonly columns: number;
  readonly rows: number;
  readonly finish: Finish;
  /** How far the cracks have opened, 0 … 1; null before the first. */
  readonly openingShare: number | null;
}

/** A picture, or word that a newer request overtook it. */
export type FaceAnswer =
  | {
      readonly outcome: 'done';
      readonly rgba: Uint8ClampedArray<ArrayBuffer>;
      readonly columns: number;
      readonly rows: number;
      readonly quality: 'coarse' | 'full';
      /** Measured on the grown field at its end; null where nothing cracks. */
      readonly figures: FieldFigures | null;
      readonly fingerprint: number;
    }
  | { readonly outcome: 'overtaken' };

/** How well the crackle reads when a coat is laid at other moments. */
export interface MomentsRequest {
  readonly plan: PanelPlan;
  readonly stepIndex: number;
  /** Waits after the step before [s]. */
  readonly waits: readonly number[];
}

export interface FaceWorker {
  draw(request: FaceRequest, onProgress: ((share: number) => void) | null): Promise<FaceAnswer>;
  moments(request: MomentsRequest): Promise<number[]>;
}
