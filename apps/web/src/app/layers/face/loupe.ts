import {
  ChangeDetectionStrategy,
  Component,
  effect,
  type ElementRef,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { type FaceAnswer } from '../../workers/messages';

/** Across [px], and how much larger than the picture. */
const ACROSS = 190;
const TIMES = 3;
const NUDGE = 0.02;

/** A round glass over the picture that follows the pointer, or the arrow keys. */
@Component({
  selector: 'zf-loupe',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div
      class="hand"
      tabindex="0"
      role="application"
      aria-label="Loupe. Arrow keys move it over the picture."
      (pointermove)="moved($event)"
      (keydown)="key($event)"
    ></div>
    <canvas
      #glass
      [width]="across"
      [height]="across"
      aria-hidden="true"
      [style.left.%]="at().u * 100"
      [style.top.%]="at().v * 100"
    ></canvas>
  `,
  styles: `
    :host,
    .hand {
      position: absolute;
      inset: 0;
    }
    .hand {
      cursor: none;
    }
    .hand:focus-visible {
      outline: 3px solid var(--kelp);
    }
    canvas {
      position: absolute;
      border: 3px solid #f1f0ed;
      border-radius: 50%;
      box-shadow: 0 3px 14px rgb(0 0 0 / 55%);
      pointer-events: none;
      transform: translate(-50%, -50%);
    }
  `,
})
export class Loupe {
  readonly answer = input.required<FaceAnswer | null>();
  /** The picture's size on the page [px]. */
  readonly size = input.required<{ width: number; height: number }>();
  private readonly glass = viewChild.required<ElementRef<HTMLCanvasElement>>('glass');
  protected readonly across = ACROSS;
  protected readonly at = signal({ u: 0.5, v: 0.5 });

  constructor() {
    effect(() => {
      const answer = this.answer();
      if (answer?.outcome !== 'done') return;
      const { columns, rows } = answer;
      const picture = new OffscreenCanvas(columns, rows);
      picture.getContext('2d')!.putImageData(new ImageData(answer.rgba, columns, rows), 0, 0);
      const { u, v } = this.at();
      const width = (ACROSS / TIMES / this.size().width) * columns;
      const height = (ACROSS / TIMES / this.size().height) * rows;
      const glass = this.glass().nativeElement.getContext('2d')!;
      glass.imageSmoothingQuality = 'high';
      glass.clearRect(0, 0, ACROSS, ACROSS);
      glass.drawImage(
        picture,
        u * columns - width / 2,
        v * rows - height / 2,
        width,
        height,
        0,
        0,
        ACROSS,
        ACROSS,
      );
    });
  }

  protected moved(event: PointerEvent): void {
    const box = (event.target as HTMLElement).getBoundingClientRect();
    this.at.set({ u: (event.clientX - box.left) / box.width, v: (event.clientY - box.top) / box.height });
  }

  protected key(event: KeyboardEvent): void {
    const moves: Readonly<Record<string, readonly [number, number]>> = {
      ArrowLeft: [-NUDGE, 0],
      ArrowRight: [NUDGE, 0],
      ArrowUp: [0, -NUDGE],
      ArrowDown: [0, NUDGE],
    };
    const move = moves[event.key];
    if (move === undefined) return;
    const inside = (x: number): number => Math.min(1, Math.max(0, x));
    this.at.update(({ u, v }) => ({ u: inside(u + move[0]), v: inside(v + move[1]) }));
    event.preventDefault();
  }
}
