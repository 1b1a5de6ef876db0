import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { LIMITS } from '@zaffet/contract';
import { type PhotoReading, type Picture, type Quad, type Spot } from '@zaffet/core/photo';
import { figures, lengthText, perCent, PHOTO_TRUST_WORDS } from '@zaffet/words';
import { Units } from '../data/units';
import { NumberField } from './number-field';
import { type Photograph } from './open-photograph';
import { PhotographButton } from './photograph-button';
import { PhotoThread } from '../workers/photo-thread';

/** Corners begin so far in from those of the picture, and go by so much with a key, and with Shift [of its side]. */
const INSET = 0.12;
const STEP = { one: 0.001, ten: 0.01 } as const;
const CORNER_NAMES = ['Upper left', 'Upper right', 'Lower right', 'Lower left'] as const;

/** A rectangle in a photograph, and what it is. */
export interface Photographed {
  readonly name: string;
  readonly widthMm: number;
  readonly heightMm: number;
}
/** What was read and taken. */
export interface TakenReading {
  readonly spacingMm: number | null;
  readonly openingMm: number | null;
  /** Share that stands open. */
  readonly openArea: number | null;
}

/** Cracks measured from a photograph: four corners are put on the part, its size is told, and what can be read is told. */
@Component({
  selector: 'zf-photo-sheet',
  imports: [MatButtonModule, MatDialogModule, NumberField, PhotographButton],
  providers: [PhotoThread],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './photo-sheet.html',
  styleUrl: './photo-sheet.scss',
})
export class PhotoSheet {
  private readonly thread = inject(PhotoThread);
  private readonly sheet = inject<MatDialogRef<PhotoSheet, TakenReading>>(MatDialogRef);
  private readonly units = inject(Units).system;
  protected readonly of = inject<Photographed>(MAT_DIALOG_DATA);
  protected readonly limits = LIMITS;
  protected readonly names = CORNER_NAMES;
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly found = viewChild.required<ElementRef<HTMLCanvasElement>>('found');

  protected readonly size = signal({ width: this.of.widthMm, height: this.of.heightMm });
  /** The photograph as it is measured; null before one is chosen. */
  private readonly picture = signal<Picture | null>(null);
  protected readonly ready = computed(() => this.picture() !== null);
  /** Corners as shares of the picture's sides. */
  protected readonly corners = signal<readonly Spot[]>([]);
  protected readonly outline = computed(() =>
    this.corners()
      .map(({ x, y }) => `${100 * x},${100 * y}`)
      .join(' '),
  );
  protected readonly trouble = signal('');
  protected readonly measuring = signal(false);
  protected readonly read = signal<PhotoReading | null>(null);
  private held: number | null = null;

  protected readonly lines = computed((): readonly { name: string; text: string }[] => {
    const read = this.read();
    if (read === null) return [];
    const mm = (value: number): string => lengthText(value / 1000, this.units());
    const { trust } = read;
    return [
      {
        name: 'Cracks apart',
        text:
          read.spacingMm === null
            ? PHOTO_TRUST_WORDS[trust.spacing]
            : `about ${mm(read.spacingMm)}; another place of it within ${perCent(read.spacingWithin)}`,
      },
      {
        name: 'Cracks open',
        text: read.openingMm === null ? PHOTO_TRUST_WORDS[trust.opening] : `about ${mm(read.openingMm)}`,
      },
      {
        name: 'Open area',
        text: read.openArea === null ? PHOTO_TRUST_WORDS[trust.opening] : `about ${perCent(read.openArea)}`,
      },
      { name: 'In the picture', text: `${figures(read.pxPerMm)} pixels a millimetre` },
    ];
  });
  protected readonly takes = computed(() => {
    const read = this.read();
    return read !== null && (read.spacingMm !== null || read.openingMm !== null);
  });

  protected clear(): void {
    this.trouble.set('');
    this.read.set(null);
  }
  protected refuse(why: string): void {
    this.picture.set(null);
    this.trouble.set(why);
  }
  protected show({ picture }: Photograph): void {
    const canvas = this.canvas().nativeElement;
    canvas.width = picture.width;
    canvas.height = picture.height;
    canvas
      .getContext('2d')!
      .putImageData(new ImageData(new Uint8ClampedArray(picture.data), picture.width), 0, 0);
    this.picture.set(picture);
    const far = 1 - INSET;
    this.corners.set([
      { x: INSET, y: INSET },
      { x: far, y: INSET },
      { x: far, y: far },
      { x: INSET, y: far },
    ]);
  }

  protected resize(changes: Partial<{ width: number; height: number }>): void {
    this.size.update((before) => ({ ...before, ...changes }));
    this.read.set(null);
  }

  protected hold(index: number, event: PointerEvent): void {
    this.held = index;
    (event.target as HTMLElement).setPointerCapture(event.pointerId);
  }
  protected drag(event: PointerEvent): void {
    if (this.held === null) return;
    const box = this.canvas().nativeElement.getBoundingClientRect();
    this.put(this.held, {
      x: (event.clientX - box.left) / box.width,
      y: (event.clientY - box.top) / box.height,
    });
  }
  protected letGo(): void {
    this.held = null;
  }
  protected key(index: number, event: KeyboardEvent): void {
    const ways: Readonly<Record<string, readonly [number, number]>> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, -1],
      ArrowDown: [0, 1],
    };
    const way = ways[event.key];
    if (way === undefined) return;
    event.preventDefault();
    const by = event.shiftKey ? STEP.ten : STEP.one;
    const { x, y } = this.corners()[index]!;
    this.put(index, { x: x + by * way[0], y: y + by * way[1] });
  }
  private put(index: number, { x, y }: Spot): void {
    const inside = (value: number): number => Math.min(1, Math.max(0, value));
    this.corners.update((before) =>
      before.map((corner, i) => (i === index ? { x: inside(x), y: inside(y) } : corner)),
    );
    this.read.set(null);
  }

  protected async measure(): Promise<void> {
    const picture = this.picture();
    if (picture === null) return;
    this.measuring.set(true);
    this.trouble.set('');
    const { width, height } = picture;
    const corners = this.corners().map(({ x, y }) => ({ x: x * width, y: y * height })) as unknown as Quad;
    try {
      const { read, refused } = await this.thread.measure(picture, corners, this.size());
      this.read.set(read);
      if (refused !== null) this.trouble.set(refused);
      if (read !== null) this.draw(read);
    } catch {
      this.trouble.set('The photograph could not be measured. Choose it again, or another one.');
    }
    this.measuring.set(false);
  }

  /** What was taken for crack, square on. */
  private draw({ cracks: { columns, rows, mask } }: PhotoReading): void {
    const canvas = this.found().nativeElement;
    canvas.width = columns;
    canvas.height = rows;
    const context = canvas.getContext('2d')!;
    const image = context.createImageData(columns, rows);
    mask.forEach((crack, i) => image.data.set(crack === 1 ? [40, 44, 46, 255] : [236, 232, 220, 255], 4 * i));
    context.putImageData(image, 0, 0);
  }

  protected take(): void {
    const read = this.read();
    if (read !== null) {
      const { spacingMm, openingMm, openArea } = read;
      this.sheet.close({ spacingMm, openingMm, openArea });
    }
  }
}
