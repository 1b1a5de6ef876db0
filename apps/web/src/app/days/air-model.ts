import { computed, inject, Injectable, resource, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Store } from '@ngrx/store';
import { type AirFile, type KeptReading, LIMITS, ZaffetError } from '@zaffet/contract';
import { celsiusToKelvin } from '@zaffet/core/units';
import { celsius } from '@zaffet/words';
import { type AirPoint, airOver, pointsOf, readThenExpected, simulatedShopAir } from '@zaffet/workshop';
import { firstValueFrom, interval, switchMap } from 'rxjs';
import { AirApi } from '../data/air.api';
import { Clock } from '../data/clock';
import { now } from '../data/fresh';
import { faultOf } from '../data/plans.api';
import { ShopApi } from '../data/shop.api';
import { Units } from '../data/units';
import { PlanEditor } from '../plan/plan.actions';
import { saveFile } from '../ui/save-file';
import { Timetables } from '../workers/timetables';
import { DaysModel } from './days-model';

const HOUR = 3_600_000;
/** A forecast goes on after the piece is ready: what comes later may be needed [h]. */
const BEYOND = 48;
/** Readings are asked for from so long before the plan begins [h]. */
const BEFORE = 12;
/** Without a reading for so long an instrument has lost its voice [ms]. */
const SILENT = 30_000;
/** No file of readings is larger [bytes]. */
const LARGEST_FILE = 12e6;
/** Changes of the air that can still be told by hand, a line each. */
const MOST_LINES = 12;

type Change = AirFile['later'][number];

/** The air over the plan's days: where it comes from, what instruments say now, and what it does. */
@Injectable()
export class AirModel {
  private readonly store = inject(Store);
  private readonly days = inject(DaysModel);
  private readonly timetables = inject(Timetables);
  private readonly api = inject(AirApi);
  private readonly shop = inject(ShopApi);
  private readonly clock = inject(Clock);
  private readonly units = inject(Units).system;

  readonly air = computed(() => this.days.file()!.air);
  readonly points = computed(() => pointsOf(this.days.file()!));
  /** Why the air could not be taken, a line a cause; what it was stays. */
  readonly trouble = signal<readonly string[]>([]);
  readonly said = signal('');

  /** What damp, dry and steady days would do: looked for once the timetable stands. */
  readonly effects = resource({
    params: () => {
      const timed = this.days.shown();
      return timed === null || this.days.busy() ? undefined : timed;
    },
    loader: ({ params: { of: plan, table } }) => this.timetables.air(plan, table),
  });

  /** Whether the stand-in is wanted beside what real instruments send. */
  readonly simulated = signal(false);
  readonly reading = toSignal<KeptReading>(
    toObservable(this.simulated).pipe(
      switchMap((simulated) => this.api.readings(simulated)),
      takeUntilDestroyed(),
    ),
  );
  private readonly beat = toSignal(interval(5000), { initialValue: 0 });
  readonly now = computed(() => {
    this.beat();
    const reading = this.reading();
    if (reading === undefined) return this.simulated() ? 'listening …' : '';
    const age = now().getTime() - Date.parse(reading.at);
    const text = `${celsius(celsiusToKelvin(reading.temperatureC), this.units())}, ${Math.round(reading.humidity * 100)} %`;
    return age > SILENT
      ? `${text} at ${this.clock.time(Date.parse(reading.at))}; no reading since`
      : `${text} now`;
  });

  /** Lines that can be told by hand; null where there are too many of them. */
  readonly lines = computed(() => (this.air().later.length > MOST_LINES ? null : this.air().later));

  private take(points: readonly AirPoint[], origin: AirFile['origin'], said: string): void {
    const air = airOver(this.days.file()!, points, origin);
    if (air === null) {
      this.trouble.set(['There is nothing in it.']);
      return;
    }
    this.trouble.set([]);
    this.said.set(said);
    this.store.dispatch(PlanEditor.airTaken({ air }));
  }

  private refuse(error: unknown): void {
    this.said.set('');
    if (error instanceof ZaffetError) {
      const { message, fields } = error.fault;
      this.trouble.set([message, ...fields.map((field) => field.message)]);
    } else this.trouble.set([faultOf(error).message]);
  }

  /** Hours from the plan's beginning until some time after it is ready. */
  private hours(): number {
    const ready = this.days.shown()?.table.ready ?? 0;
    return Math.min(LIMITS.later.max, Math.ceil(ready / 3600) + BEYOND);
  }

  private async expected(): Promise<AirPoint[]> {
    const plan = this.days.file()!;
    const { room } = await firstValueFrom(this.shop.read());
    return simulatedShopAir(Date.parse(plan.startsAt), this.hours(), { room, work: plan.work });
  }

  async simulate(): Promise<void> {
    try {
      this.take(await this.expected(), 'simulated-forecast', 'The simulated forecast is taken.');
    } catch (error) {
      this.refuse(error);
    }
  }

  /** What instruments read in the plan's days, and from then on what is expected. */
  async measured(): Promise<void> {
    const start = Date.parse(this.days.file()!.startsAt);
    try {
      const until = Math.min(now().getTime(), start + this.hours() * HOUR);
      const read =
        until <= start - BEFORE * HOUR
          ? []
          : await firstValueFrom(this.api.between(start - BEFORE * HOUR, until));
      if (read.length === 0) {
        this.said.set('');
        this.trouble.set([
          'No instrument has read anything in the days of this plan. Let one send its readings, or take a file of them.',
        ]);
        return;
      }
      this.take(
        readThenExpected(read, await this.expected()),
        'readings',
        `${read.length} hours as they were read, and simulated ones from there on.`,
      );
    } catch (error) {
      this.refuse(error);
    }
  }

  async fromFile(file: File | undefined): Promise<void> {
    if (file === undefined) return;
    if (file.size > LARGEST_FILE) {
      this.said.set('');
      this.trouble.set(['This file is larger than 12 MB. Cut it to the days of the plan.']);
      return;
    }
    try {
      const { readAirFile } = await import('@zaffet/words');
      const zone = this.days.file()!.work?.zone ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
      const points = readAirFile(await file.text(), zone);
      this.take(points, 'file', `${points.length} readings of ${file.name} are taken.`);
    } catch (error) {
      this.refuse(error);
    }
  }

  async out(): Promise<void> {
    const { airFile } = await import('@zaffet/words');
    const plan = this.days.file()!;
    saveFile(new Blob([airFile(this.points())], { type: 'text/csv' }), `${plan.name} air`, '.csv');
  }

  /** The air as it begins, for good: to be told by hand from there. */
  steady(): void {
    this.trouble.set([]);
    this.said.set('');
    this.store.dispatch(PlanEditor.airTaken({ air: { ...this.air(), origin: 'told', later: [] } }));
  }

  setLines(later: readonly Change[]): void {
    const rising = [...later].sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
    const apart = rising.filter(({ at }, i) => i === 0 || Date.parse(at) > Date.parse(rising[i - 1]!.at));
    this.store.dispatch(PlanEditor.airTaken({ air: { ...this.air(), origin: 'told', later: apart } }));
  }

  setStart(changes: { temperatureC?: number; humidity?: number }): void {
    this.store.dispatch(PlanEditor.airTaken({ air: { ...this.air(), ...changes, origin: 'told' } }));
  }

  addLine(): void {
    const last = this.points().at(-1)!;
    const at = new Date(last.at + 6 * HOUR).toISOString();
    const { temperatureC, humidity } = last;
    this.setLines([...this.air().later, { at, temperatureC, humidity }]);
  }
}
