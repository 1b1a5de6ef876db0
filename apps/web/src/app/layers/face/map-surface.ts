import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { type FaceView } from '@zaffet/core/face';
import { type OnDesk, PaintDesk } from './paint-desk';
import { Hold } from '../../ui/hold';

/** An arrow key moves the brush by this share of the picture, with Shift by that. */
const NUDGE = 0.02;
const LEAP = 0.1;
/** Tints of more and of less than plain, and how strong they get. */
const MORE = [38, 84, 196] as const;
const LESS = [168, 67, 31] as const;
const STRONGEST = 135;

/** The panel as something to paint on: where a step does more or less, tinted over the picture, under a brush. */
@Component({
  selector: 'zf-map-surface',
  imports: [Hold],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <canvas #tint aria-hidden="true"></canvas>
    <svg aria-hidden="true">
      @for (touch of touches(); track $index) {
        <circle class="touch" [attr.cx]="touch.x + '%'" [attr.cy]="touch.y + '%'" r="7" />
      }
      @if (brush(); as at) {
        <circle
          class="brush"
          [class.down]="penDown()"
          [attr.cx]="at.u * 100 + '%'"
          [attr.cy]="at.v * 100 + '%'"
          [attr.r]="radiusPx()"
        />
      }
    </svg>
    <div
      class="hand"
      tabindex="0"
      role="application"
      aria-label="Painting surface. Arrow keys move the brush, with Shift further. Space paints here, Enter keeps the brush down while it moves."
      [attr.aria-description]="spoken()"
      (zfHold)="pressed($event)"
      (pulled)="drawn()"
      (released)="released()"
      (pointermove)="at($event)"
      (pointerleave)="left()"
      (keydown)="key($event)"
      (blur)="lift()"
    ></div>
    <p class="visually-hidden" aria-live="polite">{{ spoken() }}</p>
  `,
  styles: `
    :host {
      position: absolute;
      inset: 0;
    }
    canvas,
    svg,
    .hand {
      position: absolute;
      inset: 0;
      width: 100%;
      height: 100%;
    }
    canvas,
    svg {
      pointer-events: none;
    }
    .hand {
      cursor: none;
      touch-action: none;
    }
    .hand:focus-visible {
      outline: 3px solid var(--kelp);
      outline-offset: 2px;
    }
    circle {
      fill: none;
      stroke: #fff;
      stroke-width: 2;
      paint-order: stroke;
      filter: drop-shadow(0 0 1px #000) drop-shadow(0 0 1px #000);
    }
    .brush.down {
      stroke-dasharray: 4 3;
    }
    .touch {
      fill: rgb(255 255 255 / 35%);
    }
  `,
})
export class MapSurface {
  protected readonly desk = inject(PaintDesk);
  readonly view = input.required<FaceView>();
  /** The panel's size [mm]. */
  readonly panel = input.required<{ widthMm: number; heightMm: number }>();
  /** The picture's width [px]. */
  readonly widthPx = input.required<number>();
  private readonly tint = viewChild.required<ElementRef<HTMLCanvasElement>>('tint');

  /** The brush, as shares of the picture; null while no hand is near. */
  protected readonly brush = signal<{ u: number; v: number } | null>(null);
  /** Painting by keys, with the brush kept down. */
  protected readonly penDown = signal(false);
  private drawing = false;

  protected readonly radiusPx = computed(() => (this.desk.radiusMm() / this.view().widthMm) * this.widthPx());
  protected readonly touches = computed(() =>
    this.desk.touches().map(({ u, v }) => {
      const { widthMm, heightMm } = this.panel();
      const view = this.view();
      return {
        x: ((u * widthMm - view.leftMm) / view.widthMm) * 100,
        y: ((v * heightMm - view.topMm) / view.heightMm) * 100,
      };
    }),
  );
  protected readonly spoken = computed(() => {
    const at = this.brush();
    if (at === null) return '';
    const place = `${Math.round(at.u * 100)} % from the left, ${Math.round(at.v * 100)} % from above`;
    return this.penDown() ? `brush down, ${place}` : place;
  });

  constructor() {
    effect(() => {
      const onDesk = this.desk.onDesk();
      if (onDesk !== null) this.drawTint(onDesk);
    });
  }

  /** The map as a tint: nothing where it is plain. */
  private drawTint({ map, plain, max }: OnDesk): void {
    const { columns, rows, values } = map;
    const image = new ImageData(columns, rows);
    values.forEach((value, i) => {
      const more = value >= plain;
      const [r, g, b] = more ? MORE : LESS;
      const strength = more ? (value - plain) / (max - plain) : (plain - value) / plain;
      image.data.set([r, g, b, Math.round(STRONGEST * Math.min(1, strength))], i * 4);
    });
    const cells = new OffscreenCanvas(columns, rows);
    cells.getContext('2d')!.putImageData(image, 0, 0);
    const canvas = this.tint().nativeElement;
    const view = this.view();
    const { widthMm, heightMm } = this.panel();
    canvas.width = this.widthPx();
    canvas.height = Math.round((this.widthPx() * view.heightMm) / view.widthMm);
    canvas
      .getContext('2d')!
      .drawImage(
        cells,
        (view.leftMm / widthMm) * columns,
        (view.topMm / heightMm) * rows,
        (view.widthMm / widthMm) * columns,
        (view.heightMm / heightMm) * rows,
        0,
        0,
        canvas.width,
        canvas.height,
      );
  }

  protected pressed(event: PointerEvent): void {
    this.at(event);
    this.penDown.set(false);
    this.drawing = true;
    this.put((u, v) => this.desk.down(u, v));
  }

  protected drawn(): void {
    if (this.drawing) this.put((u, v) => this.desk.move(u, v));
  }

  protected released(): void {
    if (!this.drawing) return;
    this.drawing = false;
    this.desk.up();
  }

  protected left(): void {
    if (!this.drawing) this.brush.set(null);
  }

  /** Lets the brush up when the keys go elsewhere. */
  protected lift(): void {
    if (!this.penDown()) return;
    this.penDown.set(false);
    this.desk.up();
  }

  protected key(event: KeyboardEvent): void {
    const by = event.shiftKey ? LEAP : NUDGE;
    const at = this.brush() ?? { u: 0.5, v: 0.5 };
    const moves: Readonly<Record<string, readonly [number, number]>> = {
      ArrowLeft: [-by, 0],
      ArrowRight: [by, 0],
      ArrowUp: [0, -by],
      ArrowDown: [0, by],
    };
    const move = moves[event.key];
    if (move !== undefined) {
      const inside = (x: number): number => Math.min(1, Math.max(0, x));
      this.brush.set({ u: inside(at.u + move[0]), v: inside(at.v + move[1]) });
      if (this.penDown()) this.put((u, v) => this.desk.move(u, v));
    } else if (event.key === ' ') {
      this.brush.set(at);
      this.put((u, v) => this.desk.down(u, v));
      this.desk.up();
    } else if (event.key === 'Enter') {
      this.brush.set(at);
      if (this.penDown()) this.lift();
      else if (this.desk.tool() !== 'touch') {
        this.penDown.set(true);
        this.put((u, v) => this.desk.down(u, v));
      }
    } else return;
    event.preventDefault();
  }

  protected at(event: PointerEvent): void {
    const box = (event.target as HTMLElement).getBoundingClientRect();
    this.brush.set({
      u: (event.clientX - box.left) / box.width,
      v: (event.clientY - box.top) / box.height,
    });
  }

  /** Hands the brush's place on, as shares of the panel. */
  private put(act: (u: number, v: number) => void): void {
    const at = this.brush();
    if (at === null) return;
    const view = this.view();
    const { widthMm, heightMm } = this.panel();
    act((view.leftMm + at.u * view.widthMm) / widthMm, (view.topMm + at.v * view.heightMm) / heightMm);
  }
}
