import { DestroyRef, inject, Injectable, signal } from '@angular/core';
import { now } from './fresh';

/** The device's clock, a second at a time [ms since 1970]; of the page that provides it. */
@Injectable()
export class Ticker {
  private readonly ticks = signal(now().getTime());
  readonly at = this.ticks.asReadonly();

  constructor() {
    const timer = setInterval(() => this.ticks.set(now().getTime()), 1000);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
  }
}
