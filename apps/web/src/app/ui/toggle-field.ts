import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatButtonToggleModule } from '@angular/material/button-toggle';

/** One of a few words, all in sight, with its label above. */
@Component({
  selector: 'zf-toggle',
  imports: [MatButtonToggleModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span [class.visually-hidden]="quiet()">{{ label() }}</span>
    <mat-button-toggle-group
      [attr.aria-label]="label()"
      hideSingleSelectionIndicator
      [value]="value()"
      (change)="chosen.emit($event.value)"
    >
      @for (option of options(); track option.value) {
        <mat-button-toggle [value]="option.value">{{ option.name }}</mat-button-toggle>
      }
    </mat-button-toggle-group>
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
      min-width: 0;
    }
    span {
      color: var(--ink-2);
      font-size: 12px;
    }
    mat-button-toggle-group {
      flex-wrap: wrap;
      width: 100%;
    }
    mat-button-toggle {
      flex: auto;
      text-align: center;
    }
  `,
})
export class ToggleField {
  readonly label = input.required<string>();
  readonly value = input.required<string | null>();
  readonly options = input.required<readonly { readonly value: string; readonly name: string }[]>();
  readonly quiet = input(false);
  readonly chosen = output<string>();
}
