import { type PanelPlan, type Step } from '../plan';
import { NOTE_CASES } from '../testing/cases';
import { forecastOf } from '../testing/forecasts';
import { coat, distress, FIRST, planOf, when } from '../testing/plans';
import { FINDING_CODES, type FindingCode } from './codes';

const codes = (plan: PanelPlan): FindingCode[] => forecastOf(plan).findings.map(({ code }) => code);

describe('a ground that dries rough', () => {
  const ground = coat('g', 'gesso', 130, when('through-dry'));
  const paint = coat('m', 'milk', 100, when('through-dry'));
  const sanded = (grit: 120 | 400): Step => distress('d', 'sand', when('through-dry'), { grit, rounds: 2 });

  it('is smoothed by fine paper, on itself, and by nothing else', () => {
    const base = coat('b', 'latex', 90, FIRST);
    const rough = (...steps: readonly Step[]): boolean => codes(planOf(steps)).includes('ground-rough');
    expect(rough(base, ground, sanded(400), paint)).toBeFalse();
    expect(rough(base, ground, sanded(120), paint)).toBeTrue();
    expect(rough(base, sanded(400), ground, paint)).toBeTrue();
    // The coats of a ground go over each other as they are.
    expect(rough(base, ground, { ...ground, id: 'g2' }, sanded(400), paint)).toBeFalse();
  });
});

describe('every note', () => {
  it('has a case on both sides of its limit', () => {
    expect(Object.keys(NOTE_CASES).sort()).toEqual([...FINDING_CODES].sort());
  });

  for (const code of FINDING_CODES) {
    it(`is said where it is so: ${code}`, () => expect(codes(NOTE_CASES[code].is())).toContain(code));
    it(`is not said where it is not: ${code}`, () =>
      expect(codes(NOTE_CASES[code].isNot())).not.toContain(code));
  }
});
