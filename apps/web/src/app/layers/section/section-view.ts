import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { LIMITS, mediumName, newCoat } from '@zaffet/contract';
import { MEDIUM_KEYS, type MediumKey } from '@zaffet/core';
import { Store } from '@ngrx/store';
import { scaleLinear } from 'd3-scale';
import { newId } from '../../data/fresh';
import { fitted } from '../../plan/edits';
import { PlanEditor } from '../../plan/plan.actions';
import { planFeature } from '../../plan/plan.feature';
import { sizeOf } from '../../ui/size-of';
import { type Slab, stackOf } from './stack';

/** Drawing area [px]: the stack stands right of its scale, over the cut panel. */
const LEFT = 46;
const RIGHT = 160;
const TOP = 26;
const GROUND = 60;
const LABEL_HEIGHT = 50;
/** Room the heading takes [px]. */
const HEADER = 44;

/** The stack cut through, to scale in micrometres; a surface can be dragged. */
@Component({
  selector: 'zf-section-view',
  imports: [MatButtonModule, MatIconModule, MatMenuModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './section-view.html',
  styleUrl: './section-view.scss',
})
export class SectionView {
  private readonly store = inject(Store);
  protected readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly forecast = this.store.selectSignal(planFeature.selectForecast);
  protected readonly selectedId = this.store.selectSignal(planFeature.selectSelectedCoatId);
  protected readonly width = 300;
  private readonly size = sizeOf(inject<ElementRef<HTMLElement>>(ElementRef), { width: 300, height: 500 });
  protected readonly height = computed(() => Math.max(300, this.size().height - HEADER));
  protected readonly left = LEFT;
  protected readonly right = RIGHT;
  protected readonly ground = computed(() => this.height() - GROUND);
  protected readonly limit = LIMITS.thicknessUm;
  protected readonly media = MEDIUM_KEYS;
  protected readonly mediumName = mediumName;

  protected readonly stack = computed(() => {
    const plan = this.plan();
    const forecast = this.forecast();
    return plan === null || forecast === null ? null : stackOf(plan, forecast);
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
  protected readonly ticks = computed(() => this.y().ticks(6));

  /** Labels stand at their slab, moved apart where slabs are thin. */
  protected readonly labels = computed(() => {
    const slabs = this.stack()?.slabs ?? [];
    const y = this.y();
    const rows = slabs.map((slab) => ({ slab, at: y(0.5 * (slab.bottomUm + slab.topUm)) }));
    let floor = this.ground() - 6;
    for (const row of rows) {
      row.at = Math.min(row.at, floor - LABEL_HEIGHT / 2);
      floor = row.at - LABEL_HEIGHT / 2;
    }
    const over = TOP - 6 - floor;
    return rows.map((row) => ({ ...row, at: over > 0 ? row.at + over : row.at }));
  });

  private dragging: { id: string; fromY: number; fromWet: number; wetPerPixel: number } | null = null;

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
    this.store.dispatch(PlanEditor.coatSelected({ coatId: this.selectedId() === id ? null : id }));
  }

  protected grab(event: PointerEvent, slab: Slab): void {
    event.preventDefault();
    const grip = event.currentTarget as SVGElement;
    grip.setPointerCapture(event.pointerId);
    grip.focus();
    const umPerPixel = this.topUm() / (this.ground() - TOP);
    this.heldTop.set(this.topUm());
    this.dragging = {
      id: slab.id,
      fromY: event.clientY,
      fromWet: slab.wetUm,
      wetPerPixel: umPerPixel * slab.wetPerDry,
    };
  }

  protected drag(event: PointerEvent): void {
    const drag = this.dragging;
    if (drag === null) return;
    this.lay(
      drag.id,
      drag.fromWet + (drag.fromY - event.clientY) * drag.wetPerPixel,
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

  private lay(coatId: string, wetUm: number, gesture: string): void {
    const thicknessUm = fitted(LIMITS.thicknessUm, wetUm);
    this.store.dispatch(PlanEditor.coatChanged({ coatId, changes: { thicknessUm }, gesture }));
  }

  protected add(key: MediumKey): void {
    const plan = this.plan();
    if (plan === null) return;
    const colours = {
      paint: '#c9b98f',
      primer: '#e9e6de',
      'crackle-medium': '#e6ddc4',
      'wet-glue': '#e6ddc4',
      'cured-glue': '#d9b98a',
    };
    const kind = this.forecast()?.coats.find((coat) => coat.coat.medium === key)?.curve.medium.kind;
    const colour = plan.steps.find((step) => step.medium === key)?.colour ?? colours[kind ?? 'paint'];
    const coat = newCoat(newId(), key, colour, '', { rule: 'state', state: 'recoat', waitMin: 0 });
    this.store.dispatch(PlanEditor.coatAdded({ coat, index: plan.steps.length }));
  }
}
