import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { type DayStretch } from '@zaffet/contract';
import { Clock } from '../data/clock';
import { MomentField } from './moment-field';

const MIDNIGHT = new Date(2026, 0, 5);
/** The last minute of a day that can be written, and the shortest stretch [min]. */
const LAST = 1435;
const SHORTEST = 5;
const DAY = 1440;

/** A stretch of a day: from one time of day to another, neither past the other nor into its neighbours. */
@Component({
  selector: 'zf-stretch',
  imports: [MomentField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <zf-moment
      [label]="label() + ' from'"
      [quiet]="true"
      [day]="false"
      [value]="at(value().opensMin)"
      [least]="at(least())"
      [most]="at(value().closesMin - shortest)"
      (changed)="set('opensMin', $event)"
    />
    to
    <zf-moment
      [label]="label() + ' to'"
      [quiet]="true"
      [day]="false"
      [value]="at(value().closesMin)"
      [least]="at(value().opensMin + shortest)"
      [most]="last()"
      (changed)="set('closesMin', $event)"
    />
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 5px;
    }
  `,
})
export class StretchField {
  private readonly clock = inject(Clock);
  readonly label = input.required<string>();
  readonly value = input.required<DayStretch>();
  /** When the stretch before it ends, and the one after it begins [min]. */
  readonly least = input(0);
  readonly most = input(DAY);
  readonly changed = output<DayStretch>();
  protected readonly shortest = SHORTEST;
  protected readonly last = computed(() => this.at(Math.min(LAST, this.most())));

  /** A time of day as a moment of some day. */
  protected at(minutes: number): Date {
    return this.clock.fromWall(new Date(MIDNIGHT.getTime() + minutes * 60_000));
  }

  protected set(which: keyof DayStretch, at: Date | null): void {
    if (at === null) return;
    const wall = this.clock.toWall(at);
    this.changed.emit({ ...this.value(), [which]: wall.getHours() * 60 + wall.getMinutes() });
  }
}
