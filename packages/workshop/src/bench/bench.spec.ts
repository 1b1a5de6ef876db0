import { type Plan, type RunBodies, type RunEvent } from '@zaffet/contract';
import { after, newDistress, newSeal, when } from '../create';
import { newPlan } from '../newPlan';
import { foldRun, knownOf } from '../runs';
import { type School } from '../schools';
import { beginning, deviceOf } from '../testing/runs';
import { timetable } from '../timetable';
import {
  alarmsOf,
  type Bench,
  type BenchPart,
  type BenchTask,
  beliefNow,
  type Beliefs,
  benchOf,
  due,
  isWaiting,
  recordOf,
} from '.';

const MINUTE = 60_000;
const now = { minutesAgo: 0 };

/** Two parts alike, prepared, of the finish of a school. */
function planOf(school: School): Plan {
  let id = 0;
  const one = newPlan(school, 'Chest', 7, '2026-05-12T08:00:00.000Z', () => `s${++id}`);
  const [part] = one.piece.parts;
  return {
    ...one,
    timing: { ...one.timing, prepares: false },
    piece: { ...one.piece, parts: [part!, { ...part!, id: 'front', name: 'Front' }] },
  };
}
const glued = planOf('wet-glue');
const PART = glued.piece.parts[0]!.id;
const [base, glue, top] = glued.finishes[0]!.steps.map(({ id }) => ({ partId: PART, stepId: id, coat: 0 }));
const START = Date.parse(glued.startsAt);
const { table } = timetable(glued);

const standing = (
  events: readonly RunEvent[],
  minute: number,
  of = table,
  known: Beliefs = new Map(),
): Bench => benchOf(foldRun(events)!, of, START + minute * MINUTE, known);
const partIn = (bench: Bench, id = PART): BenchPart => bench.parts.find(({ partId }) => partId === id)!;
const current = (bench: Bench, id = PART): BenchTask | undefined =>
  partIn(bench, id).tasks.find(({ state }) => state === 'next' || state === 'doing');

describe('a run at the bench', () => {
  const tablet = (): ReturnType<typeof deviceOf> => deviceOf('tablet', glued);

  it('has all as it was timed while nothing is done', () => {
    const device = tablet();
    const bench = standing([device(0, 'run-begun', beginning(glued))], 0);
    for (const part of bench.parts) {
      expect(part.tasks.map(({ kind }) => kind)).toEqual(['step', 'sections']);
      expect(part.tasks.map(({ state }) => state)).toEqual(['next', 'later']);
      for (const task of part.tasks) expect(task.from).toBe(task.plannedAt!);
      expect(part.film).toBeNull();
    }
    expect(bench.air).toEqual({ factor: 1, answers: 0 });
  });

  it('goes on from what was done, and waits for what dries', () => {
    const device = tablet();
    const events = [
      device(0, 'run-begun', beginning(glued)),
      device(3, 'begun', { ...base!, ...now }),
      device(11, 'done', { ...base!, ...now }),
    ];
    const bench = standing(events, 12);
    const [first, second] = partIn(bench).tasks;
    expect([first!.state, first!.from, first!.until]).toEqual([
      'done',
      START + 3 * MINUTE,
      START + 11 * MINUTE,
    ]);
    expect(second!.state).toBe('next');
    expect(second!.below).toBe(base!.stepId);
    const { low, at, high } = second!.opens!;
    expect(low).toBeLessThan(at);
    expect(high).toBeGreaterThan(at);
    expect(at).toBeGreaterThan(START + 11 * MINUTE);
    // The other part has not been touched.
    expect(current(bench, 'front')!.stepId).toBe(base!.stepId);
  });

  it('holds every wait, the ones no film decides too, and says what it waits for', () => {
    const waits = planOf('wet-distress');
    const [finish] = waits.finishes;
    const [first] = finish!.steps;
    const more = [30, 30, 60].map((minutes, i) => newDistress(`w${i}`, 'cloth', after(minutes)));
    const plan = { ...waits, finishes: [{ ...finish!, steps: [first!, ...more] }] };
    const { table: timed } = timetable(plan);
    const device = deviceOf('tablet', plan);
    const events = [device(0, 'run-begun', beginning(plan))];
    const eventAt = (
      stepId: string,
    ): { partId: string; stepId: string; coat: number; minutesAgo: number } => ({
      partId: PART,
      stepId,
      coat: 0,
      minutesAgo: 0,
    });
    const next = (minute: number): BenchTask => current(standing(events, minute, timed))!;
    expect(isWaiting(next(0), START)).toBeFalse();
    events.push(device(0, 'begun', eventAt(first!.id)), device(10, 'done', eventAt(first!.id)));
    let minute = 10;
    for (const { id, start } of more) {
      const wait = (start as { waitMin: number }).waitMin;
      const task = next(minute);
      expect([task.stepId, task.reason]).toEqual([id, 'minutes']);
      expect(isWaiting(task, START + (minute + wait - 1) * MINUTE)).toBeTrue();
      expect(isWaiting(task, START + (minute + wait) * MINUTE)).toBeFalse();
      expect((task.opens!.at - task.since) / MINUTE).toBeCloseTo(wait, 3);
      minute += wait;
      events.push(device(minute, 'begun', eventAt(id)), device(minute + 2, 'done', eventAt(id)));
      minute += 2;
    }
    // Pressed through, the whole would have taken a quarter of an hour.
    expect(minute).toBe(136);
  });

  it('lets preparation rest', () => {
    const plain = planOf('wet-glue');
    const plan = { ...plain, timing: { ...plain.timing, prepares: true } };
    const { table: timed } = timetable(plan);
    const device = deviceOf('tablet', plan);
    const events = [device(0, 'run-begun', beginning(plan))];
    const [prep] = partIn(standing(events, 0, timed)).tasks;
    expect(prep!.kind).toBe('prepare');
    events.push(device(12, 'done', { partId: PART, stepId: prep!.stepId, coat: 0, minutesAgo: 0 }));
    const task = current(standing(events, 12, timed))!;
    expect(task.reason).toBe('rest');
    expect(isWaiting(task, START + 12 * MINUTE)).toBeTrue();
    expect(task.since).toBe(START + 12 * MINUTE);
  });

  it('takes a coat that was laid twelve minutes late as it was, and moves what follows by as much', () => {
    const begun = (minute: number, minutesAgo: number): BenchTask => {
      const device = tablet();
      const events = [
        device(0, 'run-begun', beginning(glued)),
        device(minute, 'done', { ...base!, minutesAgo }),
      ];
      return current(standing(events, minute))!;
    };
    const [inTime, late, told] = [begun(8, 0), begun(20, 0), begun(20, 12)];
    expect((late.opens!.at - inTime.opens!.at) / MINUTE).toBeCloseTo(12, 3);
    expect(told.opens!.at).toBeCloseTo(inTime.opens!.at, 3);
  });

  const looks = (
    ...seen: readonly (Partial<RunBodies['seen']> & { readonly minute: number })[]
  ): RunEvent[] => {
    const device = tablet();
    return [
      device(0, 'run-begun', beginning(glued)),
      device(0, 'begun', { ...base!, ...now }),
      device(6, 'done', { ...base!, ...now }),
      ...seen.map(({ minute, ...more }) =>
        device(minute, 'seen', {
          ...base!,
          ...now,
          after: null,
          before: null,
          now: false,
          places: 'most',
          ...more,
        }),
      ),
    ];
  };
  const opening = (events: readonly RunEvent[]): number => current(standing(events, 60))!.opens!.at;
  const film = partIn(standing(looks(), 10)).film!;
  const minuteOf = (state: 'matte' | 'tacky' | 'recoat'): number => (film.states[state]!.at - START) / MINUTE;

  it('hears what is seen of a coat: sooner than thought brings the window nearer, later puts it off', () => {
    const plain = opening(looks());
    expect(opening(looks({ minute: 0.5 * minuteOf('matte'), after: 'matte', now: true }))).toBeLessThan(
      plain,
    );
    expect(opening(looks({ minute: 1.6 * minuteOf('matte'), before: 'matte' }))).toBeGreaterThan(plain);
    const width = (events: readonly RunEvent[]): number => {
      const { low, high } = current(standing(events, 60))!.opens!;
      return Math.log((high - START) / (low - START));
    };
    expect(width(looks({ minute: minuteOf('matte'), after: 'matte', now: true }))).toBeLessThan(
      width(looks()),
    );
  });

  it('takes "in no place" for not yet, "in some" for just now, "in most" for past', () => {
    const at = minuteOf('tacky');
    const none = looks({ minute: at, after: 'tacky', places: 'none' });
    expect(opening(none)).toBe(opening(looks({ minute: at, before: 'tacky', places: 'most' })));
    const some = opening(looks({ minute: at, after: 'tacky', places: 'some' }));
    expect(some).toBe(opening(looks({ minute: at, after: 'tacky', now: true })));
    expect(some).toBeGreaterThan(opening(looks({ minute: at, after: 'tacky' })));
    expect(some).toBeLessThan(opening(none));
  });

  it('carries the air of the shop on to other parts, and forgets what is taken back', () => {
    const events = looks({ minute: 1.8 * minuteOf('matte'), before: 'matte' });
    const device = deviceOf('desk', glued);
    const other = [...events, device(60, 'done', { ...base!, partId: 'front', ...now })];
    const plain = [...looks(), device(60, 'done', { ...base!, partId: 'front', ...now })];
    const opens = (all: readonly RunEvent[]): number => current(standing(all, 61), 'front')!.opens!.at;
    expect(opens(other)).toBeGreaterThan(opens(plain) + MINUTE);
    expect(standing(other, 61).air.factor).toBeLessThan(0.95);
    const back = [...other, device(62, 'taken-back', { eventId: events.at(-1)!.id })];
    expect(opens(back)).toBe(opens(plain));
  });

  it('knows better what will come of a coat once its first cracks were told', () => {
    const device = tablet();
    const laid = [
      device(0, 'run-begun', beginning(glued)),
      device(0, 'done', { ...base!, ...now }),
      device(240, 'begun', { ...glue!, ...now }),
      device(241, 'begun', { ...top!, ...now }),
      device(241, 'done', { ...top!, ...now }),
      device(241, 'done', { ...glue!, ...now }),
    ];
    const { figures, states, laidAt } = partIn(standing(laid, 242)).film!;
    const width = ({ low, high }: { low: number; high: number }): number => Math.log(high / low);
    const first = (states['first-cracks']!.at - laidAt) / MINUTE;
    const told = (minute: number): ReturnType<typeof partIn>['film'] => {
      const look = { after: 'first-cracks', before: null, now: true, places: 'most' } as const;
      const events = [...laid, device(241 + minute, 'seen', { ...top!, ...now, ...look })];
      return partIn(standing(events, 241 + minute)).film;
    };
    expect(width(told(first)!.figures.opening!)).toBeLessThan(width(figures.opening!));
    // Cracks that come early tell of more strain: nearer to each other, or wider, than was thought.
    const opened = (minute: number): number => told(minute)!.figures.opening!.at;
    expect(opened(0.5 * first)).toBeGreaterThan(1.03 * opened(2 * first));
    // What is learned of the coat goes on into the forecast of its part.
    const factors = standing(
      [
        ...laid,
        device(241 + 0.5 * first, 'seen', {
          ...top!,
          ...now,
          ...{ after: 'first-cracks', before: null, now: true, places: 'most' },
        }),
      ],
      300,
    ).parts[0]!.learned!.steps![top!.stepId]!;
    expect(factors.strain!).toBeGreaterThan(0.02);
    expect(factors.tough!).toBeLessThan(0);
  });

  it('warns at a coat before which the ground was not smoothed', () => {
    const rough = planOf('brittle-ground');
    const device = deviceOf('tablet', rough);
    const steps = rough.finishes[0]!.steps.map(({ id }) => ({ partId: PART, stepId: id, coat: 0 }));
    const events = [
      device(0, 'run-begun', beginning(rough)),
      ...[0, 1, 2, 3].map((i) => device(300 * (i + 1), 'done', { ...steps[i]!, ...now })),
    ];
    const { table: timed } = timetable(rough);
    const codes = (more: readonly RunEvent[]): string[] =>
      current(standing([...events, ...more], 1600, timed))!.notes.map(({ code }) => code);
    expect(current(standing(events, 1600, timed))!.stepId).toBe(steps[4]!.stepId);
    expect(codes([device(1500, 'skipped', { ...steps[4]!, reason: 'forgotten' })])).toContain('ground-rough');
    expect(codes([device(1500, 'done', { ...steps[4]!, ...now })])).not.toContain('ground-rough');
  });

  it('knows an answer that can hardly be right', () => {
    const run = foldRun(looks())!;
    const belief = beliefNow(run, PART, base!.stepId, START + 60 * MINUTE, new Map())!;
    expect([belief.belief.stepId, belief.laidAt]).toEqual([base!.stepId, START]);
    expect(beliefNow(run, PART, top!.stepId, START + 60 * MINUTE, new Map())).toBeNull();
  });

  it('has glue close by its oldest section, and the coat laid when the first paint went over it', () => {
    const device = tablet();
    const events = [
      device(0, 'run-begun', beginning(glued)),
      device(0, 'done', { ...base!, ...now }),
      device(240, 'begun', { ...glue!, ...now }),
      device(241, 'section', { ...glue!, ...now, index: 0, painted: false }),
      device(242, 'begun', { ...top!, ...now }),
      device(242, 'section', { ...glue!, ...now, index: 0, painted: true }),
      device(243, 'section', { ...glue!, ...now, index: 1, painted: false }),
    ];
    const during = partIn(standing(events.slice(0, 4), 241));
    expect(during.film!.laidAt).toBe(START + 241 * MINUTE);
    const task = during.tasks[1]!;
    expect([task.state, task.waitsFor]).toEqual(['doing', 'skinned']);
    const ended = [
      ...events,
      device(246, 'done', { ...top!, ...now }),
      device(246, 'done', { ...glue!, ...now }),
    ];
    const after = partIn(standing(ended, 247));
    expect(after.tasks.every(({ state }) => state === 'done')).toBeTrue();
    expect(after.film!.stepId).toBe(top!.stepId);
    expect(after.film!.laidAt).toBe(START + 242 * MINUTE);
  });

  it('has glue take its coat for as long as the schedule has the second brush behind the first', () => {
    const [finish] = glued.finishes;
    const steps = finish!.steps.map((step) =>
      step.id === top!.stepId ? { ...step, start: after(6) } : step,
    );
    const plan = { ...glued, finishes: [{ ...finish!, steps }] };
    const { table: timed } = timetable(plan);
    const device = deviceOf('tablet', plan);
    const events = [
      device(0, 'run-begun', beginning(plan)),
      device(0, 'done', { ...base!, ...now }),
      device(240, 'begun', { ...glue!, ...now }),
      device(240, 'section', { ...glue!, ...now, index: 0, painted: false }),
    ];
    const { closes, lag } = current(standing(events, 241, timed))!;
    const planned = timed.entries.find(({ kind, partId }) => kind === 'sections' && partId === PART)!.lag;
    expect(planned).toBeGreaterThanOrEqual(6 * 60);
    expect(lag).toBeCloseTo(planned, 3);
    expect(closes!.low).toBeGreaterThanOrEqual(START + 240 * MINUTE + 1000 * planned);
  });

  it('waits for the section that was glued first, while any is to be painted', () => {
    const device = tablet();
    const section = (minute: number, index: number, painted: boolean): RunEvent =>
      device(minute, 'section', { ...glue!, ...now, index, painted });
    const events = [
      device(0, 'run-begun', beginning(glued)),
      device(0, 'done', { ...base!, ...now }),
      device(240, 'begun', { ...glue!, ...now }),
      section(240, 0, false),
      device(241, 'begun', { ...top!, ...now }),
      section(241, 0, true),
      section(242, 1, false),
      section(243, 2, false),
    ];
    const { film, tasks } = partIn(standing(events, 244));
    expect([film!.stepId, film!.laidAt]).toEqual([glue!.stepId, START + 242 * MINUTE]);
    expect(tasks[1]!.waitsFor).toBe('skinned');
    const alarms = alarmsOf(standing(events, 244)).filter(({ partId }) => partId === PART);
    expect(alarms.map(({ kind, at }) => [kind, at])).toEqual([['closing', tasks[1]!.closes!.low]]);
  });

  it('has the next task wait for the film as it is believed, the shop’s air counted once', () => {
    const told = partIn(standing(looks({ minute: 1.7 * minuteOf('matte'), before: 'matte' }), 60));
    const [opens, recoat] = [
      told.tasks.find(({ state }) => state === 'next')!.opens!,
      told.film!.states.recoat!,
    ];
    expect(Math.abs(Math.log((opens.at - START) / (recoat.at - START)))).toBeLessThan(0.05);
    expect(Math.abs(Math.log((opens.low - START) / (recoat.low - START)))).toBeLessThan(0.06);
  });

  it('rings for a look when a window may be open, and to go when it most likely is', () => {
    const task = current(standing(looks(), 20))!;
    const alarms = alarmsOf(standing(looks(), 20)).filter(({ partId }) => partId === PART);
    expect(alarms.map(({ kind, at }) => [kind, at])).toEqual([
      ['look', task.opens!.low],
      ['go', task.opens!.at],
    ]);
    expect(due(alarms, task.opens!.low - 1, task.opens!.low).map(({ kind }) => kind)).toEqual(['look']);
    expect(due(alarms, task.opens!.low, task.opens!.at - 1)).toEqual([]);
  });

  it('rings for nothing that nobody waited for: at the beginning, or as soon as hands are free', () => {
    const gone = (events: readonly RunEvent[], minute: number): string[] =>
      alarmsOf(standing(events, minute)).flatMap(({ kind, partId }) => (kind === 'go' ? [partId] : []));
    const device = tablet();
    const begun = [device(0, 'run-begun', beginning(glued))];
    expect(gone(begun, 0)).toEqual([]);
    // The front may be begun from the moment on that the hands are free; of what was laid it is told when it is ready.
    const doing = [...begun, device(1, 'begun', { ...base!, ...now })];
    expect(gone(doing, 2)).toEqual([]);
    const laid = [...doing, device(6, 'done', { ...base!, ...now })];
    expect(gone(laid, 7)).toEqual([PART]);
  });

  it('ends a task when it was told to have ended, however long it is thought to take', () => {
    const device = tablet();
    const quick = [
      device(0, 'run-begun', beginning(glued)),
      device(0, 'begun', { ...base!, ...now }),
      device(1, 'done', { ...base!, ...now }),
      // Begun before the hands are thought to be free: as it was told.
      device(2, 'begun', { ...glue!, ...now }),
      device(2, 'section', { ...glue!, ...now, index: 0, painted: false }),
    ];
    const { film, tasks } = partIn(standing(quick, 3));
    expect(tasks[0]!.hands).toBeGreaterThan(120);
    expect(film!.laidAt).toBe(START + 2 * MINUTE);
    const skins = film!.states.skinned!.at;
    expect(Math.abs(tasks[1]!.closes!.at - skins)).toBeLessThan(2 * MINUTE);
  });

  it('tells what was planned beside what was done', () => {
    const device = tablet();
    const events = [
      device(0, 'run-begun', beginning(glued)),
      device(12, 'begun', { ...base!, ...now }),
      device(12, 'film', { ...base!, thicknessUm: 130 }),
      device(14, 'done', { ...base!, ...now }),
    ];
    const bench = standing(events, 20);
    const lines = recordOf(foldRun(events)!, bench).filter(({ partId }) => partId === PART);
    expect(lines.map(({ stepId }) => stepId)).toEqual([base!.stepId, glue!.stepId, top!.stepId]);
    const planned = bench.parts[0]!.tasks[0]!.plannedAt!;
    expect(lines[0]).toEqual(
      jasmine.objectContaining({
        begunAt: START + 12 * MINUTE,
        doneAt: START + 14 * MINUTE,
        late: START + 12 * MINUTE - planned,
        film: jasmine.objectContaining({ told: 130 }),
      }),
    );
    expect([lines[1]!.begunAt, lines[1]!.late]).toEqual([null, null]);
  });

  it('is the same from the same events with a fresh memory or a full one', () => {
    const events = looks({ minute: 20, after: 'matte' }, { minute: 40, before: 'recoat' });
    const known: Beliefs = new Map();
    standing(events.slice(0, -1), 30, table, known);
    expect(JSON.stringify(standing(events, 60, table, known))).toBe(JSON.stringify(standing(events, 60)));
  });

  it('leaves out what is skipped, and has a step that was put in for its part alone', () => {
    const device = tablet();
    const step = { ...glued.finishes[0]!.steps[0]!, id: 'again' };
    const events = [
      device(0, 'run-begun', beginning(glued)),
      device(1, 'skipped', { ...base!, reason: 'the old coat is sound' }),
      device(2, 'put-in', { partId: PART, afterStepId: base!.stepId, step }),
    ];
    const bench = standing(events, 3);
    expect(partIn(bench).tasks.map(({ stepId }) => stepId)).toEqual(['again', glue!.stepId]);
    expect(partIn(bench, 'front').tasks.map(({ stepId }) => stepId)).toEqual([base!.stepId, glue!.stepId]);
  });
});

describe('seals, waxes and preparation at the bench', () => {
  it('go coat by coat, buffing last, preparation first', () => {
    let id = 0;
    const plain = newPlan('dried-medium', 'Stand', 7, '2026-05-12T08:00:00.000Z', () => `w${++id}`);
    const finish = plain.finishes[0]!;
    const wax = newSeal('wax', 'clearWax', when('recoat'));
    const plan = {
      ...plain,
      finishes: [{ ...finish, steps: [finish.steps[0]!, { ...wax, coats: 2, buffAfterMin: 20 }] }],
    };
    const device = deviceOf('tablet', plan);
    const of = timetable(plan).table;
    const start = Date.parse(plan.startsAt);
    const events = [device(0, 'run-begun', beginning(plan))];
    const seen: string[] = [];
    for (let minute = 10; seen.length < 12; minute += 600) {
      const bench = benchOf(foldRun(events)!, of, start + minute * MINUTE, new Map());
      const task = bench.parts[0]!.tasks.find(({ state }) => state === 'next');
      if (task === undefined) break;
      seen.push(`${task.kind} ${task.coat}`);
      const [partId, stepId, coat] = task.key.split(' ');
      events.push(device(minute, 'done', { partId: partId!, stepId: stepId!, coat: Number(coat), ...now }));
    }
    // The moment of buffing is the forecast's too.
    const seal = plan.finishes[0]!.steps[1]!.id;
    const { done } = knownOf(foldRun(events)!, plan.piece.parts[0]!.id, start + 99_999 * MINUTE);
    expect(done[seal]!.coats!.length).toBe(2);
    expect(done[seal]!.buffAt).toBeGreaterThan(done[seal]!.coats![1]!);
    expect(seen[0]).toBe('prepare 0');
    expect(seen.slice(-4)).toEqual(['step 0', 'coat 0', 'coat 1', 'buff 0']);
  });
});

describe('a window that was missed', () => {
  it('is told all the same: milk paint long after its sealer had dried', () => {
    let id = 0;
    const made = newPlan('chippy-milk', 'Stand', 7, '2026-05-12T08:00:00.000Z', () => `m${++id}`);
    const plan = { ...made, timing: { ...made.timing, prepares: false } };
    const part = plan.piece.parts[0]!.id;
    const device = deviceOf('tablet', plan);
    const of = timetable(plan).table;
    const start = Date.parse(plan.startsAt);
    const events = [device(0, 'run-begun', beginning(plan))];
    const { steps } = plan.finishes[0]!;
    const sealer = steps.findIndex(
      (step, i) =>
        'medium' in step &&
        steps[i + 1]?.kind === 'coat' &&
        'medium' in steps[i + 1]! &&
        (steps[i + 1] as { medium: string }).medium === 'milk' &&
        step.medium !== 'milk',
    );
    steps.slice(0, sealer + 1).forEach(({ id: stepId }, i) => {
      events.push(device(3000 * (i + 1), 'done', { partId: part, stepId, coat: 0, ...now }));
    });
    const at = start + (3000 * (sealer + 1) + 2000) * MINUTE;
    const task = benchOf(foldRun(events)!, of, at, new Map()).parts[0]!.tasks.find(
      ({ stepId }) => stepId === steps[sealer + 1]!.id,
    )!;
    expect(task.closes).not.toBeNull();
    expect(task.closes!.at).toBeLessThan(at);
  });
});
