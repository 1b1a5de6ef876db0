import { EIGHTY_PER_CENT } from '../numeric/normal';
import { type PanelPlan } from '../plan';
import { forecast } from './forecast';
import { type Knob, type Turned, turnedPlans } from './knobs';
import { type Factors } from './run';
import { type Forecast } from './types';

/** Figures of the readout. Lengths in m, shares 0 … 1, times in s, gloss in GU, contrast in ΔE00. */
export const FIGURE_KEYS = [
  'spacing',
  'opening',
  'openArea',
  'firstCracks',
  'strength',
  'chips',
  'flake',
  'worn',
  'gloss',
  'contrast',
] as const;
export type FigureKey = (typeof FIGURE_KEYS)[number];

/** What a knob does to a figure. */
export interface Mover {
  readonly knob: Knob;
  /** Change of the figure, in its unit; null when the figure disappears. */
  readonly change: number | null;
}

/** A predicted value with its 80 % band and the knobs that move it most, strongest first. */
export interface Predicted {
  /** null where there is nothing of the kind. */
  readonly value: number | null;
  readonly low: number | null;
  readonly high: number | null;
  readonly movers: readonly Mover[];
}
export interface Figure extends Predicted {
  readonly key: FigureKey;
}
/** How much of a layer is seen. */
export interface LayerFigure extends Predicted {
  /** Step that laid it; `panel` for what lies below everything. */
  readonly layerId: string;
}

export interface Readout {
  readonly figures: readonly Figure[];
  readonly layers: readonly LayerFigure[];
}

/**
 * Spread of what the forecast rests on, standard deviations of the logarithm; assumed until boards say better.
 * The air's drying rate, a medium's slip, a paint's strain, a boundary's bond, hand and tool, how evenly a hand lays.
 */
const SPREADS: readonly Factors[] = [
  { air: Math.exp(0.35) },
  { slip: Math.exp(0.6) },
  { strain: Math.exp(-0.3) },
  { bond: Math.exp(0.4) },
  { wear: Math.exp(0.4) },
];
const FILM_SPREAD = 0.15;
/** What remains from board to board: of the logarithm for lengths and times, of the log odds for shares. */
const BOARD_SPREAD: Readonly<Record<FigureKey | 'layer', number>> = {
  spacing: 0.18,
  opening: 0.25,
  openArea: 0.2,
  firstCracks: 0.25,
  strength: 0.25,
  chips: 0.5,
  flake: 0.3,
  worn: 0.4,
  gloss: 0.2,
  contrast: 0.15,
  layer: 0.35,
};
const SHARES: readonly string[] = ['openArea', 'strength', 'chips', 'worn'];
/** A figure that vanishes under a spread counts as moved by this much, in logarithms. */
const VANISHES = 1;

interface Values {
  readonly figures: Readonly<Record<FigureKey, number | null>>;
  readonly layers: Readonly<Record<string, number>>;
}

/** The panel's figures as a forecast gives them; null where nothing cracks or flakes. */
export function figureValues(result: Forecast): Record<FigureKey, number | null> {
  const i = result.crackedCoat;
  const coat = i === null ? undefined : result.coats[i];
  const crack = coat?.crack;
  const most = result.chips.reduce<Forecast['chips'][number] | null>(
    (best, chip) => (best === null || chip.share > best.share ? chip : best),
    null,
  );
  return {
    spacing: crack ? crack.pattern.spacingUm * 1e-6 : null,
    opening: crack ? crack.pattern.openingUm * 1e-6 : null,
    openArea: crack ? crack.pattern.openArea : 0,
    firstCracks: crack && coat && crack.firstAt !== null ? crack.firstAt - coat.laidAt : null,
    strength: crack ? crack.pattern.strength : 0,
    chips: result.chippedShare,
    flake: most !== null && most.share > FLAKES_SEEN ? most.size : null,
    worn: result.wornShare,
    gloss: result.gloss,
    contrast: result.appearance.contrast,
  };
}
/** Share of chips under which no flake size is told. */
const FLAKES_SEEN = 0.005;

function valuesOf(result: Forecast): Values {
  return {
    figures: figureValues(result),
    layers: Object.fromEntries(result.layers.map((layer) => [layer.id, layer.share])),
  };
}

/**
 * The readout of a plan: every figure, and how much of each layer is seen, with 80 % band and the knobs that move it
 * most.
 *
 * Band: each uncertain thing is moved by one standard deviation, the moves are added in squares with the scatter
 * from board to board; 80 % of a normal spread lie within 1.28 of the sum. Lengths and times spread as logarithms,
 * shares as log odds. Knobs: turned one at a time, forecast anew.
 *
 * @param base - the plan's forecast, when the caller has it already
 * @throws InputError as `forecast`
 */
export function readout(plan: PanelPlan, base: Forecast = forecast(plan)): Readout {
  const values = valuesOf(base);
  const turned = turnedPlans(plan, base, FILM_SPREAD);
  const spreads = [
    ...SPREADS.map((factors) => valuesOf(forecast(plan, factors))),
    ...turned.spreads.map((other) => valuesOf(forecast(other))),
  ];
  const knobs = turned.knobs.map((turn) => ({ ...turn, values: valuesOf(forecast(turn.plan)) }));
  const figures = FIGURE_KEYS.map((key): Figure => {
    const of = (v: Values): number | null => v.figures[key];
    return { key, ...predicted(of, BOARD_SPREAD[key], SHARES.includes(key), values, spreads, knobs) };
  });
  const layers = base.layers.map((layer): LayerFigure => {
    const of = (v: Values): number | null => v.layers[layer.id] ?? 0;
    return { layerId: layer.id, ...predicted(of, BOARD_SPREAD.layer, true, values, spreads, knobs) };
  });
  return { figures, layers };
}

/** All knobs with what they do to one figure or layer, strongest first. */
export function explain(plan: PanelPlan, name: string): Predicted | null {
  const { figures, layers } = readout(plan);
  return (
    figures.find((figure) => figure.key === name) ?? layers.find((layer) => layer.layerId === name) ?? null
  );
}

function predicted(
  of: (values: Values) => number | null,
  boardSpread: number,
  share: boolean,
  values: Values,
  spreads: readonly Values[],
  knobs: readonly (Turned & { values: Values })[],
): Predicted {
  const value = of(values);
  const movers = moversOf(of, value, knobs);
  if (value === null || value <= 0) return { value, low: value, high: value, movers };
  const scale = share ? logOdds : Math.log;
  let variance = boardSpread ** 2;
  for (const spread of spreads) {
    const other = of(spread);
    const move =
      other === null || other <= 0 ? VANISHES : Math.min(1.5, Math.abs(scale(other) - scale(value)));
    variance += move * move;
  }
  const by = EIGHTY_PER_CENT * Math.sqrt(variance);
  if (!share) return { value, low: value * Math.exp(-by), high: value * Math.exp(by), movers };
  const at = (x: number): number => 1 / (1 + Math.exp(-x));
  return {
    value,
    low: Math.min(value, at(scale(value) - by)),
    high: Math.max(value, at(scale(value) + by)),
    movers,
  };
}

/** Log odds of a share, kept finite at its ends. */
function logOdds(share: number): number {
  const p = Math.min(1 - 1e-4, Math.max(1e-4, share));
  return Math.log(p / (1 - p));
}

/** Knobs told for a figure. */
const TOLD = 3;

function moversOf(
  of: (values: Values) => number | null,
  value: number | null,
  knobs: readonly (Turned & { values: Values })[],
): Mover[] {
  const from = value ?? 0;
  const size = (change: number | null): number => (change === null ? Infinity : Math.abs(change));
  return knobs
    .map(({ knob, values }) => {
      const after = of(values);
      return { knob, change: after === null ? null : after - from };
    })
    .filter((mover) =>
      mover.change === null ? value !== null : Math.abs(mover.change) > 2e-3 * Math.max(from, 1e-9),
    )
    .sort((a, b) => size(b.change) - size(a.change))
    .slice(0, TOLD);
}
