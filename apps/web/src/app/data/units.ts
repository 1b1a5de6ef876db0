import { Injectable, signal } from '@angular/core';
import { UNIT_SYSTEMS, type UnitSystem } from '@zaffet/words';

const KEY = 'zaffet.units';

/** How numbers are shown in this browser: the one switch between metric and imperial. */
@Injectable({ providedIn: 'root' })
export class Units {
  private readonly chosen = signal<UnitSystem>(remembered());
  readonly system = this.chosen.asReadonly();

  choose(system: UnitSystem): void {
    this.chosen.set(system);
    try {
      localStorage.setItem(KEY, system);
    } catch {
      // A browser that keeps nothing still shows what was chosen.
    }
  }
}

function remembered(): UnitSystem {
  try {
    return UNIT_SYSTEMS.find((system) => system === localStorage.getItem(KEY)) ?? 'metric';
  } catch {
    return 'metric';
  }
}
