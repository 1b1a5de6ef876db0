import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

/** One of several words, with its label above, as compact as a number field. */
@Component({
  selector: 'zf-choice',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label>
      <span [class.visually-hidden]="quiet()">{{ label() }}</span>
      <select #field [disabled]="disabled()" (change)="chosen.emit(field.value)">
        @for (option of options(); track option.value) {
          <option [value]="option.value" [selected]="option.value === value()">{{ option.name }}</option>
        }
      </select>
    </label>
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    label {
      display: grid;
      gap: 2px;
    }
    span {
      color: var(--ink-2);
      font-size: 12px;
    }
    select {
      width: 100%;
      height: 32px;
      padding: 0 6px;
      border: 1px solid var(--field-line, var(--line));
      border-radius: 4px;
      background: var(--paper);
      color: var(--ink);
      font: inherit;
    }
    select:focus-visible {
      border-color: var(--kelp);
      outline: 1px solid var(--kelp);
      outline-offset: 0;
    }
    select:disabled {
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
