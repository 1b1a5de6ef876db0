import { type Plan, type RunEvent } from '@zaffet/contract';
import { parsePlan } from '@zaffet/contract/schemas';
import { filePlan } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { basisOf } from '../basis';
import { partPlan } from '../partPlan';
import { newPlan } from '../newPlan';
import { cellsOf } from '../boards';
import { foldRun, type Run } from '../runs';
import { SCHOOL_KEYS, type School } from '../schools';
import { beginning, deviceOf } from '../testing/runs';
import {
  compareRun,
  entryOf,
  type Kept,
  keptOf,
  MEASURED_FIGURES,
  type MeasuredFigure,
  repeated,
  schoolOf,
  talliesBy,
  tallyOf,
  toldAfterwards,
} from '.';

let id = 0;
const next = (): string => `g${++id}`;
const planOf = (school: School, name = 'Sea chest'): Plan =>
  newPlan(school, name, 7, '2026-05-12T08:00:00.000Z', next);
const glued = planOf('wet-glue');
const [base, glue, top] = glued.finishes[0]!.steps.map((step) => step.id) as [string, string, string];
const part = glued.piece.parts[0]!.id;
const of = (stepId: string): { partId: string; stepId: string; coat: number } => ({
  partId: part,
  stepId,
  coat: 0,
});

/** A run over wet glue: the glue thicker than meant, the top coat four minutes after it and not two. */
function carried(...more: ((tell: ReturnType<typeof deviceOf>) => RunEvent)[]): RunEvent[] {
  const tell = deviceOf(`hand-${next()}`, glued);
  return [
    tell(0, 'run-begun', beginning(glued)),
    tell(0, 'begun', { ...of(base), minutesAgo: 0 }),
    tell(20, 'done', { ...of(base), minutesAgo: 0 }),
    tell(300, 'begun', { ...of(glue), minutesAgo: 0 }),
    tell(305, 'film', { ...of(glue), thicknessUm: 260 }),
    tell(305, 'mix', { ...of(glue), body: 'thicker', addedMl: 12 }),
    tell(306, 'done', { ...of(glue), minutesAgo: 0 }),
    tell(310, 'begun', { ...of(top), minutesAgo: 0 }),
    tell(312, 'passes', { ...of(top), count: 3 }),
    tell(316, 'done', { ...of(top), minutesAgo: 0 }),
    tell(317, 'note', { partId: part, stepId: top, text: 'leave it alone' }),
    ...more.map((one) => one(tell)),
  ];
}
const run = (...more: Parameters<typeof carried>): Run => foldRun(carried(...more))!;

describe('the way of working of a finish', () => {
  it('is the one its steps are those of', () => {
    for (const key of SCHOOL_KEYS)
      expect(schoolOf(planOf(key).finishes[0]!.steps, []))
        .withContext(key)
        .toBe(key);
  });

  it('is still told where a step more is done, and is none where nothing is alike', () => {
    const { steps } = planOf('wet-glue').finishes[0]!;
    const sealed = planOf('wax-resist').finishes[0]!.steps.at(-1)!;
    expect(schoolOf([...steps, sealed], [])).toBe('wet-glue');
    expect(schoolOf(steps.slice(0, 1), [])).toBeNull();
  });

  it('goes by what an own medium is like', () => {
    const { steps } = planOf('wet-glue').finishes[0]!;
    const own = steps.map((step) =>
      'medium' in step && step.medium === 'pva' ? { ...step, medium: 'own' } : step,
    );
    const media = [{ key: 'own', name: 'Old tin', like: 'pva', changes: {} }];
    expect(schoolOf(own, media as never)).toBe('wet-glue');
    expect(schoolOf(own, [])).toBeNull();
  });
});

describe('what the log tells of a run', () => {
  it('is what was said and measured, and the work by the clock', () => {
    const told = entryOf(
      'r',
      run(
        (tell) =>
          tell(400, 'outcome', { partId: part, spacingMm: 6, openingMm: 0.5, chipped: null, worn: null }),
        (tell) => tell(401, 'verdict', { when: 'at-once', verdict: 'middling', text: 'thinner' }),
        (tell) => tell(402, 'verdict', { when: 'after-use', verdict: 'good', text: '' }),
        (tell) =>
          tell(403, 'photo', { partId: null, stepId: null, when: 'dry', hash: 'b'.repeat(64), text: '' }),
        (tell) => tell(404, 'air', { source: 'dial', temperatureC: 18, humidity: 0.6 }),
        (tell) => tell(405, 'finished', {}),
      ),
    );
    expect(told.schools).toEqual(['wet-glue']);
    expect(told.media).toEqual(['latex', 'pva']);
    expect(told.colours.map(({ name }) => name)).toEqual(['Kelp', 'Sailcloth']);
    expect([told.spacingMm, told.openingMm, told.chipped]).toEqual([6, 0.5, null]);
    expect([told.verdict, told.next]).toEqual(['good', 'thinner']);
    expect(told.hours).toBeCloseTo((20 + 6 + 6) / 60, 9);
    expect([told.temperatureC, told.humidity]).toEqual([18, 0.6]);
    expect(told.photos).toEqual([{ hash: 'b'.repeat(64), when: 'dry' }]);
    expect(told.afterwards).toBeFalse();
  });

  it('takes a photograph that was taken back for none, and hours as somebody said them', () => {
    const events = carried(
      (tell) =>
        tell(403, 'photo', { partId: null, stepId: null, when: 'dry', hash: 'b'.repeat(64), text: '' }),
      (tell) =>
        tell(404, 'details', {
          forWhom: 'the museum',
          fate: 'sold',
          price: 400,
          leftOn: null,
          hours: 9,
          cost: 31,
        }),
    );
    const photo = events.find(({ kind }) => kind === 'photo')!;
    const back = deviceOf('other', glued)(500, 'taken-back', { eventId: photo.id });
    const told = entryOf('r', foldRun([...events, back])!);
    expect(told.photos).toEqual([]);
    expect([told.hours, told.forWhom, told.fate, told.price, told.cost]).toEqual([
      9,
      'the museum',
      'sold',
      400,
      31,
    ]);
  });

  it('says of no air that nobody read, where it was told afterwards', () => {
    const tell = deviceOf('later', glued);
    const told = foldRun([tell(0, 'run-begun', beginning(glued)), tell(0, 'finished', {})])!;
    expect(toldAfterwards(told)).toBeTrue();
    expect(entryOf('r', told).humidity).toBeNull();
    expect(entryOf('r', told).hours).toBeNull();
    expect(toldAfterwards(run((one) => one(400, 'finished', {})))).toBeFalse();
  });
});

describe('what was foretold beside what came out', () => {
  const measured = (spacingMm: number): RunEvent[] =>
    carried((tell) =>
      tell(400, 'outcome', { partId: part, spacingMm, openingMm: null, chipped: null, worn: null }),
    );

  it('tells the plan, what was done, and what came out', () => {
    const [told] = compareRun(measured(6), null);
    const spacing = told!.figures.find(({ key }) => key === 'spacing')!;
    expect(spacing.measured).toBeCloseTo(0.006, 9);
    // Thicker glue lets the coat slip more: the cracks stand further apart (common practice).
    expect(spacing.done!.value!).toBeGreaterThan(spacing.planned!.value!);
    expect(spacing.today).toEqual(spacing.done);
    expect(told!.figures.map(({ key }) => key)).toEqual([...MEASURED_FIGURES]);
  });

  it('has the share of each colour that was seen beside what was predicted of it', () => {
    const seen = carried((tell) =>
      tell(900, 'outcome', {
        partId: part,
        spacingMm: null,
        openingMm: null,
        chipped: null,
        worn: null,
        shares: { [top]: 0.8, [base]: 0.2 },
      }),
    );
    const [compared] = compareRun(seen, null);
    const colour = (id: string): { planned: number | null; measured: number | null } =>
      compared!.colours.find((candidate) => candidate.id === id)!;
    expect([colour(base).measured, colour(top).measured]).toEqual([0.2, 0.8]);
    expect(colour('panel').measured).toBeNull();
    const planned = compared!.colours.reduce((sum, { planned: share }) => sum + share!, 0);
    expect(planned).toBeGreaterThan(0.9);
    expect(compareRun(carried(), null)[0]!.colours).toEqual([]);
    // A board's cell takes from it on how much the top colour is not seen.
    expect(cellsOf('r', foldRun(seen)!)[0]!.read.under).toBeCloseTo(0.2, 9);
  });

  it('goes by what the shop knows today where that is another thing', () => {
    const learned = { keys: ['strain:latex' as const], mean: [0.3], covariance: [[0.01]] };
    const [told] = compareRun(measured(6), learned);
    const spacing = told!.figures.find(({ key }) => key === 'spacing')!;
    expect(spacing.today!.value).not.toBeCloseTo(spacing.done!.value!, 5);
  });

  it('counts a figure as kept inside its band, and as not kept outside', () => {
    const [{ foretold }] = keptOf('r', measured(6)) as [ReturnType<typeof keptOf>[0]];
    const at = (metres: number): boolean => keptOf('r', measured(1000 * metres))[0]!.inside;
    expect(at(foretold.value!)).toBeTrue();
    expect(at(foretold.high! * 1.02)).toBeFalse();
    expect(at(foretold.low! * 0.98)).toBeFalse();
    expect(keptOf('r', carried())).toEqual([]);
  });
});

describe('a run done again', () => {
  const again = { name: 'Sea chest again', startsAt: '2026-08-03T08:00:00.000Z', byWidth: 1, byHeight: 1 };
  const plan = repeated(run(), again, next);
  const stepsOf = (one: Plan): Plan['finishes'][0]['steps'] => one.finishes[0]!.steps;

  it('is a plan that can be kept', () => {
    expect(() => parsePlan(filePlan(plan))).not.toThrow();
    const ids = new Set(stepsOf(plan).map((step) => step.id));
    for (const step of stepsOf(glued)) expect(ids.has(step.id)).toBeFalse();
  });

  it('goes by what was done: how thick, how many strokes, how much water, after what wait', () => {
    const [, thick, last] = stepsOf(plan);
    if (thick?.kind !== 'coat' || last?.kind !== 'coat') throw new Error('no coats');
    expect(thick.thicknessUm).toBe(260);
    // 260 µm on 600 × 400 mm are 62.4 mL, to which 12 mL were added.
    expect(thick.dilution).toBeCloseTo(12 / 62.4, 2);
    expect(last.passes).toBe(3);
    expect(last.start).toEqual({ rule: 'after', waitMin: 4 });
  });

  it('waits for a state again, and after it for as long as then', () => {
    const [first, thick] = stepsOf(plan);
    expect(thick!.start).toEqual(jasmine.objectContaining({ rule: 'state' }));
    const times = forecast(basisOf(partPlan(plan, part))).times;
    // The glue was begun 300 minutes after the base coat was, in the same air.
    expect((times[1]!.from - times[0]!.from) / 60).toBeCloseTo(300, -1);
    const early = foldRun(carried().filter(({ kind }) => kind !== 'begun' && kind !== 'done'))!;
    expect(stepsOf(repeated(early, again, next))[1]!.start).toEqual(stepsOf(glued)[1]!.start);
    const tell = deviceOf('soon', glued);
    const soon = foldRun([
      tell(0, 'run-begun', beginning(glued)),
      tell(0, 'begun', { ...of(base), minutesAgo: 0 }),
      tell(20, 'done', { ...of(base), minutesAgo: 0 }),
      tell(28, 'begun', { ...of(glue), minutesAgo: 0 }),
    ])!;
    expect(stepsOf(repeated(soon, again, next))[1]!.start).toEqual({ rule: 'after', waitMin: 8 });
    expect(first!.kind).toBe('coat');
  });

  it('brings what was written down to its steps, and what to do otherwise to the first', () => {
    expect(stepsOf(plan)[2]!.note).toBe('leave it alone');
    expect(stepsOf(plan)[1]!.note).toBe('the mix was thicker than meant');
    const ofAll = run((tell) => tell(320, 'note', { partId: null, stepId: base, text: 'stir it' }));
    expect(stepsOf(repeated(ofAll, again, next))[0]!.note).toBe('stir it');
    const told = run((tell) => tell(400, 'verdict', { when: 'at-once', verdict: 'bad', text: 'less glue' }));
    expect(stepsOf(repeated(told, again, next))[0]!.note).toBe('less glue');
  });

  it('leaves out what was left out', () => {
    const told = run((tell) => tell(400, 'skipped', { ...of(base), reason: 'was there' }));
    expect(stepsOf(repeated(told, again, next)).length).toBe(2);
  });

  it('is as much larger as is asked, its places with it', () => {
    const zoned: Run = {
      ...run(),
      plan: {
        ...glued,
        piece: {
          ...glued.piece,
          parts: glued.piece.parts.map((one) => ({
            ...one,
            zones: [
              {
                id: 'z',
                kind: 'pull',
                name: 'Pull',
                oval: false,
                leftMm: 100,
                topMm: 50,
                widthMm: 60,
                heightMm: 40,
              },
            ],
          })),
        },
      },
    };
    const [larger] = repeated(zoned, { ...again, byWidth: 2, byHeight: 1.5 }, next).piece.parts;
    expect([larger!.widthMm, larger!.heightMm]).toEqual([1200, 600]);
    expect(larger!.zones[0]).toEqual(
      jasmine.objectContaining({ leftMm: 200, topMm: 75, widthMm: 120, heightMm: 60 }),
    );
  });

  it('gives parts that were done otherwise a finish each', () => {
    const twin = { ...glued.piece.parts[0]!, id: 'twin', name: 'Twin' };
    const two: Plan = { ...glued, piece: { ...glued.piece, parts: [glued.piece.parts[0]!, twin] } };
    const tell = deviceOf('two', two);
    const both = foldRun([
      tell(0, 'run-begun', beginning(two)),
      tell(5, 'film', { ...of(glue), thicknessUm: 90 }),
    ])!;
    const made = repeated(both, again, next);
    expect(made.finishes.length).toBe(2);
    expect(new Set(made.piece.parts.map(({ finish }) => finish)).size).toBe(2);
    expect(() => parsePlan(filePlan(made))).not.toThrow();
    const same = foldRun([deviceOf('same', two)(0, 'run-begun', beginning(two))])!;
    expect(repeated(same, again, next).finishes.length).toBe(1);
  });
});

describe('how well figures were foretold', () => {
  const kept = (measured: number, inside: boolean, key: MeasuredFigure = 'spacing'): Kept => ({
    key,
    runId: 'r',
    name: 'Chest',
    part: 'Lid',
    school: 'wet-glue',
    at: 0,
    measured,
    foretold: { key, value: key === 'spacing' ? 0.01 : 0.2, low: 0, high: 1, movers: [] } as never,
    inside,
  });

  it('is how many were inside, beside how many should be', () => {
    // Quantiles of the binomial distribution with p = 0.8, at 0.025 and 0.975, by exact sums in another language.
    for (const [n, least, most] of [
      [1, 0, 1],
      [5, 2, 5],
      [10, 5, 10],
      [24, 15, 23],
      [100, 72, 88],
    ] as const)
      expect(tallyOf(Array.from({ length: n }, () => kept(0.01, true))).expected).toEqual({ least, most });
    const tally = tallyOf(Array.from({ length: 100 }, (_, i) => kept(0.01, i < 75)));
    expect([tally.count, tally.inside]).toEqual([100, 75]);
    expect(tallyOf([]).off).toBeNull();
  });

  it('tells how far off they came out, too long like too short, and shares in points', () => {
    expect(tallyOf([kept(0.02, true), kept(0.005, true)]).off).toBeCloseTo(1, 9);
    expect(tallyOf([kept(0.01, true), kept(0.015, true), kept(0.1, false)]).off).toBeCloseTo(0.5, 9);
    expect(tallyOf([kept(0.35, true, 'chips')]).off).toBeCloseTo(0.15, 9);
  });

  it('is told for each kind', () => {
    const all = [kept(0.01, true), kept(0.2, true, 'chips'), kept(0.01, false)];
    expect(
      talliesBy(all, ({ key }) => key).map(({ key, tally }) => [key, tally.count, tally.inside]),
    ).toEqual([
      ['spacing', 2, 1],
      ['chips', 1, 1],
    ]);
  });
});
