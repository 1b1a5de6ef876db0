import { DestroyRef, effect, inject, Injectable, signal } from '@angular/core';
import { duration } from '@zaffet/words';
import { type Sitting } from '@zaffet/workshop';
import { now } from '../data/fresh';
import { Sound } from '../data/sound';
import { DaysModel } from './days-model';

/** A sign comes so long before something is done [s], as in the calendar. */
const BEFORE = 300;
/** Browsers let a page sleep: the clock is looked at this often [ms]. */
const LOOK_EVERY = 10_000;

/** A sign that is due at a moment [s from the plan's start]. */
export interface Sign {
  readonly at: number;
  readonly sitting: Sitting;
  /** Just before it is done, or now that it must be. */
  readonly now: boolean;
}

/** Signs after one moment, until another, by the clock: five minutes before all that is done, and when it must be. */
export function signsIn(sittings: readonly Sitting[], after: number, until: number): Sign[] {
  return sittings
    .filter(({ kind }) => kind !== 'mix' && kind !== 'prepare')
    .flatMap((sitting): Sign[] => {
      const at = sitting.work[0]!.from;
      const before = { at: at - BEFORE, sitting, now: false };
      return sitting.urgency === 'must' ? [before, { at, sitting, now: true }] : [before];
    })
    .filter(({ at }) => at > after && at <= until)
    .sort((a, b) => a.at - b.at);
}

/** While the days are looked at, what comes next is said, and rung. */
@Injectable()
export class DaySigns {
  private readonly model = inject(DaysModel);
  private readonly sound = inject(Sound);
  /** The last sign, in words; '' before there was one. */
  readonly told = signal('');

  constructor() {
    let looked = now().getTime();
    const look = (): void => {
      const shown = this.model.shown();
      const until = now().getTime();
      if (shown !== null) {
        const moment = (at: number): number => (at - this.model.at(0)) / 1000;
        const last = signsIn(this.model.sittings(), moment(looked), moment(until)).at(-1);
        if (last !== undefined) {
          const what = `${this.model.titleOf(last.sitting)}: ${this.model.partsOf(last.sitting)}`;
          this.told.set(last.now ? `Now: ${what}` : `In ${duration(BEFORE)}: ${what}`);
          this.sound.ring();
        }
      }
      looked = until;
    };
    const timer = setInterval(look, LOOK_EVERY);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
    // Another plan, other signs.
    effect(() => {
      this.model.file();
      this.told.set('');
    });
  }
}
