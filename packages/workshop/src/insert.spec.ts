import { type CoatStep, type PlanStep } from '@zaffet/contract';
import { stepTimes } from '@zaffet/core/forecast';
import { basisOf } from './basis';
import { after, newCoat, newHeat, newSeal, newStep, when } from './create';
import { startFor, withStepIn } from './insert';
import { type PartPlan, partPlan, withSteps } from './partPlan';
import { samplePlan } from './testing/plan';

const START = { rule: 'at', at: samplePlan().startsAt } as const;
const paint = (
  id: string,
  key: 'chalk' | 'milk' | 'pva' | 'crackle' | 'hide' | 'polyW',
  start: PlanStep['start'],
): CoatStep => newCoat(id, key, '#5d6b4b', '', start);
const planOf = (...steps: PlanStep[]): PartPlan => {
  const plan = samplePlan();
  return partPlan({ ...plan, finishes: [{ ...plan.finishes[0]!, steps }] });
};
const begins = (plan: PartPlan, steps: readonly PlanStep[], id: string): number =>
  stepTimes(basisOf(withSteps(plan, steps))).find(({ step }) => step.id === id)!.from;

// Common practice: what may follow what, and when.
describe('a step that is put in', () => {
  const base = paint('base', 'chalk', START);

  it('begins by what lies below it', () => {
    const over = (below: Parameters<typeof paint>[1], above: Parameters<typeof paint>[1]): object =>
      startFor(planOf(base, paint('below', below, when('recoat'))), paint('new', above, when('recoat')), 2);
    expect(over('pva', 'chalk')).toEqual(after(1));
    expect(over('crackle', 'chalk')).toEqual(when('touch-dry'));
    expect(over('hide', 'chalk')).toEqual(when('through-dry'));
    expect(over('polyW', 'milk')).toEqual(when('tacky'));
    expect(over('polyW', 'chalk')).toEqual(when('recoat'));
    expect(over('pva', 'pva')).toEqual(when('recoat'));
    expect(startFor(planOf(base), newSeal('new', 'polyW', START), 1)).toEqual(when('through-dry'));
  });

  it('takes the moment of a step it is put before, where that hangs on what lies below', () => {
    const plan = planOf(base, paint('glue', 'pva', when('recoat')), paint('top', 'chalk', after(2)));
    const milk = paint('new', 'milk', when('recoat'));
    expect(startFor(plan, milk, 2)).toEqual(after(2));
    const steps = withStepIn(plan, { ...milk, start: after(2) }, 2);
    expect(steps.find(({ id }) => id === 'top')!.start).toEqual(when('recoat'));
    // A wait the painter set stays.
    const patient = planOf(base, paint('top', 'chalk', when('through-dry', 60)));
    const between = withStepIn(patient, { ...milk, start: when('recoat') }, 1);
    expect(between.find(({ id }) => id === 'top')!.start).toEqual(when('through-dry', 60));
  });

  it('comes into the window of what lies below, before what follows', () => {
    const plan = planOf(base, paint('glue', 'pva', when('recoat')), paint('top', 'chalk', after(3)));
    const heat = newHeat('new', 'dryer', 20, when('touch-dry'));
    expect(startFor(plan, heat, 2)).toEqual(after(0));
    expect(startFor(plan, newStep('wait', 'new'), 2)).toEqual(newStep('wait', 'new').start);
  });

  it('leaves the step that follows when it was: 45 minutes after the coat stay 45 minutes after the coat', () => {
    const plan = planOf(base, paint('top', 'milk', after(45)));
    const warm = newHeat('warm', 'dryer', 60, after(5));
    const steps = withStepIn(plan, warm, 1);
    const moved = begins(plan, steps, 'top') - begins(plan, plan.steps, 'top');
    expect(Math.abs(moved)).toBeLessThanOrEqual(30);
    const { start } = steps.find(({ id }) => id === 'top')!;
    expect(start.rule === 'after' && start.waitMin < 40).toBeTrue();
    // A wait is put in to wait longer.
    const waits = withStepIn(plan, newStep('wait', 'w'), 1);
    expect(waits.find(({ id }) => id === 'top')!.start).toEqual(after(45));
    expect(withStepIn(plan, warm, 2)).toEqual([...plan.steps, warm]);
  });
});
