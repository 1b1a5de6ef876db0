import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule } from '@angular/material/dialog';
import { BIN_DAYS, type BinnedPlan, type Fault } from '@zaffet/contract';
import { differenceInCalendarDays } from 'date-fns';
import { firstValueFrom } from 'rxjs';
import { Clock } from '../data/clock';
import { now } from '../data/fresh';
import { faultOf, PlansApi } from '../data/plans.api';

/** Deleted plans, each with the days it can still be restored. */
@Component({
  selector: 'zf-bin-sheet',
  imports: [MatButtonModule, MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Bin</h2>
    <mat-dialog-content>
      <p>Deleted plans stay here for {{ days }} days.</p>
      @if (fault(); as trouble) {
        <p class="trouble" role="alert">{{ trouble.message }}</p>
      }
      @if (plans(); as list) {
        @if (list.length === 0) {
          <p class="quiet">The bin is empty.</p>
        }
        <ul>
          @for (plan of list; track plan.id) {
            <li>
              <span
                ><b>{{ plan.name }}</b>
                <span class="quiet"
                  >deleted {{ clock.dateTime(date(plan.removedAt)) }}, {{ left(plan) }}</span
                >
              </span>
              <button mat-stroked-button [attr.aria-label]="'Restore ' + plan.name" (click)="restore(plan)">
                Restore
              </button>
            </li>
          }
        </ul>
      } @else if (fault() === null) {
        <p class="quiet" aria-busy="true">Opening the bin …</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button mat-dialog-close>Close</button>
    </mat-dialog-actions>
  `,
  styles: `
    ul {
      display: grid;
      gap: 8px;
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: flex;
      align-items: center;
      justify-content: space-between;
      gap: 16px;
    }
    li .quiet {
      display: block;
    }
    .trouble {
      color: var(--rust);
    }
  `,
})
export class BinSheet {
  private readonly api = inject(PlansApi);
  protected readonly clock = inject(Clock);
  protected readonly days = BIN_DAYS;
  protected readonly plans = signal<readonly BinnedPlan[] | null>(null);
  protected readonly fault = signal<Fault | null>(null);

  constructor() {
    void this.load();
  }

  private async load(): Promise<void> {
    try {
      this.plans.set(await firstValueFrom(this.api.bin()));
    } catch (error) {
      this.fault.set(faultOf(error));
    }
  }

  protected date(at: string): Date {
    return new Date(at);
  }

  protected left({ removedAt }: BinnedPlan): string {
    const days = Math.max(0, BIN_DAYS - differenceInCalendarDays(now(), new Date(removedAt)));
    return days === 1 ? '1 day left' : `${days} days left`;
  }

  protected async restore({ id }: BinnedPlan): Promise<void> {
    try {
      await firstValueFrom(this.api.restore(id));
      this.plans.update((list) => (list ?? []).filter((plan) => plan.id !== id));
    } catch (error) {
      this.fault.set(faultOf(error));
    }
  }
}
