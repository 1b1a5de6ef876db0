import { effect, inject, Injectable, signal } from '@angular/core';
import { type Naturalness } from '@zaffet/core/measure';
import { Store } from '@ngrx/store';
import { planFeature } from '../plan/plan.feature';
import { FaceClient } from './face.client';
import { naturalRequest } from './face-request';

/** The panel is judged once the hand has rested this long [ms]. */
const REST = 500;

/** Judges how natural the plan's panel looks, on a thread of its own, whenever the plan has come to rest. */
@Injectable()
export class NaturalReading {
  private readonly store = inject(Store);
  private readonly client = inject(FaceClient);
  private readonly forecast = this.store.selectSignal(planFeature.selectForecast);
  private readonly inGesture = this.store.selectSignal(planFeature.selectInGesture);
  readonly reading = signal<Naturalness | null>(null);
  readonly trouble = signal(false);

  constructor() {
    effect((onCleanup) => {
      const forecast = this.forecast();
      if (forecast === null || this.inGesture()) return;
      const timer = setTimeout(() => {
        this.client.natural(naturalRequest(forecast)).then(
          (reading) => {
            this.trouble.set(false);
            if (reading !== null) this.reading.set(reading);
          },
          () => this.trouble.set(true),
        );
      }, REST);
      onCleanup(() => clearTimeout(timer));
    });
  }
}
