import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatIconModule } from '@angular/material/icon';
import { MatSelectModule } from '@angular/material/select';
import { MatTooltipModule } from '@angular/material/tooltip';
import {
  type CoatStep,
  LIMITS,
  mediumName,
  START_STATE_NAMES,
  type StartRuleFile,
  STROKE_NAMES,
} from '@zaffet/contract';
import { MEDIUM_KEYS, START_STATES, type StartState, STROKES } from '@zaffet/core';
import { Store } from '@ngrx/store';
import { format } from 'date-fns';
import { PlanEditor } from '../../plan/plan.actions';
import { planFeature } from '../../plan/plan.feature';
import { NumberField } from '../../ui/number-field';

/** Everything about one coat: medium, colour, how thick, how brushed, when. */
@Component({
  selector: 'zf-coat-card',
  imports: [
    MatButtonModule,
    MatButtonToggleModule,
    MatFormFieldModule,
    MatIconModule,
    MatSelectModule,
    MatTooltipModule,
    NumberField,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './coat-card.html',
  styleUrl: './coat-card.scss',
  host: { role: 'dialog', 'aria-label': 'Coat', '(keydown.escape)': 'close()' },
})
export class CoatCard {
  private readonly store = inject(Store);
  protected readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly selected = this.store.selectSignal(planFeature.selectSelectedCoat);
  private readonly forecast = this.store.selectSignal(planFeature.selectForecast);
  protected readonly coat = computed(() => this.selected()!);
  protected readonly index = computed(
    () => this.plan()?.steps.findIndex((step) => step.id === this.coat().id) ?? 0,
  );
  protected readonly limits = LIMITS;
  protected readonly media = MEDIUM_KEYS;
  protected readonly mediumName = mediumName;
  protected readonly strokes = STROKES;
  protected readonly strokeNames = STROKE_NAMES;
  protected readonly states = START_STATES;
  protected readonly stateNames = START_STATE_NAMES;
  protected readonly isLast = computed(() => this.index() === (this.plan()?.steps.length ?? 1) - 1);

  private readonly laidAt = computed(() => {
    const plan = this.plan();
    const coat = this.forecast()?.coats[this.index()];
    return plan === null || coat === undefined
      ? null
      : new Date(Date.parse(plan.startsAt) + coat.laidAt * 1000);
  });
  protected readonly laidText = computed(() => {
    const at = this.laidAt();
    return at === null ? '' : format(at, 'EEEE HH:mm');
  });

  protected change(changes: Partial<CoatStep>): void {
    this.store.dispatch(PlanEditor.coatChanged({ coatId: this.coat().id, changes, gesture: null }));
  }

  /** Changes how the start is told without moving it more than it must. */
  protected changeRule(rule: StartRuleFile['rule']): void {
    const coats = this.forecast()?.coats ?? [];
    const here = coats[this.index()];
    const below = coats[this.index() - 1];
    const wait = here && below ? Math.round((here.laidAt - below.laidAt) / 6) / 10 : 0;
    if (rule === 'after') this.change({ start: { rule, waitMin: wait } });
    else if (rule === 'at')
      this.change({ start: { rule, at: (this.laidAt() ?? new Date(0)).toISOString() } });
    else this.change({ start: { rule, state: 'recoat', waitMin: 0 } });
  }

  protected changeStart(changes: { state?: StartState; waitMin?: number }): void {
    const { start } = this.coat();
    if (start.rule !== 'at') this.change({ start: { ...start, ...changes } });
  }

  protected changeAt(value: string): void {
    const start = Date.parse(this.plan()!.startsAt);
    const wanted = Date.parse(value);
    const at = new Date(Math.min(start + LIMITS.waitMin.max * 60000, Math.max(start, wanted)));
    if (!Number.isNaN(wanted)) this.change({ start: { rule: 'at', at: at.toISOString() } });
  }

  protected localAt(at: string): string {
    return format(new Date(at), "yyyy-MM-dd'T'HH:mm");
  }

  protected move(by: 1 | -1): void {
    this.store.dispatch(PlanEditor.coatMoved({ coatId: this.coat().id, by }));
  }

  protected remove(): void {
    this.store.dispatch(PlanEditor.coatRemoved({ coatId: this.coat().id }));
  }

  protected close(): void {
    this.store.dispatch(PlanEditor.coatSelected({ coatId: null }));
  }
}
