import { InputError } from '../errors';
import { celsiusToKelvin } from '../units';
import { equilibriumMoisture, moistureReady } from './moisture';

describe('moisture of wood', () => {
  // Wood Handbook, table of equilibrium moisture content at 70 °F (21.1 °C); quoted from memory.
  const TABLE: [number, number][] = [
    [0.3, 0.062],
    [0.4, 0.077],
    [0.5, 0.092],
    [0.6, 0.11],
    [0.7, 0.131],
    [0.8, 0.16],
    [0.9, 0.205],
  ];
  for (const [humidity, content] of TABLE) {
    it(`comes to ${content * 100} % at ${humidity * 100} % humidity`, () => {
      expect(Math.abs(equilibriumMoisture(celsiusToKelvin(21.1), humidity) - content)).toBeLessThan(0.0015);
    });
  }

  it('is drier when warmer', () => {
    expect(equilibriumMoisture(celsiusToKelvin(35), 0.5)).toBeLessThan(
      equilibriumMoisture(celsiusToKelvin(10), 0.5),
    );
  });

  it('says when a board may be painted', () => {
    expect(moistureReady(0.095, celsiusToKelvin(21), 0.5)).toBeTrue();
    expect(moistureReady(0.13, celsiusToKelvin(21), 0.7)).toBeFalse();
    expect(moistureReady(0.115, celsiusToKelvin(21), 0.4)).toBeFalse();
  });

  it('refuses air no shop has', () => {
    expect(() => equilibriumMoisture(200, 0.5)).toThrowError(InputError, /wood\.temperature/);
    expect(() => equilibriumMoisture(294, 1.2)).toThrowError(InputError, /wood\.humidity/);
  });
});
