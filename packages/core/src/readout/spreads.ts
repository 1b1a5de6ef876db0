import { type Basis, isWeighed } from '../basis';
import { type Factors } from '../course';
import { type Forecast, forecast, forecastWith } from '../forecast';
import { type Region } from '../maps';
import { type FactorKey, factorKeyOf, type FactorKind, type Learned, PRIOR_SPREAD } from '../media';
import { principalAxes } from '../numeric/eigen';
import { filmsThatMatter, withThickness } from './knobs';

/*
 * How far a forecast may be off. What it rests on is moved by one standard deviation at a time. While nothing is
 * learned, the few things that are uncertain all through a plan; once boards or the bench have spoken, the principal
 * axes of what is left uncertain of each factor, which no longer move one by one.
 */

/** Moves of what a forecast rests on, by one standard deviation of the logarithm, where nothing is learned. */
const MOVES: readonly Factors[] = [
  { air: Math.exp(PRIOR_SPREAD.air) },
  { slip: Math.exp(PRIOR_SPREAD.slip) },
  { strain: Math.exp(-PRIOR_SPREAD.strain) },
  { bond: Math.exp(PRIOR_SPREAD.bond) },
  { wear: Math.exp(PRIOR_SPREAD.wear) },
];
/** How evenly a hand lays a film by eye, and how well a weighed film is known [sd of ln]; assumed. */
const FILM_SPREAD = 0.15;
const WEIGHED_SPREAD = 0.06;
/** An axis that spreads less than this is left out [sd of ln]. */
const LEAST = 0.02;
/** Flakes of which less goes do not matter. */
const CHIPS_MATTER = 0.01;

/** What a forecast comes to with all that is uncertain moved, one at a time. @throws InputError as `forecast` */
export function spreadResults(basis: Basis, base: Forecast, region?: Region): Forecast[] {
  const { learned } = basis.shop;
  const moved =
    learned === null
      ? MOVES.map((factors) => forecastWith(basis, factors, region))
      : learnedMoves(learned, base).map((there) =>
          forecast({ ...basis, shop: { ...basis.shop, learned: there } }, region),
        );
  const films = filmsThatMatter(base).map(({ id, thickness }) => {
    const by = isWeighed(basis, id) ? WEIGHED_SPREAD : FILM_SPREAD;
    return forecast(withThickness(basis, id, thickness * Math.exp(by)), region);
  });
  return [...moved, ...films];
}

/** Factors that a forecast hangs on. */
function uncertainKeys(learned: Learned, { crackedCoat, coats, chips, course }: Forecast): FactorKey[] {
  const keys = new Set<FactorKey>(['air']);
  const cracked = crackedCoat === null ? undefined : coats[crackedCoat];
  if (cracked !== undefined)
    for (const kind of ['dry', 'strain', 'tough', 'bond'] as const)
      keys.add(factorKeyOf(learned, kind, cracked.medium));
  const below = crackedCoat === null ? undefined : coats[crackedCoat - 1];
  if (below !== undefined && below.medium.slipRate > 0) keys.add(factorKeyOf(learned, 'slip', below.medium));
  for (const { film, share } of chips)
    if (share > CHIPS_MATTER) keys.add(factorKeyOf(learned, 'bond', coats[film]!.medium));
  for (const step of course.plan.steps) if (step.kind === 'distress') keys.add(`wear:${step.tool}`);
  return [...keys];
}

/** What is known after each principal axis of the uncertain factors was moved by its standard deviation. */
function learnedMoves(learned: Learned, base: Forecast): Learned[] {
  const moved = uncertainKeys(learned, base);
  const at = moved.map((key) => learned.keys.indexOf(key));
  const prior = (key: FactorKey): number => PRIOR_SPREAD[key.split(':')[0] as FactorKind];
  const covariance = moved.map((key, i) =>
    moved.map((_, j) =>
      at[i]! >= 0 && at[j]! >= 0 ? learned.covariance[at[i]!]![at[j]!]! : i === j ? prior(key) ** 2 : 0,
    ),
  );
  // What the forecast does not hang on stays as it was learned.
  const keys = [...new Set([...learned.keys, ...moved])];
  return principalAxes(covariance)
    .filter(({ variance }) => variance >= LEAST ** 2)
    .map(({ variance, direction }) => ({
      ...learned,
      keys,
      mean: keys.map(
        (key, i) => (learned.mean[i] ?? 0) + Math.sqrt(variance) * (direction[moved.indexOf(key)] ?? 0),
      ),
      covariance: keys.map(() => keys.map(() => 0)),
    }));
}

/** What the model's structure gets wrong even where its factors are known; and how that grows away from the boards. */
const FLOOR = 0.08;
const AWAY = 0.1;
const HUMIDITY_AWAY = 0.2;
const TEMPERATURE_AWAY = 8;

/** A film as far as the distance from the boards goes. */
export interface FilmThere {
  /** Key of the generic medium. */
  readonly like: string;
  /** Dry [m]. */
  readonly thickness: number;
}

/**
 * Least variance of a figure that boards have taught, from what the model's structure gets wrong [ln²]; 0 where no
 * board has spoken of what cracks here, since the factors' own spreads are wide enough then. Assumed.
 * @param air - when the film is laid
 */
export function floorFor(
  learned: Learned | null,
  top: FilmThere,
  below: FilmThere,
  air: { readonly humidity: number; readonly temperature: number },
): number {
  const centre = learned?.centre?.find((boards) => boards.top === top.like && boards.below === below.like);
  if (centre === undefined) return 0;
  const away =
    Math.log(top.thickness / centre.films[0]) ** 2 +
    Math.log(below.thickness / centre.films[1]) ** 2 +
    ((air.humidity - centre.humidity) / HUMIDITY_AWAY) ** 2 +
    ((air.temperature - centre.temperature) / TEMPERATURE_AWAY) ** 2;
  return FLOOR ** 2 + AWAY ** 2 * away;
}

/** The same of what cracks in a forecast. */
export function floorVariance({ shop }: Basis, { crackedCoat, coats, course }: Forecast): number {
  const top = crackedCoat === null ? undefined : coats[crackedCoat];
  const below = crackedCoat === null ? undefined : coats[crackedCoat - 1];
  if (top === undefined || below === undefined) return 0;
  const there = ({ medium, dryThickness }: typeof top): FilmThere => ({
    like: medium.like,
    thickness: dryThickness,
  });
  return floorFor(shop.learned, there(top), there(below), course.films[crackedCoat!]!.sample);
}
