import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { type Compared, type Reading } from '@zaffet/core/calibrate';
import { READING_NAMES, readingText } from '@zaffet/words';
import {
  Chart,
  type ChartConfiguration,
  type ChartData,
  Legend,
  LineController,
  LineElement,
  LogarithmicScale,
  PointElement,
  ScatterController,
  Tooltip,
} from 'chart.js';
import { BaseChartDirective } from 'ng2-charts';
import { Units } from '../data/units';

Chart.register(
  Legend,
  LineController,
  LineElement,
  LogarithmicScale,
  PointElement,
  ScatterController,
  Tooltip,
);
/** A canvas knows no theme: its colours are chosen for the light or the dark one when it is made. */
const DARK = matchMedia('(prefers-color-scheme: dark)');
const BEFORE = DARK.matches ? '#8d8c86' : '#9a9489';
const AFTER = DARK.matches ? '#6fb39c' : '#22625a';
const INK = DARK.matches ? '#b6b5af' : '#54585c';
const FONT = { family: "'Instrument Sans Variable', sans-serif", size: 11 };

type Points = ChartData<'scatter', { x: number; y: number }[]>;

/** What was foretold against what was read, on the tables and with what was learned, each with its band. */
@Component({
  selector: 'zf-told-chart',
  imports: [BaseChartDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <canvas
      baseChart
      type="scatter"
      role="img"
      [data]="points()"
      [options]="options()"
      [attr.aria-label]="text()"
    ></canvas>
  `,
  styles: `
    :host {
      position: relative;
      display: block;
      height: 250px;
    }
  `,
})
export class ToldChart {
  private readonly units = inject(Units).system;
  readonly reading = input.required<Reading>();
  readonly compared = input.required<readonly Compared[]>();

  private readonly rows = computed(() =>
    this.compared().filter(({ reading, before, after }) => {
      return reading === this.reading() && before.value !== null && after.value !== null;
    }),
  );
  protected readonly points = computed((): Points => {
    const rows = this.rows();
    const band = (of: 'before' | 'after', colour: string): Points['datasets'] =>
      rows.map((row) => ({
        data: [
          { x: row.read, y: row[of].low! },
          { x: row.read, y: row[of].high! },
        ],
        showLine: true,
        borderColor: colour,
        borderWidth: of === 'before' ? 1 : 2,
        pointRadius: 0,
      }));
    const dots = (of: 'before' | 'after', label: string, colour: string): Points['datasets'][number] => ({
      label,
      data: rows.map((row) => ({ x: row.read, y: row[of].value! })),
      backgroundColor: colour,
      borderColor: colour,
      pointRadius: 4,
      pointStyle: of === 'before' ? 'triangle' : 'circle',
    });
    const reads = rows.map(({ read }) => read);
    const line = {
      label: 'as read',
      data: reads.length === 0 ? [] : [Math.min(...reads), Math.max(...reads)].map((x) => ({ x, y: x })),
      showLine: true,
      borderColor: INK,
      borderDash: [4, 4],
      borderWidth: 1,
      pointRadius: 0,
    };
    return {
      datasets: [
        dots('before', 'by the tables', BEFORE),
        dots('after', 'with what was learned', AFTER),
        line,
        ...band('before', BEFORE),
        ...band('after', AFTER),
      ],
    };
  });
  protected readonly options = computed((): ChartConfiguration<'scatter'>['options'] => {
    const tick = (value: number | string): string => readingText(this.reading(), Number(value), this.units());
    const axis = (title: string): object => ({
      type: 'logarithmic',
      title: { display: true, text: title, color: INK, font: FONT },
      ticks: { color: INK, font: FONT, maxTicksLimit: 6, autoSkipPadding: 14, callback: tick },
      grid: { color: 'rgb(128 128 128 / 15%)' },
    });
    return {
      animation: false,
      maintainAspectRatio: false,
      scales: { x: axis('read'), y: axis('foretold') },
      plugins: {
        legend: {
          labels: {
            color: INK,
            font: FONT,
            usePointStyle: true,
            filter: ({ text }) => text !== undefined,
          },
        },
        tooltip: { enabled: false },
      },
    } as ChartConfiguration<'scatter'>['options'];
  });
  protected readonly text = computed(
    () =>
      `${READING_NAMES[this.reading()]}: ${this.rows()
        .map(({ read, after }) => {
          const as = (value: number): string => readingText(this.reading(), value, this.units());
          return `read ${as(read)}, foretold ${as(after.value!)}`;
        })
        .join('; ')}`,
  );
}
