import { type PanelPlan } from '../plan';
import { NOTE_CASES } from '../testing/cases';
import { forecastOf } from '../testing/forecasts';
import { FINDING_CODES, type FindingCode } from './codes';

const codes = (plan: PanelPlan): FindingCode[] => forecastOf(plan).findings.map(({ code }) => code);

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
