import { forecast } from '@zaffet/core/forecast';
import { basisOf, partPlan } from '@zaffet/workshop';
import { readFileSync } from 'node:fs';
import { isMapped } from './steps.types';
import { parsePlan } from './schema';
import { samplePlan } from '../../../workshop/src/testing/plan';

describe('a plan of an older version', () => {
  const file = (version: number): Record<string, unknown> =>
    JSON.parse(
      readFileSync(
        new URL(`../../../workshop/src/testing/files/chest-${version}.json`, import.meta.url),
        'utf8',
      ),
    ) as Record<string, unknown>;

  it('has coats of one colour, plain parts and sheens of their media: version 5', () => {
    const plan = samplePlan();
    const old = {
      ...plan,
      version: 5,
      piece: {
        ...plan.piece,
        parts: plan.piece.parts.map(({ ground: _ground, relief: _relief, ...part }) => part),
      },
      finishes: plan.finishes.map((finish) => ({
        ...finish,
        steps: finish.steps.map((step) => {
          if (step.kind === 'seal') return (({ sheen: _sheen, ...rest }) => rest)(step);
          if (step.kind !== 'coat') return step;
          return (({ others: _others, manner: _manner, texture: _texture, ...rest }) => rest)(step);
        }),
      })),
    };
    // Nor did it prepare anything by the clock.
    expect(parsePlan(old)).toEqual({ ...plan, timing: { ...plan.timing, prepares: false } });
    // What is set to the plan's start further on is done right after the step before it, and stays so.
    const atStart = { rule: 'at', at: plan.startsAt };
    const [finish] = old.finishes;
    const steps = finish!.steps.map((step) => ({ ...step, start: atStart }));
    const read = parsePlan({ ...old, finishes: [{ ...finish!, steps }] }).finishes[0]!.steps;
    expect(read[0]!.start.rule).toBe('state');
    for (const step of read.slice(1)) expect(step.start).toEqual({ rule: 'at', at: plan.startsAt });
  });

  it('works all over in clear water, on square parts, in places called by their kind: version 6', () => {
    const of = samplePlan();
    const all = { off: false, start: { rule: 'after', waitMin: 1 } } as const;
    const old = {
      ...of,
      version: 6,
      piece: {
        ...of.piece,
        parts: of.piece.parts.map(({ oval: _oval, ...part }) => ({
          ...part,
          zones: [{ id: 'z', kind: 'rail', leftMm: 1, topMm: 2, widthMm: 30, heightMm: 40 }],
        })),
      },
      finishes: of.finishes.map((finish) => ({
        ...finish,
        steps: [
          ...finish.steps.map((step) =>
            isMapped(step)
              ? (({ where: _where, only: _only, except: _except, ...rest }) => rest)(step)
              : step,
          ),
          { ...all, id: 'h', kind: 'heat', tool: 'dryer', durationS: 60 },
          { ...all, id: 'w', kind: 'rewet', amountUm: 30 },
          {
            ...all,
            id: 'd',
            kind: 'distress',
            tool: 'sponge',
            grit: 220,
            rounds: 3,
            pressure: 1,
            smear: 0,
            where: 'edges',
          },
          { ...all, id: 'c', kind: 'wipe', degrease: true },
          { ...all, id: 't', kind: 'companion', task: 'transfer', handsMin: 40, restMin: 720 },
        ],
      })),
    };
    const plan = parsePlan(old);
    expect(plan.piece.parts[0]).toEqual(jasmine.objectContaining({ oval: false }));
    expect(plan.piece.parts[0]!.zones[0]).toEqual(jasmine.objectContaining({ name: 'Rail', oval: false }));
    const { steps } = plan.finishes[0]!;
    for (const step of steps.filter(isMapped)) {
      expect(step.where)
        .withContext(step.id)
        .toBe(step.id === 'd' ? 'edges' : 'all');
      expect([step.only, step.except]).withContext(step.id).toEqual([null, []]);
      if (step.kind === 'rewet' || step.kind === 'distress') expect(step.tint).toBeNull();
    }
    expect(steps.at(-1)).toEqual(jasmine.objectContaining({ wood: null, print: null }));
  });

  for (const version of [1, 2, 3]) {
    it(`is read with what its version did not know as it was meant: version ${version}`, () => {
      const old = file(version);
      const plan = parsePlan(old);
      const [part] = plan.piece.parts;
      expect(part).toEqual(
        jasmine.objectContaining({ name: 'Lid', widthMm: 820, flat: true, use: 'display', maps: {} }),
      );
      expect(part!.history).toEqual(jasmine.objectContaining({ coat: 'varnish', age: 'years' }));
      const { steps, look } = plan.finishes[0]!;
      expect(steps.length).toBe((old['steps'] as unknown[]).length);
      expect(steps[0]).toEqual(jasmine.objectContaining({ off: false, cover: { style: 'full', share: 1 } }));
      expect(look).toEqual(jasmine.objectContaining({ zones: {}, degree: 'keep' }));
      expect(forecast(basisOf(partPlan(plan))).crackedCoat).toBe(2);
    });
  }

  it('keeps its maps, with the part they lie on', () => {
    const old = file(3);
    const map = { columns: 2, rows: 1, percent: [50, 150] };
    const steps = (old['steps'] as Record<string, unknown>[]).map((step, i) =>
      i === 1 ? { ...step, map } : step,
    );
    const plan = parsePlan({ ...old, steps });
    expect(plan.piece.parts[0]!.maps).toEqual({ [String(steps[1]!['id'])]: map });
  });
});
