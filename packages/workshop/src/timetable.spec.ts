import { type Plan } from '@zaffet/contract';
import { stepTimes } from '@zaffet/core/forecast';
import { retimer, schedule } from '@zaffet/core/schedule';
import fc from 'fast-check';
import { broken } from '../../core/src/testing/checkSchedule';
import { basisOf } from './basis';
import { usualWork } from './calendar';
import { mixing } from './mixing';
import { newPlan } from './newPlan';
import { otherWays } from './otherWays';
import { partPlan } from './partPlan';
import { sittings } from './sittings';
import { demoPlans } from './testing/demo';
import { manyParts } from './testing/manyParts';
import { problemOf, timetable } from './timetable';
import { USUAL_MEASURES } from '@zaffet/contract';

const demo = demoPlans();
const SEED = 20261128;

describe('preparation', () => {
  it('is timed line by line: neither what is done nor what the part does not need', () => {
    const [first] = demo;
    const stages = (changes: object): string[] => {
      const parts = first!.piece.parts.map((part) => ({ ...part, substrate: 'gloss' as const, ...changes }));
      const timing = { ...first!.timing, prepares: true };
      const { table } = timetable({ ...first!, piece: { ...first!.piece, parts }, timing });
      return table.entries.flatMap(({ prepares }) => prepares);
    };
    const none = { prepared: [], unneeded: [] };
    expect(stages(none)).toContain('scuff');
    expect(stages({ ...none, prepared: ['scuff'] })).not.toContain('scuff');
    expect(stages({ ...none, unneeded: ['scuff'] })).not.toContain('scuff');
    expect(stages({ ...none, unneeded: ['scuff'] })).toContain('degrease');
  });
});

describe('timetables of any plan', () => {
  it(`break nothing, made, dragged and made again (seed ${SEED})`, () => {
    let looked = 0;
    fc.assert(
      fc.property(fc.integer({ min: 1000, max: 1_000_000 }), fc.nat(1000), (seed, nth) => {
        looked += 1;
        const problem = problemOf(manyParts(seed));
        const table = schedule(problem, { tries: 12, seed: 1 });
        if (table.outcome === 'impossible') return table.obstacle !== null;
        if (table.missed.length > 0) return true;
        const wrong = broken(problem, table);
        const movable = table.entries.filter(({ kind }) => ['step', 'coat', 'sections'].includes(kind));
        const { partId, stepId, coat, from } = movable[nth % movable.length]!;
        const pins = [{ partId, stepId, coat, at: from + 60 * (nth % 300) }];
        const dragged = retimer(problem, table)(pins);
        if (dragged.missed.length === 0) wrong.push(...broken({ ...problem, pins }, dragged));
        if (wrong.length > 0) throw new Error(`plan ${seed}: ${wrong.slice(0, 3).join('; ')}`);
        return true;
      }),
      { numRuns: 100, seed: SEED },
    );
    expect(looked).toBe(100);
  }, 600_000);

  it('keep nearly every window: out of forty plans at most one misses any', () => {
    const missing = Array.from({ length: 40 }, (_, seed) =>
      schedule(problemOf(manyParts(seed)), { tries: 12, seed: 1 }),
    );
    expect(missing.filter(({ missed }) => missed.length > 0).length).toBeLessThanOrEqual(1);
  }, 300_000);

  it('are the same each time, as text too', () => {
    for (const seed of [3, 5, 8]) {
      const text = (): string => JSON.stringify(timetable(manyParts(seed)).table);
      expect(text()).toBe(text());
    }
  });
});

describe('one truth', () => {
  for (const plan of demo)
    it(`of when each step is done: ${plan.name}`, () => {
      const timed = timetable(plan);
      const { table, circumstances } = timed;
      for (const { id } of plan.piece.parts) {
        const told = stepTimes(basisOf(partPlan(plan, id, null, circumstances)));
        for (const { step, from } of told) {
          const entry = table.entries.find(
            ({ partId, stepId, kind }) =>
              partId === id && stepId === step.id && !['turn', 'clean', 'mix'].includes(kind),
          );
          if (entry !== undefined)
            expect(Math.abs(from - entry.from))
              .withContext(`${id} ${step.id}`)
              .toBeLessThan(1);
        }
      }
      const { pots } = mixing(plan, { items: [], measures: USUAL_MEASURES }, timed);
      for (const { at, recipe } of table.mixes)
        expect(pots.some((pot) => recipe.startsWith(pot.recipe) && pot.mixedAt <= at))
          .withContext(recipe)
          .toBeTrue();
      for (const pot of pots) {
        const [first] = pot.uses;
        const mix = table.mixes.find(
          ({ partId, stepId, recipe }) =>
            partId === first!.partId && stepId === first!.stepId && recipe.startsWith(pot.recipe),
        );
        if (mix !== undefined) expect(pot.mixedAt).toBe(mix.at);
      }
    });
});

describe('sittings', () => {
  it('hold every entry once, in the order of the clock', () => {
    for (const seed of [1, 2, 3]) {
      const plan = manyParts(seed);
      const { table } = timetable(plan);
      const all = sittings(plan, table);
      const work = all.flatMap((sitting) => sitting.work);
      const wanted = table.entries.filter(({ kind }) => kind !== 'turn' && kind !== 'clean');
      expect(work.length).toBe(wanted.length);
      expect(new Set(work)).toEqual(new Set(wanted));
      const froms = all.map(({ from }) => from);
      expect([...froms].sort((a, b) => a - b)).toEqual(froms);
      const around = all.reduce((sum, { turning, cleaning }) => sum + turning + cleaning, 0);
      const told = table.entries.filter(({ kind }) => kind === 'turn' || kind === 'clean');
      expect(around).toBeCloseTo(
        told.reduce((sum, { from, until }) => sum + until - from, 0),
        6,
      );
    }
  });
});

describe('other ways', () => {
  let next = 0;
  const glued = newPlan('wet-glue', 'Chest', 7, '2026-05-11T06:00:00.000Z', () => `o${++next}`);
  const [part] = glued.piece.parts;
  const chest: Plan = {
    ...glued,
    work: usualWork('+02:00'),
    piece: {
      name: 'Chest',
      bodies: [{ id: 'piece', name: 'Chest' }],
      parts: (['top', 'left', 'right', 'front'] as const).map((facing) => ({
        ...part!,
        id: facing,
        facing,
        body: 'piece',
      })),
    },
  };
  const { table } = timetable(chest);
  const ways = otherWays(chest, table);
  const way = (name: string): (typeof ways)[number] => ways.find((one) => one.way === name)!;

  it('give more freedom and end no later, but for what a search by chance leaves', () => {
    for (const name of ['standing', 'one-more', 'weekend', 'evenings', 'longer-days', 'no-preparation'])
      expect(way(name).gains).withContext(name).toBeGreaterThanOrEqual(-1200);
  });

  it('say what turning costs, and what a later beginning loses', () => {
    expect(way('standing').sums.turns).toBe(0);
    expect(way('standing').gains).toBeGreaterThan(3600);
    expect(way('from-tomorrow').gains).toBeLessThan(-3600);
  });

  it('are told for what there is to change alone', () => {
    const names = ways.map(({ way: name }) => name);
    expect(names).not.toContain('no-pins');
    expect(names).not.toContain('no-daylight');
    expect(names).not.toContain('no-order');
    const single = { ...glued, work: null };
    expect(otherWays(single, timetable(single).table).map(({ way: name }) => name)).toEqual([
      'no-preparation',
    ]);
  });
});
