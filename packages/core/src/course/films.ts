import { airIndexAt, type DryingAir, evaporationOf, scaledAir } from '../air';
import { type StepMoment } from '../basis';
import { closedShare } from '../crack';
import { balanceWater, dryFilm, type Ground, stateTimes, type StateTimes, valueAt } from '../film';
import { type Medium, type MediumLookup, POWDER_SOLIDS, type StepFactors, type Substrate } from '../media';
import { normalCdf, normalQuantile } from '../numeric/normal';
import { type FilmStep, inHours, type Sheen, type WorkTime } from '../plan';
import { metresToUm, SECONDS_PER_DAY } from '../units';
import { type FilmRun } from './types';

/** When the coat below never gets there in this air, the next step is taken to follow a day later [s]. */
export const GIVE_UP = SECONDS_PER_DAY;
/** Solvents quick enough to chill the film below the dew point. */
const QUICK: readonly string[] = ['alcohol', 'thinner', 'propellant'];

/** What a film is laid on and in. */
export interface LayingIn {
  readonly surface: Substrate;
  readonly before: FilmRun | null;
  readonly air: readonly DryingAir[];
  readonly media: MediumLookup;
  /** What is believed of this coat alone. */
  readonly factors: StepFactors | undefined;
  readonly moment: StepMoment | undefined;
  readonly work: WorkTime | undefined;
}

type Dried = Pick<FilmRun, 'open' | 'openStates' | 'sample'>;

/** Scatter of how far a film has dried from place to place, of the logarithm of time: a brush lays unevenly; assumed. */
const UNEVEN = 0.3;
/** Places of a film that are told apart, each a like part of it: the middles of equal shares. */
const PLACES = Array.from({ length: 7 }, (_, k) => placeAt((k + 0.5) / 7));

/** How much later than the mean of a film its places are there by when a share of them is. */
export function placeAt(share: number): number {
  return Math.exp(UNEVEN * normalQuantile(share));
}

/** Film-formed share of a film at its places, so long after it was laid. */
function closedAt(film: FilmRun, age: number, temperature: number): number[] {
  const states = stateTimes(film.open, temperature);
  // Dry by now in the slowest of them: alike all over.
  if (states.touch !== null && age / PLACES.at(-1)! >= states.touch && film.medium.oxidationHours === 0)
    return [1];
  return PLACES.map((slow) => closedShare(film.open, age / slow, temperature, states));
}

/** Share of a film that is still tacky: gelled, not yet touch-dry there [0 … 1]. @param moment - s from the plan's start */
export function tackyShare({ openStates, laidAt }: FilmRun, moment: number): number {
  const past = (state: number | null): number =>
    state === null || moment <= laidAt
      ? 0
      : normalCdf(Math.log((moment - laidAt) / Math.max(1, state - laidAt)) / UNEVEN);
  return Math.max(0, past(openStates.tacky) - past(openStates.touch));
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

/** Gloss of clear coats by the word on the tin [GU at 60°]: within the classes of EN 13300 (from memory). */
const SHEEN_GU: Readonly<Record<Sheen, number>> = { matt: 8, satin: 30, gloss: 75 };

/** A medium as it is laid in a step: with powder in it, in a sheen it is sold in. */
function asMade(row: Medium, step: FilmStep): Medium {
  if (step.kind === 'seal')
    return step.sheen === undefined || row.kind !== 'clear'
      ? row
      : { ...row, glossUnits: SHEEN_GU[step.sheen] };
  const powder = POWDER_SOLIDS * (step.texture ?? 0);
  return powder === 0 ? row : { ...row, volumeSolids: (row.volumeSolids + powder) / (1 + powder) };
}

/** Lays a film and dries it. @param at - when its first coat is laid [s from the plan's start] */
export function layFilm(step: FilmStep, stepIndex: number, at: number, on: LayingIn): FilmRun {
  const { before, moment } = on;
  const row = on.media(step.medium);
  const own = on.factors;
  const made = asMade(row, step);
  const medium =
    own === undefined
      ? made
      : {
          ...made,
          diffusivityUm2S: made.diffusivityUm2S * Math.exp(own.dry),
          strainFactor: made.strainFactor * Math.exp(own.strain ?? 0),
          fractureLengthUm: made.fractureLengthUm * Math.exp(own.tough ?? 0),
        };
  const air = own === undefined ? on.air : scaledAir(on.air, Math.exp(own.air));
  const wetUm = metresToUm(step.thickness) * Math.exp(own?.thickness ?? 0);
  const dry = (laidAt: number, ground: Ground): Dried => {
    const sample = air[airIndexAt(air, laidAt)]!;
    const open = dryFilm({
      medium,
      wetUm,
      dilution: step.dilution,
      ground,
      air,
      laidAt,
      coveredAt: Infinity,
    });
    return { open, openStates: shifted(stateTimes(open, sample.temperature), laidAt), sample };
  };
  const ground = groundOf(before, on, at);
  const closedPlaces =
    before === null ? [1] : closedAt(before, at - before.laidAt, air[airIndexAt(air, at)]!.temperature);
  const coats = step.kind === 'seal' ? step.coats : 1;
  let laidAt = at;
  let dried = dry(at, ground);
  // Each further coat goes on when the one before takes it, and dries on that one.
  for (let k = 1; k < coats; k++) {
    const below = { medium, laidAt, ...dried, ground: dried.open.ground };
    const interval = (dried.openStates.recoat ?? laidAt + GIVE_UP) - laidAt;
    const free = laidAt + interval;
    const told = moment?.coats?.[k];
    laidAt =
      told === undefined
        ? inHours(free, { rule: 'after', wait: interval }, on.work, interval)
        : 'fixed' in moment!
          ? told
          : Math.max(free, told);
    dried = dry(laidAt, groundOf(below, on, laidAt));
  }
  const buffAfter = step.kind === 'seal' ? step.buffAfter : null;
  return {
    step,
    stepIndex,
    medium,
    laidAt,
    solventSurface: QUICK.includes(medium.carrier)
      ? evaporationOf(medium.carrier as 'alcohol', dried.sample, dried.sample.plate).surfaceTemperature
      : null,
    ...dried,
    first: { laidAt: at, sample: air[airIndexAt(air, at)]! },
    ground,
    closedPlaces,
    closedBelow: closedPlaces.reduce((sum, closed) => sum + closed, 0) / closedPlaces.length,
    wetUm,
    slipFactor: Math.exp(own?.slip ?? 0),
    solidsUm: dried.open.solidsUm * coats,
    buffAfter: moment?.buffAt === undefined ? buffAfter : moment.buffAt - laidAt,
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
    ground: film.open.ground,
    air: factors === undefined ? air : scaledAir(air, Math.exp(factors.air)),
    laidAt: film.laidAt,
    coveredAt: Infinity,
  });
  return { ...film, open, openStates: shifted(stateTimes(open, film.sample.temperature), film.laidAt) };
}

/** A film as far as the next one lies on it. */
type Below = Pick<FilmRun, 'medium' | 'open' | 'ground' | 'laidAt'>;

function groundOf(before: Below | null, on: LayingIn, laidAt: number): Ground {
  if (before === null) return { kind: 'substrate', substrate: on.surface, takenUpUm: 0 };
  const water = valueAt(before.open, before.open.water, laidAt - before.laidAt);
  return {
    kind: 'layer',
    medium: before.medium,
    solidsUm: before.open.solidsUm,
    waterUm: water + stillRising(before, on.air, laidAt),
  };
}

/** Water of two layers down that has not come up yet counts with the layer below [µm]. */
function stillRising(before: Below, air: readonly DryingAir[], moment: number): number {
  const { ground } = before;
  if (ground.kind === 'substrate' || ground.medium.carrier !== before.medium.carrier) return 0;
  const humidity = air[airIndexAt(air, moment)]!.humidity;
  const water = valueAt(before.open, before.open.waterBelow, moment - before.laidAt);
  return Math.max(0, water - ground.solidsUm * balanceWater(ground.medium.boundWater, humidity));
}
