import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  afterNextRender,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { DEVICE_NAME_LENGTH, PHRASE_LENGTH, plainText } from '@zaffet/contract';
import { Door } from '../data/door';
import { DoorApi } from '../data/door.api';
import { faultOf } from '../data/plans.api';

/** What such a device is usually called. */
const likelyName = (): string =>
  matchMedia('(pointer: coarse)').matches ? (innerWidth < 600 ? 'Phone' : 'Tablet') : 'Computer';

/** The door, seen from outside: over whatever is open, since that goes on where it was once the device is in. */
@Component({
  selector: 'zf-sign-in',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form (submit)="$event.preventDefault(); enter()" aria-labelledby="door-title">
      <p class="home">Zaffet</p>
      <h1 id="door-title">
        {{ byKey() ? 'You are invited into this workshop' : 'Sign in to this workshop' }}
      </h1>
      <label>
        Name of this device
        <input #name autocomplete="off" [value]="likely" [attr.maxlength]="nameLength" required />
      </label>
      @if (!byKey()) {
        <label>
          Pass phrase of the workshop
          <span class="line">
            <input
              #phrase
              [type]="seen() ? 'text' : 'password'"
              autocomplete="current-password"
              [attr.maxlength]="phraseLength"
              required
            />
            <button mat-button type="button" [attr.aria-pressed]="seen()" (click)="seen.set(!seen())">
              {{ seen() ? 'Hide' : 'Show' }}
            </button>
          </span>
        </label>
      }
      @if (trouble(); as text) {
        <p class="trouble" role="alert">{{ text }}</p>
      }
      <button mat-flat-button class="enter" type="submit" [disabled]="busy()">Come in</button>
      <p class="quiet">
        What was told on this device and is not sent yet is kept here, and sent once it is in. Whoever is in
        already can invite this device, under Tablets.
      </p>
    </form>
  `,
  styles: `
    :host {
      position: fixed;
      inset: 0;
      /* Over dialogs too: what is open stays behind the door. */
      z-index: 2000;
      display: grid;
      place-items: center;
      overflow: auto;
      padding: 16px;
      background: var(--ground);
    }
    form {
      display: grid;
      gap: 14px;
      box-sizing: border-box;
      width: min(440px, 100%);
      padding: 26px 28px;
      border-top: 8px solid var(--kelp);
      border-radius: 6px;
      background: var(--paper);
      box-shadow: 0 2px 12px rgb(0 0 0 / 18%);
    }
    .home {
      color: var(--kelp);
      font: 700 16px var(--heading);
    }
    p,
    h1 {
      margin: 0;
    }
    h1 {
      font-size: 22px;
    }
    label {
      display: grid;
      gap: 4px;
      color: var(--ink-2);
    }
    .line {
      display: grid;
      grid-template-columns: 1fr auto;
      gap: 6px;
      align-items: center;
    }
    input {
      box-sizing: border-box;
      width: 100%;
      min-height: 44px;
      padding: 0 12px;
      border: 1px solid var(--ink-2);
      border-radius: 4px;
      background: var(--paper);
      color: var(--ink);
      font: 16px var(--text);
    }
    .enter {
      min-height: 48px;
    }
    .trouble {
      padding: 10px 14px;
      background: var(--rust-soft);
    }
    .quiet {
      color: var(--ink-2);
      font-size: 13px;
    }
  `,
})
export class SignInSheet {
  private readonly door = inject(Door);
  private readonly api = inject(DoorApi);
  private readonly name = viewChild.required<ElementRef<HTMLInputElement>>('name');
  private readonly phrase = viewChild<ElementRef<HTMLInputElement>>('phrase');
  protected readonly likely = likelyName();
  protected readonly nameLength = DEVICE_NAME_LENGTH;
  protected readonly phraseLength = PHRASE_LENGTH.max;
  protected readonly byKey = signal(this.door.key !== null);
  protected readonly seen = signal(false);
  protected readonly busy = signal(false);
  protected readonly trouble = signal<string | null>(null);

  constructor() {
    afterNextRender(() => (this.phrase() ?? this.name()).nativeElement.focus());
  }

  protected async enter(): Promise<void> {
    const name = plainText(this.name().nativeElement.value, DEVICE_NAME_LENGTH);
    const phrase = this.phrase()?.nativeElement.value ?? '';
    if (name === '' || (!this.byKey() && phrase === '')) {
      this.trouble.set(name === '' ? 'Give this device a name.' : 'Write the pass phrase.');
      return;
    }
    this.busy.set(true);
    this.trouble.set(null);
    try {
      await this.api.signIn(this.byKey() ? { name, key: this.door.key! } : { name, phrase });
    } catch (error) {
      const { code, message } = faultOf(error);
      this.trouble.set(
        code === 'server.failed'
          ? 'The workshop’s machine cannot be reached. Try again in a moment.'
          : message,
      );
      // An invitation that is used up opens nothing any more; the pass phrase does.
      if (code === 'session.old-key') this.byKey.set(false);
      this.busy.set(false);
    }
  }
}
