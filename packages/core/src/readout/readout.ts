import { type Basis } from '../basis';
import { deltaE2000 } from '../colour';
import { type Forecast, forecast } from '../forecast';
import { type Area, type Region } from '../maps';
import { EIGHTY_PER_CENT } from '../numeric/normal';
import { mapOf, type Step, type Zone, ZONES } from '../plan';
import { areaOf, FIGURE_KEYS, type FigureKey, figureRow, figureValues } from './figures';
import { type Knob, turnedBases } from './knobs';
import { floorVariance, spreadResults } from './spreads';

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

/** The colour seen from across the room. */
export interface ColourFigure {
  /** `#rrggbb` */
  readonly colour: string;
  /** In 8 cases of 10 it comes out within this distance [ΔE00]. */
  readonly within: number;
  /** Knobs that move it most, each with how far [ΔE00]. */
  readonly movers: readonly Mover[];
}

/** What is told of a zone, or of the panel as a whole. */
export interface ZoneReadout {
  readonly figures: readonly Figure[];
  readonly layers: readonly LayerFigure[];
  readonly colour: ColourFigure;
}

export type Readout = Readonly<Record<Area, ZoneReadout>>;

/** What remains of a layer's share from board to board [sd of log odds]; assumed. */
const LAYER_SCATTER = 0.35;
/** What pigment and light do from board to board [ΔE00]; assumed. */
const COLOUR_SPREAD = 1.5;
/** A figure that vanishes under a spread counts as moved by this much, in logarithms. */
const VANISHES = 1;

interface Values {
  readonly figures: Readonly<Record<FigureKey, number | null>>;
  readonly layers: Readonly<Record<string, number>>;
  readonly colour: string;
}

function valuesOf(result: Forecast, area: Area): Values {
  return {
    figures: figureValues(result, area),
    layers: Object.fromEntries(
      result.layers.map((layer) => [layer.id, area === 'panel' ? layer.share : layer.zones[area]]),
    ),
    colour: areaOf(result, area).colour,
  };
}

/**
 * The readout of a plan, for the panel and for each of its zones: every figure, how much of each layer is seen, and
 * the colour of it all, with 80 % band and the knobs that move it most.
 *
 * Band: each uncertain thing is moved by one standard deviation, the moves are added in squares with the scatter
 * from board to board; 80 % of a normal spread lie within 1.28 of the sum. Lengths and times spread as logarithms,
 * shares as log odds, colours as distances. Knobs: turned one at a time, forecast anew.
 *
 * @param base - the basis' forecast, when the caller has it already
 * @throws InputError as `forecast`
 */
export function readout(basis: Basis, base: Forecast = forecast(basis)): Readout {
  const tried = triedResults(basis, base);
  const alike = ZONES.every((zone) => base.zones[zone] === base.whole);
  const whole = zoneReadout('panel', base, tried);
  const of = (zone: Zone): ZoneReadout => (alike ? whole : zoneReadout(zone, base, tried));
  return { panel: whole, field: of('field'), edge: of('edge'), corner: of('corner') };
}

/** The readout of a region of the panel. @throws InputError as `forecast` */
export function regionReadout(basis: Basis, region: Region): ZoneReadout {
  const base = forecast(basis, region);
  return zoneReadout('panel', base, triedResults(basis, base, region));
}

/**
 * The panel's figures with their bands and without knobs, for paper. How far boards spread is taken from the films as
 * they lie on the whole, so that a plan of many maps costs no more than one without.
 *
 * @param base - the basis' forecast
 * @throws InputError as `forecast`
 */
export function bandedFigures(basis: Basis, base: Forecast): readonly Figure[] {
  const { plan } = basis;
  const mapped = plan.steps.some((step) => mapOf(step) !== undefined);
  const even = mapped ? { ...basis, plan: { ...plan, steps: plan.steps.map(withoutMap) } } : basis;
  const evenBase = mapped ? forecast(even) : base;
  const values = valuesOf(base, 'panel');
  const evenValues = valuesOf(evenBase, 'panel');
  const spreads = spreadResults(even, evenBase).map((result) => valuesOf(result, 'panel'));
  const spreading = spreadingOf(even, evenBase);
  return FIGURE_KEYS.map((key): Figure => {
    const of = (v: Values): number | null => v.figures[key];
    const share = figureRow(key).quantity === 'share';
    const by = spreadOf(of, spreading(key), share, evenValues, spreads);
    return { key, ...within(of(values), by, share), movers: [] };
  });
}

function withoutMap(step: Step): Step {
  if (mapOf(step) === undefined) return step;
  const { map: _map, ...even } = step as Step & { map: unknown };
  return even as Step;
}

/** What a plan comes to when what is uncertain is moved, and when each knob is turned. */
interface Tried {
  readonly spreads: readonly Forecast[];
  readonly knobs: readonly { readonly knob: Knob; readonly result: Forecast }[];
  /** Variance that remains from board to board, by figure, of ln or log odds. */
  readonly spreading: (key: FigureKey | 'layer') => number;
}

function triedResults(basis: Basis, base: Forecast, region?: Region): Tried {
  return {
    spreads: spreadResults(basis, base, region),
    knobs: turnedBases(basis, base).map(({ knob, basis: turned }) => ({
      knob,
      result: forecast(turned, region),
    })),
    spreading: spreadingOf(basis, base),
  };
}

/** Standard deviation that no factor explains: boards differ, and the model's structure is not the paint's. */
function spreadingOf(basis: Basis, base: Forecast): (key: FigureKey | 'layer') => number {
  const floor = floorVariance(basis, base);
  return (key) => {
    const { quantity, scatter: usual } =
      key === 'layer' ? { quantity: 'share', scatter: LAYER_SCATTER } : figureRow(key);
    const scatter = basis.shop.scatter[key] ?? usual;
    // Log odds vary about twice as much as logarithms for the same fault.
    return floor === 0 ? scatter : Math.sqrt(scatter ** 2 + (quantity === 'share' ? 2 : 1) * floor);
  };
}

function zoneReadout(area: Area, base: Forecast, tried: Tried): ZoneReadout {
  const values = valuesOf(base, area);
  const spreads = tried.spreads.map((result) => valuesOf(result, area));
  const knobs = tried.knobs.map(({ knob, result }) => ({ knob, values: valuesOf(result, area) }));
  const figures = FIGURE_KEYS.map((key): Figure => {
    const of = (v: Values): number | null => v.figures[key];
    return {
      key,
      ...predicted(of, tried.spreading(key), figureRow(key).quantity === 'share', values, spreads, knobs),
    };
  });
  const layers = base.layers.map((layer): LayerFigure => {
    const of = (v: Values): number | null => v.layers[layer.id] ?? 0;
    return { layerId: layer.id, ...predicted(of, tried.spreading('layer'), true, values, spreads, knobs) };
  });
  return { figures, layers, colour: colourFigure(values, spreads, knobs) };
}

/** The mean colour, how far it may be off, and what moves it. */
function colourFigure(
  values: Values,
  spreads: readonly Values[],
  knobs: readonly TurnedValues[],
): ColourFigure {
  const variance = spreads.reduce(
    (sum, other) => sum + deltaE2000(other.colour, values.colour) ** 2,
    COLOUR_SPREAD ** 2,
  );
  return {
    colour: values.colour,
    within: EIGHTY_PER_CENT * Math.sqrt(variance),
    movers: knobs
      .map(({ knob, values: after }): Mover => ({ knob, change: deltaE2000(after.colour, values.colour) }))
      .filter(({ change }) => change! > COLOUR_TOLD)
      .sort((a, b) => b.change! - a.change!)
      .slice(0, TOLD),
  };
}

/** A difference nobody sees is not told [ΔE00]. */
const COLOUR_TOLD = 0.5;

/**
 * All knobs with what they do to one figure or layer, strongest first.
 * @param name - a figure's key, or a step's id or `panel` for how much of a layer is seen
 */
export function explain(basis: Basis, name: string, area: Area = 'panel'): Predicted | null {
  const { figures, layers } = readout(basis)[area];
  return (
    figures.find((figure) => figure.key === name) ?? layers.find((layer) => layer.layerId === name) ?? null
  );
}

/** A knob with what the plan comes to when it is turned. */
interface TurnedValues {
  readonly knob: Knob;
  readonly values: Values;
}

function predicted(
  of: (values: Values) => number | null,
  boardSpread: number,
  share: boolean,
  values: Values,
  spreads: readonly Values[],
  knobs: readonly TurnedValues[],
): Predicted {
  const value = of(values);
  const movers = moversOf(of, value, knobs);
  return { ...within(value, spreadOf(of, boardSpread, share, values, spreads), share), movers };
}

/** How far a figure spreads to either side, of its logarithm or log odds: half of an 80 % band. */
function spreadOf(
  of: (values: Values) => number | null,
  boardSpread: number,
  share: boolean,
  values: Values,
  spreads: readonly Values[],
): number {
  const value = of(values);
  if (value === null || value <= 0) return EIGHTY_PER_CENT * boardSpread;
  const scale = share ? logOdds : Math.log;
  let variance = boardSpread ** 2;
  for (const spread of spreads) {
    const other = of(spread);
    const move =
      other === null || other <= 0 ? VANISHES : Math.min(1.5, Math.abs(scale(other) - scale(value)));
    variance += move * move;
  }
  return EIGHTY_PER_CENT * Math.sqrt(variance);
}

/** A value with its band. */
function within(
  value: number | null,
  by: number,
  share: boolean,
): { value: number | null; low: number | null; high: number | null } {
  if (value === null || value <= 0) return { value, low: value, high: value };
  if (!share) return { value, low: value * Math.exp(-by), high: value * Math.exp(by) };
  const at = (x: number): number => 1 / (1 + Math.exp(-x));
  return {
    value,
    low: Math.min(value, at(logOdds(value) - by)),
    high: Math.max(value, at(logOdds(value) + by)),
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
  knobs: readonly TurnedValues[],
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
