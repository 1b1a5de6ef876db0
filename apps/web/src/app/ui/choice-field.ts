import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatSelectModule } from '@angular/material/select';

/** One of several words, with its label above, as compact as a number field. */
@Component({
  selector: 'zf-choice',
  imports: [MatSelectModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="field">
      <span [class.visually-hidden]="quiet()">{{ label() }}</span>
      <mat-select
        [aria-label]="label()"
        [disabled]="disabled()"
        [value]="value()"
        (selectionChange)="chosen.emit($event.value)"
      >
        @for (option of options(); track option.value) {
          <mat-option [value]="option.value">{{ option.name }}</mat-option>
        }
      </mat-select>
    </div>
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    .field {
      display: grid;
      gap: 2px;
    }
    span {
      color: var(--ink-2);
      font-size: 12px;
    }
    mat-select {
      display: flex;
      align-items: center;
      box-sizing: border-box;
      width: 100%;
      height: 32px;
      padding: 0 8px;
      border: 1px solid var(--field-line, var(--line));
      border-radius: 4px;
      background: var(--paper);
      --mat-select-trigger-text-size: 14px;
    }
    mat-select:focus-visible {
      border-color: var(--kelp);
      outline: 1px solid var(--kelp);
      outline-offset: 0;
    }
    mat-select.mat-mdc-select-disabled {
      opacity: 0.55;
    }
  `,
})
export class ChoiceField {
  readonly label = input.required<string>();
  readonly value = input.required<string>();
  readonly options = input.required<readonly { readonly value: string; readonly name: string }[]>();
  readonly quiet = input(false);
  readonly disabled = input(false);
  readonly chosen = output<string>();
}

/** A table of names as options, in the order of its keys. */
export const optionsOf = (
  names: Readonly<Record<string, string>>,
  keys: readonly string[] = Object.keys(names),
): { value: string; name: string }[] => keys.map((value) => ({ value, name: names[value] ?? value }));
