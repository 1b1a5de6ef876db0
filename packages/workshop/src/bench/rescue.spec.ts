import { type RunEvent } from '@zaffet/contract';
import { newPlan } from '../newPlan';
import { type PartPlan, partPlan } from '../partPlan';
import { foldRun, knownOfAll, type Run } from '../runs';
import { beginning, deviceOf } from '../testing/runs';
import { SCHOOL_KEYS } from '../schools';
import { causesOf, rescuesFor, WRONGS } from '.';

const now = { minutesAgo: 0 };
let id = 0;
const plan = newPlan('wet-glue', 'Lid', 7, '2026-05-12T08:00:00.000Z', () => `s${++id}`);
const PART = plan.piece.parts[0]!.id;
const [base, glue, top] = plan.finishes[0]!.steps.map(({ id: stepId }) => ({
  partId: PART,
  stepId,
  coat: 0,
}));
const START = Date.parse(plan.startsAt);

/** The lid glued and painted so many minutes after the glue, with what else was told. */
function done(after: number, more: (device: ReturnType<typeof deviceOf>) => RunEvent[] = () => []): Run {
  const device = deviceOf('tablet', plan);
  return foldRun([
    device(0, 'run-begun', beginning(plan)),
    device(0, 'done', { ...base!, ...now }),
    device(240, 'done', { ...glue!, ...now }),
    device(240 + after, 'done', { ...top!, ...now }),
    ...more(device),
  ])!;
}
const partOf = (run: Run): PartPlan =>
  partPlan(run.plan, PART, null, { known: knownOfAll(run, START + 400 * 60_000) });
const likely = (run: Run): string[] =>
  causesOf('no-cracks', run, partOf(run)).flatMap((one) => (one.likely ? [one.cause] : []));

describe('when it went wrong', () => {
  it('names first what the run speaks for: late glue, too many strokes, damp air (common practice)', () => {
    expect(likely(done(2))).toEqual([]);
    expect(likely(done(25))).toContain('glue-dry');
    expect(likely(done(2, (tell) => [tell(243, 'passes', { ...top!, count: 8 })]))).toContain('overbrushed');
    expect(
      likely(done(2, (tell) => [tell(1, 'air', { source: 'attic', temperatureC: 16, humidity: 0.8 })])),
    ).toContain('damp');
    // One stroke more than was meant is worth a word, though the forecast sees no harm in it.
    expect(likely(done(2, (tell) => [tell(243, 'passes', { ...top!, count: 3 })]))).toContain('overbrushed');
    const all = causesOf('no-cracks', done(25), partOf(done(25)));
    expect(all[0]!.likely).toBeTrue();
    // What nothing speaks for stays on the list: a painter may know better.
    expect(all.length).toBeGreaterThan(4);
  });

  it('names only causes that the plan can have: no glue in a job with bleach', () => {
    let next = 0;
    const bleached = newPlan('softened', 'Rail', 3, '2026-05-12T08:00:00.000Z', () => `b${++next}`);
    const device = deviceOf('tablet', bleached);
    const run = foldRun([device(0, 'run-begun', beginning(bleached))])!;
    const part = partPlan(bleached, bleached.piece.parts[0]!.id);
    const causes = WRONGS.flatMap((wrong) => causesOf(wrong, run, part).map(({ cause }) => cause));
    for (const cause of ['glue-dry', 'medium-wet', 'hot-too-long', 'sealer-tacky'])
      expect(causes).not.toContain(cause as (typeof causes)[number]);
    expect(causes).toContain('left-too-long');
    expect(causesOf('burnt', run, part)).toEqual([]);
  });

  it('says what each way out would do: laid once more, glue that had dried cracks', () => {
    const run = done(40);
    const [again] = rescuesFor('no-cracks', partOf(run), top!.stepId, () => `r${++id}`);
    expect(again!.key).toBe('again');
    expect(again!.before.strength).toBeLessThan(0.3);
    expect(again!.after.strength).toBeGreaterThan(again!.before.strength + 0.2);
  });

  it('has a way out of everything that comes to a forecast, for every school', () => {
    for (const school of SCHOOL_KEYS) {
      const other = newPlan(school, 'Lid', 7, '2026-05-12T08:00:00.000Z', () => `t${++id}`);
      const of = partPlan(other);
      const last = of.steps.at(-1)!.id;
      for (const wrong of WRONGS) {
        const ways = rescuesFor(wrong, of, last, () => `u${++id}`);
        expect(ways.length).withContext(`${school} ${wrong}`).toBeGreaterThan(0);
        for (const { after } of ways) expect(Number.isFinite(after.chips + after.bare)).toBeTrue();
      }
    }
  });
});
