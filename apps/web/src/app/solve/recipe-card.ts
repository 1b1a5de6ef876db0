import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { handsOn } from '@zaffet/core/course';
import { forecast } from '@zaffet/core/forecast';
import { quantities } from '@zaffet/core/quantity';
import { type Wish, WISH_KEYS, wishOutcomes } from '@zaffet/core/solve';
import { duration, figureText, findingWords, mediumName, WISH_WORDS } from '@zaffet/words';
import { basisOf, type PartPlan, pricesKnown, type School, SCHOOLS } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { Money } from '../data/money';
import { Units } from '../data/units';
import { shelfFeature } from '../shop/shelf.feature';
import { PartFace } from '../ui/part-face';

/** One recipe: how it will look, how near it comes, what it takes. */
@Component({
  selector: 'zf-recipe-card',
  imports: [MatButtonModule, PartFace],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[attr.data-school]': 'school()', '[attr.data-met]': 'judged().met' },
  template: `
    <div class="face">
      <zf-part-face
        view="arm"
        [plan]="plan()"
        [columns]="300"
        [rows]="190"
        [label]="'How ' + name() + ' will look'"
      />
    </div>
    <div class="words">
      <h3>{{ name() }}</h3>
      <p class="verdict" [class.met]="judged().met">{{ verdict() }}</p>
      <dl>
        @for (line of lines(); track line.key) {
          <div [attr.data-wish]="line.key" [class.off]="!line.met">
            <dt>{{ line.name }}</dt>
            <dd>
              <b>{{ line.value }}</b> <span class="quiet">{{ line.against }}</span>
            </dd>
          </div>
        }
      </dl>
      <p class="quiet takes">{{ takes() }}</p>
      @if (missing().length > 0) {
        <p class="quiet takes">To buy: {{ toBuy() }}.</p>
      }
      @for (risk of risks(); track $index) {
        <p class="risk">{{ risk }}</p>
      }
      @if (judged().met) {
        <button mat-flat-button (click)="taken.emit(plan())">Use this recipe</button>
      }
    </div>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 300px minmax(0, 1fr);
      gap: 14px;
      padding: 10px 0;
      border-bottom: 1px solid var(--line);
    }
    .face {
      height: 190px;
      background: var(--neutral-grey);
    }
    h3 {
      margin: 0;
    }
    .verdict {
      margin: 2px 0 6px;
      color: var(--rust);
      font-weight: 600;
    }
    .verdict.met {
      color: var(--kelp);
    }
    dl {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
      gap: 2px 14px;
      margin: 0;
    }
    dl div {
      display: grid;
      padding-left: 8px;
      border-left: 4px solid var(--kelp);
    }
    dl .off {
      border-left-color: var(--rust);
    }
    dt {
      font-size: 12px;
    }
    dd {
      margin: 0;
    }
    dd .quiet {
      margin-left: 6px;
      font-size: 12.5px;
    }
    .takes,
    .risk {
      margin: 6px 0;
      font-size: 12.5px;
    }
    .risk {
      margin: 2px 0;
      padding: 2px 8px;
      background: var(--rust-soft);
    }
  `,
})
export class RecipeCard {
  private readonly units = inject(Units).system;
  private readonly money = inject(Money);
  readonly school = input.required<string>();
  readonly plan = input.required<PartPlan>();
  readonly wish = input.required<Wish>();
  /** Media the shelf has nothing of. */
  readonly missing = input.required<readonly string[]>();
  readonly taken = output<PartPlan>();

  private readonly shelf = inject(Store).selectSignal(shelfFeature.selectShelf);
  private readonly forecast = computed(() => forecast(basisOf(this.plan())));
  private readonly model = computed(() => this.forecast().course.plan);
  protected readonly name = computed(() => SCHOOLS[this.school() as School]);
  protected readonly judged = computed(() => wishOutcomes(this.forecast(), this.wish()));
  protected readonly verdict = computed(() => {
    const { met, misfit } = this.judged();
    if (met) return 'Meets what you want.';
    return misfit < 2 ? 'Comes near, but misses it.' : 'Cannot give it.';
  });
  protected readonly lines = computed(() => {
    const { outcomes } = this.judged();
    return WISH_KEYS.filter((key) => outcomes[key] !== undefined).map((key) => {
      const figure = key === 'under' ? 'layer' : key;
      const text = (value: number): string => {
        const { number, unit } = figureText(figure, value, this.units());
        return `${number} ${unit}`;
      };
      const { value, met } = outcomes[key]!;
      const wanted = this.wish()[key]!;
      const against =
        met || value === null
          ? `you want ${text(wanted)}`
          : `${text(Math.abs(value - wanted))} ${value > wanted ? 'more' : 'less'} than the ${text(wanted)} you want`;
      return {
        key,
        met,
        name: WISH_WORDS[key].name,
        value: value === null ? 'none' : text(value),
        against,
      };
    });
  });
  protected readonly takes = computed(() => {
    const { readyAt } = this.forecast();
    const { steps, panel } = this.model();
    const hands = steps.reduce((sum, step) => sum + handsOn(step, panel), 0);
    const shelf = this.shelf();
    const { prices } = this.plan();
    const known = shelf === null ? prices : pricesKnown(prices, shelf);
    const costs = quantities(this.model(), known).flatMap(({ cost }) => cost ?? []);
    const cost =
      costs.length === 0 ? '' : `, ${this.money.text(costs.reduce((sum, c) => sum + c, 0))} of paint`;
    const { times } = this.forecast();
    const waits = times.map(({ from }, i) => from - (times[i - 1]?.until ?? 0));
    const longest = Math.max(0, ...waits);
    const ready = readyAt === null ? 'never dry in this air' : `done after ${duration(readyAt)}`;
    return `${steps.length} steps, ${ready}, of it ${duration(hands)} with the hands, the longest wait ${duration(longest)}${cost}`;
  });
  protected readonly toBuy = computed(() =>
    this.missing()
      .map((key) => mediumName(key, this.plan().media).toLowerCase())
      .join(', '),
  );
  protected readonly risks = computed(() =>
    this.forecast()
      .findings.filter(({ level }) => level === 'stop' || level === 'warn')
      .slice(0, 2)
      .map((finding) => findingWords(finding, this.units()).title),
  );
}
