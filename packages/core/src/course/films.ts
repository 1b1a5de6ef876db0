import { airIndexAt, type DryingAir, evaporationOf, scaledAir } from '../air';
import { type StepMoment } from '../basis';
import { closedShare } from '../crack';
import { balanceWater, dryFilm, type Ground, stateTimes, type StateTimes, valueAt } from '../film';
import { type MediumLookup, type StepFactors, substrate, type SubstrateKey } from '../media';
import { type FilmStep } from '../plan';
import { metresToUm, SECONDS_PER_DAY } from '../units';
import { type FilmRun } from './types';

/** When the coat below never gets there in this air, the next step is taken to follow a day later [s]. */
export const GIVE_UP = SECONDS_PER_DAY;
/** Solvents quick enough to chill the film below the dew point. */
const QUICK: readonly string[] = ['alcohol', 'thinner', 'propellant'];

/** What a film is laid on and in. */
export interface LayingIn {
  readonly substrate: SubstrateKey;
  readonly before: FilmRun | null;
  readonly air: readonly DryingAir[];
  readonly media: MediumLookup;
  /** What is believed of this coat alone. */
  readonly factors: StepFactors | undefined;
  readonly moment: StepMoment | undefined;
}

type Dried = Pick<FilmRun, 'open' | 'openStates' | 'ground' | 'sample' | 'closedBelow'>;

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

/** Lays a film and dries it. @param at - when its first coat is laid [s from the plan's start] */
export function layFilm(step: FilmStep, stepIndex: number, at: number, on: LayingIn): FilmRun {
  const { before, moment } = on;
  const row = on.media(step.medium);
  const own = on.factors;
  const medium =
    own === undefined ? row : { ...row, diffusivityUm2S: row.diffusivityUm2S * Math.exp(own.dry) };
  const air = own === undefined ? on.air : scaledAir(on.air, Math.exp(own.air));
  const wetUm = metresToUm(step.thickness) * Math.exp(own?.thickness ?? 0);
  const dry = (laidAt: number): Dried => {
    const sample = air[airIndexAt(air, laidAt)]!;
    const ground = groundOf(before, on, laidAt);
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
      closedBelow: before === null ? 1 : closedShare(before.open, laidAt - before.laidAt, sample.temperature),
    };
  };
  const timed = moment !== undefined && 'fixed' in moment ? moment : undefined;
  const coats = step.kind === 'seal' ? step.coats : 1;
  let laidAt = at;
  let dried = dry(at);
  if (coats > 1) {
    const interval = (dried.openStates.recoat ?? at + GIVE_UP) - at;
    laidAt = timed?.coats?.at(-1) ?? at + (coats - 1) * interval;
    dried = { ...dry(laidAt), closedBelow: dried.closedBelow };
  }
  const buffAfter = step.kind === 'seal' ? step.buffAfter : null;
  return {
    step,
    stepIndex,
    medium,
    laidAt,
    solventSurface: QUICK.includes(medium.carrier)
      ? evaporationOf(medium.carrier as 'alcohol', dried.sample).surfaceTemperature
      : null,
    ...dried,
    wetUm,
    solidsUm: dried.open.solidsUm * coats,
    buffAfter: timed?.buffAt === undefined ? buffAfter : timed.buffAt - laidAt,
    coveredAt: null,
    heat: 0,
    cycles: 0,
  };
}

/** Dries a film anew from its laying, in air that has changed since. */
export function driedIn(film: FilmRun, air: readonly DryingAir[], factors: StepFactors | undefined): FilmRun {
  const open = dryFilm({
    medium: film.medium,
    wetUm: film.wetUm,
    dilution: film.step.dilution,
    ground: film.ground,
    air: factors === undefined ? air : scaledAir(air, Math.exp(factors.air)),
    laidAt: film.laidAt,
    coveredAt: Infinity,
  });
  return { ...film, open, openStates: shifted(stateTimes(open, film.sample.temperature), film.laidAt) };
}

function groundOf(before: FilmRun | null, on: LayingIn, laidAt: number): Ground {
  if (before === null) return { kind: 'substrate', substrate: substrate(on.substrate), takenUpUm: 0 };
  const water = valueAt(before.open, before.open.water, laidAt - before.laidAt);
  return {
    kind: 'layer',
    medium: before.medium,
    solidsUm: before.open.solidsUm,
    waterUm: water + stillRising(before, on.air, laidAt),
  };
}

/** Water of two layers down that has not come up yet counts with the layer below [µm]. */
function stillRising(before: FilmRun, air: readonly DryingAir[], moment: number): number {
  const { ground } = before;
  if (ground.kind === 'substrate' || ground.medium.carrier !== before.medium.carrier) return 0;
  const humidity = air[airIndexAt(air, moment)]!.humidity;
  const water = valueAt(before.open, before.open.waterBelow, moment - before.laidAt);
  return Math.max(0, water - ground.solidsUm * balanceWater(ground.medium.boundWater, humidity));
}
