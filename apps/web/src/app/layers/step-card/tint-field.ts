import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { LIMITS, type TintFile } from '@zaffet/contract';
import { NamedColour } from '../../ui/named-colour';
import { NumberField } from '../../ui/number-field';

/** Strong black tea, dried; from memory, by eye. */
const TEA: TintFile = { name: 'Strong tea', colour: '#7a5230', strength: 0.15 };

/** Tea, coffee or stain in the water of a step. */
@Component({
  selector: 'zf-tint',
  imports: [MatCheckboxModule, NamedColour, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <mat-checkbox [checked]="tint() !== null" (change)="changed.emit($event.checked ? tea : null)"
      >Tea or stain in the water</mat-checkbox
    >
    @if (tint(); as tint) {
      <div class="row">
        <zf-named-colour
          label="Colour it dries to"
          nameLabel="What is in the water"
          placeholder="What is in the water"
          [colour]="tint.colour"
          [name]="tint.name"
          (changed)="put(tint, $event)"
        />
        <zf-number
          label="How much the veil hides"
          [quiet]="true"
          [value]="tint.strength"
          [limit]="limits.tintStrength"
          [factor]="100"
          unit="%"
          (changed)="put(tint, { strength: $event! })"
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
      grid-template-columns: minmax(0, 1fr) 84px;
      align-items: center;
      gap: 6px;
    }
  `,
})
export class TintField {
  readonly tint = input.required<TintFile | null>();
  readonly changed = output<TintFile | null>();
  protected readonly tea = TEA;
  protected readonly limits = LIMITS;

  protected put(tint: TintFile, changes: Partial<TintFile>): void {
    this.changed.emit({ ...tint, ...changes });
  }
}
