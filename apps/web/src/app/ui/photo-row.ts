import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { fault, PHOTO_TIMES, type PhotoTime } from '@zaffet/contract';
import { PHOTO_TIME_WORDS } from '@zaffet/words';
import { PhotoBox } from '../data/photo-box';
import { checkPhotograph, PhotographRefused } from './open-photograph';

/** A photograph that was taken, as a row shows it. */
export interface RowPhoto {
  readonly id: string;
  readonly hash: string;
  readonly text: string;
}

/** Photographs of something, small, and a button that takes another: wet, dry, or as it is then. */
@Component({
  selector: 'zf-photo-row',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (photos().length > 0) {
      <ul>
        @for (photo of photos(); track photo.id) {
          <li>
            <a [href]="box.address(photo.hash)" target="_blank" rel="noopener">
              <img [src]="box.address(photo.hash)" [alt]="photo.text" loading="lazy" />
            </a>
            <span>{{ photo.text }}</span>
            <button
              [attr.aria-label]="'Take back the photograph: ' + photo.text"
              (click)="gone.emit(photo.id)"
            >
              Take back
            </button>
          </li>
        }
      </ul>
    }
    <div class="take" role="group" [attr.aria-label]="'Photograph ' + of()">
      @for (time of times; track time.when) {
        <button [disabled]="busy()" (click)="when = time.when; file.click()">{{ time.name }} …</button>
      }
    </div>
    <input
      #file
      class="visually-hidden"
      type="file"
      accept="image/*"
      tabindex="-1"
      [attr.aria-label]="'Photograph of ' + of()"
      (change)="keep(file)"
    />
    @if (trouble(); as text) {
      <p role="alert">{{ text }}</p>
    }
    @if (box.state().unsent > 0) {
      <p>
        {{ box.state().unsent === 1 ? 'One photograph waits' : box.state().unsent + ' photographs wait' }}
        {{ box.state().kept ? 'on this device' : 'in this page alone: do not close it' }}
        until the workshop has {{ box.state().unsent === 1 ? 'it' : 'them' }}.
      </p>
    }
  `,
  styleUrl: './photo-row.scss',
})
export class PhotoRow {
  protected readonly box = inject(PhotoBox);
  /** What is photographed. */
  readonly of = input.required<string>();
  readonly photos = input.required<readonly RowPhoto[]>();
  readonly taken = output<{ readonly when: PhotoTime; readonly hash: string }>();
  readonly gone = output<string>();
  protected readonly times = PHOTO_TIMES.map((when) => ({ when, name: PHOTO_TIME_WORDS[when] }));
  protected when: PhotoTime = 'dry';
  protected readonly busy = signal(false);
  protected readonly trouble = signal<string | null>(null);

  protected async keep(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (file === undefined) return;
    this.busy.set(true);
    this.trouble.set(null);
    try {
      await checkPhotograph(file);
      this.taken.emit({ when: this.when, hash: await this.box.keep(file) });
    } catch (error) {
      const known = error instanceof PhotographRefused;
      this.trouble.set(known ? error.message : fault('picture.unreadable').message);
    }
    this.busy.set(false);
  }
}
