import { kelvinToCelsius } from '../units';
import { room } from '../testing/plans';
import { evaporation } from './evaporation';
import { airIndexAt, dryingAir } from './series';

const umPerHour = (air: ReturnType<typeof room>): number => evaporation(air).rate * 3.6e9;

/** Uno 1998, ACI Materials Journal 95, formula from memory: kg/(m² h), temperatures in °C, speed in km/h. */
function uno(surfaceC: number, airC: number, humidity: number, kmh: number): number {
  return 5 * ((surfaceC + 18) ** 2.5 - humidity * (airC + 18) ** 2.5) * (kmh + 4) * 1e-6;
}

describe('evaporation', () => {
  it('checks the reference formula itself against its published example form', () => {
    expect(uno(21, 21, 0.5, 16)).toBeCloseTo(0.475, 3);
  });

  it('lies between Uno at surface temperature and Uno at air temperature in ordinary shops', () => {
    for (const [t, rh, v] of [
      [21, 0.5, 0.1],
      [32, 0.35, 0.1],
      [25, 0.4, 0.3],
      [21, 0.5, 4.5],
    ] as const) {
      const air = room(t, rh, v);
      const { rate, surfaceTemperature } = evaporation(air);
      const kgPerHour = rate * 3.6e6;
      expect(kgPerHour).toBeLessThan(uno(t, t, rh, v * 3.6));
      expect(kgPerHour).toBeGreaterThan(uno(kelvinToCelsius(surfaceTemperature), t, rh, v * 3.6) * 0.95);
    }
  });

  it('cools the surface to between wet bulb and air', () => {
    const surface = kelvinToCelsius(evaporation(room()).surfaceTemperature);
    expect(surface).toBeGreaterThan(14.6);
    expect(surface).toBeLessThan(21);
  });

  it('is quicker when warmer, drier, windier and higher up', () => {
    const base = umPerHour(room());
    expect(umPerHour(room(26))).toBeGreaterThan(base);
    expect(umPerHour(room(21, 0.4))).toBeGreaterThan(base);
    expect(umPerHour(room(21, 0.5, 1))).toBeGreaterThan(base);
    expect(umPerHour(room(21, 0.5, 0.1, 2000))).toBeGreaterThan(base);
  });

  it('meets the balance it solves', () => {
    // Heat brought in equals heat taken by the vapour: rate · density · latent heat = conductance · cooling.
    const air = room();
    const { rate, surfaceTemperature } = evaporation(air);
    const taken = rate * 1000 * (2.501e6 - 2361 * kelvinToCelsius(surfaceTemperature));
    const brought = (5.6 + 3.9 * 0.1 + 5.4 + 6) * (air.temperature - surfaceTemperature);
    expect(taken / brought).toBeCloseTo(1, 6);
  });

  it('refuses air outside its ranges', () => {
    expect(() => evaporation(room(-5))).toThrowError(/air\.temperature/);
    expect(() => evaporation(room(21, 1.2))).toThrowError(/air\.humidity/);
    expect(() => evaporation(room(21, 0.5, 9))).toThrowError(/air\.speed/);
    expect(() => evaporation(room(21, 0.5, 0.1, 9000))).toThrowError(/air\.altitude/);
  });
});

describe('air over the days', () => {
  it('finds the sample that holds, the first one before it too', () => {
    const series = [0, 60, 120].map((from) => ({ from, ...room() }));
    expect([-5, 0, 59, 60, 119, 500].map((t) => airIndexAt(series, t))).toEqual([0, 0, 0, 1, 1, 2]);
  });

  it('refuses an empty or falling series', () => {
    expect(() => dryingAir([])).toThrowError(/air\.samples/);
    expect(() =>
      dryingAir([
        { from: 10, ...room() },
        { from: 5, ...room() },
      ]),
    ).toThrowError(/later than the sample before/);
  });
});
