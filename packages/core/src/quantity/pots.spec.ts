import { medium } from '../media';
import { type Coat } from '../plan';
import { coat, FIRST, planOf, when } from '../testing/plans';
import { celsiusToKelvin } from '../units';
import { bodyFor, BODIES, filmOfBody } from './body';
import { MILK_REST, pots, type PotUse, tinsFor, TINS } from './pots';
import { quantities, type Quantity } from './quantity';
import { inSpoons } from './spoons';

const ML = 1e-6;
const HOUR = 3600;
const DAY = 24 * HOUR;
const ROOM = celsiusToKelvin(21);
const MEASURES = { dish: 100 * ML, spoon: 15 * ML, teaspoon: 5 * ML };

const use = (at: number, key = 'milk', recipe = key): PotUse => ({
  stepId: `s${at}`,
  partId: 'lid',
  recipe,
  medium: medium(key),
  at,
  volume: 60 * ML,
  dilution: 0,
  water: 0,
  texture: 0,
  powder: key === 'milk' ? 46 * ML : null,
});

describe('dishes and spoons', () => {
  it('hold at least what is asked for, and hardly more', () => {
    for (let ml = 1; ml < 400; ml += 3.7) {
      const { dishes, spoons, teaspoons, volume } = inSpoons(ml * ML, MEASURES);
      expect(volume).toBeGreaterThanOrEqual(ml * ML * (1 - 1e-6));
      expect(volume).toBeLessThan((ml + 2.51) * ML);
      expect(dishes * 100 + spoons * 15 + teaspoons * 5).toBeCloseTo(volume / ML, 6);
    }
    expect(inSpoons(45 * ML, MEASURES)).toEqual(
      jasmine.objectContaining({ dishes: 0, spoons: 3, teaspoons: 0 }),
    );
    expect(() => inSpoons(45 * ML, { ...MEASURES, spoon: 0 })).toThrowError(/measures\.spoon/);
  });

  it('come to two spoons of ground and one of water for a dilution of a half', () => {
    // Common practice: a chalk ground is mixed two to one.
    const ground = quantities(planOf([coat('g', 'gesso', 200, FIRST, { dilution: 0.5 })]))[0]!;
    expect(ground.asBought / ground.water).toBeCloseTo(2, 9);
  });
});

// Common practice: mixed milk paint rests 15 to 20 min and keeps 14 days in a refrigerator, a day outside.
describe('pots', () => {
  it('are mixed once for what they keep for, a rest before the first use', () => {
    const [pot, ...others] = pots([use(0), use(6 * HOUR)], ROOM);
    expect(others).toEqual([]);
    expect(pot!.volume).toBeCloseTo(120 * ML, 12);
    expect(pot!.powder).toBeCloseTo(92 * ML, 12);
    expect(pot!.mixedAt).toBe(-MILK_REST);
    expect(pot!.keepCold).toBeFalse();
  });

  it('go into the refrigerator where they must last longer, and are mixed afresh after a fortnight', () => {
    const cold = pots([use(0), use(5 * DAY)], ROOM);
    expect(cold.length).toBe(1);
    expect(cold[0]!.keepCold).toBeTrue();
    expect((cold[0]!.useBy - cold[0]!.mixedAt) / DAY).toBeCloseTo(14, 0);
    expect(pots([use(0), use(15 * DAY)], ROOM).map(({ uses }) => uses.length)).toEqual([1, 1]);
  });

  it('are thinned for a later use with what is left, and never thickened', () => {
    const laid = (at: number, dilution: number): PotUse => ({
      ...use(at, 'chalk'),
      dilution,
      volume: 50 * ML * (1 + dilution),
      water: 50 * ML * dilution,
    });
    const [pot, ...more] = pots([laid(0, 0.1), laid(HOUR, 0.4)], ROOM);
    expect(more).toEqual([]);
    // A tenth into both coats' paint, then three more tenths into the second's.
    expect(pot!.water).toBeCloseTo(10 * ML, 12);
    expect(pot!.thinned.map(({ stepId }) => stepId)).toEqual([`s${HOUR}`]);
    expect(pot!.thinned[0]!.water).toBeCloseTo(15 * ML, 12);
    expect(pots([laid(0, 0.4), laid(HOUR, 0.1)], ROOM).length).toBe(2);
  });

  it('keep recipes apart, in the order they are mixed', () => {
    const both = pots([use(HOUR, 'chalk', 'blue'), use(0, 'chalk', 'white')], ROOM);
    expect(both.map(({ recipe }) => recipe)).toEqual(['white', 'blue']);
  });
});

describe('texture powder and paint that stood open', () => {
  const laid = (changes: Partial<Coat>): Quantity =>
    quantities(planOf([{ ...coat('a', 'chalk', 120, FIRST), ...changes }]))[0]!;

  it('is told by volume for a litre, and takes the place of paint', () => {
    const plain = laid({});
    const textured = laid({ texture: 0.5 });
    expect(textured.texture / textured.asBought).toBeCloseTo(0.5, 9);
    expect(textured.volume).toBeCloseTo(plain.volume, 15);
    expect(textured.asBought).toBeLessThan(plain.asBought);
    expect(textured.asBought).toBeGreaterThan(0.7 * plain.asBought);
  });

  it('takes more paint where water has gone, and none is stirred in', () => {
    const thick = laid({ dilution: -0.2 });
    expect(thick.water).toBe(0);
    expect(thick.asBought).toBeCloseTo(thick.volume / 0.8, 12);
  });
});

describe('tins', () => {
  it('are enough, and not needlessly many', () => {
    for (let ml = 5; ml < 9000; ml += 61) {
      const bought = tinsFor(ml * ML);
      const sum = bought.reduce((all, size) => all + size, 0);
      expect(sum).toBeGreaterThanOrEqual(ml * ML);
      expect(bought.length).toBeLessThanOrEqual(1 + Math.ceil((ml * ML) / TINS.at(-1)!));
    }
    expect(tinsFor(0)).toEqual([]);
  });

  it('are a sample pot of most colours of a large table, two of the covering white', () => {
    // Common practice: partial coats need less.
    const table = (share: number, style: 'dry-brushed' | 'full', um: number): number[] => {
      const plan = planOf([
        coat('a', 'chalk', 60, FIRST),
        coat('b', 'chalk', um, when('through-dry'), { cover: { style, share } }),
      ]);
      const large = { ...plan, panel: { ...plan.panel, width: 1.8, height: 0.95 } };
      return tinsFor(quantities(large)[1]!.asBought);
    };
    expect(table(0.45, 'dry-brushed', 60)).toEqual([TINS[0]]);
    expect(table(1, 'full', 90)).toEqual([TINS[0], TINS[0]]);
  });
});

describe('body', () => {
  it('tells how thick a coat comes to lie, thinner the runnier', () => {
    const films = BODIES.map((body) => filmOfBody(medium('chalk'), body));
    expect([...films].sort((a, b) => a - b)).toEqual(films);
    expect(bodyFor(medium('chalk'), films[3]!)).toBe('cream');
  });
});
