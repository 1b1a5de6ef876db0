import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { fault, type NamedColour } from '@zaffet/contract';

/** A picture is looked at no larger than this [px]; colours do not hang on more. */
const LARGEST = 640;
/** Main colours told of a picture. */
const MAIN = 7;
/** Under the pointer a square this wide is averaged [px], as the eye does. */
const SPOT = 5;

const hex = (r: number, g: number, b: number): string =>
  `#${[r, g, b].map((part) => Math.round(part).toString(16).padStart(2, '0')).join('')}`;

/** Colours out of a picture, of a fabric or a print to match: its main ones, and any spot one points at. */
@Component({
  selector: 'zf-picture-sheet',
  imports: [MatButtonModule, MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Colours from a picture</h2>
    <mat-dialog-content>
      <p>
        <input
          #file
          class="visually-hidden"
          type="file"
          accept="image/*"
          tabindex="-1"
          aria-label="Picture to take colours from"
          (change)="open(file)"
        />
        <button mat-stroked-button (click)="file.click()">Choose a picture</button>
        <span class="quiet"> It stays on this machine; only colours are kept.</span>
      </p>
      @if (trouble()) {
        <p class="trouble" role="alert">{{ trouble() }}</p>
      }
      <div class="work" [hidden]="!ready()">
        <canvas
          #canvas
          tabindex="0"
          role="application"
          aria-label="The picture. Arrow keys move the spot, Enter takes its colour."
          (pointermove)="aim($event)"
          (click)="keep()"
          (keydown)="key($event)"
        ></canvas>
        <div class="side">
          <p class="spot" aria-live="polite"><i [style.background]="spot()"></i>{{ spot() }}</p>
          <h3>Main colours</h3>
          <ul>
            @for (colour of main(); track colour) {
              <li>
                <button type="button" [attr.aria-label]="'Take ' + colour" (click)="add(colour)">
                  <i [style.background]="colour"></i>
                </button>
              </li>
            }
          </ul>
          <h3>Taken</h3>
          <ul>
            @for (colour of taken(); track colour) {
              <li>
                <button type="button" [attr.aria-label]="'Leave out ' + colour" (click)="drop(colour)">
                  <i [style.background]="colour"></i>
                </button>
              </li>
            } @empty {
              <li class="quiet">Click in the picture, or on a main colour.</li>
            }
          </ul>
        </div>
      </div>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button [mat-dialog-close]="undefined">Cancel</button>
      <button mat-flat-button [disabled]="taken().length === 0" (click)="done()">Into the palette</button>
    </mat-dialog-actions>
  `,
  styles: `
    .work {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 210px;
      gap: 16px;
    }
    .work[hidden] {
      display: none;
    }
    canvas {
      max-width: 100%;
      background: var(--neutral-grey);
      cursor: crosshair;
    }
    .spot {
      display: flex;
      align-items: center;
      gap: 8px;
      margin: 0;
    }
    .spot i {
      width: 46px;
      height: 46px;
      border: 1px solid rgb(0 0 0 / 30%);
    }
    ul {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      margin: 4px 0 10px;
      padding: 0;
      list-style: none;
    }
    button i {
      display: block;
      width: 34px;
      height: 34px;
      border: 1px solid rgb(0 0 0 / 30%);
      border-radius: 3px;
    }
    li button {
      padding: 0;
      border: 0;
      background: none;
      cursor: pointer;
    }
    h3 {
      font-size: 13px;
    }
    .trouble {
      padding: 6px 10px;
      background: var(--rust-soft);
    }
  `,
})
export class PictureSheet {
  private readonly dialog = inject<MatDialogRef<PictureSheet, readonly NamedColour[]>>(MatDialogRef);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  protected readonly ready = signal(false);
  protected readonly trouble = signal('');
  protected readonly spot = signal('#8b8a87');
  protected readonly main = signal<readonly string[]>([]);
  protected readonly taken = signal<readonly string[]>([]);
  private at = { x: 0, y: 0 };

  protected async open(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (file === undefined) return;
    this.trouble.set('');
    try {
      const bitmap = await createImageBitmap(file);
      const scale = Math.min(1, LARGEST / Math.max(bitmap.width, bitmap.height));
      const canvas = this.canvas().nativeElement;
      canvas.width = Math.max(1, Math.round(bitmap.width * scale));
      canvas.height = Math.max(1, Math.round(bitmap.height * scale));
      canvas
        .getContext('2d', { willReadFrequently: true })!
        .drawImage(bitmap, 0, 0, canvas.width, canvas.height);
      this.ready.set(true);
      this.look(canvas.width / 2, canvas.height / 2);
      this.main.set(await this.mainColours(canvas));
    } catch {
      this.ready.set(false);
      this.trouble.set(fault('picture.unreadable').message);
    }
  }

  /** Main colours by Wu's quantizer, which keeps large areas apart by how they differ. */
  private async mainColours(canvas: HTMLCanvasElement): Promise<string[]> {
    const { buildPaletteSync, utils } = await import('image-q');
    const image = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
    const palette = buildPaletteSync([utils.PointContainer.fromImageData(image)], {
      colors: MAIN,
      paletteQuantization: 'wuquant',
    });
    return palette
      .getPointContainer()
      .getPointArray()
      .map(({ r, g, b }) => hex(r, g, b));
  }

  /** The colour round a spot of the picture [px]. */
  private look(x: number, y: number): void {
    const canvas = this.canvas().nativeElement;
    const inside = (value: number, size: number): number =>
      Math.min(Math.max(0, size - SPOT), Math.max(0, Math.round(value - SPOT / 2)));
    this.at = { x: Math.min(canvas.width, Math.max(0, x)), y: Math.min(canvas.height, Math.max(0, y)) };
    const { data } = canvas
      .getContext('2d', { willReadFrequently: true })!
      .getImageData(inside(x, canvas.width), inside(y, canvas.height), SPOT, SPOT);
    const mean = (channel: number): number => {
      let sum = 0;
      for (let i = channel; i < data.length; i += 4) sum += data[i]!;
      return (4 * sum) / data.length;
    };
    this.spot.set(hex(mean(0), mean(1), mean(2)));
  }

  protected aim(event: PointerEvent): void {
    const canvas = this.canvas().nativeElement;
    const box = canvas.getBoundingClientRect();
    const scale = canvas.width / box.width;
    this.look((event.clientX - box.left) * scale, (event.clientY - box.top) * scale);
  }

  protected key(event: KeyboardEvent): void {
    const by = event.shiftKey ? 40 : 8;
    const moves: Readonly<Record<string, readonly [number, number]>> = {
      ArrowLeft: [-by, 0],
      ArrowRight: [by, 0],
      ArrowUp: [0, -by],
      ArrowDown: [0, by],
    };
    const move = moves[event.key];
    if (move !== undefined) this.look(this.at.x + move[0], this.at.y + move[1]);
    else if (event.key === 'Enter') this.keep();
    else return;
    event.preventDefault();
  }

  protected keep(): void {
    this.add(this.spot());
  }

  protected add(colour: string): void {
    this.taken.update((taken) => (taken.includes(colour) ? taken : [...taken, colour]));
  }

  protected drop(colour: string): void {
    this.taken.update((taken) => taken.filter((other) => other !== colour));
  }

  protected done(): void {
    this.dialog.close(this.taken().map((colour, i) => ({ name: `From the picture ${i + 1}`, colour })));
  }
}
