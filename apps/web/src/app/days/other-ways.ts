import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { duration, WAY_WORDS } from '@zaffet/words';
import { Clock } from '../data/clock';
import { DaysModel } from './days-model';

/** Less than this is no gain and no loss [s]. */
const WORTH = 600;

/** What else could be done, one thing changed each: what it gains and costs. A press shows it before it is taken. */
@Component({
  selector: 'zf-other-ways',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Other ways</h2>
    @if (model.looked(); as way) {
      <p class="looked" role="status">
        <span
          >You look at <b>{{ name(way.way) }}</b>: {{ model.breaks() || 'much the same' }}.</span
        >
        <button mat-flat-button (click)="model.takeLooked()">Take it</button>
        <button mat-button (click)="model.backToPlan()">Back to the plan</button>
      </p>
    }
    <div class="row">
      @for (card of cards(); track card.way.way) {
        <button
          type="button"
          [attr.aria-pressed]="model.looked()?.way === card.way.way"
          (click)="model.look(card.way)"
        >
          <b>{{ card.name }}</b>
          <span [class.better]="card.better">{{ card.gain }}</span>
          <span class="quiet">{{ card.costs }}</span>
        </button>
      } @empty {
        <span class="quiet">{{
          model.ways.isLoading() ? 'Looking for other ways …' : 'Nothing else would change much.'
        }}</span>
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
    }
    h2 {
      margin: 0 0 4px;
      font: 600 14px var(--heading);
    }
    .row {
      display: flex;
      gap: 8px;
      overflow: auto hidden;
      padding-bottom: 4px;
    }
    .row button {
      display: grid;
      flex: 0 0 178px;
      align-content: start;
      gap: 1px;
      padding: 6px 10px;
      border: 1px solid var(--line);
      border-radius: 5px;
      background: var(--paper);
      color: var(--ink);
      font: inherit;
      font-size: 13px;
      text-align: left;
      cursor: pointer;
    }
    .row button[aria-pressed='true'] {
      border-color: var(--kelp);
      box-shadow: 0 0 0 1px var(--kelp);
    }
    .better {
      color: var(--kelp);
      font-weight: 600;
    }
    .looked {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 8px;
      align-items: center;
      margin: 0 0 6px;
    }
  `,
})
export class OtherWays {
  protected readonly model = inject(DaysModel);
  private readonly clock = inject(Clock);

  protected name(way: keyof typeof WAY_WORDS): string {
    return WAY_WORDS[way].name;
  }

  protected readonly cards = computed(() => {
    const ways = this.model.ways.hasValue() ? this.model.ways.value() : [];
    return ways.map((way) => {
      const { gains, ready, days, sums, tight, outcome } = way;
      const gain =
        outcome === 'impossible'
          ? 'does not go at all'
          : ready === null
            ? 'never dry in this air'
            : Math.abs(gains) < WORTH
              ? `ready as now, ${this.clock.dayTime(ready)}`
              : `${duration(Math.abs(gains))} ${gains > 0 ? 'sooner' : 'later'}, ${this.clock.dayTime(ready)}`;
      const late = tight === 0 ? '' : `, ${tight} tight`;
      return {
        way,
        name: WAY_WORDS[way.way].name,
        gain,
        better: gains > WORTH,
        costs: `${days} ${days === 1 ? 'day' : 'days'}, ${duration(sums.hands)} of hands${late}`,
      };
    });
  });
}
