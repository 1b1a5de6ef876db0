import { edgePull, energyShare, stickingCore, stressShare } from './shearLag';

/**
 * Independent check: finite differences of the equilibrium h s' = clamp(k u, ±τ) on one fragment, in units of ℓ and
 * of the uncracked stress: σ'(x) = −clamp(u, ±1/P), u' = 1 − σ (relief), σ = 0 at both ends. Shooting from the middle.
 * @returns stress along the fragment and displacement of its edge
 */
function fragment(width: number, slipNumber: number): { stress: (x: number) => number; edge: number } {
  const n = 20000;
  const dx = width / 2 / n;
  const limit = slipNumber > 0 ? 1 / slipNumber : Infinity;
  const solve = (middle: number): { end: number; edge: number; profile: Float64Array } => {
    const profile = new Float64Array(n + 1);
    let s = middle;
    let u = 0;
    profile[0] = s;
    for (let i = 0; i < n; i++) {
      const half = u + 0.5 * dx * (1 - s);
      const next = s - dx * Math.min(limit, half);
      u += dx * (1 - 0.5 * (s + next));
      s = next;
      profile[i + 1] = s;
    }
    return { end: s, edge: u, profile };
  };
  let low = 0;
  let high = 1 - 1e-12;
  for (let step = 0; step < 60; step++) {
    const mid = 0.5 * (low + high);
    if (solve(mid).end > 0) high = mid;
    else low = mid;
  }
  const { profile, edge } = solve(0.5 * (low + high));
  return { stress: (x) => profile[Math.round((Math.abs(x - width / 2) / (width / 2)) * n)]!, edge };
}

describe('shear lag in one dimension', () => {
  for (const slipNumber of [0, 0.8, 2, 6]) {
    for (const width of [0.7, 2, 5, 12]) {
      it(`agrees with finite differences, P ${slipNumber}, fragment ${width} ℓ`, () => {
        const reference = fragment(width, slipNumber);
        for (const share of [0.1, 0.3, 0.5]) {
          const a = share * width;
          expect(Math.abs(stressShare(a, width - a, slipNumber) - reference.stress(a))).toBeLessThan(4e-4);
        }
        expect(Math.abs(edgePull(width, slipNumber) - reference.edge)).toBeLessThan(4e-4);
      });
    }
  }

  it('comes to the law of Kelly and Tyson when it slides everywhere: stress is distance over P', () => {
    expect(stressShare(2, 3, 40)).toBeCloseTo(2 / 40, 6);
  });

  it('solves for the sticking core', () => {
    for (const q of [-10, -1, 0, 2, 20]) {
      const c = stickingCore(q);
      expect(1 / Math.tanh(c) - c).toBeCloseTo(q, q > 10 ? 1 : 3);
    }
  });

  it('gives an isolated crack the energy of a channelling crack, less as others come near', () => {
    expect(energyShare(1e9, 1e9, 0)).toBeCloseTo(1, 9);
    const near = [8, 4, 2, 1, 0.5].map((a) => energyShare(a, 1e9, 0));
    expect([...near].sort((a, b) => b - a)).toEqual(near);
    expect(energyShare(0.01, 0.01, 0)).toBeLessThan(1e-5);
  });

  it('is nothing at a crack and symmetric about the middle', () => {
    expect(stressShare(0, 5, 0)).toBe(0);
    expect(stressShare(1, 4, 3)).toBe(stressShare(4, 1, 3));
  });
});
