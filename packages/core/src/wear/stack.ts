import { normalCdf } from '../numeric/normal';

/*
 * What shows on top, as shares of the area. Layer 0 is the panel, 1 … n the films and resists in the order laid.
 *
 * At every point of the panel some layers lie over each other; which ones differs from point to point: a coat covers
 * only in blotches, a chip takes two coats away, a later coat covers the hole. Points with the same layer on top are
 * treated alike: for each layer the state keeps the share of points it tops, and the distribution of what lies
 * directly under it. So a stack costs n² and not 2ⁿ; a simulation of explicit points agrees (stack.spec.ts).
 */
export interface StackState {
  readonly count: number;
  /** Share of the area that each layer tops. */
  readonly top: Float64Array;
  /** Row t: what lies directly below layer t where it lies, adding up to 1; row 0 is empty. */
  readonly under: readonly Float64Array[];
  /** Share of each layer's top area that is floor of an open crack. */
  readonly floor: Float64Array;
}

export function createStack(count: number): StackState {
  const top = new Float64Array(count + 1);
  top[0] = 1;
  return {
    count,
    top,
    under: Array.from({ length: count + 1 }, () => new Float64Array(count + 1)),
    floor: new Float64Array(count + 1),
  };
}

/**
 * Lays layer `k` over a share of the area.
 * @param share - of the ordinary surface
 * @param intoCracks - share of open crack floors that it fills
 * @param hollow - a crack under it stays a hollow: clear coats and waxes lie in it and do not fill it
 */
export function layInto(
  state: StackState,
  k: number,
  share: number,
  intoCracks = share,
  hollow = false,
): void {
  const { top, under, floor } = state;
  const below = under[k]!;
  let laid = 0;
  let hollows = 0;
  for (let t = 0; t < k; t++) {
    const cracks = top[t]! * floor[t]!;
    const plain = top[t]! - cracks;
    const here = plain * share + cracks * intoCracks;
    below[t] = here;
    laid += here;
    hollows += cracks * intoCracks;
    top[t] = top[t]! - here;
    floor[t] = top[t]! > 1e-12 ? (cracks * (1 - intoCracks)) / top[t]! : 0;
  }
  top[k] = laid;
  floor[k] = hollow && laid > 1e-12 ? hollows / laid : 0;
  if (laid > 1e-12) for (let t = 0; t < k; t++) below[t] = below[t]! / laid;
  else below[0] = 1;
}

/** Shares below this are not followed. */
const NOTHING = 1e-7;

/** Share of the points topped by each layer that have layer `k` in their stack. */
function holding(state: StackState, k: number): Float64Array {
  const { count, under } = state;
  const has = new Float64Array(count + 1);
  has[k] = 1;
  for (let t = k + 1; t <= count; t++) {
    const row = under[t]!;
    let sum = 0;
    for (let s = k; s < t; s++) sum += row[s]! * has[s]!;
    has[t] = sum;
  }
  return has;
}

/**
 * Takes layer `k` off with all that lies over it, on a share of the points that have it.
 * @returns share of the area that came off
 */
export function lift(state: StackState, k: number, share: number): number {
  if (share < NOTHING) return 0;
  const { count, top, under, floor } = state;
  const has = holding(state, k);
  let moved = 0;
  for (let t = k; t <= count; t++) {
    const here = top[t]! * has[t]! * share;
    top[t] = top[t]! - here;
    moved += here;
  }
  for (let s = 0; s < k; s++) {
    const here = moved * under[k]![s]!;
    const total = top[s]! + here;
    floor[s] = total > 1e-12 ? (floor[s]! * top[s]!) / total : 0;
    top[s] = total;
  }
  // Points that kept their stack hold the layer less often than before.
  for (let t = k + 1; t <= count; t++) {
    const row = under[t]!;
    const left = 1 - has[t]! * share;
    if (left < 1e-12) continue;
    for (let s = k; s < t; s++) row[s] = (row[s]! * (1 - has[s]! * share)) / left;
    for (let s = 0; s < k; s++) row[s] = row[s]! / left;
  }
  return moved;
}

/** Opens cracks through layer `k` and what lies over it on a share of the points that have it. */
export function openCracks(state: StackState, k: number, share: number): void {
  if (share < NOTHING) return;
  const { top, under, floor } = state;
  const before = Float64Array.from(top);
  const moved = lift(state, k, share);
  if (moved <= 0) return;
  for (let s = 0; s < k; s++) {
    const added = moved * under[k]![s]!;
    if (added > 0) floor[s] = (floor[s]! * before[s]! + added) / (before[s]! + added);
  }
}

/** A depth that varies lognormally over the surface. */
class Depths {
  constructor(
    private readonly median: number,
    private readonly spread: number,
  ) {}

  /** Share of the surface on which it goes deeper than a cost. */
  beyond(cost: number): number {
    return cost <= 0 ? 1 : normalCdf(Math.log(this.median / cost) / this.spread);
  }

  /** How far it goes beyond a cost, where it ends before another, as a mean over all of the surface. */
  within(from: number, to: number): number {
    const upTo = (cost: number): number =>
      cost <= 0 ? 0 : normalCdf(Math.log(cost / this.median) / this.spread - this.spread);
    const mean = this.median * Math.exp(0.5 * this.spread ** 2);
    return Math.max(0, mean * (upTo(to) - upTo(from)) - from * (this.beyond(from) - this.beyond(to)));
  }
}

/**
 * Rubs a depth off that varies lognormally over the surface, from the top downwards.
 *
 * Exact for the top layer and what lies directly below it; where a layer comes to light from several others, what it
 * cost to get there is taken as their mean.
 * @param median - depth [µm] in a layer of resistance 1
 * @param spread - of its logarithm, above 0
 * @param thickness - of each layer [µm]; worn in place
 * @param resistance - of each layer; Infinity where the tool does nothing. The panel itself is never worn through.
 * @returns share of the area on which another layer came to light
 */
export function abrade(
  state: StackState,
  median: number,
  spread: number,
  thickness: Float64Array,
  resistance: Float64Array,
): number {
  if (!(median > 0)) return 0;
  const { count, top, under, floor } = state;
  const depths = new Depths(median, spread);
  const next = new Float64Array(count + 1);
  const worn = new Float64Array(count + 1);
  /** What came to light by this rubbing, and what it cost to get there. */
  const bared = new Float64Array(count + 1);
  const paid = new Float64Array(count + 1);
  let moved = 0;
  const rubbed = (t: number, mass: number, from: number): number => {
    const to = from + thickness[t]! * resistance[t]!;
    const reached = depths.beyond(from);
    if (mass <= NOTHING || reached <= 0) {
      next[t] = next[t]! + mass;
      return 0;
    }
    const all = mass / reached;
    const goes = all * depths.beyond(to);
    next[t] = next[t]! + mass - goes;
    if (Number.isFinite(resistance[t]!) && resistance[t]! > 0)
      worn[t] = worn[t]! + (all * depths.within(from, to)) / resistance[t]!;
    for (let s = 0; s < t && goes > 0; s++) {
      const share = goes * under[t]![s]!;
      if (share <= 0) continue;
      paid[s] = (paid[s]! * bared[s]! + to * share) / (bared[s]! + share);
      bared[s] = bared[s]! + share;
    }
    return goes;
  };
  for (let t = count; t >= 1; t--) {
    // Crack floors lie out of reach of what rubs on the surface.
    const sheltered = floor[t]! * top[t]!;
    next[t] = next[t]! + sheltered;
    moved += rubbed(t, top[t]! - sheltered, 0);
    rubbed(t, bared[t]!, paid[t]!);
  }
  next[0] = top[0]! + bared[0]!;
  for (let t = 0; t <= count; t++) {
    const cracks = Math.min(top[t]! * floor[t]!, next[t]!);
    floor[t] = next[t]! > 1e-12 ? cracks / next[t]! : 0;
    if (t > 0 && next[t]! > 1e-9) {
      thickness[t] = Math.max(0.3 * thickness[t]!, thickness[t]! - worn[t]! / next[t]!);
    }
  }
  top.set(next);
  return moved;
}

/**
 * Share of the area on which each layer is seen, looking through clear ones; adds up to 1.
 * @param opacity - of each layer, 0 clear … 1 hiding; the panel hides
 */
export function visibleShares(state: StackState, opacity: Float64Array): Float64Array {
  const { count, top, under } = state;
  const seen = Float64Array.from(top);
  for (let t = count; t >= 1; t--) {
    const through = seen[t]! * (1 - opacity[t]!);
    if (through <= 0) continue;
    seen[t] = seen[t]! - through;
    for (let s = 0; s < t; s++) seen[s] = seen[s]! + through * under[t]![s]!;
  }
  return seen;
}
