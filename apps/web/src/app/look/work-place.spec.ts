import { type Where } from '@zaffet/core/maps';
import { placeValues } from '@zaffet/core/solve';
import { basisOf, NO_WANTS, type PartPlan } from '@zaffet/workshop';
import { samplePart } from '../testing/plan';
import { workPlaces } from './work-place';

const LEFT: Where = { left: 0.05, top: 0.1, width: 0.1, height: 0.1 };
const RIGHT: Where = { left: 0.4, top: 0.1, width: 0.08, height: 0.1 };

/** The part as it is once it was worked so. */
function after(plan: PartPlan, { worked }: ReturnType<typeof workPlaces>): PartPlan {
  return worked.reduce(
    (now, { stepId, map, changes }): PartPlan => ({
      ...now,
      part: { ...now.part, maps: { ...now.part.maps, [stepId]: map } },
      steps: now.steps.map((step) =>
        step.id === stepId ? ({ ...step, ...changes } as (typeof now.steps)[number]) : step,
      ),
    }),
    plan,
  );
}

describe('working a place otherwise', () => {
  it('brings every place of a kind to what is wished, and says by what', () => {
    const plan = samplePart('barrier');
    const result = workPlaces(plan, [LEFT, RIGHT], { ...NO_WANTS, worn: 0.5 }, 'metric');
    expect(result.worked.length).toBe(2);
    expect(result.said.length).toBe(1);
    expect(result.said[0]).toMatch(/^Worn through: \d+ %, by sand, 150 grit\.$/);
    const basis = basisOf(after(plan, result));
    for (const place of [LEFT, RIGHT]) {
      const { worn } = placeValues(basis, place);
      expect(worn!).toBeGreaterThan(0.44);
      expect(worn!).toBeLessThan(0.56);
    }
  });

  it('does one wish after the other, each on what the one before left', () => {
    const plan = samplePart('jelly-resist');
    const result = workPlaces(plan, [LEFT], { ...NO_WANTS, chips: 0.6, worn: 0.2 }, 'metric');
    expect(result.said[0]).toMatch(/^Comes off: \d+ %, by petroleum jelly\.$/);
    // Nothing of this school wears anything through.
    expect(result.said[1]).toBe('Nothing in the plan has to do with worn through here.');
    expect(placeValues(basisOf(after(plan, result)), LEFT).chips!).toBeGreaterThan(0.5);
  });

  it('does nothing without a wish', () => {
    expect(workPlaces(samplePart(), [LEFT], NO_WANTS, 'metric')).toEqual({ worked: [], said: [] });
  });
});
