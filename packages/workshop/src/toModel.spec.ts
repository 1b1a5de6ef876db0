import {
  isMapped,
  type MappedStep,
  type Part,
  type PartZone,
  type Plan,
  type StepMap,
} from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { mapAt, mapMean, type PanelMap } from '@zaffet/core/plan';
import { basisOf } from './basis';
import { newPlan } from './newPlan';
import { partPlan } from './partPlan';
import { printsOn } from './prints';
import { toModel } from './toModel';

const hook: PartZone = {
  id: 'z',
  kind: 'spot',
  name: 'Hook',
  oval: false,
  leftMm: 150,
  topMm: 100,
  widthMm: 120,
  heightMm: 80,
};

/** A panel of 600 × 400 mm and one like it without places; the second step is done as told. */
function planWith(
  told: Partial<Pick<MappedStep, 'where' | 'only' | 'except'>>,
  part: Partial<Part> = {},
): Plan {
  let count = 0;
  const plan = newPlan('wet-glue', 'Shelf', 7, '2026-05-12T08:00:00.000Z', () => `id-${++count}`);
  const [finish] = plan.finishes;
  const [panel] = plan.piece.parts;
  const steps = finish!.steps.map((step, i) => (i === 1 && isMapped(step) ? { ...step, ...told } : step));
  return {
    ...plan,
    finishes: [{ ...finish!, steps }],
    piece: {
      ...plan.piece,
      parts: [
        { ...panel!, zones: [hook], ...part },
        { ...panel!, id: 'plain', zones: [] },
      ],
    },
  };
}
const mapOf = (plan: Plan): PanelMap | undefined => {
  const step = toModel(partPlan(plan)).steps[1]!;
  return 'map' in step ? step.map : undefined;
};

describe('a step that goes by places', () => {
  it('has a map where it names one, as large as the place', () => {
    const only = mapOf(planWith({ only: 'Hook' }))!;
    expect(mapMean(only)).toBeCloseTo((120 * 80) / (600 * 400), 3);
    expect(mapAt(only, 0.35, 0.35)).toBe(1);
    expect(mapAt(only, 0.7, 0.7)).toBe(0);
    const except = mapOf(planWith({ except: ['Hook'] }))!;
    expect(mapMean(only) + mapMean(except)).toBeCloseTo(1, 9);
    expect(mapOf(planWith({ where: 'edges' }))).toBeUndefined();
    expect(mapOf(planWith({ except: ['Nowhere'] }))).toBeUndefined();
  });

  it('is left out where a part has no such place, and forecast where it has', () => {
    const plan = planWith({ only: 'Hook' });
    expect(partPlan(plan, plan.piece.parts[0]!.id).steps.length).toBe(3);
    expect(partPlan(plan, 'plain').steps.length).toBe(2);
    for (const { id } of plan.piece.parts)
      expect(forecast(basisOf(partPlan(plan, id))).whole.area).toBeCloseTo(1, 9);
  });

  it('keeps what was painted within its places', () => {
    const bare = planWith({ only: 'Hook' });
    const stepId = bare.finishes[0]!.steps[1]!.id;
    const painted: StepMap = { columns: 2, rows: 1, percent: [50, 200] };
    const map = mapOf(planWith({ only: 'Hook' }, { maps: { [stepId]: painted } }))!;
    expect(mapAt(map, 0.26, 0.3)).toBeCloseTo(0.52, 1);
    expect(mapAt(map, 0.8, 0.8)).toBe(0);
  });

  it('is drawn once, however often the plan is turned', () => {
    const part = partPlan(planWith({ only: 'Hook' }));
    const twice = [toModel(part), toModel(part)].map(({ steps }) => 'map' in steps[1]! && steps[1].map);
    expect(twice[0]).toBe(twice[1]!);
  });
});

describe('prints and tissues', () => {
  it('lie on every place of their name, or on all of the part', () => {
    const plan = planWith({});
    const [finish] = plan.finishes;
    const print = (on: string | null): Plan => ({
      ...plan,
      finishes: [
        {
          ...finish!,
          steps: [
            ...finish!.steps,
            {
              id: 'p',
              kind: 'companion',
              task: 'transfer',
              handsMin: 40,
              restMin: 720,
              wood: null,
              print: { on, holds: 'clear', picture: null },
              off: false,
              start: { rule: 'after', waitMin: 0 },
            },
          ],
        },
      ],
    });
    expect(printsOn(partPlan(print('Hook')))).toEqual([
      { picture: null, oval: false, left: 150, top: 100, width: 120, height: 80 },
    ]);
    expect(printsOn(partPlan(print(null)))[0]).toEqual(jasmine.objectContaining({ width: 600, height: 400 }));
    expect(printsOn(partPlan(print('Nowhere')))).toEqual([]);
    expect(printsOn(partPlan(plan))).toEqual([]);
  });
});
