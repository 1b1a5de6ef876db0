import { room } from '../testing/plans';
import { celsiusToKelvin } from '../units';
import { convection, USUAL_PLATE } from './convection';
import { evaporation, evaporationOf } from './evaporation';
import { hotSurface, scaledErfc } from './hotSurface';
import { dryingAir, evaporationIn, scaledAir, withBurst } from './series';

const DRYER = { temperature: celsiusToKelvin(63), convective: 35 };

describe('other liquids and hot air', () => {
  it('evaporate in the order painters know: thinner and alcohol quickly, white spirit slowly', () => {
    const rate = (carrier: 'water' | 'alcohol' | 'spirit' | 'thinner'): number =>
      evaporationOf(carrier, room(), USUAL_PLATE).rate;
    expect(rate('thinner')).toBeGreaterThan(5 * rate('water'));
    expect(rate('alcohol')).toBeGreaterThan(5 * rate('water'));
    expect(rate('spirit')).toBeLessThan(3 * rate('water'));
    expect(evaporationOf('water', room(), USUAL_PLATE)).toEqual(evaporation(room()));
  });

  it('meet the balance of the surface: heat brought is heat of evaporation', () => {
    for (const carrier of ['water', 'thinner'] as const) {
      const { rate, surfaceTemperature } = evaporationOf(carrier, room(21, 0.5, 0.1), USUAL_PLATE);
      const cooling = celsiusToKelvin(21) - surfaceTemperature;
      const brought = (convection(0.1, cooling, USUAL_PLATE) + 5.4 + 6) * cooling;
      const [latent, density] =
        carrier === 'water' ? [2.501e6 - 2361 * (surfaceTemperature - 273.15), 1000] : [390e3, 870];
      expect((rate * density * latent) / brought).toBeCloseTo(1, 3);
    }
  });

  it('know that a quick solvent chills below the dew point in damp air, and not in dry (common practice)', () => {
    expect(evaporationOf('thinner', room(25, 0.8), USUAL_PLATE).surfaceTemperature).toBeLessThan(
      celsiusToKelvin(21.3),
    );
    expect(evaporationOf('thinner', room(21, 0.5), USUAL_PLATE).surfaceTemperature).toBeGreaterThan(
      celsiusToKelvin(10.2),
    );
  });

  it('dry some ten times quicker under a hairdryer, at a surface far below its air', () => {
    const still = evaporationOf('water', room(), USUAL_PLATE);
    const blown = evaporationOf('water', room(), USUAL_PLATE, DRYER);
    expect(blown.rate / still.rate).toBeGreaterThan(8);
    expect(blown.surfaceTemperature).toBeLessThan(celsiusToKelvin(35));
  });

  it('heat a dry surface as a half-space: exp(1) erfc(1) is 0.427584', () => {
    expect(scaledErfc(1)).toBeCloseTo(0.427584, 6);
    expect(scaledErfc(0)).toBeCloseTo(1, 12);
    // Both branches meet where they change, and the far end goes as 1/(x √π).
    expect(scaledErfc(1.999999)).toBeCloseTo(scaledErfc(2), 5);
    expect(scaledErfc(40) * 40 * Math.sqrt(Math.PI)).toBeCloseTo(1, 3);
    // B = h √t/b = 1 after 165 s of this dryer: 21 + 42 (1 − 0.427584) °C.
    const after = (seconds: number): number => hotSurface(DRYER, celsiusToKelvin(21), seconds) - 273.15;
    expect(after((450 / 35) ** 2)).toBeCloseTo(21 + 42 * (1 - 0.427584), 3);
    expect(after(30)).toBeLessThan(after(60));
    expect(after(1e7)).toBeLessThan(63);
  });

  it('lay a burst over the air exactly where it is', () => {
    const air = dryingAir([
      { from: 0, ...room() },
      { from: 3600, ...room(24, 0.4) },
    ]);
    const cut = withBurst(air, { from: 3500, until: 3700, jet: DRYER });
    expect(cut.map(({ from, until }) => [from, until])).toEqual([
      [0, 3500],
      [3500, 3600],
      [3600, 3700],
      [3700, Infinity],
    ]);
    expect(cut.map((sample) => sample.jet !== undefined)).toEqual([false, true, true, false]);
    expect(cut[1]!.evaporation).toBeGreaterThan(5 * cut[0]!.evaporation);
    expect(cut[3]!.evaporation).toBe(air[1]!.evaporation);
  });

  it('scale all carriers alike', () => {
    const air = dryingAir([{ from: 0, ...room() }]);
    const quick = scaledAir(air, 1.5);
    for (const carrier of ['water', 'thinner', 'none'] as const) {
      expect(evaporationIn(quick[0]!, carrier)).toBeCloseTo(1.5 * evaporationIn(air[0]!, carrier), 15);
    }
    expect(scaledAir(air, 1)).toBe(air);
  });
});
