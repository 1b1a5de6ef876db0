import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import { MatDatepickerModule } from '@angular/material/datepicker';
import { MatTimepickerModule } from '@angular/material/timepicker';
import { isValid } from 'date-fns';
import { Clock } from '../data/clock';

const NO_MOMENT = 'no such moment';

/** A day, a time of day, or both, typed or picked. What is no moment stays as it was, and is said to be wrong. */
@Component({
  selector: 'zf-moment',
  imports: [MatDatepickerModule, MatTimepickerModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span class="label" [class.visually-hidden]="quiet()">{{ label() }}</span>
    <span class="box" [class.wrong]="wrong() !== null">
      @if (day()) {
        <input
          class="day"
          [matDatepicker]="picker"
          [value]="shown()"
          [attr.aria-label]="label() + (time() ? ', day' : '')"
          [placeholder]="placeholder()"
          (dateChange)="setDay($event.value)"
        />
        <mat-datepicker-toggle [for]="picker" />
        <mat-datepicker #picker />
      }
      @if (time()) {
        <input
          #typed="matTimepickerInput"
          class="time"
          [matTimepicker]="times"
          [value]="shown()"
          [attr.aria-label]="label() + (day() ? ', time' : '')"
          (change)="setTime(typed.value())"
        />
        <mat-timepicker #times interval="15m" (selected)="setTime($event.value)" />
      }
    </span>
    @if (wrong(); as fault) {
      <span class="fault" role="alert">{{ fault }}</span>
    }
  `,
  styles: `
    :host {
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
      gap: 2px;
      height: 32px;
      padding: 0 4px 0 8px;
      border: 1px solid var(--field-line, var(--line));
      border-radius: 4px;
      background: var(--paper);
    }
    .box:focus-within {
      border-color: var(--kelp);
      box-shadow: 0 0 0 1px var(--kelp);
    }
    .box.wrong {
      border-color: var(--rust);
    }
    input {
      min-width: 0;
      border: 0;
      outline: none;
      background: none;
      color: inherit;
      font: inherit;
    }
    .day {
      width: 92px;
    }
    .time {
      width: 64px;
    }
    .fault {
      color: var(--rust);
      font-size: 12px;
    }
    mat-datepicker-toggle {
      --mat-icon-button-state-layer-size: 28px;
      --mat-icon-button-icon-size: 18px;
      --mat-icon-button-touch-target-display: none;
      --mat-icon-button-container-shape: 4px;
      color: var(--ink-2);
    }
  `,
})
export class MomentField {
  private readonly clock = inject(Clock);
  readonly label = input.required<string>();
  readonly quiet = input(false);
  /** The moment shown; null where nobody said. */
  readonly value = input.required<Date | null>();
  readonly day = input(true);
  readonly time = input(true);
  readonly placeholder = input('');
  /** The first and the last moment that may be told; any where null. */
  readonly least = input<Date | null>(null);
  readonly most = input<Date | null>(null);
  readonly changed = output<Date | null>();

  /** Kept apart by what it is: another object of the same moment would put the typed text back. */
  protected readonly shown = computed(() => this.wallOf(this.value()), {
    equal: (a, b) => a?.getTime() === b?.getTime(),
  });
  /** What is wrong with what was typed; null where nothing is. */
  protected readonly wrong = linkedSignal<Date | null, string | null>({
    source: this.shown,
    computation: () => null,
  });

  /** A moment as the form's fields take it. */
  private wallOf(at: Date | null): Date | null {
    return at === null || !isValid(at) ? at : this.clock.toWall(at);
  }

  protected setDay(day: Date | null): void {
    const { value, time } = { value: this.value(), time: this.time() };
    if (day === null) {
      // A day that must be there is not cleared; one that nobody need say is.
      this.wrong.set(time ? NO_MOMENT : null);
      if (!time && value !== null) this.changed.emit(null);
      return;
    }
    this.take(day, this.wallOf(value));
  }

  protected setTime(time: Date | null): void {
    const value = this.value();
    if (time === null || value === null) this.wrong.set(time === null ? NO_MOMENT : null);
    else this.take(this.wallOf(value)!, time);
  }

  /** The day of one with the time of the other. */
  private take(day: Date, time: Date | null): void {
    const wall = new Date(day);
    if (time !== null) wall.setHours(time.getHours(), time.getMinutes(), 0, 0);
    const next = isValid(wall) ? this.clock.fromWall(wall) : wall;
    const fault = this.faultOf(next);
    this.wrong.set(fault);
    if (fault === null && next.getTime() !== this.value()?.getTime()) this.changed.emit(next);
  }

  private faultOf(at: Date): string | null {
    if (!isValid(at)) return NO_MOMENT;
    const { least, most } = { least: this.least(), most: this.most() };
    const written = (bound: Date): string =>
      this.day() ? this.clock.dateTime(bound) : this.clock.time(bound);
    if (least !== null && at < least) return `not before ${written(least)}`;
    return most !== null && at > most ? `not after ${written(most)}` : null;
  }
}
