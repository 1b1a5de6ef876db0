import { type Basis } from '@zaffet/core/basis';
import { type Region } from '@zaffet/core/maps';
import { type Readout, type ZoneReadout } from '@zaffet/core/readout';

/** What is asked of the figures: of a part, and of one place on it. */
export interface FiguresRequest {
  readonly basis: Basis;
  readonly region: Region | null;
}

export interface FiguresAnswer {
  readonly readout: Readout;
  readonly region: ZoneReadout | null;
}

export interface FiguresWorker {
  figures(request: FiguresRequest): FiguresAnswer;
}
