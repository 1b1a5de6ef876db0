import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { type Finish } from '@zaffet/contract';
import { handsOn } from '@zaffet/core/course';
import { forecast } from '@zaffet/core/forecast';
import { quantities } from '@zaffet/core/quantity';
import { FIGURE_KEYS, figureValues } from '@zaffet/core/readout';
import { duration, FIGURE_WORDS, figureText, findingWords } from '@zaffet/words';
import { basisOf, partPlan } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { Money } from '../../data/money';
import { Units } from '../../data/units';
import { PlanEditor } from '../../plan/plan.actions';
import { planFeature } from '../../plan/plan.feature';
import { PartFace } from '../../ui/part-face';
import { FacePool } from '../../workers/face.pool';

/** What differs by less than this share of the greater is told alike. */
const ALIKE = 0.02;

/** The finish as it is meant and every what-if of it, beside each other: pictures, figures, time, cost. */
@Component({
  selector: 'zf-what-if-sheet',
  imports: [MatButtonModule, MatDialogModule, PartFace],
  providers: [FacePool],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Side by side</h2>
    <mat-dialog-content>
      <div class="columns" tabindex="0" role="region" aria-label="Finishes side by side">
        @for (column of columns(); track column.id) {
          <section [attr.aria-label]="column.name">
            <h3>{{ column.name }}</h3>
            <div class="face">
              <zf-part-face
                view="arm"
                [plan]="column.plan"
                [columns]="300"
                [rows]="200"
                [label]="'How ' + column.name + ' will look'"
              />
            </div>
            <dl>
              @for (line of column.lines; track line.name) {
                <div [class.differs]="line.differs">
                  <dt>{{ line.name }}</dt>
                  <dd>{{ line.value }}</dd>
                </div>
              }
            </dl>
            @for (risk of column.risks; track $index) {
              <p class="risk">{{ risk }}</p>
            }
            @if (column.tried) {
              <button mat-flat-button (click)="take(column.id)">Mean this one</button>
            } @else {
              <p class="quiet">This one is meant.</p>
            }
          </section>
        }
      </div>
    </mat-dialog-content>
    <mat-dialog-actions align="end"><button mat-button mat-dialog-close>Close</button></mat-dialog-actions>
  `,
  styles: `
    .columns {
      display: grid;
      grid-auto-columns: minmax(250px, 1fr);
      grid-auto-flow: column;
      gap: 18px;
      overflow-x: auto;
    }
    section {
      display: flex;
      flex-direction: column;
      gap: 8px;
    }
    .face {
      height: 200px;
      background: var(--neutral-grey);
    }
    dl {
      margin: 0;
    }
    dl div {
      display: flex;
      justify-content: space-between;
      gap: 8px;
      padding: 3px 6px;
      border-bottom: 1px solid var(--line);
      font-size: 13px;
    }
    dl .differs {
      background: var(--kelp-soft);
      font-weight: 600;
    }
    dd {
      margin: 0;
      text-align: right;
    }
    .risk {
      margin: 0;
      padding: 3px 8px;
      background: var(--rust-soft);
      font-size: 13px;
    }
    p.quiet {
      margin: 4px 0;
    }
  `,
})
export class WhatIfSheet {
  private readonly store = inject(Store);
  private readonly dialog = inject<MatDialogRef<WhatIfSheet>>(MatDialogRef);
  private readonly units = inject(Units).system;
  private readonly money = inject(Money);
  private readonly file = this.store.selectSignal(planFeature.selectFile);
  private readonly circumstances = this.store.selectSignal(planFeature.selectCircumstances);
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);

  protected readonly columns = computed(() => {
    const file = this.file();
    const part = this.plan()?.part;
    if (file === null || part === undefined) return [];
    const meant = file.finishes.find(({ id }) => id === part.finish)!;
    const all = [meant, ...file.finishes.filter(({ whatIfOf }) => whatIfOf === meant.id)];
    const told = all.map((finish) => this.told(finish));
    return told.map((column, i) => ({
      ...column,
      lines: column.lines.map((line, k) => ({
        ...line,
        differs: i > 0 && differs(line.amount, told[0]!.lines[k]!.amount),
      })),
    }));
  });

  private told(finish: Finish): {
    id: string;
    name: string;
    tried: boolean;
    plan: ReturnType<typeof partPlan>;
    lines: { name: string; value: string; amount: number | null }[];
    risks: string[];
  } {
    const plan = partPlan(this.file()!, this.plan()!.part.id, finish.id, this.circumstances());
    const result = forecast(basisOf(plan));
    const model = result.course.plan;
    const values = figureValues(result);
    const hands = model.steps.reduce((sum, step) => sum + handsOn(step, model.panel), 0);
    const costs = quantities(model, plan.prices).flatMap(({ cost }) => cost ?? []);
    const cost = costs.length === 0 ? null : costs.reduce((sum, c) => sum + c, 0);
    const figures = FIGURE_KEYS.filter((key) => key !== 'firstCracks').map((key) => {
      const amount = values[key];
      const text = amount === null ? null : figureText(key, amount, this.units());
      return {
        name: FIGURE_WORDS[key].name,
        value: text === null ? 'none' : `${text.number} ${text.unit}`.trim(),
        amount,
      };
    });
    return {
      id: finish.id,
      name: finish.whatIfOf === null ? `${finish.name}, as planned` : finish.name,
      tried: finish.whatIfOf !== null,
      plan,
      lines: [
        ...figures,
        {
          name: 'Done after',
          value: result.readyAt === null ? 'never in this air' : duration(result.readyAt),
          amount: result.readyAt,
        },
        { name: 'With the hands', value: duration(hands), amount: hands },
        { name: 'Paint costs', value: cost === null ? 'no prices' : this.money.text(cost), amount: cost },
      ],
      risks: result.findings
        .filter(({ level }) => level === 'stop' || level === 'warn')
        .map((finding) => findingWords(finding, this.units()).title),
    };
  }

  protected take(finishId: string): void {
    this.store.dispatch(PlanEditor.whatIfTaken({ finishId }));
    this.dialog.close();
  }
}

function differs(a: number | null, b: number | null): boolean {
  if (a === null || b === null) return a !== b;
  return Math.abs(a - b) > ALIKE * Math.max(Math.abs(a), Math.abs(b));
}
