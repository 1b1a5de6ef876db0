import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';
import { API, isFilmStep, isMapped, LIMITS, plainText, type StartRuleFile } from '@zaffet/contract';
import { hazards } from '@zaffet/core/hazard';
import { type Finding } from '@zaffet/core/notes';
import { HAZARD_DEFERENCE, hazardWords, stepTitle } from '@zaffet/words';
import { Store } from '@ngrx/store';
import { newId } from '../../data/fresh';
import { type Fits, mayBe, type StepChanges, type StepEdit } from '../../plan/edits';
import { PlanEditor } from '../../plan/plan.actions';
import { planFeature } from '../../plan/plan.feature';
import { KeepsFocus } from '../../ui/keeps-focus';
import { SheetLink } from '../../ui/sheet-link';
import { Note } from '../note/note';
import { CompanionFields } from './companion-fields';
import { FilmFields } from './film-fields';
import { StartField } from './start-field';
import { WhereField } from './where-field';
import { WorkFields } from './work-fields';

const isUrgent = ({ level }: Finding): boolean => level === 'stop' || level === 'warn';

/** Everything about one step: what, where, when, and what is to be said of it. */
@Component({
  selector: 'zf-step-card',
  imports: [
    CompanionFields,
    FilmFields,
    MatButtonModule,
    MatIconModule,
    MatTooltipModule,
    Note,
    SheetLink,
    StartField,
    WhereField,
    WorkFields,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './step-card.html',
  styleUrl: './step-card.scss',
  hostDirectives: [KeepsFocus],
  host: { role: 'dialog', 'aria-label': 'Step', '(document:keydown.escape)': 'escape($event)' },
})
export class StepCard {
  private readonly store = inject(Store);
  protected readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly saved = this.store.selectSignal(planFeature.selectId);
  private readonly selected = this.store.selectSignal(planFeature.selectSelectedStep);
  private readonly forecast = this.store.selectSignal(planFeature.selectForecast);
  protected readonly step = computed(() => this.selected()!);
  protected readonly isFilm = isFilmStep;
  protected readonly isPlaced = isMapped;
  /** Place among all steps of the finish, also those left out. */
  protected readonly index = computed(
    () => this.plan()?.finish.steps.findIndex((step) => step.id === this.step().id) ?? 0,
  );
  protected readonly title = computed(() => stepTitle(this.step(), this.plan()?.media));
  protected readonly limits = LIMITS;
  protected readonly isLast = computed(() => this.index() === (this.plan()?.finish.steps.length ?? 1) - 1);
  /** What the plan says of this step: trouble before its fields, the rest below them. */
  private readonly findings = computed(
    () => this.forecast()?.findings.filter(({ stepId }) => stepId === this.step().id) ?? [],
  );
  protected readonly urgent = computed(() => this.findings().filter(isUrgent));
  protected readonly mild = computed(() => this.findings().filter((finding) => !isUrgent(finding)));
  protected readonly deference = HAZARD_DEFERENCE;
  private readonly model = this.store.selectSignal(planFeature.selectModel);
  protected readonly hazards = computed(() => {
    const model = this.model();
    if (model === null) return [];
    return hazards(model)
      .filter(({ stepIds }) => stepIds.includes(this.step().id))
      .map(({ code }) => ({ code, ...hazardWords(code) }));
  });

  protected edit(edit: StepEdit): void {
    this.store.dispatch(PlanEditor.stepChanged({ stepId: this.step().id, edit, gesture: null }));
  }

  protected change<F extends Fits>(fits: F, changes: StepChanges<F>): void {
    this.edit({ fits, changes } as StepEdit);
  }

  /** Where its map can be printed from; null where it has none on this part, or the plan is not saved yet. */
  protected readonly traced = computed(() => {
    const [plan, saved] = [this.plan(), this.saved()];
    const { id } = this.step();
    return plan === null || saved === null || !(id in plan.part.maps)
      ? null
      : API.trace(saved, plan.part.id, id);
  });

  protected remember(told: string): void {
    this.change('any', { note: plainText(told, LIMITS.noteLength.max) });
  }

  protected move(by: 1 | -1): void {
    this.store.dispatch(PlanEditor.stepsMoved({ stepIds: [this.step().id], by }));
  }

  /** The same step again, right after this one; what began with the plan begins when this allows it. */
  protected readonly mayRepeat = computed(() =>
    mayBe([...this.plan()!.finish.steps, { ...this.step(), off: false }]),
  );
  /** Whether a step left out may be done again: no more may lie there than can be told apart. */
  protected readonly mayResume = computed(() =>
    mayBe(this.plan()!.finish.steps.map((step) => (step === this.step() ? { ...step, off: false } : step))),
  );
  protected repeat(): void {
    const step = this.step();
    const start: StartRuleFile =
      step.start.rule === 'at'
        ? isFilmStep(step)
          ? { rule: 'state', state: 'recoat', waitMin: 0 }
          : { rule: 'after', waitMin: 0 }
        : step.start;
    this.store.dispatch(
      PlanEditor.stepAdded({ step: { ...step, id: newId(), start }, index: this.index() + 1 }),
    );
  }

  protected remove(): void {
    this.store.dispatch(PlanEditor.stepsRemoved({ stepIds: [this.step().id] }));
  }

  /** Closes the card wherever the focus is, unless a menu or a list over it took the key. */
  protected escape(event: Event): void {
    if (!event.defaultPrevented) this.close();
  }

  /** What is half typed is taken over before the card goes, and keys are the plan's again at once. */
  protected close(): void {
    if (document.activeElement instanceof HTMLInputElement) document.activeElement.blur();
    this.store.dispatch(PlanEditor.stepSelected({ stepId: null }));
  }
}
