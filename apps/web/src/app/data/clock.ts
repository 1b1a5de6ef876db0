import { DestroyRef, effect, inject, Injectable, signal } from '@angular/core';
import { CLOCK_FACES, TIME_PATTERNS } from '@zaffet/contract';
import { onClock, onWall } from '@zaffet/workshop';
import { differenceInCalendarDays, format, startOfDay } from 'date-fns';
import { chosenOf } from './chosen';

/** A whole day and half of the next [ms]: long enough to reach tomorrow, however clocks are changed. */
const INTO_TOMORROW = 36 * 3_600_000;

/**
 * How moments are written in this browser, everywhere alike: with 24 hours or 12, in the time zone of the workshop whose
 * plan is open.
 */
@Injectable({ providedIn: 'root' })
export class Clock {
  private readonly chosen = chosenOf('zaffet.clock', CLOCK_FACES);
  readonly face = this.chosen.value;
  readonly choose = this.chosen.choose;
  /** Time zone that moments are written in; this device's where null. */
  readonly zone = signal<string | null>(null);

  /** A moment as the date whose local fields read what the workshop's clock reads. */
  private wall(at: Date | number, zone = this.zone()): Date | number {
    return zone === null ? at : onWall(Number(at), zone);
  }

  /** The same, as a plain date of this device: for fields of forms, which know no zones. */
  toWall(at: Date): Date {
    return new Date(format(this.wall(at), WRITTEN));
  }

  /** The moment at which the workshop's clock reads what a date of this device reads. */
  fromWall(wall: Date): Date {
    const zone = this.zone();
    return zone === null ? wall : new Date(onClock(format(wall, WRITTEN), zone));
  }

  /** The workshop's time zone where its clock reads otherwise than this device's at a moment; else empty. */
  otherZone(at: Date | number): string {
    const zone = this.zone();
    return zone === null || this.toWall(new Date(at)).getTime() === Math.floor(Number(at) / 1000) * 1000
      ? ''
      : zone;
  }

  /** How a time of day is written, for whatever reads or writes one. */
  pattern(): string {
    return TIME_PATTERNS[this.face()];
  }

  /** Midnight before a moment, and after it [ms since 1970]. */
  startOfDay(at: Date | number): number {
    return startOfDay(this.wall(at)).getTime();
  }
  endOfDay(at: Date | number): number {
    return this.startOfDay(this.startOfDay(at) + INTO_TOMORROW);
  }

  /** 14:05, of a time of day [ms since midnight] */
  timeOfDay(since: number): string {
    return format(new Date(2026, 0, 5).getTime() + since, this.pattern());
  }

  /** 14:05 */
  time(at: Date | number): string {
    return format(this.wall(at), this.pattern());
  }

  /** Fri 14:05 */
  dayTime(at: Date | number): string {
    return format(this.wall(at), `EEE ${this.pattern()}`);
  }

  /** Friday 15 May 14:05 */
  longDayTime(at: Date | number): string {
    return format(this.wall(at), `EEEE d MMM ${this.pattern()}`);
  }

  /** A day as short as it is clear on another: nothing, tomorrow, Fri, Fri 15 May */
  day(at: Date | number, now: Date | number): string {
    const days = differenceInCalendarDays(this.wall(at), this.wall(now));
    if (days === 0) return '';
    if (days === 1) return 'tomorrow';
    return format(this.wall(at), days > 1 && days < 7 ? 'EEE' : 'EEE d MMM');
  }

  /** 14:05, tomorrow 14:05, Fri 14:05, Fri 15 May 14:05 */
  near(at: Date | number, now: Date | number): string {
    return `${this.day(at, now)} ${this.time(at)}`.trim();
  }

  /** Fri 15 May 14:05; in the zone of a plan that is not open where one is given */
  dateTime(at: Date | number, zone = this.zone()): string {
    return format(this.wall(at, zone), `EEE d MMM ${this.pattern()}`);
  }

  /** Friday, 15 May */
  longDate(at: Date | number): string {
    return format(this.wall(at), 'EEEE, d MMMM');
  }

  /** Fri 15 */
  shortDate(at: Date | number): string {
    return format(this.wall(at), 'EEE d');
  }

  /** 2026-05-15 */
  isoDate(at: Date | number): string {
    return format(this.wall(at), 'yyyy-MM-dd');
  }
}

/** A date's local fields, to the second. */
const WRITTEN = "yyyy-MM-dd'T'HH:mm:ss";

/** Writes moments in a zone as long as what asks for it is shown. Call it where dependencies are injected. */
export function showZone(zone: () => string | null): void {
  const clock = inject(Clock);
  effect(() => clock.zone.set(zone()));
  inject(DestroyRef).onDestroy(() => clock.zone.set(null));
}
