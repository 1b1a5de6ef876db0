import { type Area } from '../maps';
import { type Outcome, type ZoneForecast } from '../outcome';

/** What a figure is: it tells its unit, and how it spreads, a share as its log odds and all else as its logarithm. */
export type Quantity = 'length' | 'time' | 'share' | 'gloss' | 'difference';

/** One figure of the readout: how it is read off a forecast, how it spreads, and what it can come to. */
export interface FigureRow {
  readonly of: (zone: ZoneForecast, result: Outcome) => number | null;
  readonly quantity: Quantity;
  /** Told where something cracks, where something is lost, or always. */
  readonly tells: 'cracks' | 'loss' | 'look';
  /** What remains from board to board [sd of ln or of log odds]; assumed until boards say better. */
  readonly scatter: number;
  /** What such a finish comes to, from least to most. */
  readonly bar: { readonly from: number; readonly to: number; readonly scale: 'log' | 'linear' };
}

const ALL = { from: 0, to: 1, scale: 'linear' } as const;

const FIGURES = {
  spacing: {
    of: ({ crack }) => crack && crack.spacing,
    quantity: 'length',
    tells: 'cracks',
    scatter: 0.18,
    bar: { from: 0.0005, to: 0.05, scale: 'log' },
  },
  opening: {
    of: ({ crack }) => crack && crack.opening,
    quantity: 'length',
    tells: 'cracks',
    scatter: 0.25,
    bar: { from: 0.00003, to: 0.005, scale: 'log' },
  },
  openArea: {
    of: ({ crack }) => crack?.openArea ?? 0,
    quantity: 'share',
    tells: 'cracks',
    scatter: 0.2,
    bar: { from: 0, to: 0.4, scale: 'linear' },
  },
  firstCracks: {
    of: ({ firstAfter }) => firstAfter,
    quantity: 'time',
    tells: 'cracks',
    scatter: 0.25,
    bar: { from: 10, to: 3600, scale: 'log' },
  },
  strength: {
    of: ({ crack }) => crack?.strength ?? 0,
    quantity: 'share',
    tells: 'cracks',
    scatter: 0.25,
    bar: ALL,
  },
  chips: {
    of: ({ chippedShare }) => chippedShare,
    quantity: 'share',
    tells: 'loss',
    scatter: 0.5,
    bar: ALL,
  },
  flake: {
    of: ({ flake }) => flake,
    quantity: 'length',
    tells: 'look',
    scatter: 0.3,
    bar: { from: 0.0005, to: 0.05, scale: 'log' },
  },
  worn: { of: ({ wornShare }) => wornShare, quantity: 'share', tells: 'loss', scatter: 0.4, bar: ALL },
  bare: { of: ({ bareShare }) => bareShare, quantity: 'share', tells: 'loss', scatter: 0.4, bar: ALL },
  gloss: {
    of: ({ gloss }) => gloss,
    quantity: 'gloss',
    tells: 'look',
    scatter: 0.2,
    bar: { from: 0, to: 100, scale: 'linear' },
  },
  contrast: {
    of: (_, { appearance }) => appearance.contrast,
    quantity: 'difference',
    tells: 'look',
    scatter: 0.15,
    bar: { from: 0, to: 80, scale: 'linear' },
  },
} as const satisfies Record<string, FigureRow>;

/** Figures of the readout. Lengths in m, shares 0 … 1, times in s, gloss in GU, contrast in ΔE00. */
export type FigureKey = keyof typeof FIGURES;
export const FIGURE_KEYS = Object.keys(FIGURES) as FigureKey[];
export const figureRow = (key: FigureKey): FigureRow => FIGURES[key];

export const areaOf = (result: Outcome, area: Area): ZoneForecast =>
  area === 'panel' ? result.whole : result.zones[area];

/** The figures of a zone, or of all the panel, as a forecast gives them; null where nothing cracks or flakes. */
export function figureValues(result: Outcome, area: Area = 'panel'): Record<FigureKey, number | null> {
  const zone = areaOf(result, area);
  return Object.fromEntries(FIGURE_KEYS.map((key) => [key, figureRow(key).of(zone, result)])) as Record<
    FigureKey,
    number | null
  >;
}
