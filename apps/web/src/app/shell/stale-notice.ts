import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { type SavedPlan } from '@zaffet/contract';
import { Store } from '@ngrx/store';
import { format } from 'date-fns';
import { PlanApi } from '../plan/plan.actions';

/** A save was refused because the plan changed elsewhere: the person chooses; until then both versions are kept. */
@Component({
  selector: 'zf-stale-notice',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="notice" role="alertdialog" aria-labelledby="stale-title" aria-describedby="stale-text">
      <h2 id="stale-title">This plan was changed elsewhere</h2>
      <p id="stale-text">
        Another window saved “{{ theirs().name }}” at {{ when() }}. Yours is on the screen and not saved.
        Which one shall stay?
      </p>
      <div class="choices">
        <button mat-flat-button (click)="store.dispatch(api.bothKept())">Keep both, mine as a copy</button>
        <button mat-stroked-button (click)="store.dispatch(api.mineKept())">Keep mine, replace theirs</button>
        <button mat-stroked-button (click)="store.dispatch(api.theirsTaken())">Take theirs, drop mine</button>
      </div>
    </section>
  `,
  styles: `
    .notice {
      position: absolute;
      z-index: 20;
      top: 12px;
      left: 50%;
      translate: -50%;
      width: min(620px, 94%);
      padding: 14px 18px;
      background: var(--paper);
      border: 1px solid var(--rust);
      border-left-width: 6px;
      border-radius: 6px;
      box-shadow: 0 8px 30px rgb(0 0 0 / 25%);
    }
    .choices {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
    }
  `,
})
export class StaleNotice {
  protected readonly store = inject(Store);
  protected readonly api = PlanApi;
  readonly theirs = input.required<SavedPlan>();
  protected readonly when = computed(() => format(new Date(this.theirs().savedAt), 'HH:mm:ss'));
}
