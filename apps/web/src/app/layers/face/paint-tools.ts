import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatMenuModule } from '@angular/material/menu';
import { MatSelectModule } from '@angular/material/select';
import { MatSliderModule } from '@angular/material/slider';
import { isFilmStep, LIMITS } from '@zaffet/contract';
import { MAP_ZONES, WEAR_CAUSES } from '@zaffet/core/maps';
import { lengthShown, MAP_ZONE_NAMES, stepTitle, WEAR_CAUSE_NAMES } from '@zaffet/words';
import { Store } from '@ngrx/store';
import { Units } from '../../data/units';
import { planFeature } from '../../plan/plan.feature';
import { BRUSH_MM, PaintDesk, type PaintTool } from './paint-desk';

const TOOL_NAMES: Readonly<Record<PaintTool, string>> = { brush: 'Brush', eraser: 'Eraser', touch: 'Touch' };

/** What lies beside the panel while it is painted on. */
@Component({
  selector: 'zf-paint-tools',
  imports: [MatButtonModule, MatButtonToggleModule, MatMenuModule, MatSelectModule, MatSliderModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="row">
      <mat-select
        class="step"
        aria-label="What is painted on the panel"
        hideSingleSelectionIndicator
        [value]="desk.step()?.id"
        (valueChange)="desk.choose($event)"
      >
        @for (step of steps(); track step.id) {
          <mat-option [value]="step.id">{{ step.title }}</mat-option>
        }
      </mat-select>
      <mat-button-toggle-group
        aria-label="Tool"
        hideSingleSelectionIndicator
        [value]="desk.tool()"
        (change)="desk.tool.set($event.value)"
      >
        @for (tool of tools(); track tool) {
          <mat-button-toggle [value]="tool">{{ toolNames[tool] }}</mat-button-toggle>
        }
      </mat-button-toggle-group>
      <button mat-button [matMenuTriggerFor]="zones">Fill …</button>
      <mat-menu #zones>
        @for (zone of mapZones; track zone) {
          <button mat-menu-item (click)="desk.fill(zone)">
            {{ zoneNames[zone] }} with {{ desk.amount() }} %
          </button>
        }
      </mat-menu>
      @if (wears()) {
        <button mat-button [matMenuTriggerFor]="causes">By use …</button>
        <mat-menu #causes>
          @for (cause of wearCauses; track cause) {
            <button mat-menu-item (click)="desk.wear(cause)">
              {{ causeNames[cause].name }}<small class="quiet">: {{ causeNames[cause].meaning }}</small>
            </button>
          }
        </mat-menu>
      }
      <button mat-button class="end" (click)="desk.open.set(false)">Done</button>
    </div>
    <p class="key">
      <span><i class="more"></i>more than usual</span><span><i class="less"></i>less</span
      ><span>no tint: as the step says</span>
    </p>
    <div class="row">
      <label class="knob"
        ><span>{{ amountWord() }}</span>
        <mat-slider [min]="range()?.min ?? 0" [max]="range()?.max ?? 100" step="5"
          ><input
            matSliderThumb
            [attr.aria-label]="amountWord()"
            [value]="desk.amount()"
            (valueChange)="desk.setAmount($event)"
        /></mat-slider>
        <b>{{ desk.amount() }} %</b>
      </label>
      <label class="knob"
        ><span>Broad</span>
        <mat-slider [min]="brush.min" [max]="brush.max" [step]="brush.step"
          ><input
            matSliderThumb
            aria-label="How broad the brush is"
            [value]="desk.radiusMm()"
            (valueChange)="desk.radiusMm.set($event)"
        /></mat-slider>
        <b>{{ broad() }}</b>
      </label>
      <button mat-button class="end" [disabled]="desk.map() === null" (click)="desk.clear()">
        Alike all over
      </button>
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: 2px;
      padding: 4px 12px;
      border-bottom: 1px solid var(--line);
      background: var(--paper);
      font-size: 13px;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px;
      min-width: 0;
    }
    .step {
      flex: 1 1 120px;
      min-width: 90px;
      padding: 5px 8px;
      border: 1px solid var(--line);
      border-radius: 4px;
    }
    mat-button-toggle-group {
      flex: none;
      font-size: 13px;
    }
    .key {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 14px;
      margin: 0;
      color: var(--ink-2);
    }
    .key i {
      display: inline-block;
      width: 14px;
      height: 10px;
      margin-right: 5px;
      border: 1px solid var(--line);
    }
    .more {
      background: rgb(38 84 196 / 53%);
    }
    .less {
      background: rgb(168 67 31 / 53%);
    }
    .knob {
      display: flex;
      flex: 1 1 130px;
      white-space: nowrap;
      align-items: center;
      gap: 6px;
      min-width: 0;
      color: var(--ink-2);
    }
    .knob b {
      flex: none;
      min-width: 48px;
      color: var(--ink);
    }
    mat-slider {
      flex: 1;
      min-width: 40px;
    }
    .end {
      margin-left: auto;
    }
    button {
      flex: none;
      white-space: nowrap;
    }
  `,
})
export class PaintTools {
  protected readonly desk = inject(PaintDesk);
  private readonly plan = inject(Store).selectSignal(planFeature.selectPlan);
  private readonly units = inject(Units).system;
  protected readonly range = this.desk.range;
  protected readonly brush = BRUSH_MM;
  protected readonly toolNames = TOOL_NAMES;
  protected readonly mapZones = MAP_ZONES;
  protected readonly zoneNames = MAP_ZONE_NAMES;
  protected readonly wearCauses = WEAR_CAUSES;
  protected readonly causeNames = WEAR_CAUSE_NAMES;
  protected readonly limits = LIMITS;

  protected readonly steps = computed(() =>
    this.desk.steps().map((step) => ({ id: step.id, title: stepTitle(step, this.plan()?.media) })),
  );
  /** Use wears what is distressed, and says where wax or jelly would go; it lays no paint. */
  protected readonly wears = computed(() => {
    const step = this.desk.step();
    return step !== null && !isFilmStep(step);
  });
  protected readonly tools = computed((): readonly PaintTool[] =>
    this.wears() ? ['brush', 'eraser', 'touch'] : ['brush', 'eraser'],
  );
  protected readonly amountWord = computed(() => {
    const step = this.desk.step();
    if (step === null || isFilmStep(step)) return 'How thick';
    return step.kind === 'resist' ? 'How much' : 'How hard';
  });
  protected readonly broad = computed(() => {
    const { number, unit } = lengthShown((2 * this.desk.radiusMm()) / 1000, this.units());
    return `${number} ${unit}`;
  });
}
