import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatIconModule } from '@angular/material/icon';
import { type CoatStep, LIMITS, type OtherColour } from '@zaffet/contract';
import { type Manner, MANNERS, opposite } from '@zaffet/core/colour';
import { MANNER_NAMES, perCent } from '@zaffet/words';
import { NamedColour } from '../../ui/named-colour';
import { NumberField } from '../../ui/number-field';

/** What a further colour takes at first. */
const NEW_SHARE = 0.25;

/** Further colours of one coat: which, how much of it each takes, and how they meet. */
@Component({
  selector: 'zf-more-colours',
  imports: [MatButtonModule, MatButtonToggleModule, MatIconModule, NamedColour, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (other of others(); track $index) {
      <div class="row" role="group" [attr.aria-label]="'Colour ' + ($index + 2)">
        <zf-named-colour
          [label]="'Colour ' + ($index + 2)"
          [nameLabel]="'Name of colour ' + ($index + 2)"
          [colour]="other.colour"
          [name]="other.name"
          (changed)="put($index, $event)"
        />
        <zf-number
          [label]="'Share of colour ' + ($index + 2)"
          [quiet]="true"
          [value]="other.share"
          [limit]="room($index)"
          [factor]="100"
          unit="%"
          (changed)="put($index, { share: $event! })"
        />
        <button
          mat-icon-button
          [attr.aria-label]="'Take colour ' + ($index + 2) + ' out'"
          (click)="drop($index)"
        >
          <mat-icon svgIcon="remove" />
        </button>
      </div>
    }
    @if (others().length > 0) {
      <p class="quiet">The coat's own colour takes the other {{ own() }}.</p>
      <mat-button-toggle-group
        aria-label="How the colours meet"
        hideSingleSelectionIndicator
        [value]="step().manner"
        (change)="changed.emit({ manner: $event.value })"
      >
        @for (key of manners; track key) {
          <mat-button-toggle [value]="key">{{ names[key] }}</mat-button-toggle>
        }
      </mat-button-toggle-group>
    }
    @if (others().length < limits.others.max) {
      <button mat-button (click)="add()"><mat-icon svgIcon="plus" />Another colour in this coat</button>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
    }
    .row {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 74px 36px;
      align-items: center;
      gap: 6px;
    }
    p {
      margin: 0;
      font-size: 12px;
    }
    mat-button-toggle-group {
      width: 100%;
    }
    mat-button-toggle {
      flex: auto;
      text-align: center;
    }
    button[mat-button] {
      justify-self: start;
    }
  `,
})
export class MoreColours {
  readonly step = input.required<CoatStep>();
  readonly changed = output<{ readonly others?: readonly OtherColour[]; readonly manner?: Manner }>();
  protected readonly limits = LIMITS;
  protected readonly manners = MANNERS;
  protected readonly names = MANNER_NAMES;
  protected readonly others = computed(() => this.step().others);
  private readonly taken = computed(() => this.others().reduce((sum, { share }) => sum + share, 0));
  protected readonly own = computed(() => perCent(1 - this.taken()));

  /** Whatever one colour takes, the coat's own keeps its place. */
  protected room(at: number): typeof LIMITS.share {
    const max = LIMITS.otherShares.max - this.taken() + this.others()[at]!.share;
    return { ...LIMITS.share, max: Math.round(max * 100) / 100 } as typeof LIMITS.share;
  }

  protected put(at: number, changes: Partial<OtherColour>): void {
    this.changed.emit({
      others: this.others().map((other, i) => (i === at ? { ...other, ...changes } : other)),
    });
  }

  protected drop(at: number): void {
    this.changed.emit({ others: this.others().filter((_, i) => i !== at) });
  }

  protected add(): void {
    const share = Math.min(NEW_SHARE, LIMITS.otherShares.max - this.taken());
    const last = this.others().at(-1)?.colour ?? this.step().colour;
    this.changed.emit({
      others: [...this.others(), { name: '', colour: opposite(last), share: Math.round(share * 100) / 100 }],
    });
  }
}
