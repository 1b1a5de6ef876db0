import { medium } from '../media';
import { coat, distress, FIRST, planOf, resist, seal, when } from '../testing/plans';
import { celsiusToKelvin } from '../units';
import { coverageM2PerL, potLife, quantities } from './quantity';
import { mixInSpoons } from './spoons';

/** One US gallon [m³] and mil [m], exact by definition. */
const GALLON = 3.785411784e-3;
const MIL = 25.4e-6;
const SQUARE_FOOT = 0.09290304;

describe('spread rate', () => {
  it('is the arithmetic of data sheets: a gallon at one mil covers 1604 square feet', () => {
    const feet = GALLON / MIL / SQUARE_FOOT;
    expect(feet).toBeCloseTo(1604.17, 1);
    expect(coverageM2PerL(1, MIL)).toBeCloseTo((feet * SQUARE_FOOT) / (GALLON * 1000), 9);
    expect(coverageM2PerL(0.38, 34.2e-6)).toBeCloseTo(11.11, 2);
  });
});

describe('quantities', () => {
  const plan = planOf([
    coat('a', 'chalk', 90, FIRST),
    coat('b', 'milk', 60, when('recoat'), { cover: { style: 'blotchy', share: 0.5 } }),
    coat('c', 'hide', 90, when('recoat'), { dilution: 0.5 }),
    resist('r', 'jelly', 0.25, when('recoat')),
    distress('d', 'sand', when('through-dry')),
    seal('s', 'polyW', 80, when('through-dry'), { coats: 3 }),
  ]);
  const found = quantities(plan, { chalk: 40 });
  const of = (id: string): (typeof found)[number] => found.find((q) => q.stepId === id)!;

  it('follow area, thickness, cover, coats and waste', () => {
    expect(of('a').volume * 1e6).toBeCloseTo(0.24 * 90 * 1.15, 6);
    expect(of('b').volume / of('a').volume).toBeCloseTo((0.5 * 60) / 90, 9);
    expect(of('s').volume * 1e6).toBeCloseTo(0.24 * 80 * 3 * 1.15, 6);
    expect(of('r').volume * 1e6).toBeCloseTo(0.24 * 0.25 * 40 * 1.15, 6);
    expect(found.some((q) => q.stepId === 'd')).toBeFalse();
  });

  it('part the water stirred in, the powder and the cost', () => {
    expect(of('c').water / of('c').asBought).toBeCloseTo(0.5, 9);
    expect(of('b').powder! / of('b').asBought).toBeCloseTo(1 / 1.3, 6);
    expect(of('a').powder).toBeNull();
    expect(of('a').cost).toBeCloseTo(of('a').asBought * 1000 * 40, 9);
    expect(of('b').cost).toBeNull();
    expect(of('a').mass).toBeCloseTo(of('a').asBought * 1450, 9);
  });

  it('follow the mean of a map', () => {
    const map = { columns: 2, rows: 1, values: [0.5, 2] };
    const plain = planOf([coat('a', 'chalk', 90, FIRST)]);
    const mapped = planOf([{ ...coat('a', 'chalk', 90, FIRST), map }]);
    expect(quantities(mapped)[0]!.volume / quantities(plain)[0]!.volume).toBeCloseTo(1.25, 9);
  });

  it('waste less on large work', () => {
    const large = quantities({ ...plan, panel: { ...plan.panel, width: 2, height: 1 } })[0]!;
    expect(large.volume / (2 * 90e-6)).toBeCloseTo(1.1, 9);
  });
});

describe('pot life (common practice)', () => {
  it('of milk paint is a day in the room and fourteen days refrigerated', () => {
    expect(potLife(medium('milk'), celsiusToKelvin(21)) / 86400).toBeCloseTo(1, 6);
    expect(potLife(medium('milk'), celsiusToKelvin(4)) / 86400).toBeGreaterThan(13);
    expect(potLife(medium('milk'), celsiusToKelvin(4)) / 86400).toBeLessThanOrEqual(14);
    expect(potLife(medium('milk'), celsiusToKelvin(30))).toBeLessThan(8 * 3600);
  });
});

describe('a mix in spoons', () => {
  const measures = { dish: 100e-6, spoon: 15e-6, teaspoon: 5e-6 };
  const ratio = (volumes: readonly number[]): { volumes: number[]; off: number; total: number } => {
    const { spoons, off } = mixInSpoons(volumes, measures);
    const told = spoons.map(({ volume }) => volume);
    return { volumes: told, off, total: told.reduce((sum, volume) => sum + volume, 0) };
  };

  it('keeps its ratio within what a spoon is true to, and is enough (common practice: 4 : 1 stays 4 : 1)', () => {
    for (const batch of [12e-6, 17e-6, 23e-6, 41e-6, 90e-6, 260e-6]) {
      for (const [a, b] of [
        [4, 1],
        [2, 1],
        [3, 2],
        [1, 1],
      ] as const) {
        const wanted = [(batch * a) / (a + b), (batch * b) / (a + b)];
        const { volumes, off, total } = ratio(wanted);
        expect(total).toBeGreaterThanOrEqual(batch * (1 - 1e-9));
        expect(total).toBeLessThan(1.65 * batch + 5e-6);
        if (off > 0.05) continue;
        expect(volumes[0]! / volumes[1]! / (a / b))
          .withContext(`${a}:${b} of ${batch}`)
          .toBeGreaterThan(0.9);
        expect(volumes[0]! / volumes[1]! / (a / b))
          .withContext(`${a}:${b} of ${batch}`)
          .toBeLessThan(1.1);
      }
    }
    expect(ratio([36e-6, 9e-6]).off).toBeLessThanOrEqual(0.05);
  });

  it('says how far off it is where so small a part cannot be spooned', () => {
    expect(ratio([40e-6, 0.4e-6]).off).toBeGreaterThan(0.5);
    expect(ratio([40e-6]).off).toBe(0);
  });
});
