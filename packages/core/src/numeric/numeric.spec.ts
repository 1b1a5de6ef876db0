import { exactCos, exactExp, exactLn, exactSin, quantise } from './exact';
import { fingerprint, hash3, uniform } from './hash';
import { noiseAt } from './noise';
import { normalCdf } from './normal';

describe('exact functions', () => {
  it("meet the engine's own to a few last bits", () => {
    for (let x = -40; x <= 40; x += 0.37) {
      expect(Math.abs(exactExp(x) / Math.exp(x) - 1)).toBeLessThan(1e-14);
      expect(Math.abs(exactSin(x / 8) - Math.sin(x / 8))).toBeLessThan(1e-14);
      expect(Math.abs(exactCos(x / 8) - Math.cos(x / 8))).toBeLessThan(1e-14);
    }
    for (const x of [1e-9, 0.2, 1, 2.7, 1e6])
      expect(Math.abs(exactLn(x) - Math.log(x))).toBeLessThan(1e-14 * 20);
  });

  it('round to a millionth', () => {
    for (const x of [1234.5678, -0.00012345, 7e9]) {
      expect(Math.abs(quantise(x) / x - 1)).toBeLessThan(1e-6);
      expect(quantise(quantise(x))).toBe(quantise(x));
    }
    expect(quantise(0)).toBe(0);
  });
});

describe('chance from a seed', () => {
  it('is even and differs by index, seed and channel', () => {
    let sum = 0;
    for (let i = 0; i < 20000; i++) sum += uniform(i, 5, 1);
    expect(sum / 20000).toBeCloseTo(0.5, 2);
    expect(new Set([hash3(1, 2, 3), hash3(2, 2, 3), hash3(1, 3, 3), hash3(1, 2, 4)]).size).toBe(4);
  });

  it('fingerprints every value', () => {
    const a = Float32Array.from([1, 2, 3]);
    const b = Float32Array.from([1, 2, 3.0000002]);
    expect(fingerprint(a, 3)).not.toBe(fingerprint(b, 3));
    expect(fingerprint(a, 3)).toBe(fingerprint(a.slice(), 3));
  });
});

describe('noise', () => {
  const octaves = [{ wavelength: 3, weight: 1, seed: 9 }];
  const at = (x: number, y: number): { value: number; dx: number; dy: number } => {
    const out = { value: 0, dx: 0, dy: 0 };
    noiseAt(octaves, x, y, out);
    return out;
  };

  it('has the slope it says, against finite differences', () => {
    for (const [x, y] of [
      [0.3, 1.7],
      [12.1, -4.4],
      [100.01, 55.5],
    ] as const) {
      const h = 1e-5;
      expect(at(x, y).dx).toBeCloseTo((at(x + h, y).value - at(x - h, y).value) / (2 * h), 5);
      expect(at(x, y).dy).toBeCloseTo((at(x, y + h).value - at(x, y - h).value) / (2 * h), 5);
    }
  });

  it('has mean 0 and a spread near 1', () => {
    let sum = 0;
    let squares = 0;
    const n = 20000;
    for (let i = 0; i < n; i++) {
      const { value } = at(uniform(i, 1, 1) * 900, uniform(i, 1, 2) * 900);
      sum += value;
      squares += value * value;
    }
    expect(Math.abs(sum / n)).toBeLessThan(0.03);
    expect(Math.sqrt(squares / n)).toBeGreaterThan(0.8);
    expect(Math.sqrt(squares / n)).toBeLessThan(1.3);
  });
});

describe('normal distribution', () => {
  it('meets table values (Abramowitz & Stegun, table 26.1)', () => {
    expect(normalCdf(0)).toBeCloseTo(0.5, 6);
    expect(normalCdf(1)).toBeCloseTo(0.8413447, 6);
    expect(normalCdf(-1.2816)).toBeCloseTo(0.1, 4);
    expect(normalCdf(3)).toBeCloseTo(0.9986501, 6);
  });
});
