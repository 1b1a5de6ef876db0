import { type Basis, type Readout, type Region, type ZoneReadout } from '@zaffet/core';

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
