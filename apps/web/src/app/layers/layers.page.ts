import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { planFeature } from '../plan/plan.feature';
import { FaceClient } from '../workers/face.client';
import { BenchBar } from './bench-bar/bench-bar';
import { ClockView } from './clock/clock-view';
import { PaintDesk } from './face/paint-desk';
import { FaceView } from './face/face-view';
import { ReadoutView } from './readout/readout-view';
import { StackColumn } from './stack-column';
import { StepCard } from './step-card/step-card';

/** The workbench: Section, Face, Clock and readout of one plan, in step while a hand is on any of them. */
@Component({
  selector: 'zf-layers-page',
  imports: [BenchBar, ClockView, FaceView, ReadoutView, StackColumn, StepCard],
  providers: [FaceClient, PaintDesk],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h1 class="visually-hidden">Layers</h1>
    <zf-bench-bar class="bench" />
    <zf-stack-column class="section" />
    <zf-face-view class="face" />
    <zf-readout-view class="readout" />
    <zf-clock-view class="clock" />
    @if (selected()) {
      <zf-step-card class="card" />
    }
  `,
  styles: `
    :host {
      position: relative;
      display: grid;
      grid-template: 38px minmax(0, 1fr) 246px / 300px minmax(0, 1fr) 290px;
      height: 100%;
      min-height: 640px;
      min-width: 930px;
      background: var(--paper);
    }
    @media (max-width: 1150px) {
      :host {
        grid-template-columns: 300px minmax(0, 1fr) 258px;
      }
    }
    /* What changes in one view is laid out and painted in that view alone: all follow the hand at once. */
    .section,
    .face,
    .readout,
    .clock {
      contain: layout paint style;
    }
    .bench {
      grid-column: 1 / -1;
    }
    .section {
      border-right: 1px solid var(--line);
    }
    .readout {
      border-left: 1px solid var(--line);
      overflow: auto;
    }
    .clock {
      grid-column: 1 / -1;
      border-top: 1px solid var(--line);
    }
    @media (max-width: 700px) {
      :host {
        grid-template: 38px 320px auto 440px 300px / minmax(0, 1fr);
        height: auto;
        min-width: 0;
      }
      .face {
        grid-row: 2;
      }
      .readout {
        grid-row: 3;
        border-left: 0;
        overflow: visible;
      }
      .section {
        grid-row: 4;
        border-top: 1px solid var(--line);
        border-right: 0;
      }
      .clock {
        grid-row: 5;
      }
    }
    .card {
      position: absolute;
      z-index: 5;
      left: 308px;
      top: 44px;
      max-height: calc(100% - 52px);
    }
    @media (max-width: 700px) {
      .card {
        position: fixed;
        inset: 8px 8px 56px;
        width: auto;
        max-height: none;
      }
    }
  `,
})
export class LayersPage {
  protected readonly selected = inject(Store).selectSignal(planFeature.selectSelectedStep);
}
