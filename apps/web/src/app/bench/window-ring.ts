import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { type Band } from '@zaffet/workshop';
import { arc } from 'd3-shape';

const SIZE = 300;
const OUTER = 146;
const INNER = 112;
/** Where nothing closes, the ring goes on so much longer than it took to open. */
const AFTER = 0.35;

interface Stretch {
  readonly kind: 'shut' | 'opening' | 'open' | 'closing' | 'over';
  readonly path: string;
}

/** A window as a ring that opens and closes: one turn from when the coat was laid until it is sure to be over. */
@Component({
  selector: 'zf-window-ring',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.viewBox]="box" aria-hidden="true">
      <g [attr.transform]="middle">
        @for (stretch of stretches(); track stretch.kind) {
          <path [attr.d]="stretch.path" [class]="stretch.kind" />
        }
        <line
          class="hand"
          [attr.transform]="hand()"
          x1="0"
          x2="0"
          [attr.y1]="-inner + 8"
          [attr.y2]="-outer - 3"
        />
      </g>
    </svg>
    <div class="text"><ng-content /></div>
  `,
  styles: `
    :host {
      position: relative;
      display: block;
      align-self: start;
      width: 100%;
      max-width: 320px;
    }
    svg {
      display: block;
      width: 100%;
      overflow: visible;
    }
    path {
      stroke: var(--paper);
      stroke-width: 2;
    }
    .shut {
      fill: var(--line);
    }
    .opening {
      fill: color-mix(in srgb, var(--kelp) 45%, var(--line));
    }
    .open {
      fill: var(--kelp);
    }
    .closing {
      fill: color-mix(in srgb, var(--rust) 60%, var(--kelp));
    }
    .over {
      fill: var(--rust);
    }
    .hand {
      stroke: var(--ink);
      stroke-width: 6;
      stroke-linecap: round;
    }
    .text {
      position: absolute;
      inset: 24%;
      display: grid;
      align-content: center;
      justify-items: center;
      text-align: center;
    }
  `,
})
export class WindowRing {
  /** Since when it lies [ms since 1970]. */
  readonly from = input.required<number>();
  readonly opens = input.required<Band | null>();
  readonly closes = input.required<Band | null>();
  readonly now = input.required<number>();

  protected readonly box = `0 0 ${SIZE} ${SIZE}`;
  protected readonly middle = `translate(${SIZE / 2} ${SIZE / 2})`;
  protected readonly inner = INNER;
  protected readonly outer = OUTER;

  private readonly until = computed(() => {
    const closes = this.closes();
    const opens = this.opens()?.high ?? this.from();
    const over =
      closes === null
        ? opens + AFTER * (opens - this.from())
        : closes.high + 0.1 * (closes.high - this.from());
    return Math.max(over, this.from() + 1000);
  });
  private readonly turn = (at: number): number => {
    const share = (at - this.from()) / (this.until() - this.from());
    return 2 * Math.PI * Math.min(1, Math.max(0, share));
  };

  protected readonly stretches = computed((): Stretch[] => {
    const [opens, closes, from, until] = [this.opens(), this.closes(), this.from(), this.until()];
    const edges: readonly (readonly [Stretch['kind'], number, number])[] = [
      ['shut', from, opens?.low ?? from],
      ['opening', opens?.low ?? from, opens?.high ?? from],
      ['open', opens?.high ?? from, closes?.low ?? until],
      ['closing', closes?.low ?? until, closes?.high ?? until],
      ['over', closes?.high ?? until, until],
    ];
    const draw = arc<readonly [number, number]>()
      .innerRadius(INNER)
      .outerRadius(OUTER)
      .startAngle(([begin]) => begin)
      .endAngle(([, end]) => end);
    return edges.flatMap(([kind, begin, end]) => {
      const span = [this.turn(begin), this.turn(end)] as const;
      return span[1] - span[0] < 1e-3 ? [] : [{ kind, path: draw(span) ?? '' }];
    });
  });
  protected readonly hand = computed(() => `rotate(${(this.turn(this.now()) * 180) / Math.PI})`);
}
