import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Clock } from './clock';

describe('a plan of a workshop in another time zone', () => {
  const MADE = Date.parse('2026-05-12T07:05:00Z');
  const inZone = (zone: string): Clock => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const clock = TestBed.inject(Clock);
    clock.choose('24');
    clock.zone.set(zone);
    return clock;
  };

  it('is written as the clock of that workshop reads', () => {
    const clock = inZone('Asia/Tokyo');
    expect(clock.time(MADE)).toBe('16:05');
    expect(clock.near(MADE + 9 * 3_600_000, MADE)).toBe('tomorrow 01:05');
    expect(new Date(clock.startOfDay(MADE)).toISOString()).toBe('2026-05-11T15:00:00.000Z');
    expect(clock.endOfDay(MADE) - clock.startOfDay(MADE)).toBe(24 * 3_600_000);
    expect(clock.isoDate(MADE + 9 * 3_600_000)).toBe('2026-05-13');
    expect(clock.timeOfDay(8 * 3_600_000)).toBe('08:00');
  });

  it('is typed as that clock reads', () => {
    const clock = inZone('America/New_York');
    const wall = clock.toWall(new Date(MADE));
    expect([wall.getHours(), wall.getMinutes()]).toEqual([3, 5]);
    expect(clock.fromWall(wall).getTime()).toBe(MADE);
  });

  it('names the zone only where this device reads otherwise', () => {
    const here = Intl.DateTimeFormat().resolvedOptions().timeZone;
    expect(inZone(here).otherZone(MADE)).toBe('');
    const clock = TestBed.inject(Clock);
    const other = new Date(MADE).getTimezoneOffset() === -540 ? 'America/New_York' : 'Asia/Tokyo';
    clock.zone.set(other);
    expect(clock.otherZone(MADE)).toBe(other);
  });
});

describe('a moment beside another', () => {
  it('names no more of its day than is wanted to find it', () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const clock = TestBed.inject(Clock);
    clock.choose('24');
    const now = new Date(2026, 4, 12, 18, 4).getTime();
    const at = (day: number, hour: number): string =>
      clock.near(new Date(2026, 4, day, hour, 0).getTime(), now);
    expect([at(12, 21), at(13, 8), at(15, 8), at(19, 8), at(11, 8)]).toEqual([
      '21:00',
      'tomorrow 08:00',
      'Fri 08:00',
      'Tue 19 May 08:00',
      'Mon 11 May 08:00',
    ]);
  });
});
