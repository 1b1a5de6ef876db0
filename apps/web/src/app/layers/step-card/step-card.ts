import { DISTRESS_TOOLS, toolOf } from '@zaffet/core/tools';
import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatDialog, MatDialogModule } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatIconModule } from '@angular/material/icon';
import { MatSelectModule } from '@angular/material/select';
import { MatTooltipModule } from '@angular/material/tooltip';
import { type FilmPlanStep, isFilmStep, LIMITS, plainText, type StartRuleFile } from '@zaffet/contract';
import { opposite } from '@zaffet/core/colour';
import { type Strokes, STROKES } from '@zaffet/core/crack';
import { hazards } from '@zaffet/core/hazard';
import { waxManner } from '@zaffet/core/course';
import { isClear, isOf, medium, MEDIUM_KEYS, mediumLookup } from '@zaffet/core/media';
import { type Finding } from '@zaffet/core/notes';
import { GROUND_IDS } from '@zaffet/core/outcome';
import {
  COMPANION_TASKS,
  type CompanionTask,
  COVERS,
  type CoverStyle,
  GRITS,
  HEAT_TOOLS,
  type HeatTool,
  type Place,
  PLACES,
  RESIST_AGENTS,
  type ResistAgent,
  SHEENS,
  START_STATES,
  type StartState,
} from '@zaffet/core/plan';
import { GRAIN_UM } from '@zaffet/core/wear';
import {
  COVER_NAMES,
  HAZARD_DEFERENCE,
  hazardWords,
  HEAT_NAMES,
  mediumName,
  SHEEN_NAMES,
  perCent,
  PLACE_NAMES,
  RESIST_NAMES,
  ROUND_NAMES,
  START_STATE_NAMES,
  stepTitle,
  STROKE_NAMES,
  TASK_WORDS,
  TOOL_NAMES,
  um,
  WAX_MANNERS,
} from '@zaffet/words';
import { newCompanion } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { Clock } from '../../data/clock';
import { newId } from '../../data/fresh';
import { Units } from '../../data/units';
import { type Fits, mayBe, type StepChanges, type StepEdit } from '../../plan/edits';
import { PlanEditor } from '../../plan/plan.actions';
import { planFeature } from '../../plan/plan.feature';
import { KeepsFocus } from '../../ui/keeps-focus';
import { ChoiceField, optionsOf } from '../../ui/choice-field';
import { NumberField } from '../../ui/number-field';
import { MoreColours } from './more-colours';
import { Note } from '../note/note';
import { MediumSheet } from '../medium-sheet/medium-sheet';
import { MomentField } from '../../ui/moment-field';

const isUrgent = ({ level }: Finding): boolean => level === 'stop' || level === 'warn';

/** What a partly laid coat usually covers. */
const USUAL_SHARE: Readonly<Record<CoverStyle, number>> = { full: 1, blotchy: 0.6, 'dry-brushed': 0.4 };

/** Everything about one step: what, how thick, how much, how hard, when. */
@Component({
  selector: 'zf-step-card',
  imports: [
    MomentField,
    MatButtonModule,
    MatButtonToggleModule,
    MatCheckboxModule,
    MatDialogModule,
    MatFormFieldModule,
    MatIconModule,
    MatSelectModule,
    MatTooltipModule,
    ChoiceField,
    MoreColours,
    NgTemplateOutlet,
    Note,
    NumberField,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './step-card.html',
  styleUrl: './step-card.scss',
  hostDirectives: [KeepsFocus],
  host: { role: 'dialog', 'aria-label': 'Step', '(keydown.escape)': 'close()' },
})
export class StepCard {
  private readonly store = inject(Store);
  private readonly dialog = inject(MatDialog);
  private readonly units = inject(Units).system;
  private readonly clock = inject(Clock);
  protected readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly selected = this.store.selectSignal(planFeature.selectSelectedStep);
  private readonly forecast = this.store.selectSignal(planFeature.selectForecast);
  protected readonly step = computed(() => this.selected()!);
  /** The step as a film; only read where it is one. */
  protected readonly film = computed(() => this.step() as FilmPlanStep);
  private readonly run = computed(() =>
    this.forecast()?.course.films.find((film) => film.step.id === this.step().id),
  );
  /** A wax with a colour of its own is wiped back while it is soft, or buffed. */
  protected readonly pigmented = computed(() => {
    const run = this.run();
    return run?.medium.kind === 'wax' && !isClear(run.medium);
  });
  protected readonly waxText = computed(() => {
    const run = this.run();
    return run === undefined || !this.pigmented() ? null : WAX_MANNERS[waxManner(run)];
  });
  /** Place among all steps of the finish, also those left out. */
  protected readonly index = computed(
    () => this.plan()?.finish.steps.findIndex((step) => step.id === this.step().id) ?? 0,
  );
  protected readonly title = computed(() => stepTitle(this.step(), this.plan()?.media));
  protected readonly plainText = plainText;
  protected readonly limits = LIMITS;
  protected readonly mediumName = mediumName;
  protected readonly strokes = STROKES;
  protected readonly strokeNames = STROKE_NAMES;
  protected readonly passes = [1, 2, 3, 4, 5, 6, 7, 8];
  protected readonly passNames = Object.fromEntries(this.passes.map((n) => [n, String(n)]));
  protected readonly covers = COVERS;
  protected readonly coverNames = COVER_NAMES;
  protected readonly resists = RESIST_AGENTS;
  protected readonly resistNames = RESIST_NAMES;
  protected readonly places = PLACES;
  protected readonly placeNames = PLACE_NAMES;
  protected readonly heatTools = HEAT_TOOLS;
  protected readonly heatNames = HEAT_NAMES;
  protected readonly tools = DISTRESS_TOOLS;
  protected readonly toolNames = TOOL_NAMES;
  protected readonly toolOf = toolOf;
  protected readonly roundNames = ROUND_NAMES;
  protected readonly grits = GRITS;
  protected readonly grain = GRAIN_UM;
  protected readonly states = START_STATES;
  protected readonly stateNames = START_STATE_NAMES;
  protected readonly isLast = computed(() => this.index() === (this.plan()?.finish.steps.length ?? 1) - 1);

  private readonly known = computed(() => mediumLookup(this.plan()?.media)(this.film().medium));
  protected readonly isMilk = computed(() => isOf(this.known(), 'casein'));
  /** Clear media have no colours to lay beside each other. */
  protected readonly colours = computed(() => !isClear(this.known()));
  /** What an edge or bleach loosens can be drawn over the surface again. */
  protected readonly smears = computed(() => {
    const step = this.step();
    return step.kind === 'distress' && ['soften', 'cut'].includes(toolOf(step.tool).action);
  });
  protected readonly hasSheen = computed(() => this.known().kind === 'clear');
  protected readonly sheens = [{ value: '', name: 'its own' }, ...optionsOf(SHEEN_NAMES, SHEENS)];
  protected readonly isWax = computed(() => this.known().kind === 'wax');
  /** Seals are made of clear media and waxes, coats of everything else and of clear media between. */
  protected readonly media = computed(() =>
    MEDIUM_KEYS.filter((key) => {
      const { kind } = medium(key);
      if (kind === 'resist' || kind === 'agent') return false;
      return this.step().kind === 'seal' ? kind === 'clear' || kind === 'wax' : kind !== 'wax';
    }),
  );
  /** Whether it does more here and less there. */
  protected readonly mapped = computed(() => {
    return this.step().id in (this.plan()?.part.maps ?? {});
  });
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
  protected readonly tasks = COMPANION_TASKS;
  protected readonly taskWords = TASK_WORDS;
  /** Other work takes its own usual time. */
  protected setTask(task: CompanionTask): void {
    const { handsMin, restMin } = newCompanion('', task);
    this.change('companion', { task, handsMin, restMin });
  }
  protected readonly looks = computed(
    () => this.forecast()?.appearance.layers.find((layer) => layer.id === this.step().id) ?? null,
  );

  /** The opposite of the coloured layer below; null where none lies below or the medium is clear. */
  protected readonly opposed = computed(() => {
    const layers = this.forecast()?.appearance.layers ?? [];
    const below = layers[layers.findIndex((layer) => layer.id === this.step().id) - 1];
    return below === undefined || GROUND_IDS.includes(below.id) ? null : opposite(below.seen);
  });

  private readonly beginsAt = computed(() => {
    const plan = this.plan();
    const times = this.forecast()?.times.find(({ step }) => step.id === this.step().id);
    return plan === null || times === undefined
      ? null
      : new Date(Date.parse(plan.startsAt) + times.from * 1000);
  });
  protected readonly laidText = computed(() => {
    const at = this.beginsAt();
    return at === null ? '' : this.clock.longDayTime(at);
  });
  protected readonly removalText = computed(() => {
    const removal = this.forecast()?.removals.find((r) => r.stepId === this.step().id);
    if (removal === undefined) return null;
    const depth = `About ${um(removal.depth, this.units())} of the top film come off, more at edges; another layer shows on ${perCent(removal.share)}.`;
    const { effort } = removal;
    return effort === null
      ? depth
      : `${depth} It cuts ${effort < 0.7 ? 'easily' : effort < 0.85 ? 'with some force' : 'hard'}.`;
  });

  protected change<F extends Fits>(fits: F, changes: StepChanges<F>): void {
    const edit = { fits, changes } as StepEdit;
    this.store.dispatch(PlanEditor.stepChanged({ stepId: this.step().id, edit, gesture: null }));
  }

  protected readonly setStrokes = (strokes: Strokes): void => this.change('film', { strokes });
  protected readonly setPasses = (passes: number): void => this.change('film', { passes });
  protected readonly setPlace = (where: Place): void => this.change('placed', { where });
  protected readonly setHeat = (tool: HeatTool): void => this.change('heat', { tool });
  protected readonly setAgent = (agent: ResistAgent): void =>
    this.change('resist', { agent, thicknessUm: medium(agent).wetFilmUm });

  protected changeCover(style: CoverStyle): void {
    this.change('film', { cover: { style, share: USUAL_SHARE[style] } });
  }

  /** Another medium brings its usual film; the colour stays unless one of them is clear. */
  protected changeMedium(key: string): void {
    const known = mediumLookup(this.plan()?.media)(key);
    this.change('film', {
      medium: key,
      thicknessUm: known.wetFilmUm,
      ...(known.tint === null ? {} : { colour: known.tint, colourName: '' }),
    });
  }

  protected openMedium(): void {
    const step = this.step();
    if (!isFilmStep(step)) return;
    this.dialog.open(MediumSheet, {
      data: { stepId: step.id },
      width: '680px',
      maxWidth: '95vw',
      maxHeight: '90vh',
    });
  }

  /** Changes how the start is told without moving it more than it must. */
  protected changeRule(rule: StartRuleFile['rule']): void {
    const times = this.forecast()?.times ?? [];
    const at = times.findIndex(({ step }) => step.id === this.step().id);
    const here = times[at];
    const before = times[at - 1];
    const wait = here && before ? Math.max(0, Math.round((here.from - before.until) / 6) / 10) : 0;
    if (rule === 'after') this.change('any', { start: { rule, waitMin: wait } });
    else if (rule === 'at')
      this.change('any', { start: { rule, at: (this.beginsAt() ?? new Date(0)).toISOString() } });
    else this.change('any', { start: { rule, state: 'recoat', waitMin: 0 } });
  }

  protected changeStart(changes: { state?: StartState; waitMin?: number }): void {
    const { start } = this.step();
    if (start.rule !== 'at') this.change('any', { start: { ...start, ...changes } });
  }

  protected changeAt(wanted: Date | null): void {
    if (wanted === null) return;
    const start = Date.parse(this.plan()!.startsAt);
    const at = new Date(Math.min(start + LIMITS.waitMin.max * 60000, Math.max(start, wanted.getTime())));
    this.change('any', { start: { rule: 'at', at: at.toISOString() } });
  }

  protected momentOf(at: string): Date {
    return new Date(at);
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

  /** What is half typed is taken over before the card goes, and keys are the plan's again at once. */
  protected close(): void {
    if (document.activeElement instanceof HTMLInputElement) document.activeElement.blur();
    this.store.dispatch(PlanEditor.stepSelected({ stepId: null }));
  }
}
