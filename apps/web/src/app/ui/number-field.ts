import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import { type Limit } from '@zaffet/contract';
import { DISPLAY, inches, parseInches } from '@zaffet/words';
import { Units } from '../data/units';

/**
 * A number with its unit. Half-typed text stays in the field; it is taken over on Enter or on leaving. A value that
 * is out of range is kept as typed, with what is allowed beside it, until it is mended.
 */
@Component({
  selector: 'zf-number',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="field" [class.wrong]="fault()">
      <span class="label" [class.visually-hidden]="quiet()">{{ label() }}</span>
      <span class="box">
        <input
          type="text"
          inputmode="decimal"
          [value]="text()"
          [attr.aria-invalid]="fault() ? 'true' : null"
          [placeholder]="placeholder()"
          (input)="text.set($any($event.target).value)"
          (change)="commit()"
          (keydown.enter)="commit()"
          (keydown.arrowUp)="nudge(1, $event)"
          (keydown.arrowDown)="nudge(-1, $event)"
        />
        <span class="unit">{{ shownUnit() }}</span>
      </span>
      @if (fault(); as message) {
        <span class="fault" role="alert">{{ message }}</span>
      }
    </label>
  `,
  styles: `
    .field {
      display: grid;
      gap: 2px;
    }
    .label {
      color: var(--ink-2);
      font-size: 12px;
    }
    .box {
      display: flex;
      align-items: center;
      background: var(--paper);
      border: 1px solid var(--field-line, var(--line));
      border-radius: 4px;
      padding: 0 8px;
      height: var(--field-height, 32px);
    }
    .box:focus-within {
      border-color: var(--kelp);
      box-shadow: 0 0 0 1px var(--kelp);
    }
    .wrong .box {
      border-color: var(--rust);
    }
    input {
      flex: 1;
      min-width: 0;
      width: 100%;
      border: 0;
      background: none;
      color: inherit;
      font: inherit;
      outline: none;
      text-align: right;
    }
    .unit {
      color: var(--ink-2);
      padding-left: 5px;
      white-space: nowrap;
    }
    .fault {
      color: var(--rust);
      font-size: 12px;
    }
  `,
})
export class NumberField {
  readonly label = input.required<string>();
  readonly value = input.required<number | null>();
  readonly limit = input.required<Limit>();
  /** Shown unit, when it is not the limit's; `factor` turns the value into it. */
  readonly unit = input<string>();
  readonly factor = input(1);
  /** Digits after the point; as many as the number needs where null. */
  readonly decimals = input<number | null>(null);
  readonly placeholder = input('');
  readonly quiet = input(false);
  /** Empty means null instead of a fault. */
  readonly optional = input(false);
  readonly changed = output<number | null>();

  private readonly units = inject(Units);
  /** From the number kept to the number shown: shown = kept · factor + offset. */
  private readonly display = computed(() => {
    const converted = this.unit() === undefined ? DISPLAY[this.units.system()][this.limit().unit] : undefined;
    return {
      unit: converted?.unit ?? this.unit() ?? this.limit().unit,
      factor: converted?.factor ?? this.factor(),
      offset: converted?.offset ?? 0,
      converted: converted !== undefined,
    };
  });
  protected readonly shownUnit = computed(() => this.display().unit);
  private readonly shown = (value: number): string => {
    const { unit, factor, offset, converted } = this.display();
    const number = value * factor + offset;
    if (unit === 'in') return inches(number);
    const decimals = this.decimals();
    if (decimals !== null) return String(Number(number.toFixed(decimals)));
    return String(converted ? Number(number.toPrecision(SHOWN_DIGITS)) : round(number));
  };

  protected readonly text = linkedSignal(() => {
    const value = this.value();
    return value === null ? '' : this.shown(value);
  });

  private readonly parsed = computed((): number | null | undefined => {
    const text = this.text().trim().replace(',', '.');
    if (text === '') return this.optional() ? null : undefined;
    const { unit, factor, offset } = this.display();
    const kept = this.value();
    // What was not changed keeps every digit, whatever the screen rounds.
    if (kept !== null && text === this.shown(kept)) return kept;
    const { min, max } = this.limit();
    // The ends of the range are told as they are shown, and may be typed so.
    const end = [min, max].find((value) => text === this.shown(value));
    if (end !== undefined) return end;
    const number = ((unit === 'in' ? parseInches(text) : Number(text)) - offset) / factor;
    return Number.isFinite(number) && number >= min - 1e-9 && number <= max + 1e-9 ? number : undefined;
  });

  protected readonly fault = computed(() => {
    if (this.parsed() !== undefined) return null;
    const { min, max } = this.limit();
    return `${this.shown(min)} to ${this.shown(max)} ${this.shownUnit()}`.trim();
  });

  protected commit(): void {
    const value = this.parsed();
    if (value !== undefined && value !== this.value()) this.changed.emit(value);
  }

  protected nudge(by: 1 | -1, event: Event): void {
    const value = this.parsed();
    if (value === undefined) return;
    event.preventDefault();
    const { min, max, step } = this.limit();
    // A rule has sixteenths of an inch; a smaller step would not be seen.
    const { unit, factor } = this.display();
    const stride = unit === 'in' && step * factor > 1 / 64 ? 1 / 16 / factor : step;
    const next = Math.min(max, Math.max(min, (value ?? min) + by * stride));
    this.text.set(this.shown(next));
    if (next !== this.value()) this.changed.emit(next);
  }
}

/** Digits of a number that is converted from the unit it is kept in. */
const SHOWN_DIGITS = 3;

const round = (value: number): number => Math.round(value * 1e4) / 1e4;
