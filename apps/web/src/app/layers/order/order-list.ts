import { CdkDrag, type CdkDragDrop, CdkDragHandle, CdkDropList } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, computed, ElementRef, inject } from '@angular/core';
import { MatIconModule } from '@angular/material/icon';
import { isFilmStep } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { findingWords, startWords, stepTitle } from '@zaffet/words';
import { basisOf } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { format } from 'date-fns';
import { Units } from '../../data/units';
import { PlanEditor } from '../../plan/plan.actions';
import { planFeature } from '../../plan/plan.feature';

/** Every step of the finish in working order: when it begins and why then, what the plan says of it, left out or not. */
@Component({
  selector: 'zf-order-list',
  imports: [CdkDrag, CdkDragHandle, CdkDropList, MatIconModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ol cdkDropList (cdkDropListDropped)="drop($event)">
      @for (row of rows(); track row.id) {
        <li
          cdkDrag
          cdkDragLockAxis="y"
          [cdkDragData]="row.id"
          [class.on]="row.id === selectedId()"
          [class.off]="row.off"
          [attr.data-step]="row.title"
        >
          <button
            type="button"
            class="handle"
            cdkDragHandle
            [attr.data-handle]="row.id"
            [attr.aria-label]="'Move ' + row.title + ', step ' + row.number + ': arrow keys'"
            (keydown.arrowUp)="shift(row.id, row.number - 2, $event)"
            (keydown.arrowDown)="shift(row.id, row.number, $event)"
          >
            <mat-icon svgIcon="grip" />
          </button>
          <i class="paint" [style.background]="row.colour"></i>
          <button
            type="button"
            class="row"
            [attr.aria-expanded]="row.id === selectedId()"
            (click)="select(row.id)"
          >
            <strong>{{ row.number }}. {{ row.title }}</strong>
            <span>{{ row.when }}</span>
            @if (row.note) {
              <em [class]="row.level">{{ row.note }}</em>
            }
          </button>
          <label class="use"
            ><input
              type="checkbox"
              [checked]="!row.off"
              [disabled]="row.only"
              [attr.aria-label]="'Do step ' + row.number + ', ' + row.title"
              (change)="setOff(row.id, row.off ? false : true)"
          /></label>
        </li>
      }
    </ol>
  `,
  styles: `
    :host {
      display: block;
      overflow: auto;
    }
    ol {
      margin: 0;
      padding: 0 6px 12px;
      list-style: none;
    }
    li {
      display: grid;
      grid-template-columns: 26px 14px minmax(0, 1fr) 30px;
      align-items: center;
      min-height: 44px;
      border-bottom: 1px solid var(--line);
      background: var(--paper);
    }
    li.on {
      background: var(--kelp-soft);
    }
    li.off .row,
    li.off .paint {
      opacity: 0.6;
    }
    li.off strong {
      text-decoration: line-through;
    }
    .handle {
      display: grid;
      place-content: center;
      height: 40px;
      padding: 0;
      border: 0;
      background: none;
      color: var(--ink-2);
      cursor: grab;
    }
    .handle mat-icon {
      width: 18px;
      height: 18px;
    }
    .paint {
      width: 12px;
      height: 26px;
      border: 1px solid rgb(0 0 0 / 30%);
      border-radius: 2px;
    }
    .row {
      display: grid;
      padding: 5px 4px 5px 8px;
      border: 0;
      background: none;
      color: var(--ink);
      font: inherit;
      font-size: 13px;
      line-height: 1.2;
      text-align: left;
      cursor: pointer;
    }
    .row span {
      color: var(--ink-2);
      font-size: 12px;
    }
    .row em {
      font-size: 12px;
      font-style: normal;
    }
    em.stop,
    em.warn {
      color: var(--rust);
      font-weight: 600;
    }
    em.good {
      color: var(--kelp);
    }
    .use {
      display: grid;
      place-content: center;
      height: 44px;
    }
    .use input {
      width: 18px;
      height: 18px;
      accent-color: var(--kelp);
    }
    .cdk-drag-preview {
      box-shadow: 0 4px 14px rgb(0 0 0 / 30%);
    }
    .cdk-drag-placeholder {
      opacity: 0.3;
    }
  `,
})
export class OrderList {
  private readonly store = inject(Store);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly units = inject(Units).system;
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly forecast = this.store.selectSignal(planFeature.selectForecast);
  protected readonly selectedId = this.store.selectSignal(planFeature.selectSelectedStepId);

  protected readonly rows = computed(() => {
    const plan = this.plan();
    if (plan === null) return [];
    const result = this.forecast() ?? forecast(basisOf(plan));
    const start = Date.parse(plan.startsAt);
    return plan.finish.steps.map((step, i) => {
      const times = result.times.find((known) => known.step.id === step.id);
      const finding = result.findings.find(({ stepId }) => stepId === step.id);
      const at = times === undefined ? '' : format(new Date(start + times.from * 1000), 'EEE HH:mm');
      return {
        id: step.id,
        number: i + 1,
        title: stepTitle(step, plan.media),
        colour: isFilmStep(step) ? step.colour : 'transparent',
        off: step.off,
        /** The last one that is done stays. */
        only: !step.off && plan.steps.length === 1,
        when: step.off ? 'left out' : i === 0 ? at : `${at}, ${startWords(step.start)}`,
        note: finding === undefined ? '' : findingWords(finding, this.units()).title,
        level: finding?.level ?? 'tip',
      };
    });
  });

  protected drop(event: CdkDragDrop<unknown, unknown, string>): void {
    this.store.dispatch(PlanEditor.stepPlaced({ stepId: event.item.data, to: event.currentIndex }));
  }

  /** Moves by keys; the handle keeps the focus on its new place. */
  protected shift(stepId: string, to: number, event: Event): void {
    event.preventDefault();
    this.store.dispatch(PlanEditor.stepPlaced({ stepId, to }));
    setTimeout(() =>
      this.host.nativeElement.querySelector<HTMLElement>(`[data-handle="${CSS.escape(stepId)}"]`)?.focus(),
    );
  }

  protected select(stepId: string): void {
    this.store.dispatch(PlanEditor.stepSelected({ stepId: this.selectedId() === stepId ? null : stepId }));
  }

  protected setOff(stepId: string, off: boolean): void {
    this.store.dispatch(
      PlanEditor.stepChanged({ stepId, edit: { fits: 'any', changes: { off } }, gesture: null }),
    );
  }
}
