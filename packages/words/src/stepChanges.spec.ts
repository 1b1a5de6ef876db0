import { isFilmStep } from '@zaffet/contract';
import { effectPlan } from '@zaffet/workshop';
import { samplePart } from '../../workshop/src/testing/plan';
import { shortWindows, stepChanges } from './stepChanges';

describe('what changes between two lists of steps', () => {
  const plan = samplePart();
  let id = 0;

  it('is nothing for the same steps', () => {
    expect(stepChanges(plan, plan, 'metric')).toEqual([]);
  });

  it('is the number that changed, with what it was', () => {
    const glue = plan.steps.find((step) => isFilmStep(step) && step.medium === 'pva')!;
    const thicker = {
      ...plan,
      steps: plan.steps.map((step) => (step === glue ? { ...glue, thicknessUm: 240 } : step)),
    };
    expect(stepChanges(plan, thicker, 'metric')).toEqual([
      `White glue: 240 µm wet (was ${'thicknessUm' in glue ? glue.thicknessUm : ''} µm wet).`,
    ]);
  });

  it('says what is left out of a step, and what comes to it', () => {
    const [first] = plan.steps;
    const thinned = {
      ...plan,
      steps: plan.steps.map((step) => (step === first ? { ...step, dilution: 0.1 } : step)),
    };
    expect(stepChanges(thinned, plan, 'metric')).toEqual(['Kelp: no longer thinned 10 %.']);
    expect(stepChanges(plan, thinned, 'metric')).toEqual(['Kelp: thinned 10 %.']);
  });

  it('names each step that goes and each that comes with another technique', () => {
    const other = effectPlan(plan, 'small', () => `new-${++id}`);
    const lines = stepChanges(plan, other, 'metric');
    expect(lines).toContain('Goes: White glue.');
    expect(lines.some((line) => line.startsWith('New: Crackle medium, '))).toBeTrue();
    expect(lines.some((line) => line.startsWith('Goes: Kelp'))).toBeFalse();
  });
});

describe('short windows', () => {
  it('say how long a painter has over wet glue, and nothing over dried medium', () => {
    expect(shortWindows(samplePart())).toEqual([
      jasmine.stringMatching(/^You have \d+(\.\d)? (s|min) to lay Sailcloth over White glue\.$/),
    ]);
    let id = 0;
    expect(shortWindows(effectPlan(samplePart(), 'small', () => `new-${++id}`))).toEqual([]);
  });
});
