import { computed, inject, Injectable, signal } from '@angular/core';
import {
  filedMap,
  isFilmStep,
  isMapped,
  type MappedStep,
  type MapRange,
  mapRange,
  type StepMap,
} from '@zaffet/contract';
import {
  type Dab,
  fillMap,
  type MapZone,
  paintMap,
  type Touch,
  wearByUse,
  type WearCause,
} from '@zaffet/core/maps';
import { type FirstMapped, firstMapped, type PanelMap, type PanelSize } from '@zaffet/core/plan';
import { mapOfStep, type PartPlan } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { newSeed } from '../../data/fresh';
import { PlanEditor } from '../../plan/plan.actions';
import { planFeature } from '../../plan/plan.feature';

export const PAINT_TOOLS = ['brush', 'eraser', 'touch'] as const;
export type PaintTool = (typeof PAINT_TOOLS)[number];

/** Brush radii a hand needs [mm]. */
export const BRUSH_MM = { min: 3, max: 120, step: 1 };
const MOST_TOUCHES = 12;

/** What a hand mostly paints: a resist where it shall be, more of a film or a tool; of all else, where it is not done. */
function usualAmount({ kind }: MappedStep, { max }: MapRange): number {
  if (kind === 'resist') return 100;
  return kind === 'heat' || kind === 'rewet' || kind === 'wipe' ? 0 : Math.min(max, 160);
}

/** A map the painter sees and paints on, with what its cells may hold. */
export interface OnDesk {
  readonly step: MappedStep;
  readonly map: PanelMap;
  /** As factors, not per cent. */
  readonly plain: number;
  readonly max: number;
}

/**
 * What the hand holds while it paints on the panel: which step's map, which tool, how much, how broad. The map itself
 * belongs to the plan: every stroke is an edit of the plan and one step to undo.
 */
@Injectable()
export class PaintDesk {
  private readonly store = inject(Store);
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly selected = this.store.selectSignal(planFeature.selectSelectedStep);
  readonly open = signal(false);
  readonly tool = signal<PaintTool>('brush');
  readonly radiusMm = signal(18);
  /** What the step's map on this part is; null where it is alike all over. */
  readonly map = computed((): StepMap | null => {
    const step = this.step();
    return step === null ? null : (this.plan()?.part.maps[step.id] ?? null);
  });
  readonly touches = signal<readonly Touch[]>([]);
  private readonly chosenId = signal<string | null>(null);
  private readonly amounts = signal<Readonly<Record<string, number>>>({});
  private strokes = 0;
  private stroke: { id: string; from: PanelMap; dabs: Dab[]; first: FirstMapped } | null = null;

  /** Steps that may have a map. */
  readonly steps = computed(() => (this.plan()?.steps ?? []).filter(isMapped));
  readonly step = computed((): MappedStep | null => {
    const steps = this.steps();
    return (
      steps.find(({ id }) => id === this.chosenId()) ??
      steps.find(({ kind }) => kind === 'resist' || kind === 'distress') ??
      steps.at(-1) ??
      null
    );
  });
  readonly range = computed(() => {
    const step = this.step();
    return step === null ? null : mapRange(step);
  });
  /** Per cent that the brush lays. */
  readonly amount = computed(() => {
    const step = this.step();
    const range = this.range();
    if (step === null || range === null) return 100;
    return this.amounts()[step.id] ?? usualAmount(step, range);
  });
  readonly onDesk = computed((): OnDesk | null => {
    const plan = this.plan();
    const step = this.step();
    const range = this.range();
    if (plan === null || step === null || range === null) return null;
    // A step without a map is alike all over.
    return {
      step,
      map: mapOfStep(plan, step, 100),
      plain: range.plain / 100,
      max: range.max / 100,
    };
  });
  private readonly size = computed((): PanelSize => {
    const part = this.plan()!.part;
    return { width: part.widthMm / 1000, height: part.heightMm / 1000, oval: part.oval };
  });

  /** Opens the desk on the step that is selected, if it may have a map. */
  begin(): void {
    const step = this.selected();
    this.beginOn(step !== null && isMapped(step) ? step.id : this.chosenId());
  }

  /** Opens the desk on a step; on the one it had where none is told. */
  beginOn(stepId: string | null): void {
    if (stepId !== null) this.choose(stepId);
    this.store.dispatch(PlanEditor.stepSelected({ stepId: null }));
    this.open.set(true);
  }

  choose(stepId: string): void {
    this.chosenId.set(stepId);
    // Touch points tell where use wore it; a film is not worn but laid.
    const step = this.step();
    if (this.tool() === 'touch' && step !== null && isFilmStep(step)) this.tool.set('brush');
  }

  setAmount(percent: number): void {
    const step = this.step();
    if (step !== null) this.amounts.update((amounts) => ({ ...amounts, [step.id]: percent }));
  }

  /** The brush comes down at a place, as shares of width and height. */
  down(u: number, v: number): void {
    const plan = this.plan();
    const step = this.step();
    if (plan === null || step === null) return;
    if (this.tool() === 'touch') {
      this.touches.update((touches) => [...touches.slice(1 - MOST_TOUCHES), { u, v }]);
      return;
    }
    this.stroke = {
      id: `paint-${++this.strokes}`,
      from: this.ground(plan, step),
      dabs: [],
      first: this.map() === null ? firstMapped(step) : {},
    };
    this.move(u, v);
  }

  /** The brush goes on to a place. */
  move(u: number, v: number): void {
    const range = this.range();
    if (this.stroke === null || range === null) return;
    this.stroke.dabs.push({ u, v, radius: this.radiusMm() / 1000 });
    const percent = this.tool() === 'eraser' ? range.plain : this.amount();
    const map = paintMap(this.stroke.from, this.stroke.dabs, percent / 100, this.size());
    this.store.dispatch(
      PlanEditor.mapPainted({
        stepId: this.step()!.id,
        map: filedMap(map, range),
        changes: this.stroke.first,
        gesture: this.stroke.id,
      }),
    );
  }

  up(): void {
    if (this.stroke === null) return;
    this.stroke = null;
    this.store.dispatch(PlanEditor.gestureEnded());
  }

  fill(zone: MapZone): void {
    this.replace((map) => fillMap(map, zone, this.amount() / 100, this.size()));
  }

  /** Proposes where a use would have worn it, round the touches set. */
  wear(cause: WearCause): void {
    const range = this.range();
    if (range === null) return;
    this.replace(
      (map) => wearByUse(map, cause, this.touches(), this.size(), newSeed(), range.max / 100),
      true,
    );
  }

  /** Alike all over again. */
  clear(): void {
    const step = this.step();
    this.touches.set([]);
    if (step !== null)
      this.store.dispatch(PlanEditor.mapPainted({ stepId: step.id, map: null, changes: {}, gesture: null }));
  }

  private replace(change: (map: PanelMap) => PanelMap, fromNothing = false): void {
    const plan = this.plan();
    const step = this.step();
    const range = this.range();
    if (plan === null || step === null || range === null) return;
    const before = fromNothing && this.map() === null ? mapOfStep(plan, step, 0) : this.ground(plan, step);
    this.store.dispatch(
      PlanEditor.mapPainted({
        stepId: step.id,
        map: filedMap(change(before), range),
        changes: this.map() === null ? firstMapped(step) : {},
        gesture: null,
      }),
    );
  }

  /** What is painted on first: a resist is put where it shall be; a tool goes on where it was told to go. */
  private ground(plan: PartPlan, step: MappedStep): PanelMap {
    const { plain } = mapRange(step);
    if (this.map() !== null || step.kind === 'resist' || step.where === 'all')
      return mapOfStep(plan, step, plain);
    return fillMap(mapOfStep(plan, step, 0), step.where, plain / 100, this.size());
  }
}
