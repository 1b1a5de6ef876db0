import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { type FaceViewKey } from '@zaffet/core/face';
import { forecast } from '@zaffet/core/forecast';
import { basisOf, type PartPlan } from '@zaffet/workshop';
import { FaceCanvas } from './face-canvas';
import { faceRequest } from '../workers/face-request';
import { FacePool } from '../workers/face.pool';
import { type FaceAnswer } from '../workers/messages';

/** How a part will look, drawn once it is asked for, by the page's pool of workers. */
@Component({
  selector: 'zf-part-face',
  imports: [FaceCanvas],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <zf-face-canvas
      [style.background]="answer() === null ? tone() : null"
      [answer]="answer()"
      [label]="failed() ? label() + ': its picture could not be drawn' : label()"
    />
    @if (failed()) {
      <p role="status">Its picture could not be drawn. Open the page anew to try again.</p>
    }
  `,
  styles: `
    :host,
    zf-face-canvas {
      position: relative;
      display: block;
      width: 100%;
      height: 100%;
    }
    p {
      position: absolute;
      inset: auto 0 0;
      margin: 0;
      padding: 6px 10px;
      background: var(--paper);
      color: var(--ink);
      font-size: 0.85rem;
    }
  `,
})
export class PartFace {
  private readonly faces = inject(FacePool);
  readonly plan = input.required<PartPlan>();
  readonly label = input.required<string>();
  readonly columns = input.required<number>();
  readonly rows = input.required<number>();
  readonly view = input<FaceViewKey>('whole');
  readonly quality = input<'coarse' | 'full'>('full');
  /** Drawn before the other faces of the page. */
  readonly first = input(false);
  protected readonly answer = signal<FaceAnswer | null>(null);
  protected readonly failed = signal(false);

  private readonly forecast = computed(() => forecast(basisOf(this.plan())));
  /** What the eye makes of it all stands there while it is being drawn. */
  protected readonly tone = computed(() => this.forecast().whole.colour);
  private readonly request = computed(() => {
    return faceRequest(this.forecast(), {
      view: this.view(),
      columns: this.columns(),
      rows: this.rows(),
      quality: this.quality(),
      halfPixels: false,
      raking: 0.5,
      mode: 'colour',
      age: null,
    });
  });

  constructor() {
    effect((onCleanup) => {
      const request = this.request();
      let overtaken = false;
      onCleanup(() => (overtaken = true));
      this.failed.set(false);
      this.faces.draw(request, this.first()).then(
        (answer) => {
          if (!overtaken) this.answer.set(answer);
        },
        () => this.failed.set(true),
      );
    });
  }
}
