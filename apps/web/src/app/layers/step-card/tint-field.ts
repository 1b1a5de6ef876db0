import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { LIMITS, plainText, type TintFile } from '@zaffet/contract';
import { NumberField } from '../../ui/number-field';

/** Strong black tea, dried; from memory, by eye. */
const TEA: TintFile = { name: 'Strong tea', colour: '#7a5230', strength: 0.15 };

/** Tea, coffee or stain in the water of a step. */
@Component({
  selector: 'zf-tint',
  imports: [MatCheckboxModule, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <mat-checkbox [checked]="tint() !== null" (change)="changed.emit($event.checked ? tea : null)"
      >Tea or stain in the water</mat-checkbox
    >
    @if (tint(); as tint) {
      <div class="row">
        <label>
          <span class="visually-hidden">Colour it dries to</span>
          <input
            type="color"
            [value]="tint.colour"
            (change)="
              changed.emit({ name: tint.name, strength: tint.strength, colour: $any($event.target).value })
            "
          />
        </label>
        <label class="grow">
          <span class="visually-hidden">What is in the water</span>
          <input
            #name
            placeholder="What is in the water"
            [value]="tint.name"
            [attr.maxlength]="limits.textLength.max"
            (change)="
              changed.emit({ name: plainText(name.value), strength: tint.strength, colour: tint.colour })
            "
          />
        </label>
        <zf-number
          label="How much the veil hides"
          [quiet]="true"
          [value]="tint.strength"
          [limit]="limits.tintStrength"
          [factor]="100"
          unit="%"
          (changed)="changed.emit({ name: tint.name, colour: tint.colour, strength: $event! })"
        />
      </div>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
    }
    .row {
      display: grid;
      grid-template-columns: 46px minmax(0, 1fr) 84px;
      align-items: center;
      gap: 6px;
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
export class TintField {
  readonly tint = input.required<TintFile | null>();
  readonly changed = output<TintFile | null>();
  protected readonly tea = TEA;
  protected readonly limits = LIMITS;
  protected readonly plainText = plainText;
}
