import { computed, Injectable } from '@angular/core';
import { PRICE_VOLUMES } from '@zaffet/words';
import { UNIT_SYSTEMS } from '@zaffet/contract';
import { chosenOf } from './chosen';

/** How numbers are shown in this browser: the one switch between metric and imperial. */
@Injectable({ providedIn: 'root' })
export class Units {
  private readonly chosen = chosenOf('zaffet.units', UNIT_SYSTEMS);
  readonly system = this.chosen.value;
  readonly choose = this.chosen.choose;
  /** What prices are for. */
  readonly priced = computed(() => PRICE_VOLUMES[this.system()]);
}
