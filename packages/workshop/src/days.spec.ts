import { type Plan } from '@zaffet/contract';
import { sittings } from './days';
import { samplePlan } from './testing/plan';

describe('what is done when', () => {
  const plan = samplePlan();
  const [part] = plan.piece.parts;
  const two: Plan = {
    ...plan,
    piece: { ...plan.piece, parts: [part!, { ...part!, id: 'lid', name: 'Lid', widthMm: 300 }] },
  };

  it('is every step with hands at it, by the clock', () => {
    const done = sittings(plan);
    expect(done.map(({ step }) => step.id)).toEqual(plan.finishes[0]!.steps.map(({ id }) => id));
    expect(done.map(({ at }) => at)).toEqual([...done.map(({ at }) => at)].sort((a, b) => a - b));
    expect(done.every(({ hands, clashes }) => hands > 0 && clashes === null)).toBeTrue();
  });

  it('says where two parts want the hands at once', () => {
    const done = sittings(two);
    expect(done.length).toBe(6);
    const first = done.filter(({ at }) => at === 0);
    expect(first.map(({ clashes }) => clashes)).toEqual([null, part!.name]);
  });

  it('is as a timetable has it', () => {
    const id = plan.finishes[0]!.steps[0]!.id;
    const later = sittings(two, { moments: { lid: { [id]: { notBefore: 7200 } } } });
    expect(later.find(({ partId, step }) => partId === 'lid' && step.id === id)!.at).toBe(7200);
    expect(later.find(({ partId, step }) => partId === 'lid' && step.id === id)!.clashes).toBeNull();
  });
});
