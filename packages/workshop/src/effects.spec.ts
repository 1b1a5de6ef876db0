import { WANT_KEYS } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { SUBSTRATE_KEYS } from '@zaffet/core/media';
import { EFFECT_KEYS, effectPlan, effectWants, looksLike } from './effects';
import { basisOf } from './basis';
import { samplePart } from './testing/plan';

describe('effects', () => {
  const plan = samplePart();
  let id = 0;
  const made = EFFECT_KEYS.map((key) => ({ key, plan: effectPlan(plan, key, () => `e${++id}`) }));

  it('can each be had: a plan without stops, and something to wish for', () => {
    for (const { key, plan: effect } of made) {
      const stops = forecast(basisOf(effect)).findings.filter(({ level }) => level === 'stop');
      expect(stops).withContext(key).toEqual([]);
      const wants = effectWants(effect);
      expect(WANT_KEYS.some((want) => wants[want] !== null))
        .withContext(key)
        .toBeTrue();
    }
  });

  it('look as their words say, on each base, in damp and in warm air', () => {
    const parts = [
      ...SUBSTRATE_KEYS.map((substrate) => ({ ...plan, part: { ...plan.part, substrate } })),
      { ...plan, air: { ...plan.air, humidity: 0.75 } },
      { ...plan, air: { ...plan.air, temperatureC: 27 } },
    ];
    for (const part of parts)
      for (const key of EFFECT_KEYS)
        expect(
          looksLike(
            effectPlan(part, key, () => `e${++id}`),
            key,
          ),
        )
          .withContext(`${key} on ${part.part.substrate}, ${JSON.stringify(part.air)}`)
          .toBeTrue();
  });

  it('differ as their names say', () => {
    const wants = Object.fromEntries(made.map(({ key, plan: effect }) => [key, effectWants(effect)]));
    expect(wants['hairline']!.spacingMm!).toBeLessThan(wants['small']!.spacingMm!);
    expect(wants['small']!.spacingMm!).toBeLessThan(wants['wide']!.spacingMm! / 2);
    expect(wants['flaking']!.chips!).toBeGreaterThan(0.3);
    expect(wants['sanded']!.worn!).toBeGreaterThan(0.1);
    expect(wants['layered']!.spacingMm).toBeNull();
  });
});
