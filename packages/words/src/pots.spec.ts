import { USUAL_MEASURES } from '@zaffet/contract';
import { mixing, newPlan, potsFor } from '@zaffet/workshop';
import { goesInText, takesText } from './pots';

describe('pots in words', () => {
  let id = 0;
  const plan = newPlan('chippy-milk', 'Stand', 7, '2026-05-12T08:00:00.000Z', () => `p${++id}`);
  const mixes = mixing(plan, { items: [], measures: USUAL_MEASURES });
  const part = plan.piece.parts[0]!.id;
  const films = plan.finishes[0]!.steps.filter((step) => 'medium' in step);

  it('say of each step what it takes, in mL and in spoons, and that it is part of a larger pot', () => {
    for (const { id: stepId } of films) {
      const [taken] = potsFor(mixes, part, stepId);
      const text = takesText(taken!.volume, taken!.pot, 'metric');
      expect(text).toMatch(/^\d[\d.]* mL/);
      expect(text).toMatch(/spoon|dish|drops/);
    }
    const milk = films.find((step) => 'medium' in step && step.medium === 'milk')!;
    const { pot } = potsFor(mixes, part, milk.id)[0]!;
    expect(goesInText(pot, 'metric')).toMatch(/powder .*water /);
    expect(takesText(pot.volume / 2, pot, 'metric')).toContain('of the pot of');
    expect(takesText(pot.volume, { ...pot, goesIn: pot.goesIn.slice(0, 1) }, 'metric')).not.toContain(
      'of the pot of',
    );
  });

  it('are none for a step that takes no paint, and all of a step’s paint comes out of them', () => {
    expect(potsFor(mixes, part, 'no such step')).toEqual([]);
    const all = films.flatMap(({ id: stepId }) => potsFor(mixes, part, stepId));
    const sum = (list: readonly { readonly volume: number }[]): number =>
      list.reduce((total, { volume }) => total + volume, 0);
    expect(sum(all)).toBeCloseTo(sum(mixes.pots), 12);
  });
});
