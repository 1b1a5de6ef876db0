import { type School, SCHOOL_KEYS } from './schools';
import { newPlan } from './newPlan';
import { softEnds } from './softEnds';
import { timetable } from './timetable';

const MINUTE = 60;

describe('how long the look holds', () => {
  const of = (school: School): number[] => {
    let next = 0;
    const plan = newPlan(school, 'One', 3, '2026-05-12T08:00:00.000Z', () => `id-${++next}`);
    return Object.values(softEnds(plan, timetable(plan).table));
  };

  it('is minutes for paint in wet glue and on a tacky sealer, and the better part of an hour over dry medium', () => {
    // Common practice: glue grabs within minutes; a crackle medium is painted over an hour or four after it is laid.
    expect(Math.min(...of('wet-glue'))).toBeLessThan(5 * MINUTE);
    expect(Math.min(...of('chippy-milk'))).toBeLessThan(30 * MINUTE);
    const medium = Math.min(...of('dried-medium'));
    expect(medium).toBeGreaterThan(10 * MINUTE);
    expect(medium).toBeLessThan(240 * MINUTE);
  });

  it('is told for steps after the first only, and is never nothing', () => {
    for (const school of SCHOOL_KEYS) for (const holds of of(school)) expect(holds).toBeGreaterThanOrEqual(0);
  });
});
