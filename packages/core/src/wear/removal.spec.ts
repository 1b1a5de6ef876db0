import { medium, type MediumKey } from '../media';
import { distress, FIRST } from '../testing/plans';
import { abrasion, bladeEffort, type FilmNow, GRAIN_UM, hardnessAt, softenedShare } from './removal';

const HOUR = 3600;
const film = (key: MediumKey, age = HOUR, wet = 0): FilmNow => ({ medium: medium(key), age, wet });

describe('removal', () => {
  it('knows the grain of coated abrasives, FEPA 43-1 (from memory)', () => {
    expect([GRAIN_UM[80], GRAIN_UM[120], GRAIN_UM[220], GRAIN_UM[400]]).toEqual([201, 125, 68, 35]);
  });

  it('sands in proportion to passes, pressure and grain, less as the film hardens', () => {
    const depth = (options: object, age = 24 * HOUR, key: 'chalk' | 'enamelW' = 'chalk'): number =>
      abrasion(distress('d', 'sand', FIRST, { grit: 120, rounds: 1, ...options }), film(key, age), 0, 0)
        .medianUm;
    expect(depth({ rounds: 4 })).toBeCloseTo(4 * depth({}), 9);
    expect(depth({ pressure: 2 })).toBeCloseTo(2 * depth({}), 9);
    expect(depth({ grit: 80 }) / depth({})).toBeCloseTo(201 / 125, 6);
    expect(depth({}, 3 * HOUR)).toBeGreaterThan(depth({}));
    expect(depth({})).toBeGreaterThan(depth({}, 14 * 24 * HOUR));
    expect(depth({}, 24 * HOUR, 'enamelW')).toBeLessThan(0.3 * depth({}));
  });

  it('hardens early and cures late', () => {
    const chalk = medium('chalk');
    expect(hardnessAt(chalk, 0)).toBeLessThan(0.1 * chalk.hardness);
    expect(hardnessAt(chalk, 60 * 24 * HOUR)).toBeGreaterThan(0.98 * chalk.hardness);
    expect(bladeEffort(chalk, 2 * HOUR)).toBeLessThan(0.7);
    expect(bladeEffort(chalk, 14 * HOUR)).toBeGreaterThan(0.8);
  });

  it('takes less with an edge where what comes off is smeared back', () => {
    const depth = (smear: number): number =>
      abrasion(distress('d', 'scrape', FIRST, { rounds: 3, smear }), film('chalk'), 0, 0).medianUm;
    expect(depth(0.4)).toBeCloseTo(0.6 * depth(0), 9);
  });

  it('softens with bleach only while it is wet', () => {
    expect(softenedShare(300, 2000)).toBeCloseTo(1 - Math.exp(-300 / 180), 9);
    expect(softenedShare(3000, 600)).toBe(softenedShare(600, 600));
  });

  it('wipes what dissolves again, and leaves what does not', () => {
    const cloth = distress('d', 'cloth', FIRST, { rounds: 10 });
    expect(abrasion(cloth, film('chalk'), 0, 0).medianUm).toBeGreaterThan(2);
    expect(abrasion(cloth, film('enamelO'), 0, 0).medianUm).toBe(0);
    expect(abrasion(cloth, film('chalk'), 0, 0).resistance(film('polyW'))).toBe(Infinity);
  });
});
