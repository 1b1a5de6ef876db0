import {
  ApplicationRef,
  computed,
  DestroyRef,
  effect,
  inject,
  Injectable,
  type Signal,
  signal,
  untracked,
} from '@angular/core';
import { Store } from '@ngrx/store';
import { type Forecast } from '@zaffet/core/forecast';
import { planFeature } from './plan.feature';

/** Whose turn it is to follow what a hand does: one view a frame, in the order they asked, each with its newest. */
@Injectable({ providedIn: 'root' })
export class FollowingTurns {
  private readonly app = inject(ApplicationRef);
  private readonly waiting = new Map<object, () => void>();
  private running = false;

  /** Lets a view follow when its turn comes; what it asked before and did not get is dropped. */
  ask(view: object, follow: () => void): void {
    this.waiting.set(view, follow);
    if (!this.running) this.next();
  }

  drop(view: object): void {
    this.waiting.delete(view);
  }

  private next(): void {
    this.running = this.waiting.size > 0;
    if (!this.running) return;
    // After the frame, so that what is held is drawn first and no task holds two views.
    requestAnimationFrame(() =>
      setTimeout(() => {
        const [first] = this.waiting;
        if (first !== undefined) {
          this.waiting.delete(first[0]);
          first[1]();
          this.app.tick();
        }
        this.next();
      }),
    );
  }
}

/**
 * The forecast for a view that is not under the hand: while something is held the view follows when its turn comes.
 * Otherwise as the store has it.
 */
export function forecastAfterTheHand(): Signal<Forecast | null> {
  const store = inject(Store);
  const forecast = store.selectSignal(planFeature.selectForecast);
  const held = store.selectSignal(planFeature.selectInGesture);
  const turns = inject(FollowingTurns);
  const late = signal(untracked(forecast));
  const view = {};
  effect(() => {
    const now = forecast();
    if (held()) turns.ask(view, () => late.set(now));
    else {
      turns.drop(view);
      late.set(now);
    }
  });
  inject(DestroyRef).onDestroy(() => turns.drop(view));
  return computed(() => (held() ? late() : forecast()));
}
