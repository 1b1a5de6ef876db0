import {
  ChangeDetectionStrategy,
  Component,
  effect,
  type ElementRef,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { type CellReading } from '@zaffet/core/board';
import { type Correction, type Spot } from '@zaffet/core/photo';

/** What the pointer does on a cell. */
export type CellTool = 'look' | Correction['kind'];

/** How far a key goes, and with Shift [mm]. */
const STEP = { one: 0.5, ten: 5 } as const;
/** Colours the borders of cracks are drawn in, and a stroke that is being made. */
const BORDER = [226, 60, 38] as const;
const STROKES: Readonly<Record<Correction['kind'], string>> = { erase: '#3f8f86', draw: '#e23c26' };

/**
 * A cell square on, with the borders of what was taken for crack. Strokes on it put that right: by the pointer, or by keys
 * that move a cross, with Enter where a stroke begins and where it ends.
 */
@Component({
  selector: 'zf-cell-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <canvas
      #canvas
      role="img"
      [class.works]="tool() !== 'look'"
      [attr.tabindex]="tool() === 'look' ? null : 0"
      [attr.aria-label]="
        label() + (tool() === 'look' ? '' : ': arrow keys move the cross, Enter begins and ends a stroke')
      "
      (pointerdown)="begin($event)"
      (pointermove)="go($event)"
      (pointerup)="end()"
      (pointercancel)="stroke.set([])"
      (keydown)="key($event)"
    ></canvas>
  `,
  styles: `
    canvas {
      display: block;
      width: 100%;
      background: var(--neutral-grey);
    }
    .works {
      cursor: crosshair;
      touch-action: none;
    }
  `,
})
export class CellView {
  readonly cell = input.required<CellReading>();
  readonly label = input.required<string>();
  /** Whether cracks are outlined. */
  readonly outlined = input(true);
  readonly tool = input<CellTool>('look');
  readonly widthMm = input(1);
  readonly stroked = output<Correction>();
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  /** Of the stroke that is being made, and where the cross is [mm]. */
  protected readonly stroke = signal<readonly Spot[]>([]);
  private readonly cross = signal<Spot | null>(null);
  private picture: ImageData | null = null;

  constructor() {
    effect(() => {
      this.picture = this.outlined() ? withBorders(this.cell()) : plain(this.cell());
      this.draw(this.stroke(), this.cross());
    });
  }

  private draw(stroke: readonly Spot[], cross: Spot | null): void {
    const picture = this.picture!;
    const canvas = this.canvas().nativeElement;
    canvas.width = picture.width;
    canvas.height = picture.height;
    const context = canvas.getContext('2d')!;
    context.putImageData(picture, 0, 0);
    const px = this.cell().pxPerMm;
    const tool = this.tool();
    if (stroke.length > 0 && tool !== 'look') {
      context.strokeStyle = STROKES[tool];
      context.globalAlpha = 0.6;
      context.lineWidth = Math.max(2, this.widthMm() * px);
      context.lineCap = context.lineJoin = 'round';
      context.beginPath();
      for (const { x, y } of [...stroke, stroke.at(-1)!]) context.lineTo(x * px, y * px);
      context.stroke();
      context.globalAlpha = 1;
    }
    if (cross === null || tool === 'look') return;
    context.strokeStyle = '#1c1e20';
    context.lineWidth = 2;
    context.beginPath();
    for (const [dx, dy] of [
      [12, 0],
      [0, 12],
    ] as const) {
      context.moveTo(cross.x * px - dx, cross.y * px - dy);
      context.lineTo(cross.x * px + dx, cross.y * px + dy);
    }
    context.stroke();
  }

  /** Where the pointer is on the cell [mm]. */
  private at(event: PointerEvent): Spot {
    const box = this.canvas().nativeElement.getBoundingClientRect();
    const by = this.picture!.width / box.width / this.cell().pxPerMm;
    return { x: (event.clientX - box.left) * by, y: (event.clientY - box.top) * by };
  }
  protected begin(event: PointerEvent): void {
    if (this.tool() === 'look') return;
    (event.target as HTMLElement).setPointerCapture(event.pointerId);
    this.cross.set(null);
    this.stroke.set([this.at(event)]);
  }
  protected go(event: PointerEvent): void {
    if (this.stroke().length > 0 && this.cross() === null)
      this.stroke.update((before) => [...before, this.at(event)]);
  }
  protected end(): void {
    const [points, kind] = [this.stroke(), this.tool()];
    this.stroke.set([]);
    if (points.length > 0 && kind !== 'look') this.stroked.emit({ kind, widthMm: this.widthMm(), points });
  }

  protected key(event: KeyboardEvent): void {
    if (this.tool() === 'look') return;
    const size = this.picture!.width / this.cell().pxPerMm;
    const here = this.cross() ?? { x: size / 2, y: size / 2 };
    const by = event.shiftKey ? STEP.ten : STEP.one;
    const ways: Readonly<Record<string, Spot>> = {
      ArrowLeft: { x: -by, y: 0 },
      ArrowRight: { x: by, y: 0 },
      ArrowUp: { x: 0, y: -by },
      ArrowDown: { x: 0, y: by },
    };
    const way = ways[event.key];
    if (way === undefined && event.key !== 'Enter') return;
    event.preventDefault();
    if (way === undefined) {
      if (this.stroke().length > 0) this.end();
      else this.stroke.set([here]);
      this.cross.set(here);
      return;
    }
    const inside = (value: number): number => Math.min(size, Math.max(0, value));
    const next = { x: inside(here.x + way.x), y: inside(here.y + way.y) };
    this.cross.set(next);
    if (this.stroke().length > 0) this.stroke.update((before) => [...before, next]);
  }
}

const plain = ({ seen }: CellReading): ImageData =>
  new ImageData(new Uint8ClampedArray(seen.data), seen.width);

/** The cell with a line round what was taken for crack. */
function withBorders(cell: CellReading): ImageData {
  const { columns, rows, mask } = cell.cracks;
  const image = plain(cell);
  for (let y = 1; y < rows - 1; y++)
    for (let i = y * columns + 1, end = y * columns + columns - 1; i < end; i++) {
      const border =
        mask[i] === 1 &&
        (mask[i - 1] === 0 || mask[i + 1] === 0 || mask[i - columns] === 0 || mask[i + columns] === 0);
      if (border) image.data.set(BORDER, 4 * i);
    }
  return image;
}
