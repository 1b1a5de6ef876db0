import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { filePlan } from '@zaffet/contract';
import { Store } from '@ngrx/store';
import { Clock } from '../data/clock';
import { PlanApi } from '../plan/plan.actions';
import { planFeature } from '../plan/plan.feature';
import { saveFile } from '../ui/save-file';

/**
 * A save that a person has to decide on: the plan was changed or removed elsewhere, or cannot be stored as it is. Until
 * then nothing is lost: the plan stays on the screen and in this browser, and can be taken out as a file.
 */
@Component({
  selector: 'zf-save-notice',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @switch (state().save) {
      @case ('stale') {
        <section class="notice" role="alertdialog" aria-labelledby="save-title" aria-describedby="save-text">
          <h2 id="save-title">This plan was changed elsewhere</h2>
          <p id="save-text">
            Another window saved “{{ state().theirs?.name }}” at {{ when() }}. Yours is on the screen and not
            saved. Which one shall stay?
          </p>
          <div class="choices">
            <button mat-flat-button (click)="store.dispatch(api.bothKept())">
              Keep both, mine as a copy
            </button>
            <button mat-stroked-button (click)="store.dispatch(api.mineKept())">
              Keep mine, replace theirs
            </button>
            <button mat-stroked-button (click)="store.dispatch(api.theirsTaken())">
              Take theirs, drop mine
            </button>
          </div>
        </section>
      }
      @case ('gone') {
        <section class="notice" role="alertdialog" aria-labelledby="save-title" aria-describedby="save-text">
          <h2 id="save-title">This plan was removed elsewhere</h2>
          <p id="save-text">Yours is on the screen and not saved. Shall it become a plan of its own?</p>
          <div class="choices">
            <button mat-flat-button (click)="store.dispatch(api.bothKept())">Keep mine as a new plan</button>
            <button mat-stroked-button (click)="takeOut()">Take it out as a file</button>
            <button mat-stroked-button (click)="store.dispatch(api.mineDropped())">Let it go</button>
          </div>
        </section>
      }
      @case ('invalid') {
        <section class="notice" role="alert" aria-labelledby="save-title">
          <h2 id="save-title">This cannot be saved as it is</h2>
          <p>{{ state().fault?.message }}</p>
          @if (state().fault?.fields; as fields) {
            <ul>
              @for (field of fields; track field.path) {
                <li>{{ field.message }}</li>
              }
            </ul>
          }
          <p>Change it, and it is saved again by itself; or undo what was done last.</p>
          <div class="choices">
            <button mat-flat-button (click)="store.dispatch(api.retryAsked())">Try again</button>
            <button mat-stroked-button (click)="takeOut()">Take it out as a file</button>
          </div>
        </section>
      }
    }
  `,
  styles: `
    .notice {
      position: absolute;
      z-index: 20;
      top: 12px;
      left: 50%;
      translate: -50%;
      width: min(620px, 94%);
      max-height: 70%;
      overflow: auto;
      padding: 14px 18px;
      background: var(--paper);
      border: 1px solid var(--rust);
      border-left-width: 6px;
      border-radius: 6px;
      box-shadow: 0 8px 30px rgb(0 0 0 / 25%);
    }
    li {
      overflow-wrap: anywhere;
    }
    .choices {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
    }
  `,
})
export class SaveNotice {
  private readonly clock = inject(Clock);
  protected readonly store = inject(Store);
  protected readonly api = PlanApi;
  protected readonly state = this.store.selectSignal(planFeature.selectPlanState);
  protected readonly when = computed(() => {
    const { theirs } = this.state();
    return theirs === null ? '' : this.clock.time(new Date(theirs.savedAt));
  });

  protected takeOut(): void {
    const plan = this.state().history?.present;
    if (plan === undefined) return;
    const text = `${JSON.stringify(filePlan(plan), null, 2)}\n`;
    saveFile(new Blob([text], { type: 'application/json' }), plan.name, '.zaffet.json');
  }
}
