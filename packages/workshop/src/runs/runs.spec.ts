import { type Plan, type RunEvent } from '@zaffet/contract';
import { parseEvents } from '@zaffet/contract/runs';
import { forecast, type Forecast } from '@zaffet/core/forecast';
import fc from 'fast-check';
import { basisOf } from '../basis';
import { newPlan } from '../newPlan';
import { partPlan } from '../partPlan';
import { beginning, deviceOf } from '../testing/runs';
import { foldRun, inOrder, knownOfAll, type Run, stepKey } from '.';

const SEED = 20261128;
const MINUTE = 60_000;
const ids = ['panel', 'base', 'glue', 'top'];
const plan: Plan = newPlan('wet-glue', 'Lid', 7, '2026-05-12T08:00:00.000Z', () => ids.shift() ?? 'more');
const START = Date.parse(plan.startsAt);
const PART = plan.piece.parts[0]!.id;
const [base, glue, top] = plan.finishes[0]!.steps.map(({ id }) => ({ partId: PART, stepId: id, coat: 0 }));
const now = { minutesAgo: 0 };

const fold = (events: readonly RunEvent[]): Run => foldRun(events)!;
const after = (events: readonly RunEvent[], minute: number): Forecast =>
  forecast(basisOf(partPlan(plan, PART, null, { known: knownOfAll(fold(events), START + minute * MINUTE) })));

describe('a run', () => {
  it('is nothing without the plan it begins with', () => {
    const tablet = deviceOf('tablet', plan);
    expect(foldRun([tablet(1, 'begun', { ...base!, ...now })])).toBeNull();
  });

  it('knows what was begun and done, when, and told how long after', () => {
    const tablet = deviceOf('tablet', plan);
    const run = fold([
      tablet(0, 'run-begun', beginning(plan)),
      tablet(1, 'begun', { ...base!, ...now }),
      tablet(9, 'done', { ...base!, ...now }),
      tablet(80, 'done', { ...glue!, minutesAgo: 12 }),
    ]);
    expect(run.steps[stepKey(PART, base!.stepId)]).toEqual(
      jasmine.objectContaining({ begunAt: START + MINUTE, doneAt: START + 9 * MINUTE }),
    );
    // Nobody said that it was begun: it was, by when it was done.
    expect(run.steps[stepKey(PART, glue!.stepId)]).toEqual(
      jasmine.objectContaining({ begunAt: START + 68 * MINUTE, doneAt: START + 68 * MINUTE }),
    );
  });

  it('takes back what was told by mistake, and that as well', () => {
    const tablet = deviceOf('tablet', plan);
    const begin = tablet(0, 'run-begun', beginning(plan));
    const skipped = tablet(1, 'skipped', { ...base!, reason: 'no time' });
    const back = tablet(2, 'taken-back', { eventId: skipped.id });
    const forth = tablet(3, 'taken-back', { eventId: back.id });
    const key = stepKey(PART, base!.stepId);
    expect(fold([begin, skipped]).steps[key]!.skipped).toBe('no time');
    expect(fold([begin, skipped, back]).steps[key]).toBeUndefined();
    expect(fold([begin, skipped, back, forth]).steps[key]!.skipped).toBe('no time');
  });

  it('goes by the server’s clock, whatever a device’s own says', () => {
    const [fast, slow] = [deviceOf('fast', plan, -7 * MINUTE), deviceOf('slow', plan, 9 * MINUTE)];
    const events = [
      fast(0, 'run-begun', beginning(plan)),
      slow(5, 'begun', { ...base!, ...now }),
      fast(6, 'note', { partId: null, text: 'a drip at the rim' }),
    ];
    expect(inOrder(events).map(({ at }) => (at - START) / MINUTE)).toEqual([0, 5, 6]);
    expect(fold(events).steps[stepKey(PART, base!.stepId)]!.begunAt).toBe(START + 5 * MINUTE);
  });

  it('never puts a device’s events against its own count, whose clock was set meanwhile', () => {
    const tablet = deviceOf('tablet', plan);
    const first = tablet(30, 'run-begun', beginning(plan));
    const second = tablet(10, 'paused', {});
    expect(inOrder([second, first]).map(({ event }) => event.id)).toEqual([first.id, second.id]);
  });

  it('keeps sections, the first of each telling, and cautions once', () => {
    const tablet = deviceOf('tablet', plan);
    const run = fold([
      tablet(0, 'run-begun', beginning(plan)),
      tablet(1, 'section', { ...glue!, ...now, index: 1, painted: false }),
      tablet(2, 'section', { ...glue!, ...now, index: 0, painted: false }),
      tablet(3, 'section', { ...glue!, ...now, index: 1, painted: true }),
      tablet(4, 'section', { ...glue!, ...now, index: 1, painted: true }),
      tablet(5, 'caution', { ...glue!, code: 'dust' }),
      tablet(6, 'caution', { ...glue!, code: 'dust' }),
      tablet(7, 'mix', { ...glue!, body: 'thinner', addedMl: 5 }),
      tablet(8, 'mix', { ...glue!, body: 'as-meant', addedMl: 2 }),
    ]);
    const step = run.steps[stepKey(PART, glue!.stepId)]!;
    expect(step.sections).toEqual([
      { gluedAt: START + 2 * MINUTE, paintedAt: null },
      { gluedAt: START + MINUTE, paintedAt: START + 3 * MINUTE },
    ]);
    expect(step.cautions).toEqual(['dust']);
    expect([step.mix, step.addedMl]).toEqual(['as-meant', 7]);
  });

  it('puts a step in after another, once, and reopens what was finished', () => {
    const tablet = deviceOf('tablet', plan);
    const step = { ...plan.finishes[0]!.steps[0]!, id: 'rescue' };
    const put = { partId: PART, afterStepId: glue!.stepId, step };
    const events = [
      tablet(0, 'run-begun', beginning(plan)),
      tablet(1, 'put-in', put),
      tablet(2, 'put-in', put),
      tablet(3, 'put-in', { ...put, afterStepId: null, step: { ...step, id: 'first' } }),
      tablet(4, 'finished', {}),
    ];
    const run = fold(events);
    expect(run.plan.finishes[0]!.steps.map(({ id }) => id)).toEqual([
      'first',
      base!.stepId,
      glue!.stepId,
      'rescue',
      top!.stepId,
    ]);
    expect(run.finishedAt).toBe(START + 4 * MINUTE);
    expect(fold([...events, tablet(5, 'reopened', {})]).finishedAt).toBeNull();
  });

  it(`is the same from the same events in any order, told once or twice (seed ${SEED})`, () => {
    const devices = ['tablet', 'phone', 'desk'].map((name, i) => deviceOf(name, plan, (i - 1) * 5 * MINUTE));
    const all: RunEvent[] = [devices[0]!(0, 'run-begun', beginning(plan))];
    for (let i = 0; i < 40; i++) {
      const device = devices[i % 3]!;
      const of = [base!, glue!, top!][i % 3]!;
      all.push(
        i % 5 === 0
          ? device(i, 'seen', {
              ...of,
              ...now,
              after: 'matte',
              before: null,
              now: i % 2 === 0,
              places: 'most',
            })
          : i % 5 === 1
            ? device(i, 'air', { source: 'attic', temperatureC: 20, humidity: 0.5 })
            : i % 5 === 2
              ? device(i, 'taken-back', { eventId: all[i - 2]!.id })
              : device(i, i % 5 === 3 ? 'begun' : 'done', { ...of, minutesAgo: i % 4 }),
      );
    }
    const whole = JSON.stringify(fold(all));
    fc.assert(
      fc.property(fc.shuffledSubarray(all, { minLength: all.length }), fc.subarray(all), (some, again) => {
        expect(JSON.stringify(fold([...some, ...again]))).toBe(whole);
      }),
      { seed: SEED, numRuns: 60 },
    );
    expect(parseEvents({ events: all }).events).toEqual(all);
  });
});

describe('a forecast of what was really done', () => {
  const laid = (lateMin: number, more: readonly RunEvent[] = []): RunEvent[] => {
    const tablet = deviceOf('tablet', plan);
    return [
      tablet(0, 'run-begun', beginning(plan)),
      tablet(0, 'done', { ...base!, ...now }),
      tablet(120, 'done', { ...glue!, ...now }),
      tablet(122 + lateMin, 'done', { ...top!, ...now }),
      ...more,
    ];
  };

  it('has paint that went into glue twelve minutes late crack finer and less (common practice: glue closes)', () => {
    const [good, late] = [after(laid(0), 200), after(laid(12), 200)];
    expect(late.coats[2]!.laidAt - good.coats[2]!.laidAt).toBeCloseTo(720, 6);
    expect(late.whole.crack!.spacing!).toBeLessThan(good.whole.crack!.spacing! * 0.9);
    expect(late.whole.crack!.strength).toBeLessThan(good.whole.crack!.strength);
    expect(late.findings.some(({ code }) => code === 'glue-dried' || code === 'glue-closing')).toBeTrue();
  });

  it('has what was weighed, counted and read, not what was meant', () => {
    const tablet = deviceOf('gauge', plan);
    const thick = after(laid(0, [tablet(121, 'film', { ...glue!, thicknessUm: 240 })]), 200);
    expect(thick.whole.crack!.spacing!).toBeGreaterThan(after(laid(0), 200).whole.crack!.spacing! * 1.1);
    const worked = after(laid(0, [tablet(123, 'passes', { ...top!, count: 8 })]), 200);
    // Brushed over and over, wet glue and paint are mush: common practice.
    expect(worked.whole.crack?.strength ?? 0).toBeLessThan(after(laid(0), 200).whole.crack!.strength * 0.5);
    const damp = after(
      laid(0, [tablet(0, 'air', { source: 'attic', temperatureC: 14, humidity: 0.75 })]),
      200,
    );
    const touch = (result: typeof damp): number => result.coats[0]!.open.touch! - result.coats[0]!.laidAt;
    expect(touch(damp)).toBeGreaterThan(1.5 * touch(after(laid(0), 200)));
  });
});
