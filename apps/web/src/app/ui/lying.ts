import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { type Facing } from '@zaffet/core/piece';

/** Where each face lies on the piece unfolded, as the room of the piece draws it: column, row, size [cells of 4 px]. */
const FACES: readonly {
  readonly face: Facing;
  readonly x: number;
  readonly y: number;
  readonly wide: boolean;
}[] = [
  { face: 'back', x: 1, y: 0, wide: true },
  { face: 'top', x: 1, y: 1, wide: true },
  { face: 'left', x: 0, y: 2, wide: false },
  { face: 'front', x: 1, y: 2, wide: true },
  { face: 'right', x: 3, y: 2, wide: false },
  { face: 'bottom', x: 1, y: 3, wide: true },
];
const CELL = 5;

/** The piece unfolded, very small: which of its faces lies up. Words beside it say the same. */
@Component({
  selector: 'zf-lying',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { 'aria-hidden': 'true' },
  template: `
    <svg width="21" height="21">
      @for (one of faces(); track one.face) {
        <rect
          [class.up]="one.up"
          [attr.x]="one.x"
          [attr.y]="one.y"
          [attr.width]="one.width"
          [attr.height]="one.height"
        />
      }
    </svg>
  `,
  styles: `
    :host {
      display: inline-block;
      flex: none;
      height: 21px;
    }
    rect {
      fill: none;
      stroke: var(--ink-2);
      stroke-width: 0.75px;
    }
    .up {
      fill: var(--kelp);
      stroke: var(--kelp);
    }
  `,
})
export class Lying {
  readonly up = input.required<Facing>();
  protected readonly faces = computed(() =>
    FACES.map(({ face, x, y, wide }) => ({
      face,
      up: face === this.up(),
      x: x * CELL + 0.5,
      y: y * CELL + 0.5,
      width: (wide ? 2 : 1) * CELL - 1,
      height: CELL - 1,
    })),
  );
}
