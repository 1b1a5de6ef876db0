import { type Basis } from '../basis';
import { type Course, courseOf } from '../course';
import { factorKeyOf, type Learned, PRIOR_SPREAD, type StepFactors } from '../media';
import { EIGHTY_PER_CENT, normalCdf, normalQuantile } from '../numeric/normal';
import {
  type Belief,
  type Believed,
  type BelievedFactor,
  COAT_FACTORS,
  CRACK_FACTORS,
  type CrackFactor,
  type Form,
  LIVE_FIGURES,
  LIVE_STATES,
  type LiveState,
  type Look,
  type Moment,
  type Prior,
  type Spread,
} from './types';

/*
 * What is believed of a coat while it dries. Its moments hang on three factors (the shop's air, how water moves in the
 * medium, how thick it lies), of a coat that cracks also on the slip below it, its strain and its toughness, and so do the
 * spacing and opening of its cracks; how they do is worked out once, as a quadratic form of logarithms. A thousand draws of the
 * factors carry the belief; every look weighs them anew. No chance: the same looks mean the same belief.
 */

/** Draws of a belief. */
const DRAWS = 1024;
/** Bases of Halton's sequence, and how many of its first points are left out. */
const BASES = [2, 3, 5, 7, 11, 13] as const;
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
type Answers = Readonly<Record<Believed, number | null>>;
const ANSWERS: readonly Believed[] = [...LIVE_STATES, ...LIVE_FIGURES];

/** The coat's course, and which of its films it is, were its factors such. */
function courseAt(basis: Basis, stepId: string, own: StepFactors): { course: Course; index: number } {
  const there: Learned = basis.shop.learned ?? { keys: [], mean: [], covariance: [] };
  const course = courseOf({
    ...basis,
    shop: { ...basis.shop, learned: { ...there, steps: { ...there.steps, [stepId]: own } } },
  });
  return { course, index: course.films.findIndex(({ step }) => step.id === stepId) };
}

/** Moments of a coat, ln of s since laid, and its cracks, ln of m, were its factors such. */
function answersAt(basis: Basis, stepId: string, names: readonly BelievedFactor[], factors: Vector): Answers {
  const own = Object.fromEntries(names.map((key, i) => [key, factors[i]!])) as unknown as StepFactors;
  const { course, index } = courseAt(basis, stepId, own);
  const film = course.films[index];
  const cracks = course.cracks[index];
  const since = (at: number | null | undefined): number | null =>
    film === undefined || at == null || at <= film.laidAt ? null : Math.log(at - film.laidAt);
  // What does not crack has no figures, whatever they would be.
  const long = (um: number | undefined): number | null =>
    cracks?.firstAt == null || !(um! > 0) ? null : Math.log(um! * 1e-6);
  return {
    ...(Object.fromEntries(
      LIVE_STATES.map((state) => [
        state,
        since(state === 'first-cracks' ? cracks?.firstAt : film?.openStates[state]),
      ]),
    ) as Record<LiveState, number | null>),
    spacing: long(cracks?.pattern.spacingUm),
    opening: long(cracks?.pattern.openingUm),
  };
}

/** A factor's name with what is believed of it beforehand. */
type Priors = readonly (readonly [BelievedFactor, Spread])[];

/** What is believed beforehand of a coat that cracks by itself; null of another. */
function crackPriors(basis: Basis, stepId: string): Priors | null {
  const { course, index } = courseAt(basis, stepId, { air: 0, dry: 0, thickness: 0 });
  if (course.cracks[index]?.firstAt == null) return null;
  const learned = basis.shop.learned;
  const { medium } = course.films[index]!;
  const below = course.films[index - 1]?.medium ?? medium;
  const of = (kind: CrackFactor): Spread => {
    const at = learned?.keys.indexOf(factorKeyOf(learned, kind, kind === 'slip' ? below : medium)) ?? -1;
    return { mean: 0, sd: at < 0 ? PRIOR_SPREAD[kind] : Math.sqrt(learned!.covariance[at]![at]!) };
  };
  return CRACK_FACTORS.map((kind) => [kind, of(kind)] as const);
}

/** How moments and cracks hang on the factors, by moving each and each two of them: ten courses, or 28 of six factors. */
function formsOf(basis: Basis, stepId: string, priors: Priors): Partial<Record<Believed, Form>> {
  const names = priors.map(([name]) => name);
  const mean = priors.map(([, prior]) => prior.mean);
  const step = priors.map(([, prior]) => MOVE * prior.sd);
  const at = (...moves: readonly (readonly [number, number])[]): Answers =>
    answersAt(
      basis,
      stepId,
      names,
      mean.map((value, i) => moves.reduce((sum, [k, by]) => (k === i ? sum + by * step[i]! : sum), value)),
    );
  const middle = at();
  const up = names.map((_, i) => at([i, 1]));
  const down = names.map((_, i) => at([i, -1]));
  const both = names.map((_, i) => names.map((__, k) => (k > i ? at([i, 1], [k, 1]) : null)));
  const forms: Partial<Record<Believed, Form>> = {};
  for (const answer of ANSWERS) {
    const all = [middle, ...up, ...down, ...both.flat().filter((one) => one !== null)];
    // What comes only with some of the factors has no moment to speak of.
    if (all.some((one) => one[answer] === null)) continue;
    const a = middle[answer]!;
    const b = step.map((h, i) => (up[i]![answer]! - down[i]![answer]!) / (2 * h));
    const c = step.map((h, i) =>
      step.map((g, k) => {
        if (i === k) return (up[i]![answer]! - 2 * a + down[i]![answer]!) / (h * h);
        const [first, second] = [Math.min(i, k), Math.max(i, k)];
        return (both[first]![second]![answer]! - up[first]![answer]! - up[second]![answer]! + a) / (h * g);
      }),
    );
    forms[answer] = { a, b, c };
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
  const coat: Priors = COAT_FACTORS.map((name) => [name, prior[name]] as const);
  const cracks = crackPriors(basis, stepId);
  if (cracks !== null) {
    const all = [...coat, ...cracks];
    const forms = formsOf(basis, stepId, all);
    // Where a tougher film would not crack at all, only what dries is carried.
    if (forms['first-cracks'] !== undefined) return begun(stepId, forms, all);
  }
  return begun(stepId, formsOf(basis, stepId, coat), coat);
}

const begun = (stepId: string, forms: Partial<Record<Believed, Form>>, priors: Priors): Belief =>
  drawn(
    stepId,
    forms,
    priors.map(([name]) => name),
    priors.map(([, { mean }]) => mean),
    priors.map(([, { mean, sd }], i) => STANDARD[i]!.map((z) => mean + sd * z)),
  );

function drawn(
  stepId: string,
  forms: Partial<Record<Believed, Form>>,
  names: readonly BelievedFactor[],
  centre: Vector,
  values: readonly Float64Array[],
): Belief {
  const moments: Partial<Record<Believed, Float64Array>> = {};
  for (const answer of ANSWERS) {
    const form = forms[answer];
    if (form === undefined) continue;
    moments[answer] = Float64Array.from({ length: DRAWS }, (_, i) =>
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
    factors: Object.fromEntries(names.map((key, i) => [key, values[i]!])) as unknown as Belief['factors'],
    moments,
    weights: new Float64Array(DRAWS).fill(1 / DRAWS),
  };
}

/** The factors a belief is held in. */
const namesOf = ({ factors }: Belief): BelievedFactor[] =>
  [...COAT_FACTORS, ...CRACK_FACTORS].filter((name) => factors[name] !== undefined);

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
  const names = namesOf(belief);
  const values = names.map((key) => belief.factors[key]!);
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
    names,
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

/** A factor as it is believed now; of cracks only where a belief holds them. */
export const factorBelieved = (belief: Belief, factor: BelievedFactor): Spread =>
  spreadOf(belief.factors[factor]!, belief.weights);

/** The factors of a coat, for a forecast to go on with: `learned.steps`. */
export const stepFactors = (belief: Belief): StepFactors =>
  Object.fromEntries(
    namesOf(belief).map((name) => [name, factorBelieved(belief, name).mean]),
  ) as unknown as StepFactors;

/**
 * When a state comes, or what a coat cracks into, as it is believed; null for what does not come, or of which that is not
 * known.
 */
export function momentBelieved(belief: Belief, of: Believed): Moment | null {
  const values = belief.moments[of];
  if (values === undefined) return null;
  const { mean, sd } = spreadOf(values, belief.weights);
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
