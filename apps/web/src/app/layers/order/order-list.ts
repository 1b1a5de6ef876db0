import { CdkDrag, type CdkDragDrop, CdkDragHandle, CdkDropList } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';
import { isFilmStep, LIMITS } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { delayText, findingWords, startWords, stepTitle } from '@zaffet/words';
import { basisOf } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { Clock } from '../../data/clock';
import { newId } from '../../data/fresh';
import { Units } from '../../data/units';
import { PlanEditor } from '../../plan/plan.actions';
import { planFeature } from '../../plan/plan.feature';
import { StepsClip } from '../../plan/steps-clip';
import { AddStep } from '../section/add-step';

/** Every step of the finish in working order: when it begins and why then, what the plan says of it, left out or not. */
@Component({
  selector: 'zf-order-list',
  imports: [
    AddStep,
    CdkDrag,
    CdkDragHandle,
    CdkDropList,
    MatButtonModule,
    MatCheckboxModule,
    MatIconModule,
    MatTooltipModule,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './order-list.html',
  styleUrl: './order-list.scss',
})
export class OrderList {
  private readonly clock = inject(Clock);
  private readonly store = inject(Store);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly units = inject(Units).system;
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly forecast = this.store.selectSignal(planFeature.selectForecast);
  private readonly timed = this.store.selectSignal(planFeature.selectTimed);
  protected readonly selectedId = this.store.selectSignal(planFeature.selectSelectedStepId);

  protected readonly rows = computed(() => {
    const plan = this.plan();
    if (plan === null) return [];
    const result = this.forecast() ?? forecast(basisOf(plan));
    const start = Date.parse(plan.startsAt);
    const entries = this.timed()?.table.entries.filter(({ partId }) => partId === plan.part.id) ?? [];
    return plan.finish.steps.map((step, i) => {
      const times = result.times.find((known) => known.step.id === step.id);
      const finding = result.findings.find(({ stepId }) => stepId === step.id);
      const entry = entries.find(({ stepId, kind }) => stepId === step.id && kind !== 'mix');
      const late = entry === undefined ? '' : delayText(entry, step);
      const at = times === undefined ? '' : this.clock.dayTime(start + times.from * 1000);
      return {
        id: step.id,
        number: i + 1,
        title: stepTitle(step, plan.media),
        colour: isFilmStep(step) ? step.colour : 'transparent',
        off: step.off,
        /** The last one that is done stays. */
        only: !step.off && plan.steps.length === 1,
        when: step.off
          ? 'left out'
          : i === 0
            ? at
            : [at, startWords(step.start), late].filter(Boolean).join(', '),
        note: finding === undefined ? '' : findingWords(finding, this.units()).title,
        level: finding?.level ?? 'tip',
      };
    });
  });

  protected readonly full = computed(() => this.rows().length >= LIMITS.steps.max);
  /** After which row a step is being put in. */
  protected readonly putIn = signal<number | null>(null);

  private readonly clipboard = inject(StepsClip);
  protected readonly clip = this.clipboard.held;
  /** Whether several steps are being chosen, and which; those that are gone are not. */
  protected readonly several = signal(false);
  private readonly picked = signal<readonly string[]>([]);
  protected readonly chosen = computed(() =>
    this.rows().flatMap(({ id }) => (this.picked().includes(id) ? [id] : [])),
  );
  /** Copied steps go in after the chosen one, else to the end. */
  private readonly pasteAt = computed(() => {
    const at = this.rows().findIndex(({ id }) => id === (this.chosen().at(-1) ?? this.selectedId()));
    return at < 0 ? this.rows().length : at + 1;
  });
  protected readonly pasteHint = computed(() => {
    const before = this.rows()[this.pasteAt() - 1];
    return before === undefined ? 'First' : `After ${before.title}`;
  });

  protected begin(): void {
    const selected = this.selectedId();
    this.picked.set(selected === null ? [] : [selected]);
    this.store.dispatch(PlanEditor.stepSelected({ stepId: null }));
    this.several.set(true);
  }

  protected choose(stepId: string): void {
    this.picked.update((ids) =>
      ids.includes(stepId) ? ids.filter((id) => id !== stepId) : [...ids, stepId],
    );
  }

  protected press(stepId: string): void {
    if (this.several()) this.choose(stepId);
    else this.select(stepId);
  }

  protected move(by: 1 | -1): void {
    this.store.dispatch(PlanEditor.stepsMoved({ stepIds: this.chosen(), by }));
  }

  protected remove(): void {
    this.store.dispatch(PlanEditor.stepsRemoved({ stepIds: this.chosen() }));
  }

  protected copy(): void {
    const plan = this.plan();
    if (plan === null) return;
    const chosen = this.chosen();
    this.clipboard.take(
      plan.finish.steps.filter(({ id }) => chosen.includes(id)),
      plan.media,
    );
  }

  /** Copies are steps of their own. */
  protected paste(): void {
    const held = this.clip();
    if (held === null) return;
    const steps = held.steps.map((step) => ({ ...step, id: newId() }));
    this.store.dispatch(PlanEditor.stepsPasted({ steps, media: held.media, index: this.pasteAt() }));
    this.picked.set(steps.map(({ id }) => id));
  }

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

  private select(stepId: string): void {
    this.store.dispatch(PlanEditor.stepSelected({ stepId: this.selectedId() === stepId ? null : stepId }));
  }

  protected setOff(stepId: string, off: boolean): void {
    this.store.dispatch(
      PlanEditor.stepChanged({ stepId, edit: { fits: 'any', changes: { off } }, gesture: null }),
    );
  }
}
