import { type Lesson } from '@zaffet/core/calibrate';
import { type FactorKey } from '@zaffet/core/media';
import { type PlanStep } from '@zaffet/contract';
import { newCoat, newDistress } from '@zaffet/workshop';
import { newHeat } from '../../workshop/src/create';
import { boardTeaches, cellExpected, cellWork, lessonText, oneAirText } from './calibration';

const lesson = (key: FactorKey, factor: number): Lesson => ({ key, factor, within: 1.12, withinBefore: 2 });

describe('what was learned, in words', () => {
  it('says which way, how much and how sure', () => {
    expect(lessonText(lesson('slip:pva', 1.3), [])).toBe(
      'White glue slips 30\u00a0% more than the table; sure to within 12\u00a0%.',
    );
    expect(lessonText(lesson('air', 0.8), [])).toBe(
      'The shop dries 20\u00a0% slower than the table; sure to within 12\u00a0%.',
    );
    expect(lessonText(lesson('dry:chalk', 1.25), [])).toMatch(
      /^Water leaves .* 25\s% quicker than the table/,
    );
    expect(lessonText(lesson('tough:milk', 0.7), [])).toMatch(
      /bears 30\s% less than the table before it cracks/,
    );
    expect(lessonText(lesson('wear:sand', 1.01), [])).toMatch(/^Sandpaper takes off as the table says/);
  });

  it('says what a board would teach: lengths by a share of them, chips by shares', () => {
    expect(boardTeaches({ asked: ['spacing', 'opening'], before: 1.5, after: [1.3, 1.2] })).toBe(
      'Spacing and opening are foretold to within 50 % as it is known now, to within 30 % after one cell, to within 20 % after all 2.',
    );
    // Odds of three to one are three quarters.
    expect(boardTeaches({ asked: ['chips'], before: 3, after: [1.5] })).toContain(
      'between 25 % and 75 % as it is known now, between 40 % and 60 % after one cell',
    );
  });

  it('says what is expected of a cell, and leaves out what nobody would see', () => {
    expect(
      cellExpected({ spacing: 0.006, opening: 0.0005, chips: 0.001, worn: 0, under: 0.2 }, 'metric'),
    ).toBe('expected: cracks every 6 mm, 0.5 mm open, 20 % shows what lies below');
    expect(cellExpected({ spacing: null, opening: null, chips: 0.3, worn: 0.1, under: 0.4 }, 'metric')).toBe(
      'expected: no cracks, 30 % chipped, 10 % worn, 40 % shows what lies below',
    );
  });

  it('says what is done to a cell once its films lie', () => {
    const steps = [
      newCoat('a', 'chalk', '#34505c', 'Deep', { rule: 'after', waitMin: 0 }),
      { ...newDistress('s', 'scrape', { rule: 'after', waitMin: 240 }), rounds: 3 },
      newHeat('h', 'dryer', 40, { rule: 'after', waitMin: 5 }),
    ] as PlanStep[];
    expect(cellWork(steps)).toMatch(/, 3 ×, 4 h after the step before; .*, 40 s, 5 min after/);
    expect(cellWork(steps.slice(0, 1))).toBe('');
    const bleached = [
      { ...newDistress('b', 'bleach', { rule: 'after', waitMin: 60 }), rounds: 8 },
    ] as PlanStep[];
    expect(cellWork(bleached)).toContain(', 8 min, ');
  });

  it('asks for another day where all was measured in one air', () => {
    const airs = { humidity: [0.54, 0.56], temperature: [293.15, 294.15] } as const;
    expect(oneAirText(airs, 'metric')).toMatch(/in one air \(2[01] °C, 55 %\).* damper or a warmer day/);
    expect(oneAirText(airs, 'imperial')).toContain('°F');
    expect(oneAirText({ ...airs, humidity: [0.45, 0.66] }, 'metric')).toBeNull();
    expect(oneAirText({ ...airs, temperature: [289, 294] }, 'metric')).toBeNull();
  });

  it('names media of the painter’s own', () => {
    const own = { key: 'own-1', name: 'Old tin', like: 'chalk', changes: {} };
    expect(lessonText(lesson('strain:own-1', 1.5), [own] as never)).toContain(
      'Old tin shrinks 50\u00a0% more',
    );
  });
});
