import { ChangeDetectionStrategy, Component, input, signal } from '@angular/core';
import { FaceCanvas } from '../../ui/face-canvas';
import { type FaceAnswer } from '../../workers/messages';
import { Hold, type Pull } from '../../ui/hold';

const NUDGE = 0.02;

/** Another plan's face over the picture, up to a bar that is drawn across it. */
@Component({
  selector: 'zf-wiper',
  imports: [FaceCanvas, Hold],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="other" [style.clip-path]="'inset(0 0 0 ' + at() * 100 + '%)'">
      <zf-face-canvas [answer]="answer()" [label]="'How ' + name() + ' will look'" />
    </div>
    <span class="name left">{{ own() }}</span>
    <span class="name right">{{ name() }}</span>
    <div
      #bar
      class="bar"
      role="slider"
      tabindex="0"
      aria-label="Bar between the two plans"
      aria-valuemin="0"
      aria-valuemax="100"
      [attr.aria-valuenow]="(at() * 100).toFixed(0)"
      [style.left.%]="at() * 100"
      zfHold
      (pulled)="drag($event, bar)"
      (keydown)="key($event)"
    ></div>
  `,
  styles: `
    :host,
    .other {
      position: absolute;
      inset: 0;
    }
    .other {
      background: var(--neutral-grey);
    }
    .other zf-face-canvas {
      height: 100%;
    }
    .bar {
      position: absolute;
      top: 0;
      bottom: 0;
      width: 28px;
      margin-left: -14px;
      cursor: ew-resize;
      touch-action: none;
      background: linear-gradient(90deg, transparent 12px, #f1f0ed 12px, #f1f0ed 16px, transparent 16px);
    }
    .bar:focus-visible {
      outline: 3px solid var(--kelp);
    }
    .name {
      position: absolute;
      top: 8px;
      max-width: 45%;
      padding: 2px 8px;
      border-radius: 3px;
      background: rgb(255 255 255 / 88%);
      color: #23262a;
      font-size: 12px;
    }
    .left {
      left: 8px;
    }
    .right {
      right: 8px;
    }
  `,
})
export class Wiper {
  readonly answer = input.required<FaceAnswer | null>();
  readonly name = input.required<string>();
  readonly own = input.required<string>();
  protected readonly at = signal(0.5);

  protected drag({ x }: Pull, bar: HTMLElement): void {
    const box = bar.parentElement!.getBoundingClientRect();
    this.put((x - box.left) / box.width);
  }

  protected key(event: KeyboardEvent): void {
    const by = { ArrowLeft: -NUDGE, ArrowRight: NUDGE, Home: -1, End: 1 }[event.key];
    if (by === undefined) return;
    this.put(this.at() + by);
    event.preventDefault();
  }

  private put(at: number): void {
    this.at.set(Math.min(1, Math.max(0, at)));
  }
}
