import { airIndexAt, dryingAir, type DryingAir } from '../air';
import { closedShare, crackLaw, crackPattern, crackTimes } from '../crack';
import {
  balanceWater,
  dryFilm,
  type DryingCurve,
  fallsTo,
  type Ground,
  stateTimes,
  type StateTimes,
  valueAt,
} from '../film';
import { medium, substrate } from '../media';
import { checkPlan, type Coat, type PanelPlan, type StartState } from '../plan';
import { metresToUm, SECONDS_PER_DAY, umToMetres } from '../units';
import { findings } from './findings';
import { type CoatCracks, type CoatForecast, type Forecast, type TopcoatWindow } from './types';

/** Factors on what is uncertain, 1 as the tables stand: for spreads, knobs and calibration. */
export interface Factors {
  /** On the drying rate of the shop's air. */
  readonly air?: number;
  /** On the slip a medium gives. */
  readonly slip?: number;
  /** On the strain a paint gathers. */
  readonly strain?: number;
}

/** White glue is spread and left to grab for about this long; common practice. */
const GLUE_GRABS = 60;
/** When the coat below never gets there in this air, the next one is taken to follow a day later. */
const GIVE_UP = SECONDS_PER_DAY;

/**
 * What a stack of coats will do: when each is laid and ready, what cracks, what is wrong with the plan.
 *
 * Coats are dried one after another, each with its own curve; a coat gives water to the one below and takes it back
 * (dry.ts). Only one neighbour exchanges water; what is left deeper down is carried up when a coat goes on.
 *
 * @throws InputError when a field of the plan is out of range
 */
export function forecast(plan: PanelPlan, factors: Factors = {}): Forecast {
  checkPlan(plan);
  const air = scaledAir(dryingAir(plan.air), factors.air ?? 1);
  const coats: CoatForecast[] = [];
  let openBelow: DryingCurve | null = null;
  let leftBelow = 0;
  let laidAt = 0;

  plan.coats.forEach((coat, i) => {
    const before = coats[i - 1];
    if (before) laidAt = startOf(coat, before);
    const next = plan.coats[i + 1];
    const ground = groundOf(plan, before ?? null, openBelow, leftBelow, laidAt);
    const input = {
      medium: medium(coat.medium),
      wetUm: metresToUm(coat.thickness),
      dilution: coat.dilution,
      ground,
      air,
      laidAt,
      coveredAt: Infinity,
    };
    const open = dryFilm(input);
    const sample = air[airIndexAt(air, laidAt)]!;
    const openStates = shifted(stateTimes(open, sample.temperature), laidAt);
    const base: CoatForecast = {
      coat,
      laidAt,
      coveredAt: null,
      dryThickness: umToMetres(open.solidsUm),
      open: openStates,
      states: openStates,
      window: windowOf(coat, laidAt, openStates),
      curve: open,
      crack: null,
    };
    const coveredAt = next ? startOf(next, base) : null;
    const covering = plan.coats
      .slice(i + 1)
      .reduce((sum, c) => sum + metresToUm(c.thickness) * solidsShareOf(c), 0);
    coats.push({
      ...base,
      coveredAt,
      crack: cracksOf(coat, open, openBelow, before ?? null, laidAt, sample, covering, factors),
    });
    if (before) coats[i - 1] = { ...before, states: coveredStates(before, open, laidAt) };
    openBelow = open;
    leftBelow =
      ground.kind === 'layer' && coveredAt !== null
        ? Math.max(
            0,
            valueAt(open, open.waterBelow, coveredAt - laidAt) -
              ground.solidsUm * balanceWater(ground.medium.boundWater, sample.humidity),
          )
        : 0;
  });

  const crackedCoat = strongest(coats);
  const readyAt = coats.at(-1)?.states.through ?? null;
  return { coats, crackedCoat, readyAt, findings: findings(coats, crackedCoat, plan) };
}

function scaledAir(air: readonly DryingAir[], factor: number): readonly DryingAir[] {
  return factor === 1 ? air : air.map((sample) => ({ ...sample, evaporation: sample.evaporation * factor }));
}

export function solidsShareOf(coat: Coat): number {
  return medium(coat.medium).volumeSolids / (1 + coat.dilution);
}

function stateMoment(states: StateTimes, state: StartState): number | null {
  switch (state) {
    case 'tacky':
      return states.tacky;
    case 'touch-dry':
      return states.touch;
    case 'recoat':
      return states.recoat;
    case 'through-dry':
      return states.through;
  }
}

/** When a coat is laid, from its rule and the coat below it [s from the plan's start]. */
export function startOf(coat: Coat, below: CoatForecast): number {
  switch (coat.start.rule) {
    case 'after':
      return below.laidAt + coat.start.wait;
    case 'at':
      return Math.max(below.laidAt, coat.start.moment);
    case 'state':
      return (stateMoment(below.open, coat.start.state) ?? below.laidAt + GIVE_UP) + coat.start.wait;
  }
}

function groundOf(
  plan: PanelPlan,
  before: CoatForecast | null,
  openBelow: DryingCurve | null,
  leftBelow: number,
  laidAt: number,
): Ground {
  if (before === null || openBelow === null) {
    return { kind: 'substrate', substrate: substrate(plan.panel.substrate), takenUpUm: 0 };
  }
  const water = valueAt(openBelow, openBelow.water, laidAt - before.laidAt);
  return {
    kind: 'layer',
    medium: openBelow.medium,
    solidsUm: openBelow.solidsUm,
    waterUm: water + leftBelow,
  };
}

function windowOf(coat: Coat, laidAt: number, open: StateTimes): TopcoatWindow | null {
  switch (medium(coat.medium).kind) {
    case 'wet-glue': {
      const closesAt = open.skinned;
      return {
        opensAt: closesAt === null ? laidAt + GLUE_GRABS : Math.min(laidAt + GLUE_GRABS, closesAt),
        closesAt,
      };
    }
    case 'crackle-medium':
      return open.touch === null ? null : { opensAt: open.touch, closesAt: null };
    case 'cured-glue':
      return open.through === null ? null : { opensAt: open.through, closesAt: null };
    case 'paint':
    case 'primer':
      return open.recoat === null ? null : { opensAt: open.recoat, closesAt: null };
  }
}

function cracksOf(
  coat: Coat,
  curve: DryingCurve,
  openBelow: DryingCurve | null,
  before: CoatForecast | null,
  laidAt: number,
  sample: DryingAir,
  coveringUm: number,
  factors: Factors,
): CoatCracks | null {
  const input = {
    curve,
    closedBelow: openBelow === null || before === null ? 1 : closedShare(openBelow, laidAt - before.laidAt),
    passes: coat.passes,
    temperature: sample.temperature,
    humidity: sample.humidity,
    coveringUm,
    slipFactor: factors.slip ?? 1,
    strainFactor: factors.strain ?? 1,
  };
  const law = crackLaw(input);
  if (law === null) return null;
  const times = crackTimes(input);
  const pattern = crackPattern(law);
  const shows = pattern.crackedShare > 0.05;
  const shift = (t: number | null): number | null => (t === null || !shows ? null : t + laidAt);
  return {
    law,
    pattern,
    firstAt: shift(times.first),
    clearAt: shift(times.clear),
    doneAt: shift(times.done),
    input,
  };
}

function shifted(states: StateTimes, by: number): StateTimes {
  const move = (t: number | null): number | null => (t === null ? null : t + by);
  return {
    matte: move(states.matte),
    tacky: move(states.tacky),
    skinned: move(states.skinned),
    touch: move(states.touch),
    recoat: move(states.recoat),
    through: move(states.through),
    cured: move(states.cured),
  };
}

/** States of a coat that another covered: what it had reached stays, the rest follows its water under the cover. */
function coveredStates(before: CoatForecast, over: DryingCurve, coveredAt: number): StateTimes {
  const { curve, open } = before;
  const s = curve.solidsUm;
  const under = (reached: number | null, water: number): number | null => {
    if (reached !== null && reached <= coveredAt) return reached;
    const later = fallsTo(over, over.waterBelow, water);
    return later === null ? null : coveredAt + later;
  };
  const { medium: m } = curve;
  const through = under(open.through, m.throughWater * s);
  const cureTime = open.cured !== null && open.through !== null ? open.cured - open.through : null;
  return {
    matte: open.matte !== null && open.matte <= coveredAt ? open.matte : null,
    tacky: under(open.tacky, (s * m.gelWater) / (1 - m.gelWater)),
    skinned: open.skinned !== null && open.skinned <= coveredAt ? open.skinned : null,
    touch: under(open.touch, m.touchWater * s),
    recoat: under(open.recoat, m.recoatWater * s),
    through,
    cured: through === null || cureTime === null ? null : through + cureTime,
  };
}

function strongest(coats: readonly CoatForecast[]): number | null {
  let best: number | null = null;
  coats.forEach((coat, i) => {
    const strength = coat.crack?.pattern.strength ?? 0;
    if (strength > 0.02 && (best === null || strength >= (coats[best]?.crack?.pattern.strength ?? 0)))
      best = i;
  });
  return best;
}
