import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { fault } from '@zaffet/contract';
import { openPhotograph, type Photograph, PhotographRefused } from './open-photograph';

/** Takes a photograph with the device's camera, or a file: turned the right way up, or refused with what to do. */
@Component({
  selector: 'zf-photograph-button',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <input
      #file
      class="visually-hidden"
      type="file"
      accept="image/*"
      capture="environment"
      tabindex="-1"
      [attr.aria-label]="label()"
      (change)="open(file)"
    />
    <button mat-flat-button [disabled]="disabled()" (click)="file.click()">
      Take or choose a photograph
    </button>
  `,
})
export class PhotographButton {
  /** What the photograph is of. */
  readonly label = input.required<string>();
  readonly disabled = input(false);
  readonly begun = output();
  readonly opened = output<Photograph>();
  readonly refused = output<string>();

  protected async open(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (file === undefined) return;
    this.begun.emit();
    try {
      this.opened.emit(await openPhotograph(file));
    } catch (error) {
      const known = error instanceof PhotographRefused;
      this.refused.emit(known ? error.message : fault('picture.unreadable').message);
    }
  }
}
