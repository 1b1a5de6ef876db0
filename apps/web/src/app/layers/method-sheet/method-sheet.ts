import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { METHOD_WORDS } from '@zaffet/words';
import { type PartPlan, schoolPlans, SCHOOLS } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { newId } from '../../data/fresh';
import { PlanEditor } from '../../plan/plan.actions';
import { planFeature } from '../../plan/plan.feature';
import { PartFace } from '../../ui/part-face';
import { FacePool } from '../../workers/face.pool';

/** A hand-sized piece of the part shows a method well enough [mm]. */
const SWATCH = { widthMm: 180, heightMm: 120 };

/** Every way of working, as it would look in this plan's colours and air, to begin from. */
@Component({
  selector: 'zf-method-sheet',
  imports: [MatButtonModule, MatDialogModule, PartFace],
  providers: [FacePool],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Begin from a method</h2>
    <mat-dialog-content>
      <p class="quiet">
        Each as it is mostly done, a hand's breadth of it in your colours and your air. It takes the place of
        the steps on the bench; undo brings them back.
      </p>
      <ul>
        @for (method of methods(); track method.key) {
          <li>
            <button type="button" [attr.data-method]="method.key" (click)="take(method.plan)">
              <zf-part-face
                [plan]="method.swatch"
                [columns]="240"
                [rows]="150"
                [label]="'How ' + method.name + ' looks'"
              />
              <strong>{{ method.name }}</strong>
              <span>{{ method.words }}</span>
            </button>
          </li>
        }
      </ul>
    </mat-dialog-content>
    <mat-dialog-actions align="end"><button mat-button mat-dialog-close>Close</button></mat-dialog-actions>
  `,
  styles: `
    ul {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
      gap: 12px;
      margin: 0;
      padding: 0;
      list-style: none;
    }
    button[data-method] {
      display: grid;
      grid-template-rows: 150px auto 1fr;
      gap: 4px;
      width: 100%;
      height: 100%;
      padding: 0 0 8px;
      border: 1px solid var(--line);
      border-radius: 5px;
      background: var(--paper);
      color: var(--ink);
      font: inherit;
      font-size: 13px;
      line-height: 1.25;
      text-align: left;
      overflow: hidden;
      cursor: pointer;
    }
    button[data-method]:hover {
      border-color: var(--kelp);
    }
    zf-part-face {
      background: var(--neutral-grey);
    }
    strong,
    span {
      padding: 0 10px;
    }
    span {
      color: var(--ink-2);
    }
  `,
})
export class MethodSheet {
  private readonly store = inject(Store);
  private readonly dialog = inject<MatDialogRef<MethodSheet>>(MatDialogRef);
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);

  protected readonly methods = computed(() => {
    const plan = this.plan();
    if (plan === null) return [];
    return schoolPlans(plan, newId).map((school) => ({
      key: school.key,
      name: SCHOOLS[school.key],
      words: METHOD_WORDS[school.key],
      plan: school.plan,
      swatch: { ...school.plan, part: { ...school.plan.part, ...SWATCH } },
    }));
  });

  protected take(plan: PartPlan): void {
    this.store.dispatch(PlanEditor.stepsReplaced({ steps: plan.steps }));
    this.dialog.close();
  }
}
