import { normalQuantile } from '../numeric/normal';

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
 */
export function layInto(state: StackState, k: number, share: number, intoCracks = share): void {
  const { top, under, floor } = state;
  const below = under[k]!;
  let laid = 0;
  for (let t = 0; t < k; t++) {
    const cracks = top[t]! * floor[t]!;
    const plain = top[t]! - cracks;
    const here = plain * share + cracks * intoCracks;
    below[t] = here;
    laid += here;
    top[t] = top[t]! - here;
    floor[t] = top[t]! > 1e-12 ? (cracks * (1 - intoCracks)) / top[t]! : 0;
  }
  top[k] = laid;
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

/** Quantiles of a depth that varies lognormally, in the middle of equal shares. */
const QUANTILES = 24;
const NORMAL = Float64Array.from({ length: QUANTILES }, (_, q) => normalQuantile((q + 0.5) / QUANTILES));

/**
 * Rubs a depth off that varies lognormally over the surface, from the top downwards.
 * @param median - depth [µm] in a layer of resistance 1
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
  const next = new Float64Array(count + 1);
  const nextFloor = new Float64Array(count + 1);
  const worn = new Float64Array(count + 1);
  const mass = new Float64Array(count + 1);
  const rest = new Float64Array(count + 1);
  let moved = 0;
  for (let q = 0; q < QUANTILES; q++) {
    const depth = median * Math.exp(spread * NORMAL[q]!);
    for (let t = 0; t <= count; t++) {
      mass[t] = top[t]! / QUANTILES;
      rest[t] = depth;
    }
    for (let t = count; t >= 1; t--) {
      const here = mass[t]!;
      if (here <= 1e-12) continue;
      const cost = thickness[t]! * resistance[t]!;
      const left = rest[t]! - cost;
      // Crack floors lie out of reach of what rubs on the surface.
      const sheltered = (floor[t]! * top[t]!) / QUANTILES;
      const exposed = Math.max(0, here - Math.min(here, sheltered));
      if (!(left > 0) || exposed <= 0) {
        next[t] = next[t]! + here;
        if (resistance[t]! > 0 && Number.isFinite(resistance[t]!)) {
          worn[t] = worn[t]! + (exposed * Math.min(rest[t]!, cost)) / resistance[t]!;
        }
        continue;
      }
      const kept = here - exposed;
      next[t] = next[t]! + kept;
      moved += exposed;
      for (let s = 0; s < t; s++) {
        const share = exposed * under[t]![s]!;
        if (share <= 0) continue;
        const total = mass[s]! + share;
        rest[s] = (rest[s]! * mass[s]! + left * share) / total;
        mass[s] = total;
      }
    }
    next[0] = next[0]! + mass[0]!;
  }
  for (let t = 0; t <= count; t++) {
    const cracks = Math.min(top[t]! * floor[t]!, next[t]!);
    nextFloor[t] = next[t]! > 1e-12 ? cracks / next[t]! : 0;
    if (t > 0 && next[t]! > 1e-9) {
      thickness[t] = Math.max(0.3 * thickness[t]!, thickness[t]! - worn[t]! / next[t]!);
    }
  }
  top.set(next);
  floor.set(nextFloor);
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
