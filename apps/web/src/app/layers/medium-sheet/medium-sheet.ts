import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { isFilmStep, LIMITS, plainText } from '@zaffet/contract';
import { fromLabel, LABEL_AIR, type LabelTimes, labelTimes } from '@zaffet/core/film';
import { medium, mediumLookup, type MediumParameter, type OwnMedium, PARAMETERS } from '@zaffet/core/media';
import { celsius, mediumName, PROVENANCE_NAMES } from '@zaffet/words';
import { Store } from '@ngrx/store';
import { newId } from '../../data/fresh';
import { PlanEditor } from '../../plan/plan.actions';
import { planFeature } from '../../plan/plan.feature';
import { Units } from '../../data/units';
import { NumberField } from '../../ui/number-field';

/** Every value of a medium with unit, range and where it comes from; changed values make it the painter's own. */
@Component({
  selector: 'zf-medium-sheet',
  imports: [MatButtonModule, MatDialogModule, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>{{ name() }}</h2>
    <mat-dialog-content>
      <p class="quiet">
        A generic kind, no maker's product. Change what your own tin says differently; it then becomes a
        medium of your own in this plan.
      </p>
      <label class="name">
        <span>Your name for it</span>
        <input #own [value]="ownName()" [attr.maxlength]="textLength" (input)="ownName.set(own.value)" />
      </label>
      @if (label(); as times) {
        <fieldset class="label">
          <legend>What the label says of drying, at {{ warmth() }}</legend>
          <zf-number
            label="Touch-dry after"
            [value]="minutes(times.touch)"
            [limit]="labelLimit"
            (changed)="says({ touch: $event! * 60 })"
          />
          <zf-number
            label="Next coat after"
            [value]="minutes(times.recoat)"
            [limit]="labelLimit"
            (changed)="says({ recoat: $event! * 60 })"
          />
          <p class="quiet">The rates below are fitted to these times.</p>
        </fieldset>
      }
      @for (group of groups(); track group.title) {
        <details [open]="group.open">
          <summary>{{ group.title }}</summary>
          <div class="values">
            @for (row of group.rows; track row.key) {
              <span>{{ row.label }}</span>
              <zf-number
                [label]="row.label"
                [quiet]="true"
                [value]="row.value"
                [limit]="row.limit"
                (changed)="set(row.key, $event!)"
              />
              <span class="quiet">{{ row.from }}{{ row.changed ? ', changed' : '' }}</span>
            }
          </div>
        </details>
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      @if (mine()) {
        <button mat-button (click)="forget()">Back to the generic one</button>
      }
      <button mat-button mat-dialog-close>Close</button>
      <button mat-flat-button [disabled]="!ready()" (click)="keep()">Keep as my own</button>
    </mat-dialog-actions>
  `,
  styles: `
    .name {
      display: grid;
      gap: 2px;
      margin-bottom: 12px;
    }
    .name span {
      color: var(--ink-2);
      font-size: 12px;
    }
    .name input {
      height: 32px;
      padding: 0 8px;
      border: 1px solid var(--line);
      border-radius: 4px;
      background: var(--paper);
      color: var(--ink);
      font: inherit;
    }
    .label {
      display: grid;
      grid-template-columns: 150px 150px minmax(0, 1fr);
      align-items: end;
      gap: 12px;
      margin: 0 0 8px;
      padding: 8px 12px;
      border: 1px solid var(--line);
      border-radius: 4px;
    }
    .label legend {
      padding: 0 4px;
      font-weight: 600;
    }
    .label p {
      margin: 0;
      font-size: 12.5px;
    }
    summary {
      padding: 8px 0 4px;
      font-weight: 600;
      cursor: pointer;
    }
    .values {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 150px 120px;
      align-items: center;
      gap: 5px 12px;
    }
    .values .quiet {
      font-size: 12.5px;
    }
  `,
})
export class MediumSheet {
  private readonly store = inject(Store);
  private readonly dialog = inject<MatDialogRef<MediumSheet>>(MatDialogRef);
  private readonly data = inject<{ stepId: string }>(MAT_DIALOG_DATA);
  private readonly plan = this.store.selectSignal(planFeature.selectPlan);
  protected readonly textLength = LIMITS.textLength.max;

  private readonly key = computed(() => {
    const step = this.plan()?.steps.find((s) => s.id === this.data.stepId);
    return step !== undefined && isFilmStep(step) ? step.medium : 'chalk';
  });
  protected readonly mine = computed(() => this.plan()?.media.find((own) => own.key === this.key()) ?? null);
  private readonly base = computed(() => mediumLookup(this.plan()?.media)(this.key()));
  protected readonly name = computed(() => mediumName(this.key(), this.plan()?.media));
  protected readonly ownName = signal(this.mine()?.name ?? '');
  private readonly changes = signal<OwnMedium['changes']>(this.mine()?.changes ?? {});

  /** How soon it is dry as it stands now, as a tin would say it; null for what never is. */
  private readonly changed = computed(() => ({ ...this.base(), ...this.changes() }));
  protected readonly label = computed(() => labelTimes(this.changed()));
  private readonly units = inject(Units).system;
  protected readonly warmth = computed(() => celsius(LABEL_AIR.temperature, this.units()));
  protected readonly minutes = (seconds: number): number => Math.round(seconds / 60);
  protected readonly labelLimit = { min: 1, max: 10080, step: 5, unit: 'min' };

  protected says(told: Partial<LabelTimes>): void {
    const now = this.label();
    if (now === null) return;
    const rates = fromLabel(this.changed(), { ...now, ...told });
    this.changes.update((changes) => ({ ...changes, ...rates }));
  }

  protected readonly rows = computed(() =>
    (Object.keys(PARAMETERS) as MediumParameter[])
      .filter((key) => Number.isFinite(this.base()[key]))
      .map((key) => {
        const info = PARAMETERS[key];
        return {
          key,
          label: info.label,
          value: this.changes()[key] ?? this.base()[key],
          limit: { ...info, step: stepOf(this.base()[key]) },
          from: PROVENANCE_NAMES[info.provenance],
          changed: this.changes()[key] !== undefined,
        };
      }),
  );
  /** What a tin or its data sheet tells, and what had to be assumed. */
  protected readonly groups = computed(() => {
    const told = this.rows().filter((row) => PARAMETERS[row.key].provenance === 'common-practice');
    const assumed = this.rows().filter((row) => PARAMETERS[row.key].provenance !== 'common-practice');
    return [
      { title: 'What tins and data sheets of this kind say', rows: told, open: true },
      { title: 'What had to be assumed, until your boards say better', rows: assumed, open: false },
    ];
  });
  protected readonly ready = computed(
    () =>
      plainText(this.ownName()) !== '' && (this.mine() !== null || Object.keys(this.changes()).length > 0),
  );

  protected set(key: MediumParameter, value: number): void {
    this.changes.update((changes) => ({ ...changes, [key]: value }));
  }

  protected keep(): void {
    const mine = this.mine();
    const entry: OwnMedium = {
      key: mine?.key ?? `own-${newId().slice(0, 8)}`,
      name: plainText(this.ownName()),
      like: mine?.like ?? medium(this.key()).key,
      changes: this.changes(),
    };
    const others = (this.plan()?.media ?? []).filter((own) => own.key !== entry.key);
    this.store.dispatch(
      PlanEditor.mediaChanged({
        media: [...others, entry],
        use: { stepId: this.data.stepId, medium: entry.key },
      }),
    );
    this.dialog.close();
  }

  /** The step takes the generic medium again; the own one stays for others. */
  protected forget(): void {
    const mine = this.mine();
    if (mine === null) return;
    this.store.dispatch(
      PlanEditor.stepChanged({
        stepId: this.data.stepId,
        edit: { fits: 'film', changes: { medium: mine.like } },
        gesture: null,
      }),
    );
    this.dialog.close();
  }
}

/** A step worth an arrow key: a twentieth of the value, as a round number. */
function stepOf(value: number): number {
  if (value === 0) return 0.01;
  return 10 ** Math.floor(Math.log10(Math.abs(value) / 8));
}
