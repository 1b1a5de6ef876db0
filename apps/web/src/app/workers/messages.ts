import { type Basis } from '@zaffet/core/basis';
import { type FieldFigures } from '@zaffet/core/crack';
import { type FaceMode, type FaceView, type ModeScale } from '@zaffet/core/face';
import { type Naturalness, type PanelShares } from '@zaffet/core/measure';
import { type Scene } from '@zaffet/core/outcome';

/** What the Face wants drawn. Buffers travel, nothing is shared. */
export interface FaceRequest {
  /** What happens to the panel, from the forecast. */
  readonly scene: Scene;
  readonly view: FaceView;
  readonly quality: 'coarse' | 'full';
  readonly columns: number;
  readonly rows: number;
  readonly raking: number;
  readonly mode: FaceMode;
  /** How far the cracks have opened, 0 … 1; null before the first. */
  readonly openingShare: number | null;
  /** Events of the scene from this one on have not happened yet. */
  readonly until: number;
  /** Key of the network whose cracks are measured; null where nothing cracks. */
  readonly measured: number | null;
}

/** A picture, or word that a newer request overtook it. */
export type FaceAnswer =
  | {
      readonly outcome: 'done';
      readonly rgba: Uint8ClampedArray<ArrayBuffer>;
      readonly columns: number;
      readonly rows: number;
      /** What a measured mode's colours run from and to; null where colours stand for themselves or for names. */
      readonly scale: ModeScale | null;
      readonly quality: 'coarse' | 'full';
      /** Measured on the grown field at its end; null where nothing cracks. */
      readonly figures: FieldFigures | null;
      /** Shares of the layers in the picture. */
      readonly shares: PanelShares;
      readonly fingerprint: number;
    }
  | { readonly outcome: 'overtaken' };

/** How well the crackle reads when a coat is laid at other moments. */
export interface MomentsRequest {
  readonly basis: Basis;
  readonly stepIndex: number;
  /** Waits after the step before [s]. */
  readonly waits: readonly number[];
}

export interface FaceWorker {
  draw(request: FaceRequest, onProgress: ((share: number) => void) | null): Promise<FaceAnswer>;
  /** How natural the panel of a request looks; null when a newer request overtook it. */
  natural(request: FaceRequest): Promise<Naturalness | null>;
  moments(request: MomentsRequest): Promise<number[]>;
}
