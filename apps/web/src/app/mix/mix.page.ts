import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { LIMITS, USUAL_MEASURES } from '@zaffet/contract';
import { duration, mediumName, volume } from '@zaffet/words';
import { mixing } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { Money } from '../data/money';
import { Units } from '../data/units';
import { PlanEditor } from '../plan/plan.actions';
import { planFeature } from '../plan/plan.feature';
import { ShelfServer } from '../shop/shelf.actions';
import { shelfFeature } from '../shop/shelf.feature';
import { NumberField } from '../ui/number-field';
import { saveFile } from '../ui/save-file';
import { ColourRecipes } from './colour-recipes';
import { PotCard } from './pot-card';

/** What to mix and what to buy for every part of the piece. */
@Component({
  selector: 'zf-mix-page',
  imports: [ColourRecipes, MatButtonModule, NumberField, PotCard, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="pots" aria-labelledby="mix-title">
      <h1 id="mix-title">What to mix, in the order of the work</h1>
      <p class="quiet">{{ summary() }}</p>
      @for (pot of result().pots; track pot.id) {
        <zf-pot-card [pot]="pot" />
      }
    </section>
    <section class="buy" aria-labelledby="buy-title">
      <h2 id="buy-title">What to buy</h2>
      @if (shelfText(); as text) {
        <p class="trouble" role="alert">{{ text }}</p>
      }
      <table>
        <caption class="visually-hidden">
          Shopping list against the shelf
        </caption>
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">Needed</th>
            <th scope="col">Buy</th>
            <th scope="col">A {{ priced().name }} costs</th>
          </tr>
        </thead>
        <tbody>
          @for (line of lines(); track line.key) {
            <tr [attr.data-buy]="line.name" [class.there]="line.there">
              <th scope="row">
                <span class="named"
                  ><i [class.clear]="line.colour === null" [style.background]="line.colour ?? null"></i
                  >{{ line.name }}</span
                >
                @if (line.using) {
                  <small class="quiet">{{ line.using }}</small>
                }
              </th>
              <td>{{ line.needed }}</td>
              <td>
                <b>{{ line.buy }}</b>
                @if (line.cost) {
                  <small class="quiet">{{ line.cost }}</small>
                }
              </td>
              <td>
                @if (line.medium; as medium) {
                  <zf-number
                    [label]="'Price of a ' + priced().name + ' of ' + line.name"
                    [quiet]="true"
                    [value]="line.price"
                    [limit]="limits.price"
                    [optional]="true"
                    placeholder="price"
                    [factor]="priced().litres"
                    [decimals]="2"
                    [unit]="money.currency()"
                    (changed)="setPrice(medium, $event)"
                  />
                }
              </td>
            </tr>
          }
          @for (line of result().abrasives; track line.grit) {
            <tr [class.there]="line.has >= line.sheets">
              <th scope="row">
                P{{ line.grit }} paper
                @if (line.has > 0) {
                  <small class="quiet">{{ line.has }} sheets on the shelf</small>
                }
              </th>
              <td>{{ line.sheets }} {{ line.sheets === 1 ? 'sheet' : 'sheets' }}</td>
              <td>
                <b>{{ line.has >= line.sheets ? 'is there' : line.sheets - line.has + ' sheets' }}</b>
              </td>
              <td></td>
            </tr>
          }
        </tbody>
      </table>
      <p class="total">{{ total() }}</p>
      <div class="ways">
        <button mat-stroked-button (click)="listOut()">List as text</button>
        <a mat-button routerLink="../shelf">To the shelf</a>
      </div>
      <zf-colour-recipes />
    </section>
  `,
  styleUrl: './mix.page.scss',
})
export class MixPage {
  private readonly store = inject(Store);
  private readonly units = inject(Units).system;
  protected readonly priced = inject(Units).priced;
  protected readonly money = inject(Money);
  private readonly file = this.store.selectSignal(planFeature.selectFile);
  private readonly shelf = this.store.selectSignal(shelfFeature.selectShelf);
  private readonly fault = this.store.selectSignal(shelfFeature.selectFault);
  protected readonly limits = LIMITS;

  protected readonly result = computed(() =>
    mixing(this.file()!, this.shelf() ?? { items: [], measures: USUAL_MEASURES }),
  );
  /** Without the shelf the list is still told, and says so. */
  protected readonly shelfText = computed(() =>
    this.shelf() === null && this.fault() !== null
      ? 'The shelf cannot be read just now: the list is as if it were empty.'
      : '',
  );
  protected readonly summary = computed(() => {
    const { pots, handsOn, cost } = this.result();
    const paid = cost === null ? '' : `, ${this.money.text(cost)} of paint used`;
    return `${pots.length} pots for ${this.file()!.piece.parts.length === 1 ? 'the part' : 'all parts'}, what stays in brush and dish counted in; ${duration(handsOn)} with the hands${paid}.`;
  });
  protected readonly lines = computed(() =>
    this.result().shopping.map((line) => ({
      ...line,
      needed: volume(line.needed, this.units()),
      there: line.tins.length === 0,
      using: line.using.length === 0 ? '' : `from the shelf: ${line.using.join(', ')}`,
      buy: line.tins.length === 0 ? 'is there' : this.tinsText(line.tins),
      cost: line.tins.length === 0 || line.cost === null ? '' : this.money.text(line.cost),
    })),
  );
  protected readonly total = computed(() => {
    const { toPay, shopping } = this.result();
    const buys = shopping.filter(({ tins }) => tins.length > 0).length;
    if (buys === 0) return 'Everything is on the shelf.';
    const things = buys === 1 ? 'One thing' : `${buys} things`;
    if (toPay === null) return `${things} to buy; give each a price to see what it comes to.`;
    return `${things} to buy, ${this.money.text(toPay)} in all.`;
  });

  constructor() {
    this.store.dispatch(ShelfServer.shelfAsked());
  }

  private tinsText(tins: readonly number[]): string {
    const sizes = [...new Set(tins)];
    return sizes
      .map((size) => {
        const count = tins.filter((tin) => tin === size).length;
        return `${count} × ${volume(size, this.units())}`;
      })
      .join(', ');
  }

  protected setPrice(medium: string, price: number | null): void {
    this.store.dispatch(PlanEditor.priceChanged({ medium, price }));
  }

  protected listOut(): void {
    const file = this.file()!;
    const bought = this.lines()
      .filter(({ there }) => !there)
      .map(({ name, medium, buy }) => {
        const kind = medium === null ? '' : mediumName(medium, file.media);
        return kind === '' || name.startsWith(kind) ? `- ${name}: ${buy}` : `- ${name} (${kind}): ${buy}`;
      });
    const papers = this.result()
      .abrasives.filter(({ has, sheets }) => has < sheets)
      .map(({ grit, has, sheets }) => `- P${grit} paper: ${sheets - has} sheets`);
    const text = [`To buy for ${file.name}`, '', ...bought, ...papers, ''].join('\n');
    saveFile(new Blob([text], { type: 'text/plain' }), `${file.name} to buy`, '.txt');
  }
}
