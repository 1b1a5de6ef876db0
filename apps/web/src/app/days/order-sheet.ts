import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { isFilmStep, LIMITS, type TimingFile } from '@zaffet/contract';
import { mediumName } from '@zaffet/words';
import { Store } from '@ngrx/store';
import { PlanEditor } from '../plan/plan.actions';
import { planFeature } from '../plan/plan.feature';
import { ChoiceField } from '../ui/choice-field';
import { MomentField } from '../ui/moment-field';

/** When a delivery mostly comes, until somebody says otherwise. */
const MORNING = 8;

/** What has to come first: parts before other parts, and what is not in the house yet. */
@Component({
  selector: 'zf-order-sheet',
  imports: [ChoiceField, MatButtonModule, MatDialogModule, MatIconModule, MomentField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>What has to come first</h2>
    <mat-dialog-content>
      @if (parts().length > 1) {
        <h3>Parts before others</h3>
        @for (one of timing().order; track $index; let i = $index) {
          <p class="row">
            <b>{{ nameOf(one.first) }}</b> is done before <b>{{ nameOf(one.then) }}</b> is begun
            <button
              mat-icon-button
              [attr.aria-label]="'No longer ' + nameOf(one.first) + ' first'"
              (click)="free(i)"
            >
              <mat-icon svgIcon="remove" />
            </button>
          </p>
        }
        <div class="row">
          <zf-choice label="This part" [options]="parts()" [value]="first()" (chosen)="first.set($event)" />
          <zf-choice
            label="is done before"
            [options]="parts()"
            [value]="then()"
            (chosen)="then.set($event)"
          />
          <button mat-stroked-button [disabled]="!canOrder()" (click)="order()">Keep this order</button>
        </div>
      }
      <h3>Not in the house yet</h3>
      @for (one of timing().deliveries; track $index; let i = $index) {
        <div class="row">
          <b>{{ materialName(one.medium, one.colour) }}</b>
          <zf-moment
            [label]="'When ' + materialName(one.medium, one.colour) + ' comes'"
            [quiet]="true"
            [value]="date(one.at)"
            (changed)="setDelivery(i, $event)"
          />
          <button
            mat-icon-button
            [attr.aria-label]="materialName(one.medium, one.colour) + ' is there'"
            (click)="here(i)"
          >
            <mat-icon svgIcon="remove" />
          </button>
        </div>
      }
      <div class="row">
        <zf-choice
          label="What comes"
          [options]="materials()"
          [value]="material()"
          (chosen)="material.set($event)"
        />
        <button mat-stroked-button [disabled]="!canWait()" (click)="wait()">It comes tomorrow morning</button>
      </div>
    </mat-dialog-content>
    <mat-dialog-actions>
      <button mat-flat-button mat-dialog-close>Done</button>
    </mat-dialog-actions>
  `,
  styles: `
    h3 {
      margin: 10px 0 4px;
      font: 600 15px var(--heading);
    }
    .row {
      display: flex;
      gap: 10px;
      align-items: end;
      margin: 4px 0;
    }
    zf-choice {
      flex: 1;
    }
  `,
})
export class OrderSheet {
  private readonly store = inject(Store);
  private readonly file = this.store.selectSignal(planFeature.selectFile);
  protected readonly timing = computed(() => this.file()!.timing);
  protected readonly parts = computed(() =>
    this.file()!.piece.parts.map(({ id, name }) => ({ value: id, name })),
  );
  protected readonly first = signal(this.parts()[0]?.value ?? '');
  protected readonly then = signal(this.parts()[1]?.value ?? '');

  /** Whether a part is done before another already, by the orders there are. */
  private leads(from: string, to: string): boolean {
    return this.timing().order.some(
      ({ first, then }) => first === from && (then === to || this.leads(then, to)),
    );
  }
  protected readonly canOrder = computed(() => {
    const [first, then] = [this.first(), this.then()];
    const full = this.timing().order.length >= LIMITS.order.max;
    return !full && first !== then && !this.leads(then, first) && !this.leads(first, then);
  });

  protected readonly materials = computed(() => {
    const file = this.file()!;
    const films = file.finishes.flatMap(({ steps }) => steps).filter(isFilmStep);
    const all = new Map<string, string>(
      films.map(({ medium, colour, colourName }) => {
        const name = mediumName(medium, file.media);
        return [
          `${medium} ${colour}`,
          colourName === '' ? name : `${colourName}, ${name.toLowerCase()}`,
        ] as const;
      }),
    );
    return [...all].map(([value, name]) => ({ value, name }));
  });
  protected readonly material = signal(this.materials()[0]?.value ?? '');
  protected readonly canWait = computed(
    () => this.material() !== '' && this.timing().deliveries.length < LIMITS.deliveries.max,
  );

  protected nameOf(partId: string): string {
    return this.parts().find(({ value }) => value === partId)?.name ?? 'A part that is gone';
  }
  protected materialName(medium: string, colour: string | null): string {
    return (
      this.materials().find(({ value }) => value === `${medium} ${colour ?? ''}`)?.name ??
      mediumName(medium, this.file()!.media)
    );
  }
  protected date(at: string): Date {
    return new Date(at);
  }

  private change(timing: Partial<TimingFile>): void {
    this.store.dispatch(PlanEditor.timingChanged({ timing }));
  }
  protected order(): void {
    this.change({ order: [...this.timing().order, { first: this.first(), then: this.then() }] });
  }
  protected free(index: number): void {
    this.change({ order: this.timing().order.filter((_, i) => i !== index) });
  }
  protected wait(): void {
    const [medium, colour] = this.material().split(' ') as [string, string];
    const at = new Date(this.file()!.startsAt);
    at.setDate(at.getDate() + 1);
    at.setHours(MORNING, 0, 0, 0);
    this.change({ deliveries: [...this.timing().deliveries, { medium, colour, at: at.toISOString() }] });
  }
  protected setDelivery(index: number, at: Date | null): void {
    if (at === null) return;
    this.change({
      deliveries: this.timing().deliveries.map((one, i) =>
        i === index ? { ...one, at: at.toISOString() } : one,
      ),
    });
  }
  protected here(index: number): void {
    this.change({ deliveries: this.timing().deliveries.filter((_, i) => i !== index) });
  }
}
