import { type Fault, ZaffetError } from '@zaffet/contract';
import { airFile, readAirFile } from './airFile';

const refusalOf = (text: string, zone = 'Europe/Paris'): Fault => {
  try {
    readAirFile(text, zone);
  } catch (error) {
    if (error instanceof ZaffetError) return error.fault;
  }
  throw new Error('was read');
};

describe('a file of air readings', () => {
  it('is read with its columns in any order, others left alone', () => {
    const text = 'Humidity_percent,room,TIME,temperature_c\r\n55,attic,2026-05-12T08:00+02:00,19.5\r\n';
    expect(readAirFile(text, '+00:00')).toEqual([
      { at: Date.parse('2026-05-12T06:00:00Z'), temperatureC: 19.5, humidity: 0.55 },
    ]);
  });

  it('is read with semicolons and decimal commas, and after a byte order mark', () => {
    const text = '\uFEFFtime;temperature_c;humidity_percent\n2026-05-12T06:00Z;19,5;55,5\n';
    expect(readAirFile(text, '+00:00')).toEqual([
      { at: Date.parse('2026-05-12T06:00:00Z'), temperatureC: 19.5, humidity: 0.555 },
    ]);
  });

  it('goes by the clock on the shop’s wall where it names no zone, over the change of summer time too', () => {
    const text = [
      'time,temperature_c,humidity_percent',
      '2026-03-28 12:00,18,50',
      '2026-03-29 12:00:30,18,50',
    ].join('\n');
    const [before, after] = readAirFile(text, 'Europe/Paris');
    expect(new Date(before!.at).toISOString()).toBe('2026-03-28T11:00:00.000Z');
    expect(new Date(after!.at).toISOString()).toBe('2026-03-29T10:00:30.000Z');
  });

  it('may tell degrees Fahrenheit', () => {
    const [point] = readAirFile('time,temperature_f,humidity_percent\n2026-05-12T06:00Z,68,50', '+00:00');
    expect(point!.temperatureC).toBeCloseTo(20, 9);
  });

  it('is refused with row and column of what cannot be read, and what is allowed', () => {
    const fault = refusalOf(
      [
        'time,temperature_c,humidity_percent',
        '2026-05-12T06:00Z,20,50',
        'noon,warm,132',
        '2026-02-30T06:00Z,20,50',
      ].join('\n'),
    );
    expect(fault.code).toBe('air.unreadable');
    expect(fault.fields.map(({ message }) => message)).toEqual([
      'Row 3, time: "noon" is not a time such as 2026-05-12T08:00 or 2026-05-12T08:00+02:00.',
      'Row 3, temperature_c: "warm" is not a number from 2 to 45 °C.',
      'Row 3, humidity_percent: "132" is not a number from 5 to 98 %.',
      'Row 4, time: "2026-02-30T06:00Z" is not a time such as 2026-05-12T08:00 or 2026-05-12T08:00+02:00.',
    ]);
  });

  it('is refused without its columns, without rows, or when it is something else', () => {
    expect(refusalOf('a,b\n1,2').fields.map(({ path }) => path)).toEqual([
      'time',
      'temperature_c',
      'humidity_percent',
    ]);
    expect(refusalOf('').fields.length).toBe(3);
    expect(refusalOf('time,temperature_c,humidity_percent\n').fields[0]!.message).toContain('no readings');
    expect(refusalOf('\u0000\u0001PNG').fields.length).toBe(3);
  });

  it('tells at most twenty cells of a file that is wrong throughout', () => {
    const rows = Array.from({ length: 500 }, () => 'x,y,z');
    expect(refusalOf(['time,temperature_c,humidity_percent', ...rows].join('\n')).fields.length).toBe(20);
  });

  it('comes back as it was written', () => {
    const points = Array.from({ length: 30 }, (_, i) => ({
      at: Date.parse('2026-05-12T06:00:00Z') + i * 3_600_000,
      temperatureC: 18.25 + i / 10,
      humidity: 0.5 + i / 100,
    }));
    const back = readAirFile(airFile(points), '+00:00');
    expect(back.length).toBe(30);
    back.forEach((point, i) => {
      expect(point.at).toBe(points[i]!.at);
      expect(point.temperatureC).toBeCloseTo(points[i]!.temperatureC, 9);
      expect(point.humidity).toBeCloseTo(points[i]!.humidity, 9);
    });
  });
});
