import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatDialog, MatDialogModule } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { longPauseOf } from '@zaffet/core/schedule';
import { duration, longPauseText, missedText, obstacleText, weekText } from '@zaffet/words';
import { workEndsMin } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { addMinutes, startOfDay } from 'date-fns';
import { Clock } from '../data/clock';
import { now } from '../data/fresh';
import { planFeature } from '../plan/plan.feature';
import { ShopSheet } from '../shop/shop-sheet';
import { MomentField } from '../ui/moment-field';
import { saveFile } from '../ui/save-file';
import { ToggleField } from '../ui/toggle-field';
import { AirView } from './air-view';
import { DaySigns } from './day-signs';
import { DaysBoard } from './days-board';
import { DaysModel } from './days-model';
import { DaysTable } from './days-table';
import { MorningCard } from './morning-card';
import { OrderSheet } from './order-sheet';
import { OtherWays } from './other-ways';

/** Turning is worth a sentence from so much on [s]. */
const COSTS = 1800;

/** What is done when, over all parts of the piece: the morning, the days, other ways. */
@Component({
  selector: 'zf-days-page',
  imports: [
    AirView,
    DaysBoard,
    DaysTable,
    MatButtonModule,
    MatCheckboxModule,
    MatDialogModule,
    MatIconModule,
    MatMenuModule,
    MomentField,
    MorningCard,
    OtherWays,
    ToggleField,
  ],
  providers: [DaysModel, DaySigns],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './days.page.html',
  styleUrl: './days.page.scss',
})
export class DaysPage {
  protected readonly model = inject(DaysModel);
  protected readonly signs = inject(DaySigns);
  private readonly clock = inject(Clock);
  private readonly dialog = inject(MatDialog);
  private readonly id = inject(Store).selectSignal(planFeature.selectId);

  protected readonly views = [
    { value: 'board', name: 'Side by side' },
    { value: 'table', name: 'As a table' },
    { value: 'air', name: 'The air' },
  ];
  protected readonly view = signal<'board' | 'table' | 'air'>('board');

  /** The day the card tells of: today where something is done today, else the first. */
  protected readonly chosen = linkedSignal<readonly number[], number | null>({
    source: () => this.model.days().map(({ at }) => at),
    computation: (days, before) => {
      const kept = before?.value ?? null;
      if (kept !== null && days.includes(kept)) return kept;
      const today = new Date(now()).setHours(0, 0, 0, 0);
      return days.find((at) => at === today) ?? days[0] ?? null;
    },
  });
  protected readonly day = computed(() => this.model.days().find(({ at }) => at === this.chosen()) ?? null);
  protected readonly following = computed(() => {
    const days = this.model.days();
    return days[days.findIndex(({ at }) => at === this.chosen()) + 1] ?? null;
  });

  protected readonly obstacle = computed(() => {
    const shown = this.model.shown();
    return shown?.table.obstacle == null ? null : obstacleText(shown.table.obstacle, shown.of);
  });
  /** Windows that no order of the work keeps, each in a sentence. */
  protected readonly missed = computed(() => {
    const shown = this.model.shown();
    return shown === null ? [] : shown.table.missed.map((entry) => missedText(entry, shown.of));
  });
  /** A pause of more than a week is said before it is found on the board. */
  protected readonly pause = computed(() => {
    const shown = this.model.shown();
    const pause = shown === null ? null : longPauseOf(shown.table);
    if (shown === null || pause === null) return null;
    const { since, next } = pause;
    const [from, to] = [since, next.from].map((at) => this.clock.dateTime(this.model.at(at)));
    return longPauseText(next.from - since, next, shown.of, from!, to!);
  });
  protected readonly timing = computed(() => this.model.file()!.timing);
  protected readonly deadline = computed(() => {
    const { deadlineAt } = this.timing();
    return deadlineAt === null ? null : new Date(deadlineAt);
  });
  protected readonly week = computed(() => weekText(this.model.shown()?.of.work ?? null, this.clock.face()));

  protected readonly ready = computed(() => {
    const shown = this.model.shown();
    if (shown === null) return '';
    const { ready, band } = shown.table;
    if (ready === null) return 'Something never dries in this air.';
    const told = this.clock.longDayTime(this.model.at(ready));
    if (band === null || band[1] - band[0] < 600) return `Ready ${told}.`;
    return `Ready ${told}; 8 in 10 between ${this.clock.dateTime(this.model.at(band[0]))} and ${this.clock.dateTime(this.model.at(band[1]))}.`;
  });
  protected readonly late = computed(() => {
    const [shown, deadline] = [this.model.shown(), this.deadline()];
    if (shown === null || deadline === null || shown.table.ready === null) return null;
    const spare = (deadline.getTime() - this.model.at(shown.table.ready)) / 1000;
    return spare >= 0
      ? { late: false, text: `${duration(spare)} before it has to be ready` }
      : { late: true, text: `${duration(-spare)} too late` };
  });
  protected readonly sums = computed(() => {
    const sums = this.model.sums();
    if (sums === null) return '';
    const days = this.model.days().length;
    const parts = [
      ...(sums.cleaning > 0 ? [`${duration(sums.cleaning)} cleaning`] : []),
      ...(sums.mixing > 0 ? [`${duration(sums.mixing)} mixing`] : []),
      ...(sums.turns > 0 ? [`${duration(sums.turning)} turning it ${sums.turns} times`] : []),
    ];
    return `${days === 1 ? 'One day' : `${days} days`}, ${duration(sums.hands)} of work${parts.length === 0 ? '' : `, of it ${parts.join(', ')}`}.`;
  });
  /** What costs most, where another way says so. */
  protected readonly costs = computed(() => {
    const ways = this.model.ways.hasValue() ? this.model.ways.value() : [];
    const standing = ways.find(({ way }) => way === 'standing');
    return standing === undefined || standing.gains < COSTS || standing.ready === null
      ? ''
      : `Turning costs most: with the faces standing it would be ready ${this.clock.dateTime(standing.ready)}.`;
  });

  protected shop(): void {
    this.dialog.open(ShopSheet, { width: '1080px', maxWidth: '96vw' });
  }

  protected first(): void {
    this.dialog.open(OrderSheet, { width: '640px', maxWidth: '96vw' });
  }

  /** A day that is chosen first is due at the end of its hours. */
  protected setDeadline(chosen: Date | null): void {
    const at = chosen === null || this.deadline() !== null ? chosen : this.endOfWork(chosen);
    this.model.change({ deadlineAt: at?.toISOString() ?? null, ...(at === null ? { backward: false } : {}) });
  }

  private endOfWork(on: Date): Date {
    const day = startOfDay(this.clock.toWall(on));
    return this.clock.fromWall(addMinutes(day, workEndsMin(this.model.file()!.work, day)));
  }

  protected print(): void {
    window.print();
  }

  protected async save(kind: 'ics' | 'csv'): Promise<void> {
    const shown = this.model.shown();
    if (shown === null) return;
    const { calendarFile, timetableCsv } = await import('@zaffet/words');
    const [text, type] =
      kind === 'ics'
        ? [
            calendarFile(
              shown.of,
              shown.table,
              this.id() ?? shown.of.name,
              now().getTime(),
              this.clock.face(),
            ),
            'text/calendar',
          ]
        : [timetableCsv(shown.of, shown.table), 'text/csv'];
    saveFile(new Blob([text], { type }), shown.of.name, `.${kind}`);
  }
}
