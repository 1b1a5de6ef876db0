import { type FigureKey } from '@zaffet/core/readout';

/** Ranges of the bars, in the core's units: what such a finish can be. */
export const BARS: Readonly<Record<FigureKey, { from: number; to: number; scale: 'log' | 'linear' }>> = {
  spacing: { from: 0.0005, to: 0.05, scale: 'log' },
  opening: { from: 0.00003, to: 0.005, scale: 'log' },
  openArea: { from: 0, to: 0.4, scale: 'linear' },
  firstCracks: { from: 10, to: 3600, scale: 'log' },
  strength: { from: 0, to: 1, scale: 'linear' },
  chips: { from: 0, to: 1, scale: 'linear' },
  flake: { from: 0.0005, to: 0.05, scale: 'log' },
  worn: { from: 0, to: 1, scale: 'linear' },
  gloss: { from: 0, to: 100, scale: 'linear' },
  contrast: { from: 0, to: 80, scale: 'linear' },
};
