import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, signal } from '@angular/core';
import { LIMITS } from '@zaffet/contract';
import { thicknessShown } from '@zaffet/words';
import { Store } from '@ngrx/store';
import { scaleLinear } from 'd3-scale';
import { Units } from '../../data/units';
import { fitted } from '../../plan/edits';
import { PlanEditor } from '../../plan/plan.actions';
import { planFeature } from '../../plan/plan.feature';
import { sizeOf } from '../../ui/size-of';
import { type Slab, stackOf } from './stack';
import { Hold, type Pull } from '../../ui/hold';

/** Drawing area [px]: the stack stands right of its scale, over the cut panel. */
const LEFT = 46;
const RIGHT = 160;
const TOP = 26;
const GROUND = 60;
/** How much is told of each step, by the room there is [px]. */
const DENSITIES = [
  { film: 50, filmLines: 3, mark: 36, markLines: 2 },
  { film: 36, filmLines: 2, mark: 24, markLines: 1 },
  { film: 25, filmLines: 1, mark: 25, markLines: 1 },
] as const;

/** The stack cut through, to scale in micrometres; a surface can be dragged. */
@Component({
  selector: 'zf-section-view',
  imports: [Hold],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './section-view.html',
  styleUrl: './section-view.scss',
})
export class SectionView {
  private readonly store = inject(Store);
  protected readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly forecast = this.store.selectSignal(planFeature.selectForecast);
  protected readonly selectedId = this.store.selectSignal(planFeature.selectSelectedStepId);
  protected readonly width = 300;
  private readonly size = sizeOf(inject<ElementRef<HTMLElement>>(ElementRef), { width: 300, height: 500 });
  protected readonly height = computed(() => Math.max(300, this.size().height - 4));
  protected readonly left = LEFT;
  protected readonly right = RIGHT;
  protected readonly ground = computed(() => this.height() - GROUND);
  protected readonly limit = LIMITS.thicknessUm;
  protected readonly units = inject(Units).system;
  /** The scale's ticks, in the unit shown. */
  protected readonly tickText = (um: number): string => thicknessShown(um / 1e6, this.units()).number;

  protected readonly stack = computed(() => {
    const plan = this.plan();
    const forecast = this.forecast();
    return plan === null || forecast === null ? null : stackOf(plan, forecast, this.units());
  });

  /** While a surface is dragged the scale stays as it was, so that the surface stays under the pointer. */
  private readonly heldTop = signal<number | null>(null);
  private readonly topUm = computed(() => {
    const stack = this.stack();
    if (stack === null) return 100;
    const highest = Math.max(...stack.slabs.map((slab) => slab.wetTopUm), stack.totalUm);
    return this.heldTop() ?? Math.ceil((highest * 1.03) / 20) * 20;
  });
  protected readonly y = computed(() => scaleLinear().domain([0, this.topUm()]).range([this.ground(), TOP]));
  protected readonly ticks = computed(() => {
    const perUnit = this.units() === 'imperial' ? 25.4 : 1;
    const shown = scaleLinear().domain([0, this.topUm() / perUnit]);
    return shown.ticks(6).map((tick) => tick * perUnit);
  });

  /** Everything done, from the ground up, in as much room as there is: films with their figures, the rest between. */
  private readonly rows = computed(() => {
    const stack = this.stack();
    const plan = this.plan();
    if (stack === null || plan === null) return [];
    const slabs = new Map(stack.slabs.map((slab) => [slab.id, slab]));
    const marks = new Map(stack.marks.map((mark) => [mark.id, mark]));
    const room = this.ground() - TOP + 10;
    const count = { film: stack.slabs.length, mark: stack.marks.length };
    const density =
      DENSITIES.find((d) => count.film * d.film + count.mark * d.mark <= room) ?? DENSITIES.at(-1)!;
    return plan.steps.map((step) => {
      const slab = slabs.get(step.id);
      const mark = marks.get(step.id);
      return {
        id: step.id,
        title: slab?.title ?? mark?.title ?? '',
        detail: slab?.detail ?? mark?.note ?? '',
        note: slab?.note ?? '',
        mark: slab === undefined,
        centreUm: slab ? 0.5 * (slab.bottomUm + slab.topUm) : (mark?.atUm ?? 0),
        height: slab ? density.film : density.mark,
        lines: slab ? density.filmLines : density.markLines,
      };
    });
  });
  /** Labels stand at their film or surface, moved apart where they would meet. */
  protected readonly labels = computed(() => {
    const y = this.y();
    let floor = this.ground() - 6;
    const placed = this.rows().map((row) => {
      const at = Math.min(y(row.centreUm), floor - row.height / 2);
      floor = at - row.height / 2;
      return { row, at };
    });
    // Where the topmost were pushed out of the picture, they come down and push the rest as far as they must.
    let ceiling = TOP - 6;
    for (let i = placed.length - 1; i >= 0; i--) {
      const label = placed[i]!;
      label.at = Math.max(label.at, ceiling + label.row.height / 2);
      ceiling = label.at + label.row.height / 2;
    }
    return placed;
  });

  private dragging: { id: string; fromY: number; fromWet: number; wetPerPixel: number } | null = null;

  /** Pieces a partly laid film is drawn in: as wide together as its share. */
  protected pieces(share: number): { x: number; width: number }[] {
    const span = RIGHT - LEFT;
    if (share >= 0.995) return [{ x: LEFT, width: span }];
    const count = 3;
    return Array.from({ length: count }, (_, i) => ({
      x: LEFT + (span * (i + 0.5 * (1 - share))) / count,
      width: (span * share) / count,
    }));
  }

  protected islands(slab: Slab): { path: string }[] {
    // A schematic cut: three islands with curled rims, gaps in the share that stands open.
    const y = this.y();
    const top = y(slab.topUm);
    const bottom = y(slab.bottomUm);
    const open = Math.min(0.5, slab.cracked?.openShare ?? 0);
    const widths = [0.3, 0.42, 0.28];
    const span = RIGHT - LEFT;
    const gap = (span * open) / widths.length;
    const curl = Math.min(2.5, (bottom - top) * 0.1);
    let x = LEFT;
    return widths.map((share, i) => {
      const w = span * (1 - open) * share;
      const x0 = x + (i === 0 ? 0 : gap / 2);
      const x1 = x0 + w;
      x = x1 + gap / 2;
      const lean = Math.min(4, gap * 0.3);
      return {
        path: `M${x0 + (i === 0 ? 0 : lean)} ${bottom} L${x0} ${top - curl} Q${(x0 + x1) / 2} ${top + curl} ${x1} ${top - curl} L${x1 - (i === 2 ? 0 : lean)} ${bottom} Z`,
      };
    });
  }

  protected select(id: string): void {
    this.store.dispatch(PlanEditor.stepSelected({ stepId: this.selectedId() === id ? null : id }));
  }

  protected grab(event: PointerEvent, slab: Slab): void {
    event.preventDefault();
    (event.currentTarget as SVGElement).focus();
    const umPerPixel = this.topUm() / (this.ground() - TOP);
    this.heldTop.set(this.topUm());
    this.dragging = {
      id: slab.id,
      fromY: event.clientY,
      fromWet: slab.wetUm,
      wetPerPixel: umPerPixel * slab.wetPerDry,
    };
  }

  protected drag({ y }: Pull): void {
    const drag = this.dragging;
    if (drag === null) return;
    this.lay(
      drag.id,
      drag.fromWet + (drag.fromY - y) * drag.wetPerPixel,
      `thickness ${drag.id} ${drag.fromY}`,
    );
  }

  protected release(): void {
    if (this.dragging === null) return;
    this.dragging = null;
    this.heldTop.set(null);
    this.store.dispatch(PlanEditor.gestureEnded());
  }

  protected onKey(event: KeyboardEvent, slab: Slab): void {
    const steps: Partial<Record<string, number>> = {
      ArrowUp: 2,
      ArrowDown: -2,
      ArrowRight: 2,
      ArrowLeft: -2,
      PageUp: 10,
      PageDown: -10,
    };
    const by = steps[event.key];
    if (event.key === 'Enter') this.select(slab.id);
    else if (by !== undefined) {
      // Keys come faster than the page draws: count from how thick the coat is now.
      const now = this.stack()?.slabs.find(({ id }) => id === slab.id) ?? slab;
      this.lay(slab.id, now.wetUm + by, `thickness ${slab.id} keys`);
    } else return;
    event.preventDefault();
  }

  protected endKeys(): void {
    this.store.dispatch(PlanEditor.gestureEnded());
  }

  private lay(stepId: string, wetUm: number, gesture: string): void {
    const thicknessUm = fitted(LIMITS.thicknessUm, wetUm);
    this.store.dispatch(
      PlanEditor.stepChanged({ stepId, edit: { fits: 'film', changes: { thicknessUm } }, gesture }),
    );
  }
}
