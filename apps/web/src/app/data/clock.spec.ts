import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Clock } from './clock';

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
