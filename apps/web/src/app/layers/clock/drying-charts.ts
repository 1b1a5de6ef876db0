import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { evaporation } from '@zaffet/core/air';
import { type DryingCurve } from '@zaffet/core/film';
import { type CoatForecast } from '@zaffet/core/forecast';
import { type PanelPlan } from '@zaffet/core/plan';
import { celsiusToKelvin } from '@zaffet/core/units';
import { celsius, figures, layerWord, stepTitle, um } from '@zaffet/words';
import { type PartPlan } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import {
  type ChartConfiguration,
  type ChartData,
  Chart,
  Filler,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js';
import { BaseChartDirective } from 'ng2-charts';
import { Clock } from '../../data/clock';
import { Units } from '../../data/units';
import { forecastAfterTheHand } from '../../plan/after-the-hand';
import { planFeature } from '../../plan/plan.feature';

Chart.defaults.font.family = "'Instrument Sans Variable', sans-serif";
Chart.register(Filler, Legend, LinearScale, LineController, LineElement, PointElement, Tooltip);

/** A canvas knows no theme: its colours are chosen for the light or the dark one when it is made. */
const DARK = matchMedia('(prefers-color-scheme: dark)');

/** Points a curve is drawn with at the most. */
const POINTS = 160;

type Line = ChartData<'line', { x: number; y: number }[]>;

/** Carrier left in each coat over the time since it was laid, and the shop's air over the days. */
@Component({
  selector: 'zf-drying-charts',
  imports: [BaseChartDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <figure>
      <figcaption>
        Water or solvent left in each coat, from when it was laid; a dot where it is touch-dry
      </figcaption>
      <div>
        <canvas
          baseChart
          type="line"
          [data]="drying()"
          [options]="dryingOptions()"
          [attr.aria-label]="dryingText()"
          role="img"
        ></canvas>
      </div>
    </figure>
    <figure>
      <figcaption>The shop's air over the days, and what a wet surface loses an hour</figcaption>
      <div>
        <canvas
          baseChart
          type="line"
          [data]="air()"
          [options]="airOptions()"
          [attr.aria-label]="airText()"
          role="img"
        ></canvas>
      </div>
    </figure>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 18px;
    }
    figure {
      display: grid;
      grid-template-rows: auto minmax(0, 1fr);
      min-width: 0;
      min-height: 0;
      margin: 0;
    }
    figcaption {
      color: var(--ink-2);
      font-size: 12px;
    }
    div {
      position: relative;
      min-width: 0;
      min-height: 0;
    }
  `,
})
export class DryingCharts {
  private readonly clock = inject(Clock);
  private readonly store = inject(Store);
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  private readonly model = this.store.selectSignal(planFeature.selectModel);
  private readonly forecast = forecastAfterTheHand();
  private readonly units = inject(Units).system;
  /** The quiet ink of the theme, as a colour a canvas understands. */
  private readonly ink = DARK.matches ? '#b6b5af' : '#54585c';

  private readonly dried = computed(() => {
    const forecast = this.forecast();
    return { coats: forecast?.coats ?? [], films: forecast?.course.films ?? [] };
  });
  protected readonly drying = computed((): Line => {
    const plan = this.plan();
    const { coats, films } = this.dried();
    return { datasets: plan === null ? [] : coats.map((coat, i) => curveOf(plan, coat, films[i]!.open, i)) };
  });
  protected readonly dryingOptions = computed(() =>
    this.options({ x: 'minutes since laid', y: 'share left, %' }, false),
  );
  protected readonly dryingText = computed(() => {
    const plan = this.plan();
    if (plan === null) return '';
    const dry = (this.forecast()?.coats ?? []).map((coat) => {
      const touch = coat.states.touch;
      const name = layerWord(plan.steps, coat.coat.id, plan.media);
      return touch === null
        ? `${name} stays soft`
        : `${name} touch-dry after ${figures((touch - coat.laidAt) / 60)} min`;
    });
    return `Drying curves: ${dry.join(', ')}`;
  });

  protected readonly air = computed((): Line => {
    const plan = this.plan();
    const model = this.model();
    if (plan === null || model === null) return { datasets: [] };
    const end = Math.max(this.forecast()?.readyAt ?? 0, 6 * 3600);
    const steps = (value: (k: number) => number): { x: number; y: number }[] =>
      model.air.flatMap((sample, k) => {
        const until = Math.min(end, model.air[k + 1]?.from ?? end);
        return sample.from >= end
          ? []
          : [
              { x: sample.from / 3600, y: value(k) },
              { x: until / 3600, y: value(k) },
            ];
      });
    const imperial = this.units() === 'imperial';
    const temperature = (k: number): number => {
      const c = model.air[k]!.temperature - 273.15;
      return imperial ? c * 1.8 + 32 : c;
    };
    const loss = losses(model);
    const set = (
      label: string,
      data: { x: number; y: number }[],
      colour: string,
      dash: number[],
      yAxisID: string,
    ): Line['datasets'][number] => ({
      label,
      data,
      yAxisID,
      borderColor: colour,
      backgroundColor: colour,
      borderDash: dash,
      borderWidth: 2,
      pointRadius: 0,
    });
    return {
      datasets: [
        set(imperial ? '°F' : '°C', steps(temperature), LINES[1]!, [], 'y'),
        set(
          'humidity, %',
          steps((k) => model.air[k]!.humidity * 100),
          LINES[2]!,
          [6, 4],
          'y',
        ),
        set(
          imperial ? 'loss, mil/h' : 'loss, µm/h',
          steps((k) => (imperial ? loss[k]! / 25.4 : loss[k]!)),
          LINES[0]!,
          [2, 3],
          'y1',
        ),
      ],
    };
  });
  protected readonly airOptions = computed(() => {
    const startsAt = Date.parse(this.plan()?.startsAt ?? '1970-01-01T00:00:00Z');
    const loss = this.units() === 'imperial' ? 'mil/h' : 'µm/h';
    return this.options(
      { x: '', y: `${this.units() === 'imperial' ? '°F' : '°C'} and %`, y1: loss },
      true,
      (hours) => this.clock.dayTime(startsAt + hours * 3600e3),
    );
  });
  protected readonly airText = computed(() => {
    const plan = this.plan();
    const model = this.model();
    if (plan === null || model === null) return '';
    const now = um(evaporation(model.air[0]!).rate * 3600, this.units());
    return `The air begins at ${celsius(celsiusToKelvin(plan.air.temperatureC), this.units())} and ${Math.round(plan.air.humidity * 100)} %; a wet surface loses ${now} an hour`;
  });

  private options(
    titles: { x: string; y: string; y1?: string },
    second: boolean,
    tick?: (value: number) => string,
  ): ChartConfiguration<'line'>['options'] {
    const grid = { color: 'rgb(128 128 128 / 22%)' };
    const text = { color: this.ink, font: { size: 11 } };
    const title = (label: string): { display: boolean; text: string; color: string } => ({
      display: label !== '',
      text: label,
      color: this.ink,
    });
    return {
      animation: false,
      maintainAspectRatio: false,
      interaction: { mode: 'nearest', intersect: false },
      plugins: { legend: { position: 'right', labels: { ...text, boxWidth: 18, boxHeight: 2 } } },
      scales: {
        x: {
          type: 'linear',
          min: 0,
          grid,
          title: title(titles.x),
          ticks: { ...text, maxTicksLimit: 7, ...(tick ? { callback: (value) => tick(Number(value)) } : {}) },
        },
        y: { type: 'linear', min: 0, grid, title: title(titles.y), ticks: { ...text, maxTicksLimit: 6 } },
        ...(second
          ? {
              y1: {
                type: 'linear' as const,
                position: 'right' as const,
                min: 0,
                grid: { display: false },
                title: title(titles.y1 ?? ''),
                ticks: { ...text, maxTicksLimit: 6 },
              },
            }
          : {}),
      },
    };
  }
}

/** Loss of a free water surface in each sample of the air [µm/h]. */
const losses = (model: PanelPlan): number[] => model.air.map((sample) => evaporation(sample).rate * 3.6e9);

function curveOf(
  plan: PartPlan,
  coat: CoatForecast,
  curve: DryingCurve,
  index: number,
): Line['datasets'][number] {
  const step = plan.steps[coat.stepIndex]!;
  const first = Math.max(1e-9, curve.water0Um);
  const stride = Math.max(1, Math.floor(curve.count / POINTS));
  const touch = coat.open.touch === null ? Infinity : coat.open.touch - coat.laidAt;
  const end = Math.min(curve.time[curve.count - 1] ?? 0, Math.max(1.3 * touch, 1800), 24 * 3600);
  const data: { x: number; y: number }[] = [];
  let dot = -1;
  for (let i = 0; i < curve.count; i += stride) {
    const t = curve.time[i]!;
    if (t > end) break;
    if (dot < 0 && t >= touch) dot = data.length;
    data.push({ x: t / 60, y: (100 * curve.water[i]!) / first });
  }
  const colour = LINES[index % LINES.length]!;
  return {
    label: stepTitle(step, plan.media),
    data,
    borderColor: colour,
    backgroundColor: colour,
    borderWidth: 2,
    borderDash: DASHES[index % DASHES.length]!,
    pointRadius: data.map((_, i) => (i === dot ? 4 : 0)),
  };
}

/** Lines that can be told apart without their colour. */
const LINES = DARK.matches
  ? ['#6fc0b2', '#ef9a75', '#9db4df', '#d9b86a', '#cf9fca', '#a3cf8f']
  : ['#22605a', '#a03c1a', '#4c5f86', '#7a5a1e', '#6a3f66', '#3f6b2e'];
const DASHES = [[], [7, 3], [2, 3], [10, 3, 2, 3]];
