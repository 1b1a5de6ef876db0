import { Injectable } from '@angular/core';
import { differenceInCalendarDays, format } from 'date-fns';
import { chosenOf } from './chosen';

export const CLOCKS = ['24', '12'] as const;
export type ClockFace = (typeof CLOCKS)[number];

/** How moments are written in this browser, everywhere alike: by a day of 24 hours, or of twice 12. */
@Injectable({ providedIn: 'root' })
export class Clock {
  private readonly chosen = chosenOf('zaffet.clock', CLOCKS);
  readonly face = this.chosen.value;
  readonly choose = this.chosen.choose;

  /** How a time of day is written, for whatever reads or writes one. */
  pattern(): string {
    return this.face() === '24' ? 'HH:mm' : 'h:mm a';
  }

  /** 14:05 */
  time(at: Date | number): string {
    return format(at, this.pattern());
  }

  /** Fri 14:05 */
  dayTime(at: Date | number): string {
    return format(at, `EEE ${this.pattern()}`);
  }

  /** Friday 15 May 14:05 */
  longDayTime(at: Date | number): string {
    return format(at, `EEEE d MMM ${this.pattern()}`);
  }

  /** A day as short as it is clear on another: nothing, tomorrow, Fri, Fri 15 May */
  day(at: Date | number, now: Date | number): string {
    const days = differenceInCalendarDays(at, now);
    if (days === 0) return '';
    if (days === 1) return 'tomorrow';
    return format(at, days > 1 && days < 7 ? 'EEE' : 'EEE d MMM');
  }

  /** 14:05, tomorrow 14:05, Fri 14:05, Fri 15 May 14:05 */
  near(at: Date | number, now: Date | number): string {
    return `${this.day(at, now)} ${this.time(at)}`.trim();
  }

  /** Fri 15 May 14:05 */
  dateTime(at: Date | number): string {
    return format(at, `EEE d MMM ${this.pattern()}`);
  }
}
