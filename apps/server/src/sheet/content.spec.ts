import { newPlan, SCHOOL_KEYS, type School } from '@zaffet/contract';
import { jobSheet } from './content';

const plan = (school: School): ReturnType<typeof newPlan> => {
  let id = 0;
  return newPlan(school, 'Lamp shelf', 7, '2026-07-06T08:00:00.000Z', () => `s${++id}`);
};

describe('job sheet', () => {
  it('tells every step in order with its time, what to mix, and what to beware of, for every school', () => {
    for (const school of SCHOOL_KEYS) {
      const filed = plan(school);
      const sheet = jobSheet(filed, 'UTC');
      expect(sheet.steps.map(({ number }) => number)).toEqual(filed.finishes[0]!.steps.map((_, i) => i + 1));
      expect(sheet.steps.every(({ detail, title }) => title !== '' && !detail.includes('NaN')))
        .withContext(school)
        .toBeTrue();
      expect(sheet.mixes.length).withContext(school).toBeGreaterThan(1);
      expect(sheet.cautions.every(({ lines }) => lines.length > 0)).toBeTrue();
      expect(sheet.deference).toMatch(/label/);
      const shares = sheet.layers.map(({ share }) => Number.parseFloat(share));
      expect(shares.reduce((sum, share) => sum + share, 0))
        .withContext(school)
        .toBeGreaterThan(97);
    }
  });

  it("goes by the shop's clock, and by UTC where nobody knows the zone", () => {
    expect(jobSheet(plan('wet-glue'), 'Europe/Lisbon').steps[0]!.at).toBe('Mon 6 Jul, 09:00');
    expect(jobSheet(plan('wet-glue'), 'Atlantis/Deep').steps[0]!.at).toBe('Mon 6 Jul, 08:00 UTC');
  });

  it('says the latest moment where a window closes', () => {
    const glue = jobSheet(plan('wet-glue'), 'UTC').steps[1]!;
    expect(glue.lookFor).toMatch(/^takes the next coat from .+ until .+ at the latest$/);
  });
});
