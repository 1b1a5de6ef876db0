import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  signal,
} from '@angular/core';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatSliderModule } from '@angular/material/slider';
import { LIMITS } from '@zaffet/contract';
import { celsiusToKelvin } from '@zaffet/core/units';
import { celsius, duration } from '@zaffet/words';
import { Store } from '@ngrx/store';
import { scaleTime } from 'd3-scale';
import { area, curveMonotoneX, curveStepAfter, line } from 'd3-shape';
import { Clock } from '../../data/clock';
import { Units } from '../../data/units';
import { fitted } from '../../plan/edits';
import { PlanEditor } from '../../plan/plan.actions';
import { forecastAfterTheHand } from '../../plan/after-the-hand';
import { planFeature } from '../../plan/plan.feature';
import { sizeOf } from '../../ui/size-of';
import { FaceClient } from '../../workers/face.client';
import { DryingCharts } from './drying-charts';
import { labelsOf } from './labels';
import { focusOf, type Lane, lanesOf, wholeOf } from './lanes';
import { Hold, type Pull } from '../../ui/hold';
import { MomentField } from '../../ui/moment-field';

const LABELS = 128;
/** Narrower than this lanes are scrolled under their names [px]. */
const LEAST_WIDTH = 640;
const AXIS = 22;
const AIR = 34;
const STRIP = 40;
/** Waits tried for the strip that shows how the crackle depends on the moment. */
const MOMENTS = 36;
/** The strip is worked out when the hand rests this long [ms]. */
const REST = 120;
/** Least change of a start that can be dragged [min]. */
const START_STEP = 0.1;

/** The hours: the shop's air, a lane per coat with its states and windows, and when each coat goes on, to be dragged. */
@Component({
  selector: 'zf-clock-view',
  imports: [MomentField, DryingCharts, Hold, MatButtonToggleModule, MatSliderModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './clock-view.html',
  styleUrl: './clock-view.scss',
})
export class ClockView {
  private readonly clock = inject(Clock);
  private readonly store = inject(Store);
  private readonly worker = inject(FaceClient);
  protected readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly basis = this.store.selectSignal(planFeature.selectBasis);
  /** What is drawn; and what is so by now, for keys to count from. */
  protected readonly forecast = forecastAfterTheHand();
  private readonly latest = this.store.selectSignal(planFeature.selectForecast);
  private readonly size = sizeOf(inject<ElementRef<HTMLElement>>(ElementRef), { width: 1190, height: 246 });
  private readonly units = inject(Units).system;
  /** What a slider of shares is read as. */
  protected readonly spokenShare = (share: number): string => `${Math.round(share * 100)} per cent`;
  protected readonly celsiusText = (temperatureC: number): string =>
    celsius(celsiusToKelvin(temperatureC), this.units());
  protected readonly limits = LIMITS;
  protected readonly labelWidth = LABELS;
  protected readonly axisHeight = AXIS;
  protected readonly airHeight = AIR;
  protected readonly stripHeight = STRIP;

  protected readonly extent = signal<'focus' | 'whole' | 'curves'>('focus');
  /** While a coat is dragged the hours stay where they are. */
  private readonly held = signal<{ from: number; to: number } | null>(null);
  protected readonly width = computed(() => Math.max(LEAST_WIDTH, this.size().width));
  private readonly start = computed(() => Date.parse(this.plan()?.startsAt ?? '1970-01-01T00:00:00Z'));

  private readonly span = computed(() => {
    const held = this.held();
    const forecast = this.forecast();
    if (held !== null || forecast === null) return held ?? { from: 0, to: 3600 };
    return this.extent() === 'focus' ? focusOf(forecast) : wholeOf(forecast);
  });
  private readonly time = computed(() => {
    const { from, to } = this.span();
    return scaleTime()
      .domain([new Date(this.start() + from * 1000), new Date(this.start() + to * 1000)])
      .range([LABELS, this.width() - 16]);
  });
  protected readonly ticks = computed(() => {
    const time = this.time();
    const ticks = time.ticks(8);
    const long = (time.domain()[1]?.getTime() ?? 0) - (time.domain()[0]?.getTime() ?? 0) > 30 * 3600e3;
    return ticks
      .map((tick) => ({ x: time(tick), text: long ? this.clock.dayTime(tick) : this.clock.time(tick) }))
      .filter((tick) => tick.x < this.width() - 40);
  });

  protected readonly x = (moment: number): number => {
    const x = this.time()(new Date(this.start() + moment * 1000));
    return Math.min(this.width() - 16, Math.max(LABELS, x));
  };
  protected readonly clockText = (moment: number): string => this.clock.time(this.start() + moment * 1000);

  /** Index of the coat that lies on a slipping layer, cracked or not. */
  private readonly slipping = computed(() => {
    const coats = this.forecast()?.coats ?? [];
    const i = coats.findIndex((_coat, k) => k > 0 && (coats[k - 1]?.medium.slipRate ?? 0) > 0);
    // Only a coat that goes on directly after the layer that slips can be laid at other moments by itself.
    const follows = i > 0 && coats[i]!.stepIndex === coats[i - 1]!.stepIndex + 1;
    return follows ? i : null;
  });

  protected readonly lanes = computed(() => {
    const plan = this.plan();
    const forecast = this.forecast();
    return plan === null || forecast === null ? [] : lanesOf(plan, forecast, this.span().to, this.clockText);
  });
  /** What stands on the lanes, each with a place of its own. */
  protected readonly labels = computed(() => {
    const lanes = this.lanes();
    const bounds = { left: LABELS, right: this.width() - 16 };
    return new Map(
      lanes.map((lane, i) => [lane.id, labelsOf(lane, lanes[i + 1], this.x, bounds, this.clockText)]),
    );
  });
  /** y of a lane: steps read downwards in the order they are done. */
  protected readonly laneY = (lane: Lane): number => AXIS + AIR + lane.top;
  /** The strip lies under the lanes. */
  protected readonly stripY = computed(() => {
    const last = this.lanes().at(-1);
    return AXIS + AIR + (last === undefined ? 0 : last.top + last.height);
  });
  protected readonly height = computed(() => this.stripY() + (this.slipping() === null ? 6 : STRIP));
  /** The lane whose start the strip is about. */
  protected readonly stripLane = computed(
    () => this.lanes()[this.forecast()?.coats[this.slipping() ?? -1]?.stepIndex ?? -1] ?? null,
  );
  protected readonly begins = computed(() => new Date(this.start()));

  protected begin(at: Date | null): void {
    if (at !== null) this.store.dispatch(PlanEditor.startChanged({ startsAt: at.toISOString() }));
  }

  /** Temperature in the upper half of the air's lane, humidity in the lower, with what they come to. */
  protected readonly air = computed(() => {
    const plan = this.plan();
    if (plan === null) return null;
    const { from, to } = this.span();
    const first = { at: 0, temperatureC: plan.air.temperatureC, humidity: plan.air.humidity };
    const changes = plan.air.later.map((sample) => ({
      ...sample,
      at: (Date.parse(sample.at) - this.start()) / 1000,
    }));
    const samples = [first, ...changes];
    const now = (moment: number): typeof first => samples.findLast((sample) => sample.at <= moment) ?? first;
    const seen = [
      { ...now(from), at: from },
      ...samples.filter((s) => s.at > from && s.at < to),
      { ...now(to), at: to },
    ];
    const path = (value: (sample: typeof first) => number, least: number, base: number): string => {
      const scale = rangeOf(seen.map(value), least);
      const y = (sample: typeof first): number =>
        base - ((value(sample) - scale.from) / (scale.to - scale.from)) * 11;
      const shape = line<typeof first>((s) => this.x(s.at), y).curve(curveStepAfter);
      return shape(seen) ?? '';
    };
    const end = seen.at(-1)!;
    return {
      temperature: path((s) => s.temperatureC, 2, AXIS + 14),
      humidity: path((s) => s.humidity, 0.06, AXIS + 30),
      temperatureText: this.celsiusText(end.temperatureC),
      humidityText: `${Math.round(end.humidity * 100)} %`,
    };
  });

  /** How well the crackle reads if the top coat goes on at other moments. */
  private readonly strip = signal<{ waits: number[]; strengths: number[]; laidBelow: number } | null>(null);
  protected readonly stripPath = computed(() => {
    const strip = this.strip();
    if (strip === null || this.slipping() === null) return null;
    const base = this.stripY() + STRIP - 8;
    const shape = area<number>(
      (_wait, k) => this.x(strip.laidBelow + (strip.waits[k] ?? 0)),
      base,
      (_wait, k) => base - (strip.strengths[k] ?? 0) * (STRIP - 14),
    ).curve(curveMonotoneX);
    return shape(strip.waits);
  });

  private dragging: { id: string; index: number; below: number } | null = null;

  constructor() {
    effect((onCleanup) => {
      const basis = this.basis();
      const forecast = this.forecast();
      const i = this.slipping();
      if (basis === null || forecast === null || i === null) {
        this.strip.set(null);
        return;
      }
      const below = forecast.coats[i - 1]!;
      const { from, to } = this.span();
      const first = Math.max(below.laidAt, below.laidAt + Math.max(0, from - below.laidAt));
      const last = Math.max(first + 600, to);
      const waits = Array.from(
        { length: MOMENTS },
        (_, k) => first - below.laidAt + ((last - first) * k) / (MOMENTS - 1),
      );
      let current = true;
      const timer = setTimeout(() => {
        void this.worker
          .moments({ basis, stepIndex: forecast.coats[i]!.stepIndex, waits })
          .then((strengths) => {
            if (current) this.strip.set({ waits, strengths, laidBelow: below.laidAt });
          });
      }, REST);
      onCleanup(() => {
        current = false;
        clearTimeout(timer);
      });
    });
  }

  protected setTemperature(temperatureC: number): void {
    this.store.dispatch(PlanEditor.airChanged({ changes: { temperatureC }, gesture: 'air temperature' }));
  }

  protected setHumidity(humidity: number): void {
    this.store.dispatch(PlanEditor.airChanged({ changes: { humidity }, gesture: 'air humidity' }));
  }

  protected endGesture(): void {
    this.store.dispatch(PlanEditor.gestureEnded());
  }

  protected startText(lane: Lane): string {
    const wait = lane.index > 0 ? `, ${duration(lane.laidAt - lane.waitsFrom)} after the step before` : '';
    return `${this.clockText(lane.laidAt)}${wait}`;
  }

  protected waitMin(lane: Lane): number {
    return Math.max(0, Math.round((lane.laidAt - lane.waitsFrom) / 6) / 10);
  }

  protected grab(event: PointerEvent, lane: Lane): void {
    if (lane.index === 0) return;
    event.preventDefault();
    (event.currentTarget as SVGElement).focus();
    this.held.set(this.span());
    this.dragging = { id: lane.id, index: lane.index, below: lane.waitsFrom };
  }

  protected drag({ x }: Pull, svg: Element): void {
    const { dragging } = this;
    if (dragging === null) return;
    const moment =
      (this.time()
        .invert(x - svg.getBoundingClientRect().left)
        .getTime() -
        this.start()) /
      1000;
    this.put(dragging.id, (moment - dragging.below) / 60, `start ${dragging.id}`);
  }

  protected release(): void {
    if (this.dragging === null) return;
    this.dragging = null;
    this.held.set(null);
    this.endGesture();
  }

  protected onKey(event: KeyboardEvent, lane: Lane): void {
    const steps: Partial<Record<string, number>> = {
      ArrowRight: 0.5,
      ArrowUp: 0.5,
      ArrowLeft: -0.5,
      ArrowDown: -0.5,
      PageUp: 5,
      PageDown: -5,
    };
    const by = steps[event.key];
    if (by === undefined || lane.index === 0) return;
    event.preventDefault();
    // Keys come faster than the page draws: count from where the coat is now, not from where it was drawn.
    const [plan, forecast] = [this.plan(), this.latest()];
    const lanes =
      plan === null || forecast === null ? [] : lanesOf(plan, forecast, this.span().to, this.clockText);
    const now = lanes[lane.index] ?? lane;
    this.put(lane.id, this.waitMin(now) + by, `start ${lane.id} keys`);
  }

  private put(stepId: string, wait: number, gesture: string): void {
    const waitMin = fitted({ ...LIMITS.waitMin, step: START_STEP }, wait);
    this.store.dispatch(
      PlanEditor.stepChanged({
        stepId,
        edit: { fits: 'any', changes: { start: { rule: 'after', waitMin } } },
        gesture,
      }),
    );
  }

  protected choose(lane: Lane): void {
    this.store.dispatch(PlanEditor.stepSelected({ stepId: lane.id }));
  }
}

function rangeOf(values: readonly number[], least: number): { from: number; to: number } {
  const low = Math.min(...values);
  const high = Math.max(...values);
  const mid = 0.5 * (low + high);
  const half = Math.max(0.5 * (high - low), least);
  return { from: mid - half, to: mid + half };
}
