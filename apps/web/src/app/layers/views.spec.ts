import { computed, samplePart } from '../testing/plan';
import { focusOf, lanesOf, wholeOf } from './clock/lanes';
import { stackOf } from './section/stack';

describe('section', () => {
  it('stacks the coats to scale, dry on dry, wet surface above its ground', () => {
    const { plan, forecast } = computed(samplePart());
    const { slabs, totalUm } = stackOf(plan, forecast, 'metric');
    expect(slabs.map((slab) => slab.id)).toEqual(['base', 'slip', 'top']);
    slabs.forEach((slab, i) => {
      expect(slab.bottomUm).toBeCloseTo(slabs[i - 1]?.topUm ?? 0, 9);
      expect(slab.topUm - slab.bottomUm).toBeCloseTo(slab.dryUm, 9);
      expect(slab.wetTopUm - slab.bottomUm).toBe(slab.wetUm);
    });
    expect(totalUm).toBeCloseTo(
      slabs.reduce((sum, slab) => sum + slab.dryUm, 0),
      9,
    );
    expect(slabs.map((slab) => slab.cracked !== null)).toEqual([false, false, true]);
    expect(slabs.map((slab) => slab.clear)).toEqual([false, true, false]);
  });
});

describe('section with other steps', () => {
  it('draws resists and tools at the surface they meet, between the films', () => {
    const { plan, forecast } = computed(samplePart('wax-resist'));
    const { slabs, marks } = stackOf(plan, forecast, 'metric');
    expect(marks.map((mark) => mark.kind)).toEqual(['resist', 'distress', 'distress', 'wipe']);
    expect(marks[0]!.atUm).toBeCloseTo(slabs[0]!.topUm, 9);
    expect(marks[1]!.atUm).toBeCloseTo(slabs[1]!.topUm, 9);
    expect(marks[0]!.note).toMatch(/^20 % covered$/);
  });

  it('tells thickness in mil where inches are wanted', () => {
    const { plan, forecast } = computed(samplePart());
    expect(stackOf(plan, forecast, 'metric').slabs[0]!.detail).toMatch(/^100 wet → 36 dry$/);
    expect(stackOf(plan, forecast, 'imperial').slabs[0]!.detail).toMatch(/^3\.9 wet → 1\.4 dry$/);
  });
});

describe('clock', () => {
  const clockText = (moment: number): string => `${Math.round(moment / 60)} min`;

  it('divides each lane by states that follow one another to the end', () => {
    const { plan, forecast } = computed(samplePart());
    const lanes = lanesOf(plan, forecast, 50000, clockText);
    for (const lane of lanes) {
      expect(lane.segments[0]!.from).toBe(lane.laidAt);
      lane.segments.forEach((segment, i) => {
        expect(segment.to).toBeGreaterThanOrEqual(segment.from);
        const next = lane.segments[i + 1];
        if (next) expect(next.from).toBe(segment.to);
      });
    }
  });

  it('has a lane for every step, one below the other', () => {
    const { plan, forecast } = computed(samplePart('chippy-milk'));
    const lanes = lanesOf(plan, forecast, 200000, clockText);
    expect(lanes.map((lane) => lane.id)).toEqual(plan.steps.map((step) => step.id));
    lanes.forEach((lane, i) => {
      if (i > 0) expect(lane.top).toBe(lanes[i - 1]!.top + lanes[i - 1]!.height);
      expect(lane.laidAt).toBeGreaterThanOrEqual(lane.waitsFrom);
    });
    const sponge = lanes.find((lane) => lane.kind === 'distress')!;
    expect(sponge.segments[0]!.to).toBeGreaterThan(sponge.segments[0]!.from);
  });

  it('shows the window of the glue with its end, of a base without', () => {
    const { plan, forecast } = computed(samplePart());
    const [base, glue, top] = lanesOf(plan, forecast, 50000, clockText);
    expect(base!.window!.closesAt).toBeNull();
    expect(base!.window!.label).toMatch(/^glue from/);
    expect(glue!.window!.closesAt!).toBeGreaterThan(glue!.window!.opensAt);
    expect(glue!.window!.label).toMatch(/^top coat from \d+ min to \d+ min$/);
    expect(top!.window).toBeNull();
    expect(top!.firstCracksAt!).toBeGreaterThan(top!.laidAt);
  });

  it('looks at the coat that cracks, or at the whole plan', () => {
    const { forecast } = computed(samplePart('dried-medium'));
    const focus = focusOf(forecast);
    const whole = wholeOf(forecast);
    expect(focus.from).toBeLessThan(forecast.coats[1]!.laidAt);
    expect(focus.to).toBeGreaterThan(forecast.coats[2]!.crack!.doneAt!);
    expect(whole.from).toBeLessThan(0);
    expect(whole.to).toBeGreaterThan(focus.to);
  });
});
