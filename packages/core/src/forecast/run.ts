import {
  airIndexAt,
  type Burst,
  dryingAir,
  type DryingAir,
  evaporationIn,
  evaporationOf,
  scaledAir,
  withBurst,
} from '../air';
import { closedShare } from '../crack';
import {
  balanceWater,
  dryFilm,
  type DryingCurve,
  type Ground,
  stateTimes,
  type StateTimes,
  valueAt,
} from '../film';
import { type Medium, type MediumLookup, substrate } from '../media';
import {
  type Distress,
  type FilmStep,
  type Heat,
  inHours,
  isFilm,
  type PanelPlan,
  type StartRule,
  type StartState,
  type Step,
} from '../plan';
import { celsiusToKelvin, metresToUm, SECONDS_PER_DAY, SECONDS_PER_HOUR, SECONDS_PER_MINUTE } from '../units';
import { type StepTimes } from './types';

/** Factors on what is uncertain, 1 as the tables stand: for spreads, knobs and calibration. */
export interface Factors {
  /** On the drying rate of the shop's air. */
  readonly air?: number;
  /** On the slip a medium gives. */
  readonly slip?: number;
  /** On the strain a paint gathers. */
  readonly strain?: number;
  /** On what boundaries need to part. */
  readonly bond?: number;
  /** On how deep hand and tool go. */
  readonly wear?: number;
}

/** A film as it is laid and dries, before anything is said of its cracks. */
export interface FilmRun {
  readonly step: FilmStep;
  readonly stepIndex: number;
  readonly medium: Medium;
  readonly laidAt: number;
  readonly sample: DryingAir;
  readonly ground: Ground;
  /** Film-formed share of what lies below when it was laid. */
  readonly closedBelow: number;
  /** Temperature of the surface while a quick solvent leaves it [K]; null for slow carriers and water. */
  readonly solventSurface: number | null;
  /** Dry film, all coats of it [µm]. */
  readonly solidsUm: number;
  open: DryingCurve;
  openStates: StateTimes;
  coveredAt: number | null;
  /** Hot air, 0 … 1, and times wetted again. */
  heat: number;
  cycles: number;
}

export interface Run {
  readonly films: readonly FilmRun[];
  readonly times: readonly StepTimes[];
  readonly air: readonly DryingAir[];
}

/** When the coat below never gets there in this air, the next step is taken to follow a day later [s]. */
const GIVE_UP = SECONDS_PER_DAY;
/** Hot air where it meets the surface: a hairdryer, a heat gun held off and moving; common practice. */
export const JETS = {
  dryer: { temperature: celsiusToKelvin(63), convective: 35 },
  gun: { temperature: celsiusToKelvin(250), convective: 60 },
} as const;
/** How soon hot air has done what it can to a drying film [s], and how much that is; assumed. */
const HEAT_TIME = { dryer: 45, gun: 20 } as const;
const HEAT_POWER = { dryer: 0.8, gun: 1 } as const;
/** What hot air still does to a film that is through-dry and was not wetted again. */
const HEAT_ON_DRY = 0.35;
/** Water that counts as one wetting [m]. */
const ONE_WETTING = 30e-6;
/** A film with less energy than this is tough enough to shield what lies below it [J/m²/µm]. */
export const BRITTLE = 0.0105;
/** Solvents quick enough to chill the film below the dew point. */
const QUICK: readonly string[] = ['alcohol', 'thinner', 'propellant'];
/** Paces of a working hand [m²/min], per round where rounds are told; assumed. */
const PACE = {
  brush: 0.12,
  sand: 0.25,
  cloth: 1,
  sponge: 1,
  scrape: 0.5,
  blade: 0.5,
  tap: 0.3,
  wipe: 0.15,
} as const;

/** How long the hands are at a step [s]. */
export function handsOn(step: Step, area: number): number {
  switch (step.kind) {
    case 'coat':
      return (area / PACE.brush) * SECONDS_PER_MINUTE * Math.max(0.3, step.cover.share);
    case 'seal':
      return (area / PACE.brush) * SECONDS_PER_MINUTE * step.coats * Math.max(0.3, step.cover.share);
    case 'resist':
      return (area / PACE.wipe) * SECONDS_PER_MINUTE * Math.max(0.1, step.share);
    case 'distress':
      return step.tool === 'bleach'
        ? step.rounds * SECONDS_PER_MINUTE
        : (step.rounds * area * SECONDS_PER_MINUTE) / PACE[step.tool];
    case 'wipe':
      return (area / PACE.wipe) * SECONDS_PER_MINUTE;
    case 'rewet':
      return (area / PACE.brush) * SECONDS_PER_MINUTE * 0.3;
    case 'heat':
      return step.duration;
    case 'wait':
      return 0;
    case 'companion':
      return step.hands;
  }
}

/** How long a step takes before the next may follow it "after" [s]; films count from when they are laid. */
function lasts(step: Step, area: number): number {
  if (isFilm(step)) return 0;
  if (step.kind === 'wait') return step.duration;
  return handsOn(step, area) + (step.kind === 'companion' ? step.rest : 0);
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
    case 'cured':
      return states.cured;
  }
}

/** When a step begins, by its rule [s from the plan's start]. */
function startOf(
  start: StartRule,
  before: StepTimes | null,
  below: FilmRun | null,
): { at: number; comes: boolean } {
  const earliest = before?.until ?? 0;
  switch (start.rule) {
    case 'after':
      return { at: before === null ? 0 : earliest + start.wait, comes: true };
    case 'at':
      return { at: before === null ? 0 : Math.max(earliest, start.moment), comes: true };
    case 'state': {
      if (below === null) return { at: earliest, comes: true };
      const moment = stateMoment(below.openStates, start.state);
      return {
        at: Math.max(earliest, (moment ?? below.laidAt + GIVE_UP) + start.wait),
        comes: moment !== null,
      };
    }
  }
}

export function shifted(states: StateTimes, by: number): StateTimes {
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

/** Films that one event works on together: the top one and the brittle ones directly below it. */
function topGroup(films: readonly FilmRun[]): FilmRun[] {
  const group: FilmRun[] = [];
  for (let i = films.length - 1; i >= 0; i--) {
    const film = films[i]!;
    group.push(film);
    if (film.medium.energyJM2Um < BRITTLE || films[i - 1]?.medium.slipRate !== 0) break;
  }
  return group;
}

/** When water put on dried paint has gone again [s]; it evaporates as from a free surface. */
function driedAgain(air: readonly DryingAir[], from: number, amount: number): number {
  let left = amount;
  let t = from;
  for (let i = airIndexAt(air, from); i < air.length; i++) {
    const rate = Math.max(1e-12, evaporationIn(air[i]!, 'water'));
    const until = air[i]!.until;
    if (left / rate <= until - t) return t + left / rate;
    left -= (until - t) * rate;
    t = until;
  }
  return t;
}

/**
 * Goes through the steps in order: when each begins, how each film dries, what hot air and water do to the films that
 * lie there by then. Coats are dried one after another, each with its own curve; a coat gives water to the one below
 * and takes it back (dry.ts). Only one neighbour exchanges water; what is left deeper down is carried up.
 */
export function runSteps(plan: PanelPlan, media: MediumLookup, factors: Factors): Run {
  const films: FilmRun[] = [];
  const times: StepTimes[] = [];
  const area = plan.panel.width * plan.panel.height;
  let air = scaledAir(dryingAir(plan.air), factors.air ?? 1);
  /** Until when what was wetted again is still damp. */
  let dampUntil = -Infinity;

  plan.steps.forEach((step, stepIndex) => {
    const top = films.at(-1) ?? null;
    const { at: earliest, comes } = startOf(step.start, times.at(-1) ?? null, top);
    const at = inHours(earliest, step.start, plan.hours);
    let from = at;
    if (isFilm(step)) {
      const film = layFilm(step, stepIndex, at);
      films.push(film);
      from = film.laidAt;
    } else if (step.kind === 'heat') heat(step, at);
    else if (step.kind === 'rewet') {
      dampUntil = wet(step.amount, at);
    } else if (step.kind === 'distress' && step.tool === 'sponge') {
      dampUntil = wet(ONE_WETTING, at);
    }
    times.push({ step, from: isFilm(step) ? at : from, until: from + lasts(step, area), comes });
  });
  return { films, times, air };

  function layFilm(step: FilmStep, stepIndex: number, at: number): FilmRun {
    const medium = media(step.medium);
    const before = films.at(-1) ?? null;
    const wetUm = metresToUm(step.thickness);
    const dry = (
      laidAt: number,
    ): Pick<FilmRun, 'open' | 'openStates' | 'ground' | 'sample' | 'closedBelow'> => {
      const sample = air[airIndexAt(air, laidAt)]!;
      const ground = groundOf(before, laidAt);
      const open = dryFilm({
        medium,
        wetUm,
        dilution: step.dilution,
        ground,
        air,
        laidAt,
        coveredAt: Infinity,
      });
      return {
        open,
        openStates: shifted(stateTimes(open, sample.temperature), laidAt),
        ground,
        sample,
        closedBelow:
          before === null ? 1 : closedShare(before.open, laidAt - before.laidAt, sample.temperature),
      };
    };
    let laidAt = at;
    let dried = dry(at);
    const coats = step.kind === 'seal' ? step.coats : 1;
    if (coats > 1) {
      const interval = (dried.openStates.recoat ?? at + GIVE_UP) - at;
      laidAt = at + (coats - 1) * interval;
      dried = { ...dry(laidAt), closedBelow: dried.closedBelow };
    }
    if (before !== null) before.coveredAt = at;
    return {
      step,
      stepIndex,
      medium,
      laidAt,
      solventSurface: QUICK.includes(medium.carrier)
        ? evaporationOf(medium.carrier as 'alcohol', dried.sample).surfaceTemperature
        : null,
      ...dried,
      solidsUm: dried.open.solidsUm * coats,
      coveredAt: null,
      heat: 0,
      cycles: 0,
    };
  }

  function groundOf(before: FilmRun | null, laidAt: number): Ground {
    if (before === null)
      return { kind: 'substrate', substrate: substrate(plan.panel.substrate), takenUpUm: 0 };
    const water = valueAt(before.open, before.open.water, laidAt - before.laidAt);
    return {
      kind: 'layer',
      medium: before.medium,
      solidsUm: before.open.solidsUm,
      waterUm: water + stillRising(before, laidAt),
    };
  }

  /** Water of two layers down that has not come up yet counts with the layer below [µm]. */
  function stillRising(before: FilmRun, moment: number): number {
    const { ground } = before;
    if (ground.kind === 'substrate' || ground.medium.carrier !== before.medium.carrier) return 0;
    const humidity = air[airIndexAt(air, moment)]!.humidity;
    const water = valueAt(before.open, before.open.waterBelow, moment - before.laidAt);
    return Math.max(0, water - ground.solidsUm * balanceWater(ground.medium.boundWater, humidity));
  }

  /** Hot air: dries the top film from then on, and strains what is not hard yet. */
  function heat(step: Heat, at: number): void {
    const burst: Burst = { from: at, until: at + step.duration, jet: JETS[step.tool] };
    const top = films.at(-1);
    if (top === undefined) return;
    const done = HEAT_POWER[step.tool] * (1 - Math.exp(-step.duration / HEAT_TIME[step.tool]));
    for (const film of topGroup(films)) {
      const dry = film.openStates.through !== null && film.openStates.through < at;
      const share = dry && at > dampUntil + SECONDS_PER_HOUR ? HEAT_ON_DRY * done : done;
      film.heat = 1 - (1 - film.heat) * (1 - share);
    }
    air = withBurst(air, burst);
    if (top.openStates.through !== null && top.openStates.through <= at) return;
    top.open = dryFilm({
      medium: top.medium,
      wetUm: metresToUm(top.step.thickness),
      dilution: top.step.dilution,
      ground: top.ground,
      air,
      laidAt: top.laidAt,
      coveredAt: Infinity,
    });
    top.openStates = shifted(stateTimes(top.open, top.sample.temperature), top.laidAt);
  }

  /** Wets what can be wetted again. @returns when it is dry again */
  function wet(amount: number, at: number): number {
    for (const film of topGroup(films)) {
      film.cycles += Math.min(1.5, amount / ONE_WETTING) * Math.min(1, film.medium.clothStart / 0.8);
    }
    return driedAgain(air, at, amount);
  }
}

/** How long a film of bleach stays wet on the work [s]. */
export function bleachWetFor(run: Run, step: Distress, media: MediumLookup): number {
  const at = run.times.find((times) => times.step.id === step.id)?.from ?? 0;
  const bleach = media('bleach');
  const water = (bleach.wetFilmUm * (1 - bleach.volumeSolids)) / 1e6;
  return driedAgain(run.air, at, water) - at;
}
