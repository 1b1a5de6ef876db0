import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { LIMITS, type PotItem, USUAL_MEASURES } from '@zaffet/contract';
import { mediumName, volume } from '@zaffet/words';
import { type Used, usedBy } from '@zaffet/workshop';
import { Units } from '../data/units';
import { newId, now } from '../data/fresh';
import { Money } from '../data/money';
import { ShelfEditor, ShelfServer } from '../shop/shelf.actions';
import { shelfFeature } from '../shop/shelf.feature';
import { NumberField } from '../ui/number-field';
import { BenchModel } from './bench-model';

/** What a run used, to be taken off the shelf; and what is left of a mix, to be put there. */
@Component({
  selector: 'zf-used-list',
  imports: [NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (line of lines(); track line.key) {
      <div class="line">
        <span class="what">
          <i [style.background]="line.colour ?? 'transparent'"></i>
          {{ line.name }}
        </span>
        @if (line.taken; as taken) {
          <span>{{ taken.text }}</span>
          <button (click)="putBack(taken.eventId, taken.itemId, taken.amountMl)">Put it back</button>
        } @else if (line.tin; as tin) {
          <zf-number
            [label]="'Used of ' + tin.name"
            [quiet]="true"
            [value]="amountOf(line)"
            [limit]="limits.amountMl"
            (changed)="set(line.key, $event!)"
          />
          <button (click)="takeOff(line)">Take it off {{ tin.name }}</button>
        } @else {
          <span>about {{ line.much }}</span>
          <span class="quiet">no tin of it stands on the shelf</span>
        }
        @if (!line.clear) {
          <zf-number
            [label]="'Left over, mixed, of ' + line.name"
            [quiet]="true"
            [optional]="true"
            placeholder="left over"
            [value]="null"
            [limit]="limits.amountMl"
            (changed)="leftOver(line, $event)"
          />
        }
      </div>
    }
    @if (cost(); as text) {
      <p>{{ text }}</p>
    }
    @if (put(); as text) {
      <p role="status">{{ text }}</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .line {
      --field-height: var(--record-target, 56px);
      display: grid;
      grid-template-columns: minmax(150px, 2fr) 140px minmax(200px, 2fr) 140px;
      gap: 12px;
      align-items: center;
    }
    .what {
      display: flex;
      gap: 8px;
      align-items: center;
      font-weight: 600;
    }
    i {
      width: 22px;
      height: 22px;
      border: 1px solid var(--line);
      border-radius: 2px;
    }
    button {
      min-height: var(--record-target, 56px);
      padding: 4px 16px;
      border: 2px solid var(--line);
      border-radius: 6px;
      background: var(--paper);
      color: var(--ink);
      font: 600 1em var(--text);
      cursor: pointer;
    }
    p {
      margin: 0;
    }
    @media (max-width: 800px) {
      .line {
        grid-template-columns: 1fr 1fr;
      }
    }
  `,
})
export class UsedList {
  private readonly units = inject(Units).system;
  private readonly store = inject(Store);
  private readonly model = inject(BenchModel);
  private readonly shelf = this.store.selectSignal(shelfFeature.selectShelf);
  protected readonly limits = LIMITS;
  private readonly money = inject(Money);

  constructor() {
    // A run beside the work is opened without the shelf.
    if (this.shelf() === null) this.store.dispatch(ShelfServer.shelfAsked());
  }

  private readonly typed = signal<Readonly<Record<string, number>>>({});
  protected readonly put = signal<string | null>(null);

  protected readonly lines = computed(() => {
    const run = this.model.run();
    if (run === null) return [];
    return usedBy(run, this.shelf() ?? { items: [], measures: USUAL_MEASURES }).map((used) => {
      const taken = run.used.find(({ itemId }) => itemId === used.tin?.id);
      return {
        ...used,
        name: used.colourName || mediumName(used.medium),
        clear: used.colour === null,
        much: volume(used.amountMl * 1e-6, this.units()),
        taken:
          taken === undefined
            ? null
            : { ...taken, text: `${volume(taken.amountMl * 1e-6, this.units())} taken off ${taken.name}` },
      };
    });
  });

  /** What it comes to by the shelf's prices; null where not all of it has one. */
  protected readonly cost = computed(() => {
    const lines = this.lines();
    if (lines.length === 0 || lines.some(({ tin }) => tin?.pricePerL == null)) return null;
    const sum = lines.reduce((all, line) => all + (this.amountOf(line) * line.tin!.pricePerL!) / 1000, 0);
    return `What was used comes to ${this.money.text(sum)} by the shelf’s prices.`;
  });

  protected amountOf({ key, amountMl }: Used): number {
    return this.typed()[key] ?? Math.round(amountMl);
  }
  protected set(key: string, amountMl: number): void {
    this.typed.update((all) => ({ ...all, [key]: amountMl }));
  }

  private changeTin(itemId: string, byMl: number): void {
    const item = this.shelf()?.items.find(({ id }) => id === itemId);
    if (item?.kind !== 'tin') return;
    const left = Math.max(0, Math.min(LIMITS.amountMl.max, item.amountMl + byMl));
    this.store.dispatch(ShelfEditor.itemChanged({ id: itemId, changes: { amountMl: left } }));
  }

  protected takeOff(line: Used): void {
    const { tin } = line;
    if (tin === null) return;
    const amountMl = this.amountOf(line);
    this.model.tell({ kind: 'used', itemId: tin.id, name: tin.name, amountMl });
    this.changeTin(tin.id, -amountMl);
  }
  protected putBack(eventId: string, itemId: string, amountMl: number): void {
    this.model.tell({ kind: 'taken-back', eventId });
    this.changeTin(itemId, amountMl);
  }

  /** What is left of a mix comes onto the shelf as a pot, mixed when the run began it. */
  protected leftOver({ medium, colour, colourName }: Used, amountMl: number | null): void {
    const run = this.model.run();
    if (amountMl === null || amountMl <= 0 || run === null) return;
    const step = run.plan.finishes
      .flatMap(({ steps }) => steps)
      .find((one) => 'medium' in one && one.medium === medium && one.colour === colour);
    const begun = Object.entries(run.steps).find(
      ([key]) => step !== undefined && key.includes(` ${step.id} `),
    );
    const name = colourName || mediumName(medium);
    const pot: PotItem = {
      id: newId(),
      kind: 'pot',
      name,
      medium,
      colour,
      amountMl,
      dilution: step !== undefined && 'dilution' in step ? Math.max(0, step.dilution) : 0,
      mixedAt: new Date(begun?.[1].begunAt ?? now()).toISOString(),
      keptCold: false,
      body: null,
    };
    this.store.dispatch(ShelfEditor.itemPut({ item: pot }));
    this.put.set(`${volume(amountMl * 1e-6, this.units())} of ${name} stand on the shelf now.`);
  }
}
