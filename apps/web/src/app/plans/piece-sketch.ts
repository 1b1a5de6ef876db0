import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { type Part } from '@zaffet/contract';
import { unfold } from '@zaffet/core/piece';

/** Parts of a piece laid out flat, as a small drawing. */
@Component({
  selector: 'zf-piece-sketch',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.viewBox]="box()" aria-hidden="true">
      @for (part of placed(); track part.id) {
        <rect [attr.x]="part.x" [attr.y]="part.y" [attr.width]="part.width" [attr.height]="part.height" />
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
      height: 100%;
    }
    rect {
      fill: var(--kelp-soft);
      stroke: var(--kelp);
      stroke-width: 1.2px;
      vector-effect: non-scaling-stroke;
    }
  `,
})
export class PieceSketch {
  readonly parts = input.required<readonly Part[]>();
  private readonly sheet = computed(() =>
    unfold(
      this.parts().map(({ id, facing, widthMm, heightMm }) => ({
        id,
        facing,
        width: widthMm,
        height: heightMm,
      })),
      30,
    ),
  );
  protected readonly placed = computed(() => this.sheet().placed);
  protected readonly box = computed(() => `-10 -10 ${this.sheet().width + 20} ${this.sheet().height + 20}`);
}
