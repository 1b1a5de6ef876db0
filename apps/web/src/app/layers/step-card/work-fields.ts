import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { LIMITS, type PlanStep } from '@zaffet/contract';
import { medium } from '@zaffet/core/media';
import { GRITS, HEAT_TOOLS, RESIST_AGENTS, type ResistAgent } from '@zaffet/core/plan';
import { DISTRESS_TOOLS, toolOf } from '@zaffet/core/tools';
import { GRAIN_UM } from '@zaffet/core/wear';
import { HEAT_NAMES, perCent, RESIST_NAMES, ROUND_NAMES, TOOL_NAMES, um } from '@zaffet/words';
import { Store } from '@ngrx/store';
import { Units } from '../../data/units';
import { type Fits, type StepChanges, type StepEdit } from '../../plan/edits';
import { planFeature } from '../../plan/plan.feature';
import { ChoiceField, optionsOf } from '../../ui/choice-field';
import { NumberField } from '../../ui/number-field';
import { ToggleField } from '../../ui/toggle-field';
import { TintField } from './tint-field';

/** How hard it cuts from these shares of the hardest on. */
const SOME_FORCE = 0.7;
const HARD = 0.85;

/** What is done with tools, heat, water, wax or time: all steps that are neither film nor work beside the layers. */
@Component({
  selector: 'zf-work-fields',
  imports: [ChoiceField, MatCheckboxModule, NumberField, TintField, ToggleField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './work-fields.html',
  styleUrl: './fields.scss',
})
export class WorkFields {
  private readonly forecast = inject(Store).selectSignal(planFeature.selectForecast);
  private readonly units = inject(Units).system;
  readonly step = input.required<PlanStep>();
  readonly changed = output<StepEdit>();
  protected readonly limits = LIMITS;
  protected readonly roundNames = ROUND_NAMES;
  protected readonly resists = optionsOf(RESIST_NAMES, RESIST_AGENTS);
  protected readonly heatTools = optionsOf(HEAT_NAMES, HEAT_TOOLS);
  protected readonly tools = optionsOf(TOOL_NAMES, DISTRESS_TOOLS);
  protected readonly grits = GRITS.map((grit) => ({
    value: String(grit),
    name: `P${grit}, ${um(GRAIN_UM[grit] * 1e-6, this.units())} grain`,
  }));
  private readonly tool = computed(() => {
    const step = this.step();
    return step.kind === 'distress' ? toolOf(step.tool) : null;
  });
  protected readonly action = computed(() => this.tool()?.action ?? null);
  /** What an edge or bleach loosens can be drawn over the surface again. */
  protected readonly smears = computed(() => ['soften', 'cut'].includes(this.action() ?? ''));
  /** Whether the tool brings water, which may be tinted. */
  protected readonly brings = computed(() => (this.tool()?.leaves ?? 0) > 0);
  protected readonly removalText = computed(() => {
    const removal = this.forecast()?.removals.find((r) => r.stepId === this.step().id);
    if (removal === undefined) return null;
    const depth = `About ${um(removal.depth, this.units())} of the top film come off, more at edges; another layer shows on ${perCent(removal.share)}.`;
    const { effort } = removal;
    return effort === null
      ? depth
      : `${depth} It cuts ${effort < SOME_FORCE ? 'easily' : effort < HARD ? 'with some force' : 'hard'}.`;
  });

  protected change<F extends Fits>(fits: F, changes: StepChanges<F>): void {
    this.changed.emit({ fits, changes } as StepEdit);
  }

  protected setAgent(agent: string): void {
    const known = agent as ResistAgent;
    this.change('resist', { agent: known, thicknessUm: medium(known).wetFilmUm });
  }
}
