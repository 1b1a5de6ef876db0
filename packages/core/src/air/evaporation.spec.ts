import { kelvinToCelsius } from '../units';
import { room } from '../testing/plans';
import { convection } from './convection';
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
    const { rate, surfaceTemperature } = evaporation(air, 0.4);
    const taken = rate * 1000 * (2.501e6 - 2361 * kelvinToCelsius(surfaceTemperature));
    const cooling = air.temperature - surfaceTemperature;
    const brought = (convection(0.1, cooling, 0.4) + 5.4 + 6) * cooling;
    expect(taken / brought).toBeCloseTo(1, 4);
  });

  it('is combined free and forced convection: either alone at its end, their cubes adding up between', () => {
    // Churchill 1977, from memory. In still air the speed hardly counts, in wind the cooling hardly.
    expect(convection(0.02, 4, 0.5) / convection(0.04, 4, 0.5)).toBeGreaterThan(0.97);
    expect(convection(4, 1, 0.5) / convection(4, 8, 0.5)).toBeGreaterThan(0.97);
    expect(convection(4, 4, 0.5) / convection(1, 4, 0.5)).toBeCloseTo(2, 1);
    const [still, wind, both] = [
      convection(1e-9, 4, 0.5),
      convection(0.3, 1e-9, 0.5),
      convection(0.3, 4, 0.5),
    ];
    expect(both ** 3 / (still ** 3 + wind ** 3)).toBeCloseTo(1, 1);
    // A smaller plate exchanges more of either.
    expect(convection(0.1, 4, 0.1)).toBeGreaterThan(1.3 * convection(0.1, 4, 0.6));
  });

  it('in moving air is about as much quicker as the wind term of Uno has it', () => {
    // Uno 1998: (3.6 + 4)/(0.36 + 4) = 1.74 at 1 m/s against 0.1 m/s.
    const ratio = umPerHour(room(21, 0.5, 1)) / umPerHour(room(21, 0.5, 0.1));
    expect(ratio).toBeGreaterThan(1.5);
    expect(ratio).toBeLessThan(2.5);
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
