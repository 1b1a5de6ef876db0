import { forecastOf } from '../testing/forecasts';
import { after, coat, distress, everyDay, FIRST, planOf, when } from '../testing/plans';
import { type PanelPlan, type StartRule, type Wait, type WorkTime } from './types';
import { atWork, inHours, SITTING } from './work';

const HOUR = 3600;
/** From eight to six; the plan begins at nine. */
const from = (clockAtStart: number): WorkTime => everyDay(8 * HOUR, 18 * HOUR, clockAtStart);
const HOURS = from(9 * HOUR);
const STATE: StartRule = { rule: 'state', state: 'recoat', wait: 0 };

describe('working hours', () => {
  it('move what falls into the night to the next morning', () => {
    expect(inHours(4 * HOUR, STATE, HOURS)).toBe(4 * HOUR);
    // 21:00 becomes 08:00, eleven hours later; 03:00 becomes 08:00 of the same night.
    expect(inHours(12 * HOUR, STATE, HOURS)).toBe(23 * HOUR);
    expect(inHours(18 * HOUR, STATE, HOURS)).toBe(23 * HOUR);
    expect(inHours(12 * HOUR, STATE, undefined)).toBe(12 * HOUR);
  });

  it('leave alone what the clock was set for, and what belongs to the sitting', () => {
    expect(inHours(12 * HOUR, { rule: 'at', moment: 12 * HOUR }, HOURS)).toBe(12 * HOUR);
    expect(inHours(12 * HOUR, { rule: 'after', wait: 120 }, HOURS)).toBe(12 * HOUR);
    expect(inHours(12 * HOUR, { rule: 'after', wait: SITTING + 1 }, HOURS)).toBe(23 * HOUR);
  });

  it('know a plan that begins before the shop opens', () => {
    const early = from(5 * HOUR);
    expect(atWork(0, early)).toBeFalse();
    expect(atWork(3 * HOUR, early)).toBeTrue();
    expect(inHours(0, STATE, early)).toBe(3 * HOUR);
  });

  it('are kept by a whole plan, and what the night does to it is forecast', () => {
    const plan: PanelPlan = planOf([
      coat('a', 'chalk', 90, FIRST),
      coat('b', 'mineral', 90, when('recoat', 5 * HOUR)),
      distress('cut', 'blade', after(2 * HOUR + 1)),
      coat('c', 'chalk', 90, when('through-dry', 2 * HOUR)),
    ]);
    const late = from(10 * HOUR);
    const free = forecastOf(plan);
    const kept = forecastOf({ ...plan, work: late });
    for (const { from, step } of kept.times) expect(atWork(from, late)).withContext(step.id).toBeTrue();
    expect(kept.times.at(-1)!.from).toBeGreaterThan(free.times.at(-1)!.from);
    // Cut after a night instead of two hours, mineral paint has gone hard; common practice.
    const codes = (result: typeof free): string[] => result.findings.map(({ code }) => code);
    const evening = from(11.5 * HOUR);
    expect(codes(free)).not.toContain('blade-hard');
    expect(codes(forecastOf({ ...plan, work: evening }))).toContain('blade-hard');
  });

  it('hold for work, and not for letting it be: a night counts as the wait it is', () => {
    const night: Wait = { id: 'n', kind: 'wait', duration: 14 * HOUR, start: when('recoat') };
    const plan = planOf([coat('a', 'chalk', 90, FIRST), night, distress('s', 'sand', after(0))]);
    const late = from(18 * HOUR - 1200);
    const { times } = forecastOf({ ...plan, work: late });
    // Laid before closing, dry after it, let be through the night, sanded next morning at once.
    expect(atWork(times[1]!.from, late)).toBeFalse();
    expect(times[1]!.from).toBeLessThan(5 * HOUR);
    expect(times[2]!.from).toBe(times[1]!.until);
    expect(atWork(times[2]!.from, late)).toBeTrue();
  });

  it('may have a rest at noon', () => {
    const rested: WorkTime = [
      { opens: 0, closes: 4 * HOUR },
      { opens: 5 * HOUR, closes: 9 * HOUR },
    ];
    expect(inHours(4.5 * HOUR, STATE, rested)).toBe(5 * HOUR);
    // Nobody said what comes after.
    expect(inHours(9 * HOUR, STATE, rested)).toBe(9 * HOUR);
  });

  it('are refused when they close before they open, or run into each other', () => {
    const plan = planOf([coat('a', 'chalk', 90, FIRST)]);
    const of = (work: WorkTime) => (): unknown => forecastOf({ ...plan, work });
    expect(of([{ opens: HOUR, closes: HOUR }])).toThrowError(/work\[0\]\.closes is 3600; it must be later/);
    expect(
      of([
        { opens: 0, closes: 2 * HOUR },
        { opens: HOUR, closes: 3 * HOUR },
      ]),
    ).toThrowError(/work\[1\]\.opens is 3600; it must be no earlier than 7200 s/);
  });
});
