import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import {
  figureText,
  isFilmStep,
  partPlan,
  perCent,
  stepTitle,
  type SavedPlan,
  toModel,
} from '@zaffet/contract';
import { figureValues, forecast } from '@zaffet/core';
import { format } from 'date-fns';
import { FaceCanvas } from '../ui/face-canvas';
import { faceRequest } from '../workers/face-request';
import { FacePool } from '../workers/face.pool';
import { type FaceAnswer } from '../workers/messages';

const COLUMNS = 480;
const ROWS = 270;

/** A plan as a little sample: its face at arm's length, what makes it crack, its figures. */
@Component({
  selector: 'zf-plan-tile',
  imports: [FaceCanvas],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="face">
      <zf-face-canvas [answer]="answer()" [label]="'How ' + saved().name + ' will look'" />
    </div>
    <p class="quiet stack">{{ stack() }}</p>
    <p class="quiet">{{ figures() }}<br />changed {{ changed() }}</p>
  `,
  styles: `
    .face {
      aspect-ratio: 16 / 9;
      background: var(--neutral-grey);
    }
    .face zf-face-canvas {
      height: 100%;
    }
    p {
      margin: 2px 14px 0;
      font-size: 12.5px;
    }
    .stack {
      margin-top: 10px;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  `,
})
export class PlanTile {
  private readonly faces = inject(FacePool);
  readonly saved = input.required<SavedPlan>();
  protected readonly answer = signal<FaceAnswer | null>(null);

  private readonly part = computed(() => partPlan(this.saved().plan));
  private readonly model = computed(() => toModel(this.part()));
  private readonly forecast = computed(() => forecast(this.model()));
  protected readonly stack = computed(() =>
    this.part()
      .steps.map((step) =>
        isFilmStep(step) && step.colourName
          ? step.colourName
          : stepTitle(step, this.part().media).toLowerCase(),
      )
      .join(', '),
  );
  protected readonly figures = computed(() => {
    const forecast = this.forecast();
    const values = figureValues(forecast);
    const off = forecast.whole.chippedShare + forecast.whole.wornShare;
    if (values.spacing === null || values.opening === null)
      return off > 0.02 ? `no cracks, ${perCent(Math.min(1, off))} comes off` : 'no cracks';
    const spacing = figureText('spacing', values.spacing);
    const opening = figureText('opening', values.opening);
    return `cracks ${spacing.number} ${spacing.unit} apart, ${opening.number} ${opening.unit} wide`;
  });
  protected readonly changed = computed(() => format(new Date(this.saved().savedAt), 'd MMM, HH:mm'));

  constructor() {
    effect(() => {
      const request = faceRequest(this.model(), this.forecast(), {
        view: 'close',
        columns: COLUMNS,
        rows: ROWS,
        quality: 'full',
        halfPixels: false,
        raking: 0.5,
        mode: 'colour',
        age: null,
      });
      void this.faces.draw(request).then((answer) => this.answer.set(answer));
    });
  }
}
