import { type Basis } from '../basis';
import { handsOn } from '../course';
import { forecast, type Forecast } from '../forecast';
import { type Area } from '../maps';
import { descend, pointAt } from '../numeric/fit';
import { underShare } from '../outcome';
import { figureValues } from '../readout';
import { uniform } from '../numeric/hash';
import { type PanelPlan } from '../plan';
import { handled, type Knob, knobsOf, withSettings } from './settings';
import {
  type Candidate,
  type Recipe,
  type Setting,
  type Wish,
  WISH_KEYS,
  WISH_TOLERANCE,
  type WishKey,
} from './types';

/*
 * From a wished look to recipes: for every way of working the numbers a hand can set are moved until the closed form
 * comes as near to the wish as that way can. Least squares by Levenberg and Marquardt (Marquardt 1963, J. SIAM 11:431)
 * in scaled knobs, from the usual recipe and from a few others spread over the ranges; what nothing in the wish decides
 * is held near what is usual.
 */

/** Starts beside the usual recipe; of all of them the best few are followed. */
const STARTS = 10;
const FOLLOWED = 3;
const ITERATIONS = 9;
/** Pull of every knob towards the usual, in wishes' tolerances per whole range. */
const USUAL = 0.12;
/** Step of the numeric slopes, in knob ranges. */
const SLOPE = 0.012;
/** What a wish counts that the plan gives nothing of: far off, but not without end. */
const MISSING = 6;
/** Misfit is cut so that one wish out of reach does not drown the others. */
const MOST = 8;

/** What a plan, or a zone of it, gives of what can be wished for. */
export function wishValues(result: Forecast, area: Area = 'panel'): Record<WishKey, number | null> {
  const figures = figureValues(result, area);
  return {
    spacing: figures.spacing,
    opening: figures.opening,
    chips: figures.chips,
    worn: figures.worn,
    under: underShare(result, area),
  };
}

const LENGTHS: readonly WishKey[] = ['spacing', 'opening'];

/** How far a value is off what is wanted, in tolerances; lengths by their ratio, shares in points. */
export function offWish(key: WishKey, value: number, wanted: number): number {
  return LENGTHS.includes(key)
    ? Math.log(Math.max(value, 1e-9) / wanted) / Math.log1p(WISH_TOLERANCE[key])
    : (value - wanted) / WISH_TOLERANCE[key];
}

/** How far off each wish is, in tolerances. */
function residualsOf(result: Forecast, wish: Wish, keys: readonly WishKey[]): number[] {
  const values = wishValues(result);
  return keys.map((key) => {
    const value = values[key];
    const wanted = wish[key]!;
    if (value === null) return MISSING;
    const off = offWish(key, value, wanted);
    return Math.max(-MOST, Math.min(MOST, off));
  });
}

/** A knob's value at a share of its range; lengths, waits and work go by ratios. */
function valueAt({ kind, low, high }: Knob, share: number): number {
  const s = Math.min(1, Math.max(0, share));
  return kind === 'resist' || kind === 'cover' ? low + s * (high - low) : low * (high / low) ** s;
}

function shareAt({ kind, low, high, usual }: Knob): number {
  const inside = Math.min(high, Math.max(low, usual));
  return kind === 'resist' || kind === 'cover'
    ? (inside - low) / (high - low)
    : Math.log(inside / low) / Math.log(high / low);
}

/** The best numbers for one way of working. */
function settle(basis: Basis, wish: Wish, seed: number): { settings: Setting[]; plan: PanelPlan } {
  const { plan } = basis;
  const knobs = knobsOf(basis);
  const keys = WISH_KEYS.filter((key) => wish[key] !== undefined);
  const usual = knobs.map(shareAt);
  const settingsAt = (shares: readonly number[]): Setting[] =>
    knobs.map(({ stepId, kind, ...range }, k) => ({
      stepId,
      kind,
      value: valueAt({ stepId, kind, ...range }, shares[k]!),
    }));
  const residualsAt = (shares: readonly number[]): number[] => [
    ...residualsOf(forecast({ ...basis, plan: withSettings(plan, settingsAt(shares)) }), wish, keys),
    ...shares.map((share, k) => USUAL * (share - usual[k]!)),
  ];
  const starts = [
    usual,
    ...Array.from({ length: STARTS }, (_, s) => knobs.map((_, k) => uniform(31 * s + k, seed, 9))),
  ];
  const followed = starts
    .map((shares) => pointAt(shares, residualsAt(shares)))
    .sort((a, b) => a.cost - b.cost)
    .slice(0, FOLLOWED);
  let best = followed[0]!;
  for (const start of followed) {
    const end = descend(start, residualsAt, { low: 0, high: 1, slope: SLOPE, iterations: ITERATIONS });
    if (end.cost < best.cost) best = end;
    if (squares(best.residuals.slice(0, keys.length)) < 0.05) break;
  }
  // Told and judged as a hand can keep it: what hangs on the last digit is no recipe.
  const settings = settingsAt(best.at).map(handled);
  return { settings, plan: withSettings(plan, settings) };
}

const squares = (values: readonly number[]): number => values.reduce((sum, value) => sum + value * value, 0);

/** How near a forecast comes to a wish. */
export function wishOutcomes(result: Forecast, wish: Wish): Pick<Recipe, 'outcomes' | 'met' | 'misfit'> {
  const values = wishValues(result);
  const keys = WISH_KEYS.filter((key) => wish[key] !== undefined);
  const residuals = residualsOf(result, wish, keys);
  const near = (key: WishKey, k: number): boolean => values[key] !== null && Math.abs(residuals[k]!) <= 1;
  return {
    outcomes: Object.fromEntries(keys.map((key, k) => [key, { value: values[key], met: near(key, k) }])),
    met: keys.every(near),
    misfit: keys.length === 0 ? 0 : Math.sqrt(squares(residuals) / keys.length),
  };
}

/** What comes off or is worn where the wish says nothing of the kind. */
function unasked(result: Forecast, wish: Wish): number {
  const { chips, worn } = wishValues(result);
  if (wish.under !== undefined) return 0;
  return (wish.chips === undefined ? (chips ?? 0) : 0) + (wish.worn === undefined ? (worn ?? 0) : 0);
}

function recipeOf(candidate: Candidate, wish: Wish, seed: number): Recipe {
  const { plan, settings } = settle(candidate.basis, wish, seed);
  const result = forecast({ ...candidate.basis, plan });
  return {
    key: candidate.key,
    plan,
    settings,
    ...wishOutcomes(result, wish),
    unasked: unasked(result, wish),
    risks: result.findings.filter(({ level }) => level === 'stop' || level === 'warn'),
    total: result.readyAt,
    handsOn: plan.steps.reduce((sum, step) => sum + handsOn(step, plan.panel), 0),
  };
}

/** All of a panel coming off unasked counts as much as this many warnings. */
const UNASKED = 5;

/** How recipes are put in order: those that meet the wish first, then by what stops, misfit, risk, time,
 * what comes off unasked, and handicap. */
const order =
  (handicaps: ReadonlyMap<string, number>) =>
  (a: Recipe, b: Recipe): number => {
    const rank = (recipe: Recipe): number =>
      (handicaps.get(recipe.key) ?? 0) +
      UNASKED * recipe.unasked +
      (recipe.met ? 0 : 100 + 10 * Math.min(9, recipe.misfit)) +
      4 * recipe.risks.filter(({ level }) => level === 'stop').length +
      recipe.risks.filter(({ level }) => level === 'warn').length +
      (recipe.total === null ? 20 : recipe.total / 86400 / 4);
    return rank(a) - rank(b);
  };

/**
 * Recipes of several ways of working for a wish, the best first. One step of the generator is one way of working, so
 * that a caller can tell how far it is and stop.
 * @param deadline - the whole thing must be dry by then [s from the start]; ways that cannot are left out
 * @throws InputError as `forecast`
 */
export function* solveStepwise(
  wish: Wish,
  candidates: readonly Candidate[],
  deadline = Infinity,
): Generator<{ done: number; of: number }, Recipe[]> {
  const recipes: Recipe[] = [];
  for (const [done, candidate] of candidates.entries()) {
    yield { done, of: candidates.length };
    const recipe = recipeOf(candidate, wish, candidate.basis.plan.seed);
    if (recipe.total !== null ? recipe.total <= deadline : deadline === Infinity) recipes.push(recipe);
  }
  return recipes.sort(order(new Map(candidates.map(({ key, handicap }) => [key, handicap ?? 0]))));
}

/** All recipes at once. */
export function solve(wish: Wish, candidates: readonly Candidate[], deadline = Infinity): Recipe[] {
  const steps = solveStepwise(wish, candidates, deadline);
  for (;;) {
    const next = steps.next();
    if (next.done === true) return next.value;
  }
}
