import { celsiusToKelvin, kelvinToCelsius } from '../units';
import { indoors, type OutdoorSample, type Room } from './indoors';
import { absoluteHumidity } from './vapour';

const HOUR = 3600;
const SHED: Room = { volume: 60, exchange: 0.5 / HOUR, holds: 8 * HOUR, moisture: 0 };
const steady = (hours: number, temperatureC: number, humidity: number): OutdoorSample[] =>
  Array.from({ length: hours }, (_, i) => ({
    from: i * HOUR,
    temperature: celsiusToKelvin(temperatureC),
    humidity,
  }));
const never = (): null => null;
const to = (temperatureC: number) => (): number => celsiusToKelvin(temperatureC);

describe('the air indoors', () => {
  it('of winter is dry when it is heated: 0 °C at 90 % comes to 25 % at 20 °C (psychrometric tables)', () => {
    // e(0 °C) = 611 Pa, e(20 °C) = 2339 Pa; heated at constant pressure 0.9 · 611/2339 = 0.235, by volume 293/273 more.
    const last = indoors(steady(400, 0, 0.9), SHED, to(20)).at(-1)!;
    expect(kelvinToCelsius(last.temperature)).toBeCloseTo(20, 6);
    expect(last.humidity).toBeGreaterThan(0.23);
    expect(last.humidity).toBeLessThan(0.26);
  });

  it('holds G/(n V) more water than outside, as ISO 13788 has it', () => {
    // 0.1 kg/h in 60 m³ at 0.5 an hour: 3.33 g/m³, a shop of humidity class 1 to 2.
    const outside = steady(800, 10, 0.8);
    const last = indoors(outside, { ...SHED, moisture: 0.1 / HOUR }, to(20)).at(-1)!;
    const more =
      absoluteHumidity(last.temperature, last.humidity) - absoluteHumidity(celsiusToKelvin(10), 0.8);
    expect(more * 1000).toBeCloseTo(3.333, 2);
  });

  it('follows the temperature outside by its time constant: 63 % of the way after it', () => {
    const outside = [...steady(1, 20, 0.5), ...steady(9, 5, 0.5).map((s) => ({ ...s, from: s.from + HOUR }))];
    const inside = indoors(outside, SHED, never);
    const fallen = inside[1]!.temperature - inside.at(-1)!.temperature;
    expect(fallen / 15).toBeCloseTo(1 - Math.exp(-1), 2);
  });

  it('gets damp in a night when the heating is off, and dry in the day again', () => {
    const day = (moment: number): number | null =>
      (moment / HOUR) % 24 >= 8 && (moment / HOUR) % 24 < 17 ? celsiusToKelvin(20) : null;
    const inside = indoors(steady(96, 8, 0.85), SHED, day);
    const at = (hour: number): OutdoorSample => inside[72 + hour]!;
    expect(at(6).humidity).toBeGreaterThan(at(14).humidity + 0.1);
    expect(at(6).temperature).toBeLessThan(at(14).temperature - 5);
  });

  it('takes some hours to warm: from 10 °C to 20 °C in two', () => {
    const from8 = (moment: number): number | null => (moment >= 48 * HOUR ? celsiusToKelvin(20) : null);
    const inside = indoors(steady(60, 8, 0.6), SHED, from8);
    const at = (hour: number): number => kelvinToCelsius(inside[48 + hour]!.temperature);
    expect([at(0), at(1), at(2), at(5)].map(Math.round)).toEqual([10, 15, 20, 20]);
  });

  it('never holds more than it can, and stays within what paint is forecast in', () => {
    const wet = indoors(steady(200, 4, 0.95), { ...SHED, moisture: 2 / HOUR }, never);
    expect(Math.max(...wet.map(({ humidity }) => humidity))).toBe(0.98);
    const cold = indoors(steady(200, -20, 0.9), SHED, never);
    expect(kelvinToCelsius(cold.at(-1)!.temperature)).toBeCloseTo(2, 6);
  });

  it('is quicker to follow the air outside with the windows open', () => {
    const outside = [
      ...steady(24, 15, 0.4),
      ...steady(24, 15, 0.9).map((s) => ({ ...s, from: s.from + 24 * HOUR })),
    ];
    const after = (exchange: number): number => indoors(outside, { ...SHED, exchange }, never)[30]!.humidity;
    expect(after(5 / HOUR)).toBeGreaterThan(after(0.5 / HOUR) + 0.1);
  });

  it('refuses a shop that is none', () => {
    expect(() => indoors(steady(2, 10, 0.5), { ...SHED, volume: 1 }, never)).toThrowError(/room\.volume/);
    expect(() => indoors(steady(2, 10, 0.5), { ...SHED, exchange: 1 }, never)).toThrowError(/room\.exchange/);
    expect(() => indoors(steady(2, 10, 0.5), { ...SHED, holds: 1 }, never)).toThrowError(/room\.holds/);
    expect(() => indoors(steady(2, 10, 0.5), { ...SHED, moisture: 1 }, never)).toThrowError(/room\.moisture/);
  });
});
