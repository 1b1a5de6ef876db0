import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatIconModule } from '@angular/material/icon';
import { RouterLink } from '@angular/router';
import {
  API,
  fault,
  LIMITS,
  type MeasuresFile,
  plainText,
  type PotItem,
  type ShelfItem,
  type TinItem,
} from '@zaffet/contract';
import { isClear, medium, MEDIUM_KEYS } from '@zaffet/core/media';
import { GRITS } from '@zaffet/core/plan';
import { BODIES } from '@zaffet/core/quantity';
import { BODY_NAMES } from '@zaffet/words';
import { potUseBy, RESTOCK_ML, tinSays } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { format } from 'date-fns';
import { Units } from '../data/units';
import { CURRENCIES, Money } from '../data/money';
import { newId, now } from '../data/fresh';
import { PhotoBox } from '../data/photo-box';
import { ChoiceField, optionsOf } from '../ui/choice-field';
import { NumberField } from '../ui/number-field';
import { checkPhotograph, PhotographRefused } from '../ui/open-photograph';
import { ShelfEditor, ShelfServer } from '../shop/shelf.actions';
import { shelfFeature } from '../shop/shelf.feature';
import { MomentField } from '../ui/moment-field';

const PAINT = '#d9d3c0';
const SAYS = { 'buy-again': 'buy again', 'past-its-day': 'past its day' } as const;
/** What a list adds to an item for showing. */
interface Shown {
  readonly turned?: boolean;
  readonly keeps?: string;
  readonly says?: readonly string[];
  readonly told?: string;
  readonly cost?: string;
}
/** Everything a tin can hold. */
const MEDIA = MEDIUM_KEYS.filter((key) => key !== 'salt').map((key) => ({
  value: key,
  name: medium(key).name,
}));

/** What is there: tins, mixed pots, papers, what one measures with. Everything is saved as it is typed. */
@Component({
  selector: 'zf-shelf-page',
  imports: [
    MomentField,
    ChoiceField,
    MatButtonModule,
    MatCheckboxModule,
    MatIconModule,
    NgTemplateOutlet,
    NumberField,
    RouterLink,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './shelf.page.html',
  styleUrl: './shelf.page.scss',
})
export class ShelfPage {
  private readonly store = inject(Store);
  /** With a bar of its own, where no plan is open round it. */
  readonly bar = input(false);
  protected readonly shelf = this.store.selectSignal(shelfFeature.selectShelf);
  protected readonly fault = this.store.selectSignal(shelfFeature.selectFault);
  protected readonly saveText = this.store.selectSignal(shelfFeature.selectSaveText);
  protected readonly csv = API.shelfCsv;
  protected readonly limits = LIMITS;
  protected readonly money = inject(Money);
  private readonly units = inject(Units);
  protected readonly priced = this.units.priced;
  protected readonly weighing = computed(
    () =>
      `Fill it with water once and weigh it: ${
        this.units.system() === 'metric' ? 'a gram is a millilitre' : 'an ounce is close to a fluid ounce'
      }.`,
  );
  protected readonly currencies = CURRENCIES.map((code) => ({ value: code, name: code || 'no currency' }));
  protected readonly media = MEDIA;
  protected readonly bodies = [{ value: '', name: 'not said' }, ...optionsOf(BODY_NAMES, BODIES)];
  protected readonly grits = GRITS.map((grit) => ({ value: String(grit), name: `P${grit}` }));

  private readonly items = computed(() => this.shelf()?.items ?? []);
  protected readonly photos = inject(PhotoBox);
  protected readonly restock = RESTOCK_ML;
  /** The tin of which more is shown. */
  protected readonly opened = signal<string | null>(null);
  protected readonly tins = computed(() =>
    this.items()
      .filter((item): item is TinItem => item.kind === 'tin')
      .map((item) => {
        const { useBy = null, prices = [] } = item;
        return {
          ...item,
          says: tinSays(item, this.dayOf(now())!).map((word) => SAYS[word]),
          told: [
            useBy === null ? '' : `good until ${format(new Date(useBy), 'd MMM yyyy')}`,
            item.photo == null ? '' : 'label photographed',
            prices.length > 1 ? `${prices.length} prices` : '',
          ]
            .filter(Boolean)
            .join(', '),
          cost: prices
            .map(
              ({ on, pricePerL }) =>
                `${this.money.text(pricePerL * this.priced().litres)} from ${format(new Date(on), 'd MMM yyyy')}`,
            )
            .join(', '),
        };
      }),
  );
  protected readonly abrasives = computed(() => this.items().filter((item) => item.kind === 'abrasive'));
  protected readonly pots = computed(() =>
    this.items()
      .filter((item): item is PotItem => item.kind === 'pot')
      .map((item) => {
        const useBy = potUseBy(item);
        const turned = useBy < now().getTime();
        return { ...item, turned, keeps: `${turned ? 'turned' : 'good until'} ${format(useBy, 'd MMM')}` };
      }),
  );

  constructor() {
    this.ask();
  }

  protected ask(): void {
    this.store.dispatch(ShelfServer.shelfAsked());
  }

  /** Puts something new there, or changes what is; what a list adds to an item for showing is not part of it. */
  protected put(shown: ShelfItem & Shown): void {
    const { turned: _turned, keeps: _keeps, says: _says, told: _told, cost: _cost, ...item } = shown;
    const before = this.items().find(({ id }) => id === item.id);
    if (before === undefined) {
      this.store.dispatch(ShelfEditor.itemPut({ item: item as ShelfItem }));
      return;
    }
    const changes = Object.fromEntries(
      Object.entries(item).filter(([field, value]) => before[field as keyof ShelfItem] !== value),
    );
    if (Object.keys(changes).length > 0)
      this.store.dispatch(ShelfEditor.itemChanged({ id: item.id, changes }));
  }

  protected take(id: string): void {
    this.store.dispatch(ShelfEditor.itemTaken({ id }));
  }

  protected rename(item: ShelfItem, input: HTMLInputElement): void {
    const name = plainText(input.value);
    if (name === '') input.value = item.name;
    else this.put({ ...item, name });
  }

  protected measure(changes: Partial<MeasuresFile>): void {
    this.store.dispatch(ShelfEditor.measuresSet({ measures: { ...this.shelf()!.measures, ...changes } }));
  }

  /** Clear media have no colour; paints have one. */
  protected colourFor(key: string, before: string | null): string | null {
    return isClear(medium(key)) ? null : (before ?? PAINT);
  }

  protected addTin(): void {
    this.put({
      id: newId(),
      kind: 'tin',
      name: 'New tin',
      medium: 'chalk',
      colour: PAINT,
      amountMl: 250,
      pricePerL: null,
      openedAt: null,
    });
  }

  protected addPot(): void {
    this.put({
      id: newId(),
      kind: 'pot',
      name: 'New pot',
      medium: 'milk',
      colour: PAINT,
      amountMl: 50,
      dilution: 0,
      mixedAt: now().toISOString(),
      keptCold: true,
      body: null,
    });
  }

  protected addPaper(): void {
    this.put({ id: newId(), kind: 'abrasive', name: 'Paper', grit: 220, sheets: 5 });
  }

  protected dayOf(at: Date | null): string | null {
    return at === null ? null : format(at, 'yyyy-MM-dd');
  }

  protected async photograph(item: TinItem, input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (file === undefined) return;
    try {
      await checkPhotograph(file);
      this.put({ ...item, photo: await this.photos.keep(file) });
    } catch (error) {
      const known = error instanceof PhotographRefused;
      this.trouble.set(known ? error.message : fault('picture.unreadable').message);
    }
  }
  protected readonly trouble = signal<string | null>(null);

  protected momentOf(at: string | null): Date | null {
    return at === null ? null : new Date(at);
  }
}
