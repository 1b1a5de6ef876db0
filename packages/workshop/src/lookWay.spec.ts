import { solve } from '@zaffet/core/solve';
import { effectPlan, effectWants, wishOf } from './effects';
import { gives, lookCandidates, lookWay, type LookWay } from './lookWay';
import { partPlan, type PartPlan } from './partPlan';
import { samplePart, samplePlan } from './testing/plan';

let id = 0;
const next = (): string => `new-${++id}`;

/** How a part gets the look of an effect. */
function wayOf(plan: PartPlan, key: 'wide' | 'small'): LookWay {
  const other = effectPlan(plan, key, next);
  const wish = wishOf(effectWants(other));
  return lookWay(plan, other, wish, solve(wish, lookCandidates(plan, other)))!;
}

describe('the way to a look', () => {
  it('keeps the technique where it reaches the look, with all its steps, and then gives it', () => {
    const file = samplePlan();
    const [finish] = file.finishes;
    const steps = [...finish!.steps, { ...finish!.steps[0]!, id: 'left-out', off: true }];
    const plan = partPlan({ ...file, finishes: [{ ...finish!, steps }] });
    const way = wayOf(plan, 'wide');
    expect(way.keeps).toBeTrue();
    expect(way.steps.map((step) => step.id)).toEqual(steps.map((step) => step.id));
    expect(way.steps.find((step) => step.id === 'left-out')!.off).toBeTrue();
    expect(gives(way.after, wishOf(effectWants(effectPlan(plan, 'wide', next))))).toBeTrue();
  });

  it('is another technique where the plan’s would be worked outside its rules', () => {
    // Wet glue gives a web as fine only when it is painted late.
    const way = wayOf(samplePart(), 'small');
    expect(way.keeps).toBeFalse();
    expect(way.steps.some((step) => 'medium' in step && step.medium === 'crackle')).toBeTrue();
  });

  it('changes nothing where the plan gives the look already', () => {
    const plan = samplePart();
    const way = lookWay(plan, effectPlan(plan, 'small', next), wishOf(effectWants(plan)), [])!;
    expect(way).toEqual({ keeps: true, after: plan, steps: plan.finish.steps });
  });

  it('is none where neither technique reaches the look', () => {
    const plan = samplePart();
    const other = effectPlan(plan, 'small', next);
    const wish = { spacing: 0.09, opening: 2e-5 };
    expect(lookWay(plan, other, wish, solve(wish, lookCandidates(plan, other)))).toBeNull();
  });
});
