import { ApplicationRef, computed, effect, inject, type Signal, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import { type Forecast } from '@zaffet/core/forecast';
import { planFeature } from './plan.feature';

/**
 * The forecast for a view that is not under the hand: while something is held the view follows in a task of its own,
 * so that what is held is drawn first and no task is long. Otherwise as the store has it.
 */
export function forecastAfterTheHand(): Signal<Forecast | null> {
  const store = inject(Store);
  const forecast = store.selectSignal(planFeature.selectForecast);
  const held = store.selectSignal(planFeature.selectInGesture);
  const app = inject(ApplicationRef);
  const late = signal(untracked(forecast));
  effect((onCleanup) => {
    const now = forecast();
    const timer = setTimeout(() => {
      late.set(now);
      app.tick();
    });
    onCleanup(() => clearTimeout(timer));
  });
  return computed(() => (held() ? late() : forecast()));
}
