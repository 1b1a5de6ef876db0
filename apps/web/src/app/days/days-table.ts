import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { duration, sittingDetail, URGENCY_WORDS, urgencyText } from '@zaffet/words';
import { type Sitting } from '@zaffet/workshop';
import { Clock } from '../data/clock';
import { DaysModel, isMovable } from './days-model';

/** Keys and buttons move by so much [s]. */
const STEP = 300;

/** The days as a table, a row a sitting: the same by keys. */
@Component({
  selector: 'zf-days-table',
  imports: [MatButtonModule, MatIconModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <table>
      <caption class="visually-hidden">
        What is done when. In a row, J is five minutes later, K five minutes earlier, P holds it where it is
        or lets it go.
      </caption>
      <thead>
        <tr>
          <th scope="col">From</th>
          <th scope="col">Until</th>
          <th scope="col">What</th>
          <th scope="col">On</th>
          <th scope="col">By when</th>
          <th scope="col">Hands</th>
          @if (people() > 1) {
            <th scope="col">Who</th>
          }
          <th scope="col"><span class="visually-hidden">Move it</span></th>
        </tr>
      </thead>
      <tbody>
        @for (row of rows(); track row.sitting.id) {
          <tr
            [class]="row.sitting.urgency"
            tabindex="0"
            (keydown.j)="move(row.sitting, 1)"
            (keydown.k)="move(row.sitting, -1)"
            (keydown.p)="pin(row.sitting)"
          >
            <td>{{ row.from }}</td>
            <td>{{ row.until }}</td>
            <th scope="row">
              {{ row.title }}
              @if (row.detail) {
                <small>{{ row.detail }}</small>
              }
            </th>
            <td>{{ row.parts }}</td>
            <td>{{ row.urgency }}</td>
            <td>{{ row.hands }}</td>
            @if (people() > 1) {
              <td>{{ row.sitting.hand + 1 }}</td>
            }
            <td class="keys">
              @if (row.movable) {
                <button
                  mat-icon-button
                  [attr.aria-label]="'Five minutes earlier: ' + row.title"
                  (click)="move(row.sitting, -1)"
                >
                  <mat-icon svgIcon="up" />
                </button>
                <button
                  mat-icon-button
                  [attr.aria-label]="'Five minutes later: ' + row.title"
                  (click)="move(row.sitting, 1)"
                >
                  <mat-icon svgIcon="down" />
                </button>
                <button
                  mat-icon-button
                  [attr.aria-pressed]="row.pinned"
                  [attr.aria-label]="(row.pinned ? 'Let go: ' : 'Hold where it is: ') + row.title"
                  (click)="pin(row.sitting)"
                >
                  <mat-icon svgIcon="pin" />
                </button>
              }
            </td>
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    :host {
      display: block;
      overflow: auto;
    }
    table {
      width: 100%;
      border-collapse: collapse;
    }
    th,
    td {
      padding: 4px 8px 4px 6px;
      border-bottom: 1px solid var(--line);
      font-weight: 400;
      text-align: left;
      vertical-align: top;
    }
    thead th {
      color: var(--ink-2);
      font-size: 12px;
    }
    tbody th {
      font-weight: 600;
    }
    td {
      font-size: 13px;
    }
    small {
      display: block;
      color: var(--ink-2);
      font: 400 12.5px/1.3 var(--text);
    }
    td:first-child {
      white-space: nowrap;
    }
    tr.must {
      background: var(--rust-soft);
    }
    tr:focus-visible {
      outline: 2px solid var(--kelp);
      outline-offset: -2px;
    }
    .keys {
      white-space: nowrap;
      padding: 0;
    }
    .keys button {
      --mat-icon-button-state-layer-size: 28px;
      --mat-icon-button-icon-size: 18px;
      width: 28px;
      height: 28px;
      padding: 5px;
    }
    .keys button[aria-pressed='true'] {
      color: var(--kelp);
    }
  `,
})
export class DaysTable {
  protected readonly model = inject(DaysModel);
  private readonly clock = inject(Clock);
  protected readonly people = computed(() => this.model.shown()?.of.work?.people ?? 1);

  protected readonly rows = computed(() => {
    const shown = this.model.shown();
    if (shown === null) return [];
    const start = Date.parse(shown.of.startsAt);
    const clock = {
      time: (at: number) => this.clock.time(at),
      dayTime: (at: number) => this.clock.dayTime(at),
    };
    return this.model.sittings().map((sitting) => ({
      sitting,
      from: this.clock.dayTime(this.model.at(sitting.from)),
      until: this.clock.time(this.model.at(sitting.until)),
      title: this.model.titleOf(sitting),
      parts: sitting.kind === 'mix' ? '' : this.model.partsOf(sitting),
      detail: sittingDetail(sitting, shown.of),
      urgency:
        sitting.kind === 'mix'
          ? ''
          : [
              urgencyText(sitting, start, clock) || URGENCY_WORDS[sitting.urgency],
              this.model.softEnd(sitting),
            ]
              .filter(Boolean)
              .join('; '),
      hands: duration(sitting.until - sitting.from),
      movable: isMovable(sitting),
      pinned: this.model.isPinned(sitting),
    }));
  });

  protected move(sitting: Sitting, by: 1 | -1): void {
    if (isMovable(sitting)) this.model.drop(sitting, Math.max(0, sitting.work[0]!.from + by * STEP));
  }

  protected pin(sitting: Sitting): void {
    if (!isMovable(sitting)) return;
    if (this.model.isPinned(sitting)) this.model.unpin(sitting);
    else this.model.drop(sitting, sitting.work[0]!.from);
  }
}
