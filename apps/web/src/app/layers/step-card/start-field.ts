import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { isFilmStep, LIMITS, type PlanStep, type StartRuleFile } from '@zaffet/contract';
import { START_STATES } from '@zaffet/core/plan';
import { START_STATE_NAMES } from '@zaffet/words';
import { Store } from '@ngrx/store';
import { Clock } from '../../data/clock';
import { planFeature } from '../../plan/plan.feature';
import { ChoiceField, optionsOf } from '../../ui/choice-field';
import { MomentField } from '../../ui/moment-field';
import { NumberField } from '../../ui/number-field';
import { ToggleField } from '../../ui/toggle-field';

const MINUTE = 60_000;

/** When a step begins: by what lies below it, by the step before it, or at a moment. */
@Component({
  selector: 'zf-start',
  imports: [ChoiceField, MomentField, NumberField, ToggleField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './start-field.html',
  styleUrl: './fields.scss',
})
export class StartField {
  private readonly store = inject(Store);
  private readonly clock = inject(Clock);
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly forecast = this.store.selectSignal(planFeature.selectForecast);
  readonly step = input.required<PlanStep>();
  readonly changed = output<StartRuleFile>();
  protected readonly limits = LIMITS;
  protected readonly rules = [
    { value: 'state', name: 'when below …' },
    { value: 'after', name: 'after' },
    { value: 'at', name: 'at' },
  ];
  protected readonly states = optionsOf(START_STATE_NAMES, START_STATES);
  protected readonly isFilm = computed(() => isFilmStep(this.step()));
  /** What is planned may begin with the plan at the earliest, and within its days. */
  protected readonly earliest = computed(() => new Date(this.plan()?.startsAt ?? 0));
  protected readonly latest = computed(
    () => new Date(this.earliest().getTime() + LIMITS.waitMin.max * MINUTE),
  );
  private readonly beginsAt = computed(() => {
    const times = this.forecast()?.times.find(({ step }) => step.id === this.step().id);
    return times === undefined ? null : new Date(this.earliest().getTime() + times.from * 1000);
  });
  protected readonly beginsText = computed(() => {
    const at = this.beginsAt();
    return at === null ? '' : this.clock.longDayTime(at);
  });

  /** Changes how the start is told without moving it more than it must. */
  protected changeRule(rule: StartRuleFile['rule']): void {
    const times = this.forecast()?.times ?? [];
    const at = times.findIndex(({ step }) => step.id === this.step().id);
    const here = times[at];
    const before = times[at - 1];
    const waitMin = here && before ? Math.max(0, Math.round((here.from - before.until) / 6) / 10) : 0;
    if (rule === 'after') this.changed.emit({ rule, waitMin });
    else if (rule === 'at') this.changed.emit({ rule, at: (this.beginsAt() ?? new Date(0)).toISOString() });
    else this.changed.emit({ rule, state: 'recoat', waitMin: 0 });
  }

  protected changeAt(wanted: Date | null): void {
    if (wanted !== null) this.changed.emit({ rule: 'at', at: wanted.toISOString() });
  }

  protected momentOf(at: string): Date {
    return new Date(at);
  }
}
