import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { RouterLink } from '@angular/router';
import { substrate } from '@zaffet/core/media';
import { turns } from '@zaffet/core/piece';
import { type PrepStep } from '@zaffet/core/plan';
import { equilibriumMoisture, moistureReady } from '@zaffet/core/wood';
import { FACING_NAMES, perCent, prepWords } from '@zaffet/words';
import { prepOf } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { PlanEditor } from '../plan/plan.actions';
import { planFeature } from '../plan/plan.feature';

/** What is to do before the first coat, each line open, done or not needed; and how the piece is turned. */
@Component({
  selector: 'zf-prep-list',
  imports: [MatButtonModule, MatCheckboxModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>{{ name() }}, before the first coat</h2>
    <ol>
      @for (hint of hints(); track hint.step) {
        <li
          [class.caution]="hint.caution"
          [class.done]="hint.done || hint.unneeded"
          [attr.data-prep]="hint.step"
        >
          <mat-checkbox
            [checked]="hint.done"
            [disabled]="hint.unneeded"
            (change)="change(hint.step, $event.checked ? 'done' : 'open')"
            ><strong>{{ hint.text }}</strong></mat-checkbox
          >
          <span class="quiet">Because {{ hint.reason }}.</span>
          @if (!hint.done) {
            <button
              mat-button
              type="button"
              [attr.aria-label]="(hint.unneeded ? 'Needed: ' : 'Not needed: ') + hint.text"
              (click)="change(hint.step, hint.unneeded ? 'open' : 'unneeded')"
            >
              {{ hint.unneeded ? 'Needed after all' : 'Not needed' }}
            </button>
          }
        </li>
      }
    </ol>
    @if (moisture(); as text) {
      <p class="small">{{ text }}</p>
    }
    @if (turned().length > 1) {
      <h2>Turning it</h2>
      <p class="small quiet">So that every part lies face up while it is painted:</p>
      <ol class="turns">
        @for (turn of turned(); track turn.up) {
          <li>
            <b>{{ turn.name }}</b> {{ turn.parts }}
          </li>
        }
      </ol>
    }
    <p class="quiet small">Labels, local codes and licensed people come before anything Zaffet says.</p>
    <p><a class="onward" routerLink="../look">On to the look</a></p>
  `,
  styles: `
    :host {
      display: block;
    }
    h2 {
      margin: 0 0 10px;
    }
    ol {
      display: grid;
      gap: 8px;
      margin: 0 0 12px;
      padding: 0;
      list-style: none;
    }
    li > button {
      margin-left: 24px;
    }
    li > .quiet {
      display: block;
      margin-left: 32px;
      font-size: 12.5px;
    }
    li strong {
      font-weight: 600;
      line-height: 1.25;
    }
    li.done strong {
      font-weight: 400;
      text-decoration: line-through;
    }
    li.caution {
      padding: 6px 8px 8px;
      border-left: 5px solid var(--rust);
      background: var(--rust-soft);
    }
    li.caution > .quiet {
      color: var(--ink);
    }
    .turns {
      padding-left: 20px;
      list-style: decimal;
      gap: 3px;
      font-size: 13px;
    }
    .small {
      font-size: 12.5px;
    }
    .onward {
      color: var(--kelp);
      font-weight: 600;
    }
  `,
})
export class PrepList {
  private readonly store = inject(Store);
  private readonly file = this.store.selectSignal(planFeature.selectFile);
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly model = this.store.selectSignal(planFeature.selectModel);
  protected readonly name = computed(() => this.plan()?.part.name ?? '');

  protected readonly hints = computed(() => {
    const plan = this.plan();
    if (plan === null) return [];
    return prepOf(plan).map((hint) => ({
      ...hint,
      ...prepWords(hint),
      done: plan.part.prepared.includes(hint.step),
      unneeded: plan.part.unneeded.includes(hint.step),
    }));
  });

  /** What wood comes to in this shop's air, against what was measured; null where no wood is bare. */
  protected readonly moisture = computed(() => {
    const air = this.model()?.air[0];
    const part = this.plan()?.part;
    if (
      air === undefined ||
      part === undefined ||
      (!substrate(part.substrate).bare && part.moisture === null)
    )
      return null;
    const balance = `In this shop's air wood comes to ${perCent(equilibriumMoisture(air.temperature, air.humidity))} moisture.`;
    if (part.moisture === null)
      return `${balance} It is ready for paint within two points of that and not over 12 %.`;
    const ready = moistureReady(part.moisture, air.temperature, air.humidity);
    return `${balance} At ${perCent(part.moisture)} it ${ready ? 'is ready' : 'is not ready yet'}.`;
  });

  protected readonly turned = computed(() => {
    const parts = this.file()?.piece.parts ?? [];
    return turns(parts).map(({ up, partIds }) => ({
      up,
      name: up === 'loose' ? 'Beside it:' : `${FACING_NAMES[up]} up:`,
      parts: partIds.map((id) => parts.find((part) => part.id === id)!.name.toLowerCase()).join(', '),
    }));
  });

  protected change(step: PrepStep, state: 'open' | 'done' | 'unneeded'): void {
    const { id, prepared, unneeded } = this.plan()!.part;
    const withStep = (steps: readonly PrepStep[], isIn: boolean): PrepStep[] => [
      ...steps.filter((other) => other !== step),
      ...(isIn ? [step] : []),
    ];
    this.store.dispatch(
      PlanEditor.partChanged({
        partId: id,
        changes: {
          prepared: withStep(prepared, state === 'done'),
          unneeded: withStep(unneeded, state === 'unneeded'),
        },
        gesture: null,
      }),
    );
  }
}
