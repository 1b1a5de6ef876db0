import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { isMapped, type Part, type PartZone, type PlanStep, type StepMap } from '@zaffet/contract';
import { lengthShown, placedWords, RESIST_NAMES } from '@zaffet/words';
import { Units } from '../data/units';

/** The longer side of the drawing; an edge is so wide, a corner so long. */
const LONG = 300;
const EDGE = 0.07;
const CORNER = 0.2;

interface Shape {
  readonly zone: PartZone;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly worked: boolean;
}

/** The cells of a map that have more than half of its most, as a path; rows one above the other. */
function cellsOf({ columns, rows, percent }: StepMap, width: number, height: number): string {
  const [wide, high] = [width / columns, height / rows];
  const least = Math.max(1, ...percent) / 2;
  const runs: string[] = [];
  for (let row = 0; row < rows; row++)
    for (let from = 0; from < columns; from++) {
      let to = from;
      while (to < columns && percent[row * columns + to]! > least) to += 1;
      if (to > from) {
        const across = (to - from) * wide;
        runs.push(`M${from * wide} ${row * high}h${across}v${high}h${-across}z`);
      }
      from = to;
    }
  return runs.join('');
}

/** A part to scale, with the places a step goes to filled in, and hatched what lies hidden below. */
@Component({
  selector: 'zf-place-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.viewBox]="box()" role="img" [attr.aria-label]="label()">
      <defs>
        <pattern id="hidden" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0h3v9h-3z" fill="var(--ink)" />
        </pattern>
      </defs>
      @if (part().oval) {
        <ellipse
          [attr.cx]="size().width / 2"
          [attr.cy]="size().height / 2"
          [attr.rx]="size().width / 2"
          [attr.ry]="size().height / 2"
          [attr.fill]="field()"
          class="outline"
        />
      } @else {
        <rect
          [attr.width]="size().width"
          [attr.height]="size().height"
          [attr.fill]="field()"
          class="outline"
        />
      }
      @for (band of bands(); track $index) {
        <rect
          [attr.x]="band.x"
          [attr.y]="band.y"
          [attr.width]="band.width"
          [attr.height]="band.height"
          [attr.fill]="rim()"
        />
      }
      @for (shape of shapes(); track shape.zone.id) {
        @if (shape.zone.oval) {
          <ellipse
            [attr.cx]="shape.x + shape.width / 2"
            [attr.cy]="shape.y + shape.height / 2"
            [attr.rx]="shape.width / 2"
            [attr.ry]="shape.height / 2"
            [attr.fill]="shape.worked ? paint() : bare"
            class="outline"
          />
        } @else {
          <rect
            [attr.x]="shape.x"
            [attr.y]="shape.y"
            [attr.width]="shape.width"
            [attr.height]="shape.height"
            [attr.fill]="shape.worked ? paint() : bare"
            class="outline"
          />
        }
      }
      @for (map of maps(); track map.id) {
        <path [attr.d]="map.path" [attr.fill]="map.hidden ? 'url(#hidden)' : paint()" />
      }
    </svg>
    <p>{{ text() }}</p>
    @for (line of under(); track line) {
      <p class="under">{{ line }}</p>
    }
  `,
  styles: `
    :host {
      display: block;
      width: 100%;
      max-width: 300px;
    }
    svg {
      display: block;
      width: 100%;
      max-height: 220px;
      overflow: visible;
    }
    .outline {
      stroke: var(--ink);
      stroke-width: 2;
    }
    p {
      margin: 8px 0 0;
      color: var(--ink-2);
      font-size: 20px;
    }
  `,
})
export class PlaceDrawing {
  private readonly units = inject(Units).system;
  readonly part = input.required<Part>();
  readonly step = input<PlanStep | null>(null);

  /** Resists that lie under what is worked on. */
  readonly hidden = input<readonly PlanStep[]>([]);

  protected readonly bare = 'var(--paper-2)';
  protected readonly size = computed(() => {
    const { widthMm, heightMm } = this.part();
    const scale = LONG / Math.max(widthMm, heightMm);
    return { width: widthMm * scale, height: heightMm * scale, scale };
  });
  protected readonly box = computed(() => `-2 -2 ${this.size().width + 4} ${this.size().height + 4}`);
  protected readonly paint = computed(() => {
    const step = this.step();
    return step !== null && 'colour' in step ? step.colour : 'var(--kelp)';
  });
  private readonly placed = computed(() => {
    const step = this.step();
    return step !== null && isMapped(step) ? step : null;
  });
  private readonly everywhere = computed(() => {
    const placed = this.placed();
    if (placed === null || this.part().maps[placed.id] !== undefined) return false;
    return placed.only === null && (placed.where === 'all' || placed.where === 'field');
  });
  protected readonly field = computed(() => (this.everywhere() ? this.paint() : this.bare));

  protected readonly rim = computed(() => (this.placed()?.where === 'field' ? this.bare : this.paint()));

  /** Edges or corners where only they are worked; the rim that is left where only the field is. */
  protected readonly bands = computed(() => {
    const placed = this.placed();
    const { width, height } = this.size();
    if (placed?.only !== null || this.part().oval) return [];
    const edge = EDGE * Math.min(width, height);
    const all = [
      { x: 0, y: 0, width, height: edge },
      { x: 0, y: height - edge, width, height: edge },
      { x: 0, y: 0, width: edge, height },
      { x: width - edge, y: 0, width: edge, height },
    ];
    if (placed.where === 'edges' || placed.where === 'field') return all;
    if (placed.where !== 'corners') return [];
    const corner = CORNER * Math.min(width, height);
    return [0, 1].flatMap((right) =>
      [0, 1].map((low) => ({
        x: right * (width - corner),
        y: low * (height - corner),
        width: corner,
        height: corner,
      })),
    );
  });

  protected readonly shapes = computed((): Shape[] => {
    const { scale } = this.size();
    const placed = this.placed();
    return this.part().zones.map((zone) => ({
      zone,
      x: zone.leftMm * scale,
      y: zone.topMm * scale,
      width: zone.widthMm * scale,
      height: zone.heightMm * scale,
      worked:
        placed !== null &&
        !placed.except.includes(zone.name) &&
        (placed.only === zone.name || (placed.only === null && placed.where === 'all')),
    }));
  });

  /** Where it is done more than half as much as it is anywhere, and where a resist lies below, by their maps. */
  protected readonly maps = computed(() => {
    const { maps } = this.part();
    const { width, height } = this.size();
    const own = this.step();
    return [
      ...(own === null ? [] : [{ step: own, hidden: false }]),
      ...this.hidden().map((step) => ({ step, hidden: true })),
    ].flatMap(({ step, hidden }) => {
      const map = maps[step.id];
      return map === undefined
        ? []
        : [
            {
              id: step.id,
              hidden,
              path: cellsOf(map, width, height),
            },
          ];
    });
  });
  protected readonly under = computed(() =>
    this.hidden().map(
      (step) =>
        `Under it: ${step.kind === 'resist' ? RESIST_NAMES[step.agent].toLowerCase() : ''}, ${
          this.part().maps[step.id] === undefined
            ? (placedWords(step)[0] ?? 'here and there')
            : 'where it is hatched'
        }`,
    ),
  );
  protected readonly text = computed(() => {
    const { widthMm, heightMm } = this.part();
    const [width, height] = [
      lengthShown(widthMm / 1000, this.units()),
      lengthShown(heightMm / 1000, this.units()),
    ];
    const step = this.step();
    const where = step === null ? [] : placedWords(step);
    return [`${width.number} × ${height.number} ${height.unit}`, ...where].join(', ');
  });
  protected readonly label = computed(() => `${this.part().name}: ${this.text()}`);
}
