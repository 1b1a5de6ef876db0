import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog, MatDialogModule } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { LIMITS, plainText } from '@zaffet/contract';
import { Store } from '@ngrx/store';
import { weekText } from '@zaffet/words';
import { Clock } from '../../data/clock';
import { newId } from '../../data/fresh';
import { PlanEditor } from '../../plan/plan.actions';
import { planFeature } from '../../plan/plan.feature';
import { MethodSheet } from '../method-sheet/method-sheet';
import { ShopSheet } from '../../shop/shop-sheet';
import { WhatIfSheet } from '../what-if-sheet/what-if-sheet';

/** Which finish is on the bench, as it is meant or with a what-if tried on it. */
@Component({
  selector: 'zf-bench-bar',
  imports: [MatButtonModule, MatDialogModule, MatIconModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="name">
      <span class="visually-hidden">Name of the finish</span>
      <input #name [value]="meant().name" [attr.maxlength]="nameLength" (change)="rename(meant().id, name)" />
    </label>
    <span class="quiet parts">{{ partsText() }}</span>
    <span class="tabs" role="group" aria-label="As planned, or a what-if">
      <button type="button" class="tab" [attr.aria-pressed]="tried() === null" (click)="choose(null)">
        As planned
      </button>
      @for (finish of whatIfs(); track finish.id) {
        @if (finish.id === tried()?.id) {
          <label class="tab on name">
            <span class="visually-hidden">Name of the what-if</span>
            <input
              #what
              [value]="finish.name"
              [attr.maxlength]="nameLength"
              (change)="rename(finish.id, what)"
            />
          </label>
        } @else {
          <button type="button" class="tab" aria-pressed="false" (click)="choose(finish.id)">
            {{ finish.name }}
          </button>
        }
      }
    </span>
    @if (tried(); as finish) {
      <button mat-button (click)="take(finish.id)">Mean this one</button>
      <button mat-icon-button aria-label="Drop this what-if" (click)="drop(finish.id)">
        <mat-icon svgIcon="remove" />
      </button>
    } @else {
      <button mat-button [disabled]="full()" (click)="tryOut()">
        <mat-icon svgIcon="branch" />What if …
      </button>
    }
    @if (whatIfs().length > 0) {
      <button mat-button (click)="compare()"><mat-icon svgIcon="compare" />Side by side</button>
    }
    <span class="spacer"></span>
    <button mat-button class="hours" [title]="week()" (click)="shop()">{{ week() }}</button>
    <button mat-button class="methods" (click)="methods()">Begin from a method …</button>
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 4px;
      height: 38px;
      padding: 0 8px 0 6px;
      overflow: auto hidden;
      border-bottom: 1px solid var(--line);
      background: var(--ground);
      white-space: nowrap;
    }
    .name input {
      width: 130px;
      padding: 2px 6px;
      border: 1px solid transparent;
      border-radius: 4px;
      background: none;
      color: var(--ink);
      font: 600 14px/1.2 var(--text);
    }
    .name input:hover,
    .name input:focus {
      border-color: var(--ink-2);
      background: var(--paper);
    }
    .parts {
      max-width: 150px;
      overflow: hidden;
      font-size: 12.5px;
      text-overflow: ellipsis;
    }
    .tabs {
      display: flex;
      align-self: flex-end;
      margin-left: 12px;
    }
    .tab {
      height: 32px;
      padding: 0 12px;
      border: 1px solid var(--line);
      border-bottom: 0;
      border-radius: 6px 6px 0 0;
      background: none;
      color: var(--ink-2);
      font: inherit;
      font-size: 13px;
      cursor: pointer;
    }
    .tab.on,
    .tab[aria-pressed='true'] {
      background: var(--paper);
      color: var(--ink);
      font-weight: 600;
    }
    .hours {
      flex: 0 1 auto;
      min-width: 90px;
      max-width: 360px;
    }
    .hours ::ng-deep .mdc-button__label {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .methods {
      flex: none;
      white-space: nowrap;
    }
    .spacer {
      flex: 1;
    }
  `,
})
export class BenchBar {
  private readonly clock = inject(Clock);
  private readonly store = inject(Store);
  private readonly dialog = inject(MatDialog);
  private readonly file = this.store.selectSignal(planFeature.selectFile);
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  protected readonly nameLength = LIMITS.textLength.max;
  protected readonly full = computed(() => (this.file()?.finishes.length ?? 0) >= LIMITS.finishes.max);
  /** The what-if on the bench; null while the finish is as it is meant. */
  protected readonly tried = computed(() => {
    const finish = this.plan()?.finish;
    return finish === undefined || finish.whatIfOf === null ? null : finish;
  });
  protected readonly meant = computed(() => {
    const { finish, part } = this.plan()!;
    return this.file()!.finishes.find(({ id }) => id === (finish.whatIfOf ?? part.finish)) ?? finish;
  });
  protected readonly whatIfs = computed(
    () => this.file()?.finishes.filter(({ whatIfOf }) => whatIfOf === this.meant().id) ?? [],
  );
  protected readonly partsText = computed(() => {
    const parts = this.file()?.piece.parts ?? [];
    const named = parts
      .filter(({ finish }) => finish === this.meant().id)
      .map(({ name }) => name.toLowerCase());
    return parts.length <= 1 ? '' : `on ${named.join(', ')}`;
  });

  protected readonly week = computed(() => {
    const work = this.file()?.work ?? null;
    return work === null ? 'Worked at any hour …' : `Worked ${weekText(work, this.clock.face())} …`;
  });

  protected shop(): void {
    this.dialog.open(ShopSheet, { width: '1080px', maxWidth: '96vw' });
  }

  protected choose(finishId: string | null): void {
    this.store.dispatch(PlanEditor.finishChosen({ finishId }));
  }

  protected rename(finishId: string, input: HTMLInputElement): void {
    const name = plainText(input.value);
    const before = this.file()!.finishes.find(({ id }) => id === finishId)!.name;
    if (name === '') input.value = before;
    else this.store.dispatch(PlanEditor.finishChanged({ finishId, changes: { name } }));
  }

  protected tryOut(): void {
    this.store.dispatch(
      PlanEditor.whatIfBegun({
        finishId: newId(),
        name: `What if ${this.whatIfs().length + 1}`,
        stepIds: this.meant().steps.map(() => newId()),
      }),
    );
  }

  protected take(finishId: string): void {
    this.store.dispatch(PlanEditor.whatIfTaken({ finishId }));
  }

  protected drop(finishId: string): void {
    this.store.dispatch(PlanEditor.finishRemoved({ finishId }));
  }

  protected compare(): void {
    this.dialog.open(WhatIfSheet, { width: '1160px', maxWidth: '97vw', maxHeight: '94vh' });
  }

  protected methods(): void {
    this.dialog.open(MethodSheet, { width: '1080px', maxWidth: '97vw', maxHeight: '92vh' });
  }
}
