import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { celsiusToKelvin } from '@zaffet/core/units';
import { celsius } from '@zaffet/words';
import {
  Chart,
  type ChartConfiguration,
  type ChartData,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js';
import { BaseChartDirective } from 'ng2-charts';
import { Clock } from '../data/clock';
import { Units } from '../data/units';
import { AirModel } from './air-model';
import { DaysModel } from './days-model';

Chart.register(Legend, LinearScale, LineController, LineElement, PointElement, Tooltip);
/** A canvas knows no theme: its colours are chosen for the light or the dark one when it is made. */
const DARK = matchMedia('(prefers-color-scheme: dark)');
const WARM = DARK.matches ? '#d98a63' : '#a8431f';
const DAMP = DARK.matches ? '#7fb0b8' : '#33606b';
const INK = DARK.matches ? '#b6b5af' : '#54585c';
const FONT = { family: "'Instrument Sans Variable', sans-serif", size: 11 };
const HOUR = 3_600_000;
const DAY = 24 * HOUR;

type Line = ChartData<'line', { x: number; y: number }[]>;

/** Temperature and humidity of the shop over the days of the plan. */
@Component({
  selector: 'zf-air-chart',
  imports: [BaseChartDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <canvas
      baseChart
      type="line"
      role="img"
      [data]="lines()"
      [options]="options()"
      [attr.aria-label]="text()"
    ></canvas>
  `,
  styles: `
    :host {
      position: relative;
      display: block;
      min-height: 0;
    }
  `,
})
export class AirChart {
  private readonly model = inject(AirModel);
  private readonly days = inject(DaysModel);
  private readonly clock = inject(Clock);
  private readonly units = inject(Units).system;

  /** Until when it is drawn [ms since 1970]: the piece is ready, and a little more. */
  private readonly end = computed(() => {
    const shown = this.days.shown();
    const start = this.model.points()[0]!.at;
    return Math.max(
      start + 12 * HOUR,
      shown?.table.ready == null ? 0 : this.days.at(shown.table.ready) + 6 * HOUR,
    );
  });
  private readonly drawn = computed(() => {
    const end = this.end();
    const seen = this.model.points().filter(({ at }) => at < end);
    return [...seen, { ...seen.at(-1)!, at: end }];
  });

  protected readonly lines = computed((): Line => {
    const imperial = this.units() === 'imperial';
    const line = (
      label: string,
      of: (i: number) => number,
      colour: string,
      yAxisID: string,
      dash: number[],
    ): Line['datasets'][number] => ({
      label,
      data: this.drawn().map(({ at }, i) => ({ x: at, y: of(i) })),
      stepped: 'before' as const,
      borderColor: colour,
      backgroundColor: colour,
      borderWidth: 2,
      borderDash: dash,
      pointRadius: 0,
      yAxisID,
    });
    const warm = (i: number): number => {
      const c = this.drawn()[i]!.temperatureC;
      return imperial ? c * 1.8 + 32 : c;
    };
    return {
      datasets: [
        line(imperial ? 'temperature, °F' : 'temperature, °C', warm, WARM, 'warm', []),
        line('humidity, %', (i) => this.drawn()[i]!.humidity * 100, DAMP, 'damp', [6, 3]),
      ],
    };
  });

  protected readonly options = computed((): ChartConfiguration<'line'>['options'] => {
    const start = this.drawn()[0]!.at;
    const long = this.end() - start > 2 * DAY;
    const grid = { color: 'rgb(128 128 128 / 22%)' };
    const ticks = { color: INK, font: FONT };
    return {
      animation: false,
      maintainAspectRatio: false,
      interaction: { mode: 'index', intersect: false },
      plugins: {
        legend: { position: 'top', align: 'end', labels: { ...ticks, boxWidth: 22, boxHeight: 1 } },
        tooltip: { callbacks: { title: ([item]) => this.clock.dayTime(Number(item!.parsed.x)) } },
      },
      scales: {
        x: {
          type: 'linear',
          min: start,
          max: this.end(),
          grid,
          ticks: {
            ...ticks,
            stepSize: long ? DAY / 2 : 2 * HOUR,
            includeBounds: false,
            maxRotation: 0,
            callback: (at) => this.clock.dayTime(Number(at)),
          },
          afterBuildTicks: (axis) => {
            const step = long ? DAY / 2 : 2 * HOUR;
            const midnight = new Date(start).setHours(0, 0, 0, 0);
            axis.ticks = [];
            for (let at = midnight; at <= this.end(); at += step)
              if (at >= start) axis.ticks.push({ value: at });
          },
        },
        warm: {
          type: 'linear',
          position: 'left',
          grid,
          grace: '10%',
          ticks: { ...ticks, color: WARM, maxTicksLimit: 5 },
        },
        damp: {
          type: 'linear',
          position: 'right',
          min: 0,
          max: 100,
          grid: { display: false },
          ticks: { ...ticks, color: DAMP, stepSize: 25 },
        },
      },
    };
  });

  protected readonly text = computed(() => {
    const drawn = this.drawn();
    const least = (of: (i: number) => number, pick: (...all: number[]) => number): number =>
      pick(...drawn.map((_, i) => of(i)));
    const told = (c: number): string => celsius(celsiusToKelvin(c), this.units());
    const warm = (i: number): number => drawn[i]!.temperatureC;
    const damp = (i: number): number => drawn[i]!.humidity;
    return `The air over the days: ${told(least(warm, Math.min))} to ${told(least(warm, Math.max))}, ${Math.round(100 * least(damp, Math.min))} to ${Math.round(100 * least(damp, Math.max))} % humidity`;
  });
}
