import { exactExp } from '../../numeric/exact';

/*
 * One-dimensional shear lag of a film that cracks on a layer holding it with stiffness up to a yield shear.
 * Lengths in units of the pull length ℓ, stress in units of the uncracked stress. Fragment with distances a, b to
 * its two cracks: S = (a + b)/2, X = |a − b|/2; slip number P = s0 h/(τ ℓ), nowhere slipping when P ≤ 1.
 *
 *   held everywhere:  σ = 1 − cosh X/cosh S,   edge displacement U(s) = tanh(s/2)
 *   slipping edges:   sticking core of half width C, coth C − C = P − S
 *                     X ≥ C: σ = (S − X)/P,  else σ = 1 − cosh X/(P sinh C);  U = 1/P + α − α²/(2P), α = S − C
 *
 * Elastic limit: the cosh law of shear lag (Cox 1952, Brit. J. Appl. Phys. 3); frictional limit: σ = distance/P and
 * largest fragment 2 P (Kelly & Tyson 1965, J. Mech. Phys. Solids 13). Both quoted from memory.
 */

/** Farther free surfaces than this count as none. */
export const FAR = 16;
const TABLE_PER_UNIT = 512;
const EXP_TABLE = new Float64Array(2 * FAR * TABLE_PER_UNIT + 2);
for (let i = 0; i < EXP_TABLE.length; i++) EXP_TABLE[i] = exactExp(-i / TABLE_PER_UNIT);

/** e^−x for x ≥ 0 from a table, 0 beyond; absolute error below 5e-7. */
export function fall(x: number): number {
  const at = x * TABLE_PER_UNIT;
  if (at >= EXP_TABLE.length - 1) return 0;
  const i = at | 0;
  const low = EXP_TABLE[i]!;
  return low + (at - i) * (EXP_TABLE[i + 1]! - low);
}

const CORE_FROM = -24;
const CORE_TO = 40;
const CORE_STEPS = 8192;
let coreTable: Float64Array | null = null;

/** coth C − C for C > 0. */
function coreLaw(c: number): number {
  const e = exactExp(-2 * c);
  return (1 + e) / (1 - e) - c;
}

/** The law falls from +∞ to −∞, so bisection always finds the one root. */
function solveCore(q: number): number {
  let low = 1e-9;
  let high = 60;
  for (let step = 0; step < 80; step++) {
    const mid = 0.5 * (low + high);
    if (coreLaw(mid) > q) low = mid;
    else high = mid;
  }
  return 0.5 * (low + high);
}

/** Half width of the sticking core for q = P − S. */
export function stickingCore(q: number): number {
  if (q <= CORE_FROM) return 1 - q;
  if (q >= CORE_TO) return 1 / q;
  if (coreTable === null) {
    coreTable = new Float64Array(CORE_STEPS + 1);
    for (let i = 0; i <= CORE_STEPS; i++) {
      coreTable[i] = solveCore(CORE_FROM + ((CORE_TO - CORE_FROM) * i) / CORE_STEPS);
    }
  }
  const at = ((q - CORE_FROM) / (CORE_TO - CORE_FROM)) * CORE_STEPS;
  const i = at | 0;
  const low = coreTable[i]!;
  return low + (at - i) * (coreTable[i + 1]! - low);
}

/** Stress at a point whose free surfaces lie a and b away, over the uncracked stress; 0 at a crack, 1 far away. */
export function stressShare(a: number, b: number, slipNumber: number): number {
  const near = a < b ? a : b;
  if (near <= 0) return 0;
  const half = 0.5 * (a + b);
  const off = half - near;
  if (slipNumber > 1) {
    const core = stickingCore(slipNumber - half);
    if (half - core > 0) {
      if (off >= core) return Math.min(1, near / slipNumber);
      const share = (fall(core - off) * (1 + fall(2 * off))) / (1 - fall(2 * core));
      return 1 - share / slipNumber;
    }
  }
  return 1 - (fall(near) * (1 + fall(2 * off))) / (1 + fall(2 * half));
}

/** Displacement of a crack's flank whose fragment is s wide, in ε ℓ; 1 for a wide elastic fragment. */
export function edgePull(s: number, slipNumber: number): number {
  if (slipNumber > 1) {
    const half = 0.5 * s;
    const slipping = half - stickingCore(slipNumber - half);
    if (slipping > 0) return 1 / slipNumber + slipping - (slipping * slipping) / (2 * slipNumber);
  }
  const e = fall(s);
  return (1 - e) / (1 + e);
}

/** Energy released by a new crack with free surfaces a and b away, in ε² E ℓ per area; 1 when isolated and held. */
export function energyShare(a: number, b: number, slipNumber: number): number {
  return frictionFactor(slipNumber) * birthPull(a, b, slipNumber);
}

/** Opening of a new crack with free surfaces a and b away, in units of ε ℓ: both flanks, less what had moved. */
export function birthPull(a: number, b: number, slipNumber: number): number {
  const gain = edgePull(a, slipNumber) + edgePull(b, slipNumber) - edgePull(a + b, slipNumber);
  return gain > 0 ? gain : 0;
}

/** Exact for an isolated crack with frictional loss; an interpolation for finite fragments. */
export function frictionFactor(slipNumber: number): number {
  if (slipNumber <= 1) return 1;
  const p = slipNumber;
  return (2 * (p / 6 + 1 / (2 * p) - 1 / (6 * p * p))) / ((p + 1 / p) / 2);
}
