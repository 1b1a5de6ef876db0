import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { type Finding } from '@zaffet/core/notes';
import { findingWords, stepTitle } from '@zaffet/words';
import { remedyFor } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { newId } from '../../data/fresh';
import { Units } from '../../data/units';
import { PlanEditor } from '../../plan/plan.actions';
import { planFeature } from '../../plan/plan.feature';

/** Something the plan says about itself, with what to do; where one press can do it, with the press. */
@Component({
  selector: 'zf-note',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class]': 'finding().level', '[attr.data-finding]': 'finding().code' },
  template: `
    <strong>{{ words().title }}</strong>
    @if (!short()) {
      {{ words().text }}
    }
    @if (words().remedy && !short()) {
      <em>{{ words().remedy }}</em>
    }
    @if (remedy() || (where() && at())) {
      <span class="do">
        @if (remedy(); as way) {
          <button mat-stroked-button data-remedy (click)="take()">{{ way.label }}</button>
        }
        @if (where() && at()) {
          <button type="button" class="at" (click)="show()">{{ at() }}</button>
        }
      </span>
    }
  `,
  styles: `
    :host {
      display: block;
      margin: 0 0 8px;
      padding: 7px 10px;
      border-left: 4px solid var(--line);
      background: var(--paper-2);
      font-size: 13px;
      line-height: 1.3;
    }
    :host(.stop),
    :host(.warn) {
      border-left-color: var(--rust);
      background: var(--rust-soft);
    }
    :host(.good) {
      border-left-color: var(--kelp);
      background: var(--kelp-soft);
    }
    em {
      display: block;
      margin-top: 3px;
    }
    .do {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 6px;
      margin-top: 5px;
    }
    button[data-remedy] {
      --mat-button-outlined-container-height: 30px;
      background: var(--paper);
      font-size: 13px;
    }
    .at {
      padding: 2px 6px;
      border: 0;
      background: none;
      color: var(--kelp);
      font: inherit;
      text-decoration: underline;
      cursor: pointer;
    }
  `,
})
export class Note {
  private readonly store = inject(Store);
  private readonly units = inject(Units).system;
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly file = this.store.selectSignal(planFeature.selectFile);
  private readonly inGesture = this.store.selectSignal(planFeature.selectInGesture);
  readonly finding = input.required<Finding>();
  /** Names the step it speaks of, and leads to it. */
  readonly where = input(false);
  /** Without the reasons where one press mends it; what stops the work is always told in full. */
  readonly brief = input(false);
  protected readonly short = computed(
    () => this.brief() && this.finding().level === 'warn' && this.remedy() !== null,
  );

  protected readonly words = computed(() => findingWords(this.finding(), this.units()));
  protected readonly at = computed(() => {
    const step = this.plan()?.steps.find(({ id }) => id === this.finding().stepId);
    return step === undefined ? '' : stepTitle(step, this.plan()?.media);
  });
  /** Trying remedies takes some forecasts: not while a hand is on a knob. */
  protected readonly remedy = computed(() => {
    const plan = this.plan();
    const { level } = this.finding();
    if (plan === null || level === 'good' || this.inGesture()) return null;
    return remedyFor(this.finding(), plan, newId);
  });

  protected take(): void {
    const file = this.file();
    const remedy = this.remedy();
    if (file !== null && remedy !== null)
      this.store.dispatch(PlanEditor.remedyTaken({ plan: remedy.apply(file) }));
  }

  protected show(): void {
    this.store.dispatch(PlanEditor.stepSelected({ stepId: this.finding().stepId }));
  }
}
