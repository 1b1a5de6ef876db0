import { equilibriumMoisture, moistureReady } from '@zaffet/core/wood';
import { dewPoint, saturationVapourPressure } from '@zaffet/core/air';
import { celsiusToKelvin, kelvinToCelsius } from '@zaffet/core/units';
import { driftAt, hygrometerReads } from './hygrometer';
import { meterReads, PLACES_READ } from './moistureMeter';
import { simulatedWeather } from './weather';

const HOUR = 3_600_000;
const at = (text: string): number => Date.parse(text);
const mean = (values: readonly number[]): number => values.reduce((sum, one) => sum + one, 0) / values.length;

describe('the simulated weather', () => {
  const january = simulatedWeather(at('2026-01-05T00:00:00Z'), 24 * 14, 7);
  const july = simulatedWeather(at('2026-07-05T00:00:00Z'), 24 * 14, 7);

  it('is the same whenever it is asked, and another for another seed', () => {
    const later = simulatedWeather(at('2026-01-07T00:20:00Z'), 24, 7);
    expect(later).toEqual(january.slice(48, 72));
    expect(simulatedWeather(at('2026-01-05T00:00:00Z'), 24, 8)).not.toEqual(january.slice(0, 24));
  });

  it('is warmer in summer, and in the afternoon than at night', () => {
    const of = (points: typeof january): number => mean(points.map(({ temperatureC }) => temperatureC));
    expect(of(july)).toBeGreaterThan(of(january) + 8);
    const hour = (h: number): number => mean(july.filter((_, i) => i % 24 === h).map((p) => p.temperatureC));
    expect(hour(15)).toBeGreaterThan(hour(3) + 3);
  });

  it('has no step from hour to hour', () => {
    const all = simulatedWeather(at('2026-03-01T00:00:00Z'), 24 * 60, 3);
    const steps = all.slice(1).map(({ temperatureC }, i) => Math.abs(temperatureC - all[i]!.temperatureC));
    expect(Math.max(...steps)).toBeLessThan(2.5);
  });

  it('has its dew point near the coldest of the night, as FAO 56 takes it (eq. 48)', () => {
    // e°(15.0) = 1.705 kPa and e°(24.5) = 3.075 kPa are the paper’s own example 3, quoted from memory.
    expect(saturationVapourPressure(celsiusToKelvin(15)) / 1000).toBeCloseTo(1.705, 2);
    expect(saturationVapourPressure(celsiusToKelvin(24.5)) / 1000).toBeCloseTo(3.075, 2);
    for (let day = 0; day < 13; day++) {
      const hours = july.slice(day * 24, day * 24 + 24);
      const coldest = Math.min(...hours.map(({ temperatureC }) => temperatureC));
      const dew = mean(
        hours.map((p) => kelvinToCelsius(dewPoint(celsiusToKelvin(p.temperatureC), p.humidity))),
      );
      expect(coldest - dew).toBeGreaterThan(-2.5);
      expect(coldest - dew).toBeLessThan(5);
    }
  });
});

describe('the simulated hygrometer', () => {
  const point = { at: at('2026-05-12T08:00:00Z'), temperatureC: 20.04, humidity: 0.5 };
  const day = Array.from({ length: 24 * 60 }, (_, i) => ({ ...point, at: point.at + i * 60_000 }));
  const read = day.map((one) => hygrometerReads(one, 5));

  it('reads near the air, in tenths of a degree and whole per cents', () => {
    const told = read.filter((one) => one !== null);
    expect(mean(told.map(({ temperatureC }) => temperatureC))).toBeCloseTo(20.04, 1);
    for (const { temperatureC, humidity } of told) {
      expect(temperatureC * 10).toBeCloseTo(Math.round(temperatureC * 10), 9);
      expect(humidity * 100).toBeCloseTo(Math.round(humidity * 100), 9);
    }
    expect(new Set(told.map(({ temperatureC }) => temperatureC)).size).toBeGreaterThan(3);
  });

  it('is lost now and then, for minutes at a time', () => {
    const lost = read.filter((one) => one === null).length / read.length;
    expect(lost).toBeGreaterThan(0.02);
    expect(lost).toBeLessThan(0.2);
    let longest = 0;
    for (let i = 0, run = 0; i < read.length; i++)
      longest = Math.max(longest, (run = read[i] === null ? run + 1 : 0));
    expect(longest).toBeGreaterThanOrEqual(9);
  });

  it('drifts damper until it is calibrated', () => {
    const half = Array.from({ length: 180 }, (_, i) => driftAt(point.at + i * 24 * HOUR));
    expect(Math.max(...half) - Math.min(...half)).toBeCloseTo(0.03, 2);
    const bias = mean(read.filter((one) => one !== null).map(({ humidity }) => humidity)) - 0.5;
    expect(bias).toBeCloseTo(driftAt(point.at), 2);
  });
});

describe('the simulated moisture meter', () => {
  it('reads several places of wood that rests with the air, or came in fresh', () => {
    const rest = equilibriumMoisture(celsiusToKelvin(21), 0.5);
    const boards = Array.from({ length: 60 }, (_, i) => meterReads(`part-${i}`, 21, 0.5));
    for (const { places, content } of boards) {
      expect(places.length).toBe(PLACES_READ);
      expect(content).toBeGreaterThan(rest - 0.012);
      expect(content).toBeLessThan(rest + 0.05);
    }
    const ready = boards.filter(({ content }) => moistureReady(content, celsiusToKelvin(21), 0.5)).length;
    expect(ready).toBeGreaterThan(20);
    expect(ready).toBeLessThan(60);
  });

  it('reads warm wood as damper, and takes that back in the mean', () => {
    const [cool, warm] = [meterReads('lid', 12, 0.5), meterReads('lid', 30, 0.5)];
    expect(mean(warm.places) - warm.content).toBeCloseTo(0.015, 3);
    expect(mean(cool.places) - cool.content).toBeCloseTo(-0.012, 3);
  });
});
