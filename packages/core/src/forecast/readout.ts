import { EIGHTY_PER_CENT } from '../numeric/normal';
import { type Coat, PLAN_RANGES, type PanelPlan } from '../plan';
import { forecast } from './forecast';
import { type Forecast } from './types';

/** Figures of the readout. Lengths in m, shares 0 … 1, times in s. */
export const FIGURE_KEYS = ['spacing', 'opening', 'openArea', 'firstCracks', 'strength'] as const;
export type FigureKey = (typeof FIGURE_KEYS)[number];

/** A knob a painter can turn, with how far it was turned to see what it does. */
export interface Knob {
  readonly kind: 'thickness' | 'moment' | 'temperature' | 'humidity' | 'passes' | 'dilution';
  /** The coat it belongs to; null for the air. */
  readonly coatId: string | null;
  /** Turned by this much, in the knob's own SI unit (passes: number). */
  readonly by: number;
}

/** What a knob does to a figure. */
export interface Mover {
  readonly knob: Knob;
  /** Change of the figure, in its unit; null when the figure disappears. */
  readonly change: number | null;
}

/** A predicted figure with its 80 % band and the knobs that move it most, strongest first. */
export interface Figure {
  readonly key: FigureKey;
  /** null where nothing cracks. */
  readonly value: number | null;
  readonly low: number | null;
  readonly high: number | null;
  readonly movers: readonly Mover[];
}

export interface Readout {
  readonly figures: readonly Figure[];
}

/**
 * Spread of what the forecast rests on, standard deviations of the logarithm; assumed until boards say better.
 * The air's drying rate, a medium's slip, a paint's strain, and how evenly a hand lays a film.
 */
const SPREAD = { air: 0.35, slip: 0.6, strain: 0.3, film: 0.15 } as const;
/** What remains from board to board, by figure; share-like figures as a spread of their logarithm too. */
const BOARD_SPREAD: Readonly<Record<FigureKey, number>> = {
  spacing: 0.18,
  opening: 0.25,
  openArea: 0.2,
  firstCracks: 0.25,
  strength: 0.1,
};

/** The panel's figures as a forecast gives them; null where nothing cracks. */
export function figureValues(result: Forecast): Record<FigureKey, number | null> {
  const i = result.crackedCoat;
  const coat = i === null ? undefined : result.coats[i];
  const crack = coat?.crack;
  if (!coat || !crack) return { spacing: null, opening: null, openArea: 0, firstCracks: null, strength: 0 };
  const { pattern } = crack;
  return {
    spacing: pattern.spacingUm * 1e-6,
    opening: pattern.openingUm * 1e-6,
    openArea: pattern.openArea,
    firstCracks: crack.firstAt === null ? null : crack.firstAt - coat.laidAt,
    strength: pattern.strength,
  };
}

/**
 * The readout of a plan: every figure with its 80 % band and the knobs that move it most.
 *
 * Band: each uncertain thing is moved by one standard deviation, the moves are added in squares with the scatter
 * from board to board; 80 % of a normal spread lie within 1.28 of the sum. Knobs: turned one at a time, forecast anew.
 *
 * @param base - the plan's forecast, when the caller has it already
 * @throws InputError as `forecast`
 */
export function readout(plan: PanelPlan, base: Forecast = forecast(plan)): Readout {
  const values = figureValues(base);
  const spreads = [
    figureValues(forecast(plan, { air: Math.exp(SPREAD.air) })),
    figureValues(forecast(plan, { slip: Math.exp(SPREAD.slip) })),
    figureValues(forecast(plan, { strain: Math.exp(-SPREAD.strain) })),
  ];
  const i = base.crackedCoat;
  const pair = i === null ? [] : [i, i - 1].filter((k) => k >= 0);
  for (const k of pair) {
    spreads.push(
      figureValues(
        forecast(
          withCoat(plan, k, (coat) => ({
            ...coat,
            thickness: inRange('thickness', coat.thickness * Math.exp(SPREAD.film)),
          })),
        ),
      ),
    );
  }
  const turned = knobsOf(plan, base).map(({ knob, plan: moved }) => ({
    knob,
    values: figureValues(forecast(moved)),
  }));

  const figures = FIGURE_KEYS.map((key): Figure => {
    const value = values[key];
    if (value === null || value <= 0)
      return { key, value, low: value, high: value, movers: movers(key, value, turned) };
    let variance = BOARD_SPREAD[key] ** 2;
    for (const spread of spreads) {
      const other = spread[key];
      // A figure that vanishes under the spread has at least a spread of one.
      const move = other === null || other <= 0 ? 1 : Math.min(1, Math.abs(Math.log(other / value)));
      variance += move * move;
    }
    const factor = Math.exp(EIGHTY_PER_CENT * Math.sqrt(variance));
    const share = key === 'openArea' || key === 'strength';
    return {
      key,
      value,
      low: value / factor,
      high: share ? Math.min(1, value * factor) : value * factor,
      movers: movers(key, value, turned),
    };
  });
  return { figures };
}

function movers(
  key: FigureKey,
  value: number | null,
  turned: readonly { knob: Knob; values: Record<FigureKey, number | null> }[],
): Mover[] {
  const from = value ?? 0;
  return turned
    .map(({ knob, values }) => {
      const after = values[key];
      return { knob, change: after === null ? null : after - from };
    })
    .filter((mover) => mover.change === null || Math.abs(mover.change) > 1e-3 * Math.max(from, 1e-9))
    .sort((a, b) => size(b.change) - size(a.change))
    .slice(0, 3);
}

function size(change: number | null): number {
  return change === null ? Infinity : Math.abs(change);
}

function inRange(key: keyof typeof PLAN_RANGES, value: number): number {
  const range = PLAN_RANGES[key];
  return Math.min(range.max, Math.max(range.min, value));
}

function withCoat(plan: PanelPlan, index: number, change: (coat: Coat) => Coat): PanelPlan {
  return { ...plan, coats: plan.coats.map((coat, k) => (k === index ? change(coat) : coat)) };
}

function withAir(plan: PanelPlan, key: 'temperature' | 'humidity', by: number): PanelPlan {
  return { ...plan, air: plan.air.map((sample) => ({ ...sample, [key]: inRange(key, sample[key] + by) })) };
}

/** The knobs worth trying on this plan, each with the plan as it would be. */
function knobsOf(plan: PanelPlan, base: Forecast): { knob: Knob; plan: PanelPlan }[] {
  const i = base.crackedCoat ?? plan.coats.length - 1;
  const top = plan.coats[i];
  const below = plan.coats[i - 1];
  if (!top) return [];
  const knobs: { knob: Knob; plan: PanelPlan }[] = [];
  const thicker = 20e-6;
  for (const [k, coat] of [
    [i, top],
    [i - 1, below],
  ] as const) {
    if (!coat) continue;
    const by = coat.thickness + thicker <= PLAN_RANGES.thickness.max ? thicker : -thicker;
    knobs.push({
      knob: { kind: 'thickness', coatId: coat.id, by },
      plan: withCoat(plan, k, (c) => ({ ...c, thickness: c.thickness + by })),
    });
  }
  if (below) {
    const later = 120;
    const waited = (base.coats[i]?.laidAt ?? 0) - (base.coats[i - 1]?.laidAt ?? 0);
    knobs.push({
      knob: { kind: 'moment', coatId: top.id, by: later },
      plan: withCoat(plan, i, (c) => ({
        ...c,
        start: { rule: 'after', wait: inRange('wait', waited + later) },
      })),
    });
  }
  if (below && below.dilution < PLAN_RANGES.dilution.max) {
    const by = Math.min(0.1, PLAN_RANGES.dilution.max - below.dilution);
    knobs.push({
      knob: { kind: 'dilution', coatId: below.id, by },
      plan: withCoat(plan, i - 1, (c) => ({ ...c, dilution: c.dilution + by })),
    });
  }
  const passBy = top.passes < PLAN_RANGES.passes.max ? 1 : -1;
  knobs.push({
    knob: { kind: 'passes', coatId: top.id, by: passBy },
    plan: withCoat(plan, i, (c) => ({ ...c, passes: c.passes + passBy })),
  });
  knobs.push({ knob: { kind: 'temperature', coatId: null, by: 3 }, plan: withAir(plan, 'temperature', 3) });
  knobs.push({ knob: { kind: 'humidity', coatId: null, by: 0.1 }, plan: withAir(plan, 'humidity', 0.1) });
  return knobs;
}
