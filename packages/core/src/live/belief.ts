import { type Basis } from '../basis';
import { courseOf } from '../course';
import { PRIOR_SPREAD, type StepFactors } from '../media';
import { EIGHTY_PER_CENT, normalCdf, normalQuantile } from '../numeric/normal';
import {
  type Belief,
  COAT_FACTORS,
  type CoatFactor,
  type Form,
  LIVE_STATES,
  type LiveState,
  type Look,
  type Moment,
  type Prior,
  type Spread,
} from './types';

/*
 * What is believed of a coat while it dries. Its moments hang on three factors (the shop's air, how water moves in the
 * medium, how thick it lies); how they do is worked out once, as a quadratic form of logarithms. A thousand draws of the
 * factors carry the belief; every look weighs them anew. No chance: the same looks mean the same belief.
 */

/** Draws of a belief. */
const DRAWS = 1024;
/** Bases of Halton's sequence, and how many of its first points are left out. */
const BASES = [2, 3, 5] as const;
const LEFT_OUT = 20;
/** Factors are moved by so many standard deviations to see what hangs on them. */
const MOVE = 0.9;

/** What an eye errs in judging a moment, and what a moment has of its own [sd of ln]; assumed. */
const EYE = 0.17;
const OWN = 0.1;
const SEES = Math.hypot(EYE, OWN);
/** Answers that are slips: the wrong coat, the wrong button. */
const SLIPS = 0.1;
/** Answers offered at a look. */
const OFFERED = 3;
/** How far one coat's air is from the shop's [sd of ln]. */
const COAT_AIR = 0.1;
/** How far a coat is off the film that is told, laid by eye and weighed [sd of ln]; assumed. */
const FILM = { byEye: 0.12, weighed: 0.05 } as const;
/** An answer this unlikely is asked back. */
const UNLIKELY = 0.1;
/** Fewer draws than this carry too little: they are drawn anew round what is believed. */
const FEW = 50;

/** What is believed of a coat by the tables, its film laid by eye or weighed. */
export const usualPrior = (shop: Spread, weighed: boolean): Prior => ({
  air: { mean: shop.mean, sd: Math.hypot(shop.sd, COAT_AIR) },
  dry: { mean: 0, sd: PRIOR_SPREAD.dry },
  thickness: { mean: 0, sd: weighed ? FILM.weighed : FILM.byEye },
});

/** Halton's sequence: the digits of a count behind the point, in some base. */
function halton(index: number, base: number): number {
  let share = 0;
  for (let i = index, unit = 1 / base; i > 0; i = Math.floor(i / base), unit /= base)
    share += (i % base) * unit;
  return share;
}

/** Standard normal draws, a row a factor: the same each time. */
const STANDARD: readonly Float64Array[] = BASES.map((base) =>
  Float64Array.from({ length: DRAWS }, (_, i) => normalQuantile(halton(i + LEFT_OUT + 1, base))),
);

type Vector = readonly number[];
type Moments = Readonly<Record<LiveState, number | null>>;

/** Moments of a coat, ln of s since laid, were its factors such. */
function momentsAt(basis: Basis, stepId: string, factors: Vector): Moments {
  const { learned } = basis.shop;
  const own = Object.fromEntries(COAT_FACTORS.map((key, i) => [key, factors[i]!])) as unknown as StepFactors;
  const there = learned ?? { keys: [], mean: [], covariance: [] };
  const course = courseOf({
    ...basis,
    shop: { ...basis.shop, learned: { ...there, steps: { ...there.steps, [stepId]: own } } },
  });
  const i = course.films.findIndex(({ step }) => step.id === stepId);
  const film = course.films[i];
  const since = (at: number | null | undefined): number | null =>
    film === undefined || at == null || at <= film.laidAt ? null : Math.log(at - film.laidAt);
  return Object.fromEntries(
    LIVE_STATES.map((state) => [
      state,
      since(state === 'first-cracks' ? course.cracks[i]?.firstAt : film?.openStates[state]),
    ]),
  ) as Record<LiveState, number | null>;
}

/** How the moments hang on the factors, by moving each and each two of them: ten courses. */
function formsOf(basis: Basis, stepId: string, prior: Prior): Partial<Record<LiveState, Form>> {
  const mean = COAT_FACTORS.map((key) => prior[key].mean);
  const step = COAT_FACTORS.map((key) => MOVE * prior[key].sd);
  const at = (...moves: readonly (readonly [number, number])[]): Moments =>
    momentsAt(
      basis,
      stepId,
      mean.map((value, i) => moves.reduce((sum, [k, by]) => (k === i ? sum + by * step[i]! : sum), value)),
    );
  const middle = at();
  const up = COAT_FACTORS.map((_, i) => at([i, 1]));
  const down = COAT_FACTORS.map((_, i) => at([i, -1]));
  const both = COAT_FACTORS.map((_, i) => COAT_FACTORS.map((__, k) => (k > i ? at([i, 1], [k, 1]) : null)));
  const forms: Partial<Record<LiveState, Form>> = {};
  for (const state of LIVE_STATES) {
    const all = [middle, ...up, ...down, ...both.flat().filter((one) => one !== null)];
    // A state that comes only with some of the factors has no moment to speak of.
    if (all.some((one) => one[state] === null)) continue;
    const a = middle[state]!;
    const b = step.map((h, i) => (up[i]![state]! - down[i]![state]!) / (2 * h));
    const c = step.map((h, i) =>
      step.map((g, k) => {
        if (i === k) return (up[i]![state]! - 2 * a + down[i]![state]!) / (h * h);
        const [first, second] = [Math.min(i, k), Math.max(i, k)];
        return (both[first]![second]![state]! - up[first]![state]! - up[second]![state]! + a) / (h * g);
      }),
    );
    forms[state] = { a, b, c };
  }
  return forms;
}

function valueOf({ a, b, c }: Form, x: Vector): number {
  let value = a;
  for (let i = 0; i < x.length; i++) {
    value += b[i]! * x[i]!;
    for (let k = 0; k < x.length; k++) value += 0.5 * c[i]![k]! * x[i]! * x[k]!;
  }
  return value;
}

/**
 * What is believed of a coat once it is laid.
 * @param basis - with the coat as it was laid: its moment, its air, its film
 * @throws InputError as `courseOf`
 */
export function believe(basis: Basis, stepId: string, prior: Prior): Belief {
  return drawn(
    stepId,
    formsOf(basis, stepId, prior),
    COAT_FACTORS.map((key) => prior[key].mean),
    COAT_FACTORS.map((key, i) => STANDARD[i]!.map((z) => prior[key].mean + prior[key].sd * z)),
  );
}

function drawn(
  stepId: string,
  forms: Partial<Record<LiveState, Form>>,
  centre: Vector,
  values: readonly Float64Array[],
): Belief {
  const moments: Partial<Record<LiveState, Float64Array>> = {};
  for (const state of LIVE_STATES) {
    const form = forms[state];
    if (form === undefined) continue;
    moments[state] = Float64Array.from({ length: DRAWS }, (_, i) =>
      valueOf(
        form,
        values.map((of, k) => of[i]! - centre[k]!),
      ),
    );
  }
  return {
    stepId,
    forms,
    centre,
    factors: Object.fromEntries(COAT_FACTORS.map((key, i) => [key, values[i]!])) as Record<
      CoatFactor,
      Float64Array
    >,
    moments,
    weights: new Float64Array(DRAWS).fill(1 / DRAWS),
  };
}

/**
 * The same coat in a shop whose air is believed otherwise than when it was drawn: draws weigh as much more as the new
 * prior has them likelier than the old.
 */
export function inShopAir(belief: Belief, drawnIn: Spread, shop: Spread): Belief {
  if (drawnIn === shop) return belief;
  const [was, is] = [drawnIn, shop].map(({ mean, sd }) => ({ mean, variance: sd ** 2 + COAT_AIR ** 2 }));
  const off = (x: number, { mean, variance }: { mean: number; variance: number }): number =>
    (x - mean) ** 2 / variance;
  const { air } = belief.factors;
  return weighed(
    belief,
    belief.weights.map((weight, i) => weight * Math.exp(0.5 * (off(air[i]!, was!) - off(air[i]!, is!)))),
  );
}

const density = (z: number): number => Math.exp(-0.5 * z * z) / Math.sqrt(2 * Math.PI);

/** How likely a look is if a draw were true, slips left out; of what is told as it happens, the density. */
function likely({ moments }: Belief, { since, after, before, now }: Look, draw: number): number {
  const m = Math.log(Math.max(1, since));
  const from = after === null ? null : moments[after]?.[draw];
  const to = before === null ? null : moments[before]?.[draw];
  if (now) return from == null ? 1 : density((m - from) / SEES) / SEES;
  const past = from == null ? 1 : normalCdf((m - from) / SEES);
  const gone = to == null ? 0 : normalCdf((m - to) / SEES);
  return Math.max(0, past - gone);
}

/** Whether a look says anything: its states come, as far as is known. */
const tells = ({ moments }: Belief, { after, before }: Look): boolean =>
  (after !== null && moments[after] !== undefined) || (before !== null && moments[before] !== undefined);

/** What is believed after a look: draws it would be likely in weigh more; one in ten looks is taken for a slip. */
export function heard(belief: Belief, look: Look): Belief {
  if (!tells(belief, look)) return belief;
  const slip = look.now ? 0.5 : 1 / OFFERED;
  const weights = belief.weights.map(
    (weight, i) => weight * ((1 - SLIPS) * likely(belief, look, i) + SLIPS * slip),
  );
  return weighed(belief, weights);
}

/** A belief with other weights, whatever they sum to; drawn anew where too few draws carry it. */
function weighed(belief: Belief, weights: Float64Array): Belief {
  const sum = weights.reduce((all, one) => all + one, 0);
  const next: Belief = { ...belief, weights: weights.map((one) => one / sum) };
  const effective = 1 / next.weights.reduce((all, one) => all + one * one, 0);
  return effective < FEW ? drawnAnew(next) : next;
}

/** Fresh draws with the weighted mean and covariance of those that are left: a normal in their place. */
function drawnAnew(belief: Belief): Belief {
  const values = COAT_FACTORS.map((key) => belief.factors[key]);
  const means = values.map((of) => meanOf(of, belief.weights));
  const covariance = values.map((a, i) =>
    values.map((b, k) => {
      let sum = 0;
      for (let d = 0; d < DRAWS; d++) sum += belief.weights[d]! * (a[d]! - means[i]!) * (b[d]! - means[k]!);
      return sum;
    }),
  );
  const root = cholesky(covariance);
  return drawn(
    belief.stepId,
    belief.forms,
    belief.centre,
    means.map((mean, i) =>
      Float64Array.from({ length: DRAWS }, (_, d) =>
        root[i]!.reduce((sum, of, k) => sum + of * STANDARD[k]![d]!, mean),
      ),
    ),
  );
}

/** Lower triangle whose product with its transpose is a covariance. */
function cholesky(matrix: readonly Vector[]): number[][] {
  const root = matrix.map((row) => row.map(() => 0));
  for (let i = 0; i < matrix.length; i++)
    for (let k = 0; k <= i; k++) {
      let sum = matrix[i]![k]!;
      for (let j = 0; j < k; j++) sum -= root[i]![j]! * root[k]![j]!;
      root[i]![k] = i === k ? Math.sqrt(Math.max(sum, 1e-12)) : sum / root[k]![k]!;
    }
  return root;
}

function meanOf(values: Float64Array, weights: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += weights[i]! * values[i]!;
  return sum;
}

function spreadOf(values: Float64Array, weights: Float64Array): Spread {
  const mean = meanOf(values, weights);
  let variance = 0;
  for (let i = 0; i < values.length; i++) variance += weights[i]! * (values[i]! - mean) ** 2;
  return { mean, sd: Math.sqrt(variance) };
}

/** A factor as it is believed now. */
export const factorBelieved = (belief: Belief, factor: CoatFactor): Spread =>
  spreadOf(belief.factors[factor], belief.weights);

/** The factors of a coat, for a forecast to go on with: `learned.steps`. */
export const stepFactors = (belief: Belief): StepFactors => ({
  air: factorBelieved(belief, 'air').mean,
  dry: factorBelieved(belief, 'dry').mean,
  thickness: factorBelieved(belief, 'thickness').mean,
});

/** When a state comes, as it is believed; null for one that does not come, or of which that is not known. */
export function momentBelieved(belief: Belief, state: LiveState): Moment | null {
  const moments = belief.moments[state];
  if (moments === undefined) return null;
  const { mean, sd } = spreadOf(moments, belief.weights);
  const reach = EIGHTY_PER_CENT * Math.hypot(sd, OWN);
  return { at: Math.exp(mean), low: Math.exp(mean - reach), high: Math.exp(mean + reach) };
}

/** How likely a look is by what is believed, 0 … 1; of what is told as it happens, how far out it lies. */
export function likelihood(belief: Belief, look: Look): number {
  if (!tells(belief, look)) return 1;
  if (look.now && look.after !== null) {
    const moments = belief.moments[look.after];
    if (moments === undefined) return 1;
    const { mean, sd } = spreadOf(moments, belief.weights);
    const z = Math.abs(Math.log(Math.max(1, look.since)) - mean) / Math.hypot(sd, SEES);
    return 2 * (1 - normalCdf(z));
  }
  return belief.weights.reduce((sum, weight, i) => sum + weight * likely(belief, look, i), 0);
}

/** Whether to ask "look again?" before a look counts. */
export const asksBack = (belief: Belief, look: Look): boolean => likelihood(belief, look) < UNLIKELY;

/** Moments that are tried, as shares of the one that is believed. */
const TRIED = Array.from({ length: 17 }, (_, i) => 0.5 + 0.05 * i);

/**
 * When to look next for a state: where the answer, whatever it is, leaves least in doubt.
 * @param from - not sooner [s since laid]
 * @returns s since laid; null where the state is not known to come
 */
export function nextLook(belief: Belief, state: LiveState, from: number): number | null {
  const believed = momentBelieved(belief, state);
  const moments = belief.moments[state];
  if (believed === null || moments === undefined) return null;
  let best: { at: number; doubt: number } | null = null;
  for (const share of TRIED) {
    const at = Math.max(from, share * believed.at);
    const doubt = ([true, false] as const).reduce((sum, come) => {
      const look: Look = { since: at, after: come ? state : null, before: come ? null : state, now: false };
      const chance = likelihood(belief, look);
      if (chance < 1e-6) return sum;
      const weights = belief.weights.map((weight, i) => (weight * likely(belief, look, i)) / chance);
      return sum + chance * spreadOf(moments, weights).sd;
    }, 0);
    if (best === null || doubt < best.doubt - 1e-12) best = { at, doubt };
  }
  return best!.at;
}

/** The shop's air today, after a coat: each coat's own differs a little from it. */
export function shopAirAfter(shop: Spread, belief: Belief): Spread {
  const { mean, sd } = factorBelieved(belief, 'air');
  const variance = shop.sd ** 2;
  const gain = variance / (variance + COAT_AIR ** 2);
  return {
    mean: shop.mean + gain * (mean - shop.mean),
    sd: Math.sqrt(variance * (1 - gain) + gain ** 2 * sd ** 2),
  };
}
