import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatDialogModule } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import {
  type DayStretch,
  isZone,
  LIMITS,
  type RoomFile,
  type Shop,
  USUAL_SHOP,
  type Weekday,
  WEEKDAYS,
  type WorkFile,
  CLOCK_FACES,
  UNIT_SYSTEMS,
} from '@zaffet/contract';
import { MINUTE_KEYS, type MinuteKey, MINUTES } from '@zaffet/core/schedule';
import { minuteField, WEEKDAY_NAMES } from '@zaffet/words';
import { usualWork } from '@zaffet/workshop';
import { Store } from '@ngrx/store';
import { format } from 'date-fns';
import { Clock } from '../data/clock';
import { CURRENCIES, Money } from '../data/money';
import { faultOf } from '../data/plans.api';
import { ShopApi } from '../data/shop.api';
import { Sound, SOUNDS } from '../data/sound';
import { Units } from '../data/units';
import { PlanEditor } from '../plan/plan.actions';
import { planFeature } from '../plan/plan.feature';
import { ChoiceField } from '../ui/choice-field';
import { MomentField } from '../ui/moment-field';
import { NumberField } from '../ui/number-field';
import { StretchField } from '../ui/stretch-field';
import { ToggleField } from '../ui/toggle-field';

const MOST_STRETCHES = LIMITS.stretches.max;

/** When, by whom and where there is work: of this plan, and, where it is kept, of every new one. */
@Component({
  selector: 'zf-shop-sheet',
  imports: [
    ChoiceField,
    MatButtonModule,
    MatCheckboxModule,
    MatDialogModule,
    MatIconModule,
    MomentField,
    NumberField,
    StretchField,
    ToggleField,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './shop-sheet.html',
  styleUrl: './shop-sheet.scss',
})
export class ShopSheet {
  private readonly store = inject(Store);
  private readonly api = inject(ShopApi);
  private readonly file = this.store.selectSignal(planFeature.selectFile);
  protected readonly limits = LIMITS;
  protected readonly work = computed(() => this.file()?.work ?? null);
  protected readonly air = computed(() => this.file()!.air);
  protected readonly said = signal('');

  protected readonly days = computed(() => {
    const week = this.work()?.week;
    return week === undefined
      ? []
      : WEEKDAYS.map((day) => ({ day, name: WEEKDAY_NAMES[day], stretches: week[day] }));
  });
  protected readonly people = ['1', '2', '3'].map((value) => ({ value, name: value }));
  protected readonly zone = computed(() => this.work()?.zone ?? '');
  protected readonly zoneFault = signal<string | null>(null);
  protected readonly zones = Intl.supportedValuesOf('timeZone');
  protected readonly minutes = computed(() => {
    const own = this.work()?.minutes ?? {};
    return MINUTE_KEYS.map((key) => ({
      key,
      ...minuteField(key, this.units.system()),
      value: own[key] ?? MINUTES[key],
    }));
  });

  private readonly clock = inject(Clock);
  private readonly units = inject(Units);
  private readonly money = inject(Money);
  protected readonly clocks = CLOCK_FACES.map((value) => ({ value, name: `${value} hours` }));
  protected readonly face = this.clock.face;
  protected setClock(face: string): void {
    const known = CLOCK_FACES.find((one) => one === face);
    if (known !== undefined) this.clock.choose(known);
  }
  private readonly sound = inject(Sound);
  protected readonly sounds = SOUNDS.map((value) => ({
    value,
    name: value === 'on' ? 'rings' : 'is silent',
  }));
  protected readonly rings = this.sound.state;
  protected setSound(state: string): void {
    const known = SOUNDS.find((one) => one === state);
    if (known === undefined) return;
    this.sound.choose(known);
    // So that it is heard what was chosen.
    this.sound.ring();
  }
  protected readonly systems = UNIT_SYSTEMS.map((value) => ({
    value,
    name: value === 'metric' ? 'Metric' : 'Inches, ounces, Fahrenheit',
  }));
  protected readonly system = this.units.system;
  protected setSystem(system: string): void {
    const known = UNIT_SYSTEMS.find((one) => one === system);
    if (known !== undefined) this.units.choose(known);
  }
  protected readonly currencies = CURRENCIES.map((code) => ({ value: code, name: code || 'no currency' }));
  protected readonly currency = this.money.currency;
  protected setCurrency(code: string): void {
    const known = CURRENCIES.find((one) => one === code);
    if (known !== undefined) this.money.choose(known);
  }

  private change(changes: Partial<WorkFile>): void {
    const work = this.work();
    if (work !== null) this.store.dispatch(PlanEditor.workChanged({ work: { ...work, ...changes } }));
  }

  protected keepHours(keep: boolean): void {
    const work = keep ? usualWork(Intl.DateTimeFormat().resolvedOptions().timeZone) : null;
    this.store.dispatch(PlanEditor.workChanged({ work }));
  }

  private setDay(day: Weekday, stretches: readonly DayStretch[]): void {
    this.change({ week: { ...this.work()!.week, [day]: stretches } });
  }

  protected setStretch(day: Weekday, index: number, stretch: DayStretch): void {
    this.setDay(
      day,
      this.work()!.week[day].map((one, i) => (i === index ? stretch : one)),
    );
  }

  protected canAdd(stretches: readonly DayStretch[]): boolean {
    return stretches.length < MOST_STRETCHES && (stretches.at(-1)?.closesMin ?? 0) <= 1440 - 60;
  }

  protected addStretch(day: Weekday): void {
    const before = this.work()!.week[day];
    const last = before.at(-1);
    const next =
      last === undefined
        ? { opensMin: 480, closesMin: 1020 }
        : { opensMin: Math.min(1380, last.closesMin + 60), closesMin: Math.min(1440, last.closesMin + 180) };
    this.setDay(day, [...before, next]);
  }

  protected removeStretch(day: Weekday, index: number): void {
    this.setDay(
      day,
      this.work()!.week[day].filter((_, i) => i !== index),
    );
  }

  /** The hours of one day for the others that are worked. */
  protected likeThis(day: Weekday): void {
    const { week } = this.work()!;
    const stretches = week[day];
    this.change({
      week: Object.fromEntries(
        WEEKDAYS.map((name) => [name, week[name].length > 0 ? stretches : week[name]]),
      ) as WorkFile['week'],
    });
  }

  protected setPeople(value: string): void {
    this.change({ people: Number(value) });
  }

  protected setZone(typed: string): void {
    const zone = typed.trim();
    const known = isZone(zone);
    this.zoneFault.set(known ? null : 'Choose a zone of the list, or write an offset such as +02:00');
    if (known) this.change({ zone });
  }

  protected setMinutes(key: MinuteKey, value: number | null): void {
    if (value !== null) this.change({ minutes: { ...this.work()!.minutes, [key]: value } });
  }

  protected readonly ownMinutes = computed(() => Object.keys(this.work()?.minutes ?? {}).length > 0);
  protected asUsual(): void {
    this.change({ minutes: {} });
  }

  protected keepDaylight(keep: boolean): void {
    this.change({ daylight: keep ? { opensMin: 540, closesMin: 960 } : null });
  }

  protected setDaylight(daylight: DayStretch): void {
    this.change({ daylight });
  }

  protected readonly daysOff = computed(() =>
    (this.work()?.daysOff ?? []).map((day) => ({
      day,
      name: format(new Date(`${day}T12:00:00`), 'EEE d MMMM yyyy'),
    })),
  );
  protected readonly fullOff = computed(() => this.daysOff().length >= LIMITS.daysOff.max);
  protected addDayOff(at: Date | null): void {
    if (at === null) return;
    const day = this.clock.isoDate(at);
    const before = this.work()!.daysOff;
    if (!before.includes(day)) this.change({ daysOff: [...before, day].sort() });
  }
  protected removeDayOff(day: string): void {
    this.change({ daysOff: this.work()!.daysOff.filter((one) => one !== day) });
  }

  protected setAir(changes: {
    temperatureC?: number;
    humidity?: number;
    draughtMS?: number;
    altitudeM?: number;
  }): void {
    this.store.dispatch(PlanEditor.airChanged({ changes, gesture: null }));
  }

  /** The shop as it is kept; null until that is known. */
  protected readonly kept = signal<Shop | null>(null);
  protected readonly room = computed(() => this.kept()?.room ?? null);

  constructor() {
    this.api.read().subscribe({
      next: (shop) => this.kept.set(shop),
      error: (error: unknown) => this.said.set(`The room is not known. ${faultOf(error).message}`),
    });
  }

  /** The room is the shop's, not the plan's: it is kept at once. */
  protected setRoom(changes: Partial<RoomFile>): void {
    const kept = this.kept();
    if (kept !== null) this.put({ ...kept, room: { ...kept.room, ...changes } }, 'The room is kept.');
  }

  /** Shown at once: what is set next goes with it, whether or not the first is answered by then. */
  private put(shop: Shop, said: string): void {
    this.kept.set(shop);
    this.api.keep(shop).subscribe({
      next: () => this.said.set(said),
      error: (error: unknown) => this.said.set(`Not kept. ${faultOf(error).message}`),
    });
  }

  /** Every new plan begins so. */
  protected keep(): void {
    const { temperatureC, humidity, draughtMS, altitudeM } = this.air();
    const air = { temperatureC, humidity, draughtMS, altitudeM };
    const room = this.room() ?? USUAL_SHOP.room;
    this.put({ work: this.work(), air, room }, 'Kept: new plans begin with this.');
  }

  /** This plan takes what was kept. */
  protected take(): void {
    this.api.read().subscribe({
      next: ({ work, air }) => {
        this.store.dispatch(PlanEditor.workChanged({ work }));
        this.store.dispatch(PlanEditor.airChanged({ changes: air, gesture: null }));
        this.said.set('Taken: this plan is timed so now.');
      },
      error: (error: unknown) => this.said.set(`Not taken. ${faultOf(error).message}`),
    });
  }
}
