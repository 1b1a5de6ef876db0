import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { scaleLog, scaleLinear } from 'd3-scale';

/** A predicted value in its band, with the wanted value where there is one. All in the same unit. */
@Component({
  selector: 'zf-band',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 240 18" preserveAspectRatio="none" aria-hidden="true">
      <rect class="track" x="0" y="6" width="240" height="9" rx="2" />
      @if (marks(); as m) {
        <rect class="band" [attr.x]="m.low" y="6" [attr.width]="m.high - m.low" height="9" rx="2" />
        <rect class="value" [attr.x]="m.value - 1.5" y="4" width="3" height="13" />
        @if (m.wanted !== null) {
          <path class="wanted" [attr.d]="'M' + (m.wanted - 5) + ' 0h10l-5 6z'" />
        }
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
    }
    svg {
      display: block;
      width: 100%;
      height: 18px;
      overflow: visible;
    }
    .track {
      fill: var(--paper-2);
    }
    .band {
      fill: color-mix(in srgb, var(--kelp) 28%, var(--paper-2));
    }
    .value {
      fill: var(--kelp);
    }
    .wanted {
      fill: var(--rust);
    }
  `,
})
export class Band {
  readonly value = input.required<number | null>();
  readonly low = input.required<number | null>();
  readonly high = input.required<number | null>();
  readonly wanted = input<number | null>(null);
  /** Fixed range of the bar, so that it does not rescale under the hand. */
  readonly from = input.required<number>();
  readonly to = input.required<number>();
  readonly scale = input<'log' | 'linear'>('log');

  protected readonly marks = computed(() => {
    const value = this.value();
    const low = this.low();
    const high = this.high();
    if (value === null || low === null || high === null) return null;
    const base = this.scale() === 'log' ? scaleLog() : scaleLinear();
    const x = base.domain([this.from(), this.to()]).range([0, 240]).clamp(true);
    const at = (v: number): number => x(Math.max(v, this.scale() === 'log' ? this.from() : 0));
    const wanted = this.wanted();
    return { value: at(value), low: at(low), high: at(high), wanted: wanted === null ? null : at(wanted) };
  });
}
