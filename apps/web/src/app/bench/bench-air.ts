import { DestroyRef, inject, Injectable, signal } from '@angular/core';
import { type KeptReading } from '@zaffet/contract';
import { type Subscription } from 'rxjs';
import { AirApi } from '../data/air.api';
import { BenchModel } from '../runs/bench-model';

/** A reading is told again when it is so far off the one told last, or so long after it. */
const WORTH = { temperatureC: 0.3, humidity: 0.02, ms: 15 * 60_000 } as const;

/** Whether a reading is worth telling, after the one that was told last. */
export function worthTelling(reading: Omit<KeptReading, 'source'>, last: typeof reading | null): boolean {
  return (
    last === null ||
    Math.abs(reading.temperatureC - last.temperatureC) >= WORTH.temperatureC ||
    Math.abs(reading.humidity - last.humidity) >= WORTH.humidity ||
    Date.parse(reading.at) - Date.parse(last.at) >= WORTH.ms
  );
}

/** The hygrometer beside the work: what it reads becomes part of the run, as far as it says anything new. */
@Injectable()
export class BenchAir {
  private readonly api = inject(AirApi);
  private readonly model = inject(BenchModel);
  private reading: Subscription | null = null;
  private last: Omit<KeptReading, 'source'> | null = null;
  readonly on = signal(false);

  constructor() {
    inject(DestroyRef).onDestroy(() => this.reading?.unsubscribe());
  }

  turn(): void {
    this.on.update((was) => !was);
    if (!this.on()) {
      this.reading?.unsubscribe();
      return;
    }
    this.reading = this.api.readings(true).subscribe((reading) => {
      if (!worthTelling(reading, this.last)) return;
      this.last = reading;
      const { source, temperatureC, humidity } = reading;
      this.model.tell({ kind: 'air', source, temperatureC, humidity });
    });
  }
}
