import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { RouterLink } from '@angular/router';
import {
  type Part,
  lengthShown,
  LIMITS,
  perCent,
  prepWords,
  substrateName,
  USE_NAMES,
} from '@zaffet/contract';
import {
  equilibriumMoisture,
  type History,
  prepHints,
  substrate,
  SUBSTRATE_KEYS,
  type SubstrateKey,
  USES,
} from '@zaffet/core';
import { Store } from '@ngrx/store';
import { Units } from '../data/units';
import { PlanEditor } from '../plan/plan.actions';
import { planFeature } from '../plan/plan.feature';
import { NumberField } from '../ui/number-field';

/** Widest and tallest the drawn panel may be [px]. */
const DRAWN = { width: 316, height: 440 };

/** The panel itself: how large, what it is made of, what happened to it, and what must be done before painting. */
@Component({
  selector: 'zf-piece-page',
  imports: [MatButtonToggleModule, MatCheckboxModule, NumberField, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './piece.page.html',
  styleUrl: './piece.page.scss',
})
export class PiecePage {
  private readonly store = inject(Store);
  protected readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly model = this.store.selectSignal(planFeature.selectModel);
  protected readonly part = computed(() => this.plan()!.piece.parts[0]);
  protected readonly limits = LIMITS;
  protected readonly substrates = SUBSTRATE_KEYS;
  protected readonly substrateName = substrateName;
  protected readonly uses = USES;
  protected readonly useNames = USE_NAMES;
  private readonly units = inject(Units).system;
  private readonly length = (mm: number): string => {
    const { number, unit } = lengthShown(mm / 1000, this.units());
    return `${number} ${unit}`;
  };
  protected readonly sizeText = computed(() => {
    const { widthMm, heightMm } = this.part();
    return `${this.length(widthMm)} × ${this.length(heightMm)}`;
  });
  protected readonly handText = computed(() => this.length(200));
  /** What bare wood comes to in this shop's air; null where none is bare. */
  protected readonly moisture = computed(() => {
    const air = this.model()?.air[0];
    if (air === undefined || !substrate(this.part().substrate).bare) return null;
    return perCent(equilibriumMoisture(air.temperature, air.humidity));
  });

  protected readonly hints = computed(() => {
    const model = this.model();
    return model === null ? [] : prepHints(model.panel).map((hint) => ({ ...hint, ...prepWords(hint) }));
  });

  /** The panel drawn to scale, with an outstretched hand's width (200 mm) beside it. */
  protected readonly drawn = computed(() => {
    const { widthMm, heightMm } = this.part();
    const scale = Math.min(DRAWN.width / widthMm, DRAWN.height / heightMm, 0.7);
    return { width: widthMm * scale, height: heightMm * scale, hand: 200 * scale };
  });

  protected change(changes: Partial<Part>): void {
    this.store.dispatch(PlanEditor.partChanged({ changes, gesture: null }));
  }

  protected changeHistory(changes: Partial<History>): void {
    this.change({ history: { ...this.part().history, ...changes } });
  }

  protected pick(substrate: SubstrateKey): void {
    this.change({ substrate });
  }

  protected rename(input: HTMLInputElement): void {
    const name = input.value.trim();
    if (name === '') input.value = this.part().name;
    else this.change({ name });
  }
}
