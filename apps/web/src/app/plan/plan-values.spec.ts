import { LIMITS, newCoat, toModel } from '@zaffet/contract';
import { filmOf, samplePlan } from '../testing/plan';
import { addStep, changeAir, changeStep, changePart, fitted, moveStep, removeStep } from './edits';
import { record, redo, startHistory, undo } from './history';

describe('history', () => {
  const plan = samplePlan();
  const named = (name: string): typeof plan => ({ ...plan, name });

  it('goes back and forth through edits', () => {
    const edited = record(record(startHistory(plan), named('a'), null), named('b'), null);
    expect(undo(edited).present.name).toBe('a');
    expect(undo(undo(edited)).present).toBe(plan);
    expect(redo(undo(edited)).present.name).toBe('b');
    expect(undo(undo(undo(edited))).present).toBe(plan);
    expect(redo(edited)).toBe(edited);
  });

  it('joins the edits of one gesture, and no others', () => {
    let history = startHistory(plan);
    for (const name of ['a', 'b', 'c']) history = record(history, named(name), 'drag 1');
    history = record(history, named('d'), 'drag 2');
    expect(history.past.length).toBe(2);
    expect(undo(history).present.name).toBe('c');
    expect(undo(undo(history)).present).toBe(plan);
  });

  it('keeps still when nothing changed, and drops the future on a new edit', () => {
    const history = startHistory(plan);
    expect(record(history, plan, null)).toBe(history);
    const back = undo(record(history, named('a'), null));
    expect(record(back, named('b'), null).future).toEqual([]);
  });

  it('remembers a hundred steps', () => {
    let history = startHistory(plan);
    for (let i = 0; i < 140; i++) history = record(history, named(String(i)), null);
    expect(history.past.length).toBe(100);
  });
});

describe('edits', () => {
  const plan = samplePlan();
  const ids = (p: typeof plan): string[] => p.steps.map((step) => step.id);

  it('return the same plan when nothing changes', () => {
    expect(changeStep(plan, 'top', { thicknessUm: filmOf(plan, 2).thicknessUm })).toBe(plan);
    expect(changeAir(plan, { temperatureC: plan.air.temperatureC })).toBe(plan);
    expect(changePart(plan, { widthMm: 600 })).toBe(plan);
    expect(moveStep(plan, 'top', 1)).toBe(plan);
  });

  it('change only what they name', () => {
    const next = changeStep(plan, 'top', { thicknessUm: 120 });
    expect(filmOf(next, 2).thicknessUm).toBe(120);
    expect(next.steps[0]).toBe(plan.steps[0]!);
    expect(filmOf(plan, 2).thicknessUm).not.toBe(120);
  });

  it('add, remove and move coats; each place keeps when it begins', () => {
    const coat = newCoat('new', 'chalk', '#112233', '', { rule: 'after', waitMin: 5 });
    expect(ids(addStep(plan, coat, 3))).toEqual(['base', 'slip', 'top', 'new']);
    expect(ids(removeStep(plan, 'slip'))).toEqual(['base', 'top']);
    const moved = moveStep(plan, 'top', -1);
    expect(ids(moved)).toEqual(['base', 'top', 'slip']);
    expect(moved.steps.map((step) => step.start)).toEqual(plan.steps.map((step) => step.start));
  });

  it('never take the last coat, nor more coats than a plan may hold', () => {
    const one = removeStep(removeStep(plan, 'top'), 'slip');
    expect(removeStep(one, 'base')).toBe(one);
    let many = plan;
    for (let i = 0; i < 50; i++)
      many = addStep(many, newCoat(`n${i}`, 'chalk', '#112233', '', { rule: 'after', waitMin: 5 }), 0);
    expect(many.steps.length).toBe(LIMITS.steps.max);
  });

  it('move the whole day with its beginning, inside what air can be', () => {
    const later = [
      { at: '2026-05-12T10:00:00Z', temperatureC: 24, humidity: 0.4 },
      { at: '2026-05-12T12:00:00Z', temperatureC: 44, humidity: 0.96 },
    ];
    const warmer = changeAir({ ...plan, air: { ...plan.air, later } }, { temperatureC: 23, humidity: 0.55 });
    expect(warmer.air.later.map((sample) => sample.temperatureC)).toEqual([26, 45]);
    expect(warmer.air.later.map((sample) => sample.humidity)).toEqual([0.45, 0.98]);
    expect(toModel(warmer).air.length).toBe(3);
  });

  it('fit numbers into their limit and onto their step', () => {
    expect([-5, 33.4, 9999].map((value) => fitted(LIMITS.thicknessUm, value))).toEqual([4, 33, 1200]);
    expect(fitted(LIMITS.humidity, 0.4567)).toBe(0.46);
  });
});
