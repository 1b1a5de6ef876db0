import psychrolib from 'psychrolib';
import { celsiusToKelvin, kelvinToCelsius } from '../units';
import {
  absoluteHumidity,
  dewPoint,
  humidityRatio,
  pressureAtAltitude,
  saturationVapourPressure,
  vapourPressureDeficit,
  wetBulb,
} from './vapour';

const K = celsiusToKelvin;

describe('vapour', () => {
  beforeAll(() => psychrolib.SetUnitSystem(psychrolib.SI));

  it('meets steam-table values of saturation pressure', () => {
    // Triple point of water, 611.66 Pa (exact before 2019, from memory); steam tables at 25 and 100 °C (from memory).
    expect(saturationVapourPressure(K(0.01)) / 611.66).toBeCloseTo(1, 3);
    expect(saturationVapourPressure(K(25)) / 3169).toBeCloseTo(1, 3);
    expect(Math.abs(saturationVapourPressure(K(100)) / 101325 - 1)).toBeLessThan(0.0015);
  });

  it('agrees with psychrolib (ASHRAE Handbook of Fundamentals) on saturation pressure', () => {
    for (let t = 1; t <= 60; t += 1) {
      const reference = psychrolib.GetSatVapPres(t);
      expect(Math.abs(saturationVapourPressure(K(t)) / reference - 1)).toBeLessThan(3e-4);
    }
  });

  it('agrees with psychrolib on dew point and wet bulb above freezing, from sea level to 3000 m', () => {
    for (const altitude of [0, 1500, 3000]) {
      const pressure = pressureAtAltitude(altitude);
      for (let t = 4; t <= 44; t += 8) {
        for (let rh = 0.1; rh <= 1; rh += 0.15) {
          const dew = psychrolib.GetTDewPointFromRelHum(t, rh);
          if (dew > 0.2) expect(Math.abs(kelvinToCelsius(dewPoint(K(t), rh)) - dew)).toBeLessThan(0.01);
          const wet = psychrolib.GetTWetBulbFromRelHum(t, rh, pressure);
          if (wet > 0.2 && dew > 0.2)
            expect(Math.abs(kelvinToCelsius(wetBulb(K(t), rh, pressure)) - wet)).toBeLessThan(0.01);
        }
      }
    }
  });

  it('meets named table values', () => {
    // psychrolib at 21 °C, 50 %: dew point 10.19 °C, wet bulb 14.60 °C, humidity ratio 0.00773.
    expect(kelvinToCelsius(dewPoint(K(21), 0.5))).toBeCloseTo(10.19, 2);
    expect(kelvinToCelsius(wetBulb(K(21), 0.5))).toBeCloseTo(14.6, 1);
    expect(humidityRatio(K(21), 0.5)).toBeCloseTo(0.00773, 5);
    // Saturated air at 20 °C holds 17.3 g/m³ (table value, from memory).
    expect(absoluteHumidity(K(20), 1) * 1000).toBeCloseTo(17.3, 1);
    // Standard atmosphere: 89 875 Pa at 1000 m, 70 109 Pa at 3000 m (from memory).
    expect(pressureAtAltitude(1000)).toBeCloseTo(89875, -1);
    expect(pressureAtAltitude(3000)).toBeCloseTo(70109, -1);
  });

  it('gives the deficit of its example', () => {
    expect(vapourPressureDeficit(293.15, 0.5)).toBeCloseTo(1169, 0);
    expect(vapourPressureDeficit(293.15, 1)).toBe(0);
  });

  it('refuses what no air can be, naming field and range', () => {
    expect(() => saturationVapourPressure(20)).toThrowError(
      /air\.temperature is 20; it must be a number from 233.15/,
    );
    expect(() => vapourPressureDeficit(293, 50)).toThrowError(/air\.humidity is 50/);
    expect(() => dewPoint(293, 0)).toThrowError(/air\.humidity/);
    expect(() => saturationVapourPressure(NaN)).toThrowError(/NaN/);
  });
});
