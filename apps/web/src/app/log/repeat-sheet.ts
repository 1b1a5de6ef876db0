import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { type Limit, LIMITS, plainText, type Plan } from '@zaffet/contract';
import { repeated, type Run } from '@zaffet/workshop';
import { newId, now, workBegins } from '../data/fresh';
import { Units } from '../data/units';
import { NumberField } from '../ui/number-field';
import { lengthText } from '@zaffet/words';

/** How much larger or smaller a piece may be than last time. */
const SCALE: Limit = { min: 10, max: 1000, step: 10, unit: '%' };

/** What was done, as a new plan: on a piece of the same size, or of another. */
@Component({
  selector: 'zf-repeat-sheet',
  imports: [MatButtonModule, MatDialogModule, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Do it again</h2>
    <mat-dialog-content>
      <p>
        A new plan of what was done, not of what was meant: films as thick as they were weighed, strokes and
        waits as they were, what was put in with it. What was written down stands at its steps.
      </p>
      <label>
        What it is called
        <input #name [value]="called" [attr.maxlength]="limits.textLength.max" />
      </label>
      <div class="pair">
        <zf-number label="As wide as" [value]="wide()" [limit]="scale" (changed)="wide.set($event!)" />
        <zf-number label="As high as" [value]="high()" [limit]="scale" (changed)="high.set($event!)" />
      </div>
      <ul>
        @for (part of sizes(); track part.id) {
          <li>{{ part.name }}: {{ part.was }}, now {{ part.now }}</li>
        }
      </ul>
      @if (trouble(); as text) {
        <p class="trouble" role="alert">{{ text }}</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button mat-dialog-close>Leave it</button>
      <button mat-flat-button (click)="make(name.value)">Make the plan</button>
    </mat-dialog-actions>
  `,
  styles: `
    mat-dialog-content {
      display: grid;
      gap: 12px;
    }
    p,
    ul {
      margin: 0;
    }
    label {
      display: grid;
      gap: 2px;
      color: var(--ink-2);
      font-size: 12px;
    }
    input {
      height: 34px;
      padding: 0 8px;
      border: 1px solid var(--line);
      border-radius: 4px;
      background: var(--paper);
      color: var(--ink);
      font: 14px var(--text);
    }
    .pair {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 12px;
    }
    .trouble {
      color: var(--rust);
    }
  `,
})
export class RepeatSheet {
  private readonly sheet = inject<MatDialogRef<RepeatSheet, Plan>>(MatDialogRef);
  private readonly run = inject<Run>(MAT_DIALOG_DATA);
  private readonly units = inject(Units).system;
  protected readonly limits = LIMITS;
  protected readonly scale = SCALE;
  protected readonly called = plainText(`${this.run.plan.name}, again`);
  protected readonly wide = signal(100);
  protected readonly high = signal(100);
  protected readonly trouble = signal<string | null>(null);

  private readonly made = (name: string): Plan =>
    repeated(
      this.run,
      {
        name,
        startsAt: workBegins(now()).toISOString(),
        byWidth: this.wide() / 100,
        byHeight: this.high() / 100,
      },
      newId,
    );
  protected readonly sizes = computed(() => {
    const plan = this.made(this.called);
    const size = (part: { widthMm: number; heightMm: number }): string =>
      `${lengthText(part.widthMm / 1000, this.units())} × ${lengthText(part.heightMm / 1000, this.units())}`;
    return this.run.plan.piece.parts.map((part, i) => ({
      id: part.id,
      name: part.name,
      was: size(part),
      now: size(plan.piece.parts[i]!),
    }));
  });

  protected make(name: string): void {
    const called = plainText(name);
    if (called === '') {
      this.trouble.set('Give it a name.');
      return;
    }
    this.sheet.close(this.made(called));
  }
}
