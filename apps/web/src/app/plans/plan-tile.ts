import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
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
import { PartFace } from '../ui/part-face';

/** A plan as a little sample: its face at arm's length, what makes it crack, its figures. */
@Component({
  selector: 'zf-plan-tile',
  imports: [PartFace],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="face">
      <zf-part-face
        view="close"
        [plan]="part()"
        [columns]="480"
        [rows]="270"
        [label]="'How ' + saved().name + ' will look'"
      />
    </div>
    <p class="quiet stack">{{ stack() }}</p>
    <p class="quiet">{{ figures() }}<br />changed {{ changed() }}</p>
  `,
  styles: `
    .face {
      aspect-ratio: 16 / 9;
      background: var(--neutral-grey);
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
  readonly saved = input.required<SavedPlan>();

  protected readonly part = computed(() => partPlan(this.saved().plan));
  private readonly forecast = computed(() => forecast(toModel(this.part())));
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
}
