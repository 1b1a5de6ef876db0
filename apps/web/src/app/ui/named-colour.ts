import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { LIMITS, plainText } from '@zaffet/contract';

/** A colour and what the painter calls it, side by side. */
@Component({
  selector: 'zf-named-colour',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label>
      <span class="visually-hidden">{{ label() }}</span>
      <input type="color" [value]="colour()" (change)="changed.emit({ colour: $any($event.target).value })" />
    </label>
    <label>
      <span class="visually-hidden">{{ nameLabel() }}</span>
      <input
        #text
        [placeholder]="placeholder()"
        [value]="name()"
        [attr.maxlength]="longest"
        (change)="changed.emit({ name: plainText(text.value) })"
      />
    </label>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 46px minmax(0, 1fr);
      gap: 8px;
      min-width: 0;
    }
    input {
      width: 100%;
      height: 32px;
      padding: 0 8px;
      border: 1px solid var(--line);
      border-radius: 4px;
      background: var(--paper);
      color: var(--ink);
      font: inherit;
    }
    input[type='color'] {
      padding: 2px;
      background: none;
    }
  `,
})
export class NamedColour {
  readonly label = input.required<string>();
  readonly nameLabel = input.required<string>();
  readonly placeholder = input('Name of the colour');
  readonly colour = input.required<string>();
  readonly name = input.required<string>();
  readonly changed = output<{ readonly colour?: string; readonly name?: string }>();
  protected readonly plainText = plainText;
  protected readonly longest = LIMITS.textLength.max;
}
