import { type Area } from '../maps';
import { type Outcome, type ZoneForecast } from '../outcome';

/** One figure of the readout: how it is read off a forecast, and how it spreads. */
interface FigureRow {
  readonly of: (zone: ZoneForecast, result: Outcome) => number | null;
  /** A share spreads as its log odds, a length or a time as its logarithm. */
  readonly share: boolean;
  /** What remains from board to board [sd of ln or of log odds]; assumed until boards say better. */
  readonly scatter: number;
}

const FIGURES = {
  spacing: { of: ({ crack }) => crack && crack.spacing, share: false, scatter: 0.18 },
  opening: { of: ({ crack }) => crack && crack.opening, share: false, scatter: 0.25 },
  openArea: { of: ({ crack }) => crack?.openArea ?? 0, share: true, scatter: 0.2 },
  firstCracks: { of: ({ firstAfter }) => firstAfter, share: false, scatter: 0.25 },
  strength: { of: ({ crack }) => crack?.strength ?? 0, share: true, scatter: 0.25 },
  chips: { of: ({ chippedShare }) => chippedShare, share: true, scatter: 0.5 },
  flake: { of: ({ flake }) => flake, share: false, scatter: 0.3 },
  worn: { of: ({ wornShare }) => wornShare, share: true, scatter: 0.4 },
  gloss: { of: ({ gloss }) => gloss, share: false, scatter: 0.2 },
  contrast: { of: (_, { appearance }) => appearance.contrast, share: false, scatter: 0.15 },
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
