import { DISTRESS_TOOLS, type DistressTool } from '@zaffet/core/tools';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule, MatMenuTrigger } from '@angular/material/menu';
import { MatTooltipModule } from '@angular/material/tooltip';
import { isFilmStep, layersOf, LIMITS, type PlanStep } from '@zaffet/contract';
import { medium, MEDIUM_KEYS, type MediumKey, type MediumKind } from '@zaffet/core/media';
import { COMPANION_TASKS, type CompanionTask, RESIST_AGENTS, type ResistAgent } from '@zaffet/core/plan';
import { mediumName, RESIST_NAMES, stepTitle, TASK_WORDS, TOOL_NAMES } from '@zaffet/words';
import { newCoat, newCompanion, newDistress, newResist, newSeal, newStep, startFor } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { newId } from '../../data/fresh';
import { PlanEditor } from '../../plan/plan.actions';
import { planFeature } from '../../plan/plan.feature';

/** A step of any kind put in where it is wanted, as it is mostly done. */
@Component({
  selector: 'zf-add-step',
  imports: [MatButtonModule, MatIconModule, MatMenuModule, MatTooltipModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './add-step.html',
})
export class AddStep {
  private readonly store = inject(Store);
  /** Place in the order it goes to; right after the chosen step, or on top, when left out. */
  readonly index = input<number | null>(null);
  /** Offers its menu at once, and says when it is done with. */
  readonly offered = input(false);
  readonly done = output();
  private readonly trigger = viewChild.required(MatMenuTrigger);
  private readonly selectedId = this.store.selectSignal(planFeature.selectSelectedStepId);

  constructor() {
    afterNextRender(() => this.offered() && this.trigger().openMenu());
  }

  private readonly goesTo = computed(() => {
    const steps = this.plan()?.finish.steps ?? [];
    const chosen = steps.findIndex(({ id }) => id === this.selectedId());
    return this.index() ?? (chosen < 0 ? steps.length : chosen + 1);
  });
  protected readonly label = computed(() => {
    const plan = this.plan();
    const before = plan?.finish.steps[this.goesTo() - 1];
    if (plan === null || before === undefined) return 'Put a step in first';
    return this.goesTo() === plan.finish.steps.length
      ? 'Add a step on top'
      : `Put a step in after ${stepTitle(before, plan.media)}`;
  });
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  protected readonly limits = LIMITS;
  protected readonly full = computed(() => (this.plan()?.finish.steps.length ?? 0) >= LIMITS.steps.max);
  /** As many films and resists lie there as can be told apart. */
  protected readonly covered = computed(() => layersOf(this.plan()?.finish.steps ?? []) >= LIMITS.layers.max);
  protected readonly groups = MEDIUM_GROUPS;
  protected readonly own = computed(() => this.plan()?.media ?? []);
  protected readonly mediumName = mediumName;
  protected readonly resists = RESIST_AGENTS;
  protected readonly resistNames = RESIST_NAMES;
  protected readonly tools = DISTRESS_TOOLS;
  protected readonly toolNames = TOOL_NAMES;
  protected readonly tasks = COMPANION_TASKS;
  protected readonly taskWords = TASK_WORDS;

  protected addCoat(key: string): void {
    const plan = this.plan();
    if (plan === null) return;
    const generic = this.own().find((own) => own.key === key)?.like ?? key;
    const before = plan.steps.find((step) => isFilmStep(step) && step.medium === key);
    const colour = before && isFilmStep(before) ? before.colour : (medium(generic).tint ?? '#c9b98f');
    const coat = newCoat(newId(), generic as MediumKey, colour, '', {
      rule: 'state',
      state: 'recoat',
      waitMin: 0,
    });
    this.put({ ...coat, medium: key });
  }

  protected addSeal(key: MediumKey): void {
    this.put(newSeal(newId(), key, { rule: 'state', state: 'through-dry', waitMin: 0 }));
  }

  protected addResist(agent: ResistAgent): void {
    this.put(
      newResist(
        newId(),
        agent,
        agent === 'salt'
          ? { rule: 'after', waitMin: 1 }
          : { rule: 'state', state: 'through-dry', waitMin: 0 },
      ),
    );
  }

  protected addDistress(tool: DistressTool): void {
    const start = { rule: 'state', state: 'through-dry', waitMin: tool === 'blade' ? 100 : 30 } as const;
    this.put(newDistress(newId(), tool, start));
  }

  protected addOther(kind: 'heat' | 'rewet' | 'wipe' | 'wait'): void {
    this.put(newStep(kind, newId()));
  }

  protected addTask(task: CompanionTask): void {
    this.put(newCompanion(newId(), task));
  }

  private put(step: PlanStep): void {
    const plan = this.plan();
    if (plan === null) return;
    const index = this.goesTo();
    const start = startFor(plan, step, index);
    this.store.dispatch(PlanEditor.stepAdded({ step: { ...step, start }, index }));
  }
}

/** Media a coat or seal is made of, by what they are for. */
const SEAL_KINDS: readonly MediumKind[] = ['clear', 'wax'];
const of = (...kinds: MediumKind[]): MediumKey[] =>
  MEDIUM_KEYS.filter((key) => kinds.includes(medium(key).kind));
const MEDIUM_GROUPS: readonly { name: string; keys: readonly MediumKey[]; seal: boolean }[] = [
  { name: 'Paint', keys: of('paint'), seal: false },
  { name: 'What cracks it', keys: of('crackle-medium', 'wet-glue', 'cured-glue', 'ground'), seal: false },
  { name: 'Primer, stain, glaze', keys: of('primer', 'glaze'), seal: false },
  { name: 'Clear coat between', keys: of('clear'), seal: false },
  { name: 'Seal to finish', keys: of(...SEAL_KINDS), seal: true },
];
