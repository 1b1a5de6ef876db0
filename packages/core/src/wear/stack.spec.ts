import { uniform } from '../numeric/hash';
import { abrade, createStack, layInto, lift, openCracks, visibleShares } from './stack';
import { zoneShares } from '../plan';

/** Points with explicit stacks: what the shares stand for, simulated. */
class Points {
  private readonly stacks: number[][];
  private draw = 0;
  constructor(count: number) {
    this.stacks = Array.from({ length: count }, () => [0]);
  }
  private chance(): number {
    return uniform(this.draw++, 5, 1);
  }
  lay(k: number, share: number): void {
    for (const stack of this.stacks) if (this.chance() < share) stack.push(k);
  }
  lift(k: number, share: number): void {
    for (const stack of this.stacks) {
      const at = stack.indexOf(k);
      if (at >= 0 && this.chance() < share) stack.length = at;
    }
  }
  shares(n: number): number[] {
    const result = new Array<number>(n + 1).fill(0);
    for (const stack of this.stacks) result[stack.at(-1)!]! += 1 / this.stacks.length;
    return result;
  }
}

describe('what shows on top', () => {
  it('agrees with points that carry their stacks, through blotches, chips and covering again', () => {
    const state = createStack(5);
    const points = new Points(60000);
    const steps: ['lay' | 'lift', number, number][] = [
      ['lay', 1, 1],
      ['lay', 2, 0.6],
      ['lay', 3, 0.8],
      ['lift', 2, 0.3],
      ['lay', 4, 0.5],
      ['lift', 3, 0.5],
      ['lay', 5, 0.4],
      ['lift', 1, 0.1],
    ];
    for (const [what, k, share] of steps) {
      if (what === 'lay') layInto(state, k, share);
      else lift(state, k, share);
      points[what](k, share);
    }
    const expected = points.shares(5);
    state.top.forEach((share, k) =>
      expect(Math.abs(share - expected[k]!))
        .withContext(`layer ${k}`)
        .toBeLessThan(0.012),
    );
    expect(state.top.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 12);
  });

  it('takes a resist with all that lies on it and nothing below it', () => {
    const state = createStack(4);
    layInto(state, 1, 1);
    layInto(state, 2, 0.25);
    layInto(state, 3, 1);
    layInto(state, 4, 1);
    expect(lift(state, 2, 1)).toBeCloseTo(0.25, 12);
    expect([...state.top].map((share) => +share.toFixed(12))).toEqual([0, 0.25, 0, 0, 0.75]);
    expect(lift(state, 2, 1)).toBeCloseTo(0, 12);
  });

  it('shows what lies under a crack, and lets wax fill it', () => {
    const state = createStack(3);
    layInto(state, 1, 1);
    layInto(state, 2, 1);
    openCracks(state, 2, 0.1);
    expect(state.top[1]).toBeCloseTo(0.1, 12);
    layInto(state, 3, 0.05, 0.9);
    expect(state.top[3]).toBeCloseTo(0.9 * 0.1 + 0.05 * 0.9, 12);
    expect(state.top[1]).toBeCloseTo(0.01, 12);
  });

  it('rubs through by the lognormal share of depths that go deeper than the film', () => {
    const state = createStack(2);
    layInto(state, 1, 1);
    layInto(state, 2, 1);
    const thickness = Float64Array.from([0, 40, 30]);
    abrade(state, 30, 0.8, thickness, Float64Array.from([1, 1, 1]));
    // Median equal to the film: half of it goes. P(depth > 70) = P(z > ln(70/30)/0.8) = 0.145.
    expect(state.top[2]).toBeCloseTo(0.5, 6);
    expect(state.top[0]).toBeCloseTo(0.145, 3);
  });

  it('stops at a layer the tool does nothing to, and wears what it does not go through', () => {
    const state = createStack(2);
    layInto(state, 1, 1);
    layInto(state, 2, 1);
    const thickness = Float64Array.from([0, 20, 20]);
    abrade(state, 200, 0.8, thickness, Float64Array.from([1, Infinity, 1]));
    expect(state.top[0]).toBe(0);
    expect(state.top[1]).toBeGreaterThan(0.9);
    expect(thickness[1]).toBe(20);
  });

  it('wears what it does not go through', () => {
    const state = createStack(1);
    layInto(state, 1, 1);
    const thickness = Float64Array.from([0, 20]);
    abrade(state, 3, 0.5, thickness, Float64Array.from([1, 1]));
    // P(depth > 20) = P(z > ln(20/3)/0.5) = 7e-5.
    expect(state.top[1]).toBeCloseTo(1, 3);
    // Mean of a lognormal depth: median · exp(spread²/2).
    expect(20 - thickness[1]!).toBeCloseTo(3 * Math.exp(0.125), 1);
  });

  it('looks through clear layers', () => {
    const state = createStack(2);
    layInto(state, 1, 1);
    layInto(state, 2, 1);
    expect([...visibleShares(state, Float64Array.from([1, 1, 0.2]))].map((x) => +x.toFixed(12))).toEqual([
      0, 0.8, 0.2,
    ]);
  });

  it('divides a panel into zones that fill it', () => {
    for (const [w, h] of [
      [0.6, 0.4],
      [0.02, 3],
      [0.05, 0.05],
    ] as const) {
      const { field, edge, corner } = zoneShares({ width: w, height: h });
      expect(field + edge + corner).toBeCloseTo(1, 12);
      expect(Math.min(field, edge, corner)).toBeGreaterThanOrEqual(0);
    }
  });
});
