import { computed, inject, Injectable, linkedSignal, resource } from '@angular/core';
import { Store } from '@ngrx/store';
import { type Plan, type TimingFile } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { type Entry, type Pin, type Schedule, sumsOf } from '@zaffet/core/schedule';
import { celsiusToKelvin } from '@zaffet/core/units';
import { celsius, duration, missedText, partsOf, perCent, sittingTitle, softText } from '@zaffet/words';
import {
  basisOf,
  type OtherWay,
  partPlan,
  pointsOf,
  type Sitting,
  sittings,
  workTime,
} from '@zaffet/workshop';
import { Clock } from '../data/clock';
import { Units } from '../data/units';
import { PlanApi, PlanEditor } from '../plan/plan.actions';
import { planFeature } from '../plan/plan.feature';
import { Latest } from '../workers/thread';
import { Timetables } from '../workers/timetables';

/** A timetable with the plan it is of. */
export interface Timed {
  readonly of: Plan;
  readonly table: Schedule;
}

/** A film of a part as it dries; moments in ms since 1970. */
export interface Wet {
  readonly colour: string;
  readonly laid: number;
  /** Runs no more, can be touched, is dry through; the end of what is shown where it never is. */
  readonly tacky: number;
  readonly touch: number;
  readonly through: number;
  readonly covered: number;
}

export interface PartLane {
  readonly id: string;
  readonly name: string;
  readonly films: readonly Wet[];
}

/** A day on which something is done. */
export interface Day {
  /** Its midnight [ms since 1970]. */
  readonly at: number;
  readonly name: string;
  readonly short: string;
  readonly sittings: readonly Sitting[];
  /** Hours somebody works, ms since 1970. */
  readonly stretches: readonly { readonly opens: number; readonly closes: number }[];
  /** What dries over the night that follows. */
  readonly overNight: string;
  readonly air: string;
}

const MS = 1000;
const DAY = 86_400_000;
/** A look that holds longer than this needs no word [s]. */
const SOON = 12 * 3600;
/** Work that can be put to another moment. */
const MOVABLE: readonly Entry['kind'][] = ['prepare', 'step', 'coat', 'piece', 'sections'];
export const isMovable = ({ kind }: Pick<Sitting, 'kind'>): boolean => MOVABLE.includes(kind);

/** Paint that has no colour of its own is drawn so. */
const CLEAR = '#c9c4b4';

/** What the room of days shows: the timetable, as it is or as a hand or another way would have it. */
@Injectable()
export class DaysModel {
  private readonly store = inject(Store);
  private readonly timetables = inject(Timetables);
  private readonly clock = inject(Clock);
  private readonly units = inject(Units).system;
  readonly file = this.store.selectSignal(planFeature.selectFile);
  private readonly timed = this.store.selectSignal(planFeature.selectTimed);
  /** What a hand drags, or another way that is looked at; back to the plan as soon as that changes. */
  readonly preview = linkedSignal<Timed | null, Timed | null>({
    source: this.timed,
    computation: () => null,
  });
  readonly shown = computed(() => this.preview() ?? this.timed());
  private readonly untimed = this.store.selectSignal(planFeature.selectUntimed);
  readonly failed = computed(() => this.untimed() !== null && this.untimed() === this.file());
  readonly busy = computed(() => this.timed()?.of !== this.file());
  /** The way that is looked at. */
  readonly looked = linkedSignal<Timed | null, OtherWay | null>({
    source: this.timed,
    computation: () => null,
  });

  private readonly start = computed(() => Date.parse(this.shown()?.of.startsAt ?? ''));
  readonly at = (moment: number): number => this.start() + moment * MS;

  readonly sittings = computed(() => {
    const shown = this.shown();
    return shown === null ? [] : sittings(shown.of, shown.table);
  });
  readonly sums = computed(() => {
    const shown = this.shown();
    return shown === null ? null : sumsOf(shown.table);
  });

  readonly lanes = computed((): PartLane[] => {
    const shown = this.shown();
    if (shown === null) return [];
    const { of, table } = shown;
    return of.piece.parts.map(({ id, name }) => {
      const part = partPlan(of, id, null, { moments: table.moments });
      const { coats } = forecast(basisOf(part));
      const end = Number.POSITIVE_INFINITY;
      const films = coats.map(({ coat, laidAt, coveredAt, open }): Wet => {
        const step = part.steps.find((one) => one.id === coat.id);
        return {
          colour: step !== undefined && 'colour' in step && coat.colour !== null ? step.colour : CLEAR,
          laid: this.at(laidAt),
          tacky: this.at(open.tacky ?? end),
          touch: this.at(open.touch ?? end),
          through: this.at(open.through ?? end),
          covered: this.at(coveredAt ?? end),
        };
      });
      return { id, name, films };
    });
  });

  readonly days = computed((): Day[] => {
    const shown = this.shown();
    if (shown === null) return [];
    const all = this.sittings();
    const { work } = workTime(shown.of);
    const dates = [...new Set(all.map(({ from }) => this.clock.startOfDay(this.at(from))))].sort(
      (a, b) => a - b,
    );
    return dates.map((at) => {
      const until = this.clock.endOfDay(at);
      const within = (moment: number): boolean => this.at(moment) >= at && this.at(moment) < until;
      const own = all.filter(({ from }) => within(from));
      const ends = Math.max(...own.map((one) => this.at(one.until)));
      return {
        at,
        name: this.clock.longDate(at),
        short: this.clock.shortDate(at),
        sittings: own,
        stretches: (work ?? [])
          .filter(({ opens, closes }) => this.at(opens) < until && this.at(closes) > at)
          .map(({ opens, closes }) => ({
            opens: Math.max(at, this.at(opens)),
            closes: Math.min(until, this.at(closes)),
          })),
        overNight: this.dryingAfter(ends),
        air: this.airOf(at),
      };
    });
  });

  /** Parts whose last film is not dry through when the day's work ends. */
  private dryingAfter(ends: number): string {
    const names = this.lanes()
      .filter(({ films }) => {
        const film = films.findLast(({ laid }) => laid < ends);
        return film !== undefined && film.through > ends;
      })
      .map(({ name }) => name.toLowerCase());
    if (names.length === 0) return '';
    const many = names.length > 4 ? `${names.length} parts` : names.join(', ');
    return `${many} ${names.length === 1 ? 'is' : 'are'} drying`;
  }

  /** The course of the air; moments in ms since 1970. */
  readonly airPoints = computed(() => {
    const shown = this.shown();
    return shown === null ? [] : pointsOf(shown.of);
  });

  private airOf(day: number): string {
    const samples = this.airPoints();
    const told = samples.filter(({ at }) => at >= day && at < day + DAY);
    const before = samples.findLast(({ at }) => at <= day);
    const all = told.length > 0 ? told : before === undefined ? [samples[0]!] : [before];
    const [low, high] = [Math.min, Math.max].map((pick) => ({
      temperature: celsius(celsiusToKelvin(pick(...all.map((one) => one.temperatureC))), this.units()),
      humidity: perCent(pick(...all.map((one) => one.humidity))),
    })) as [Record<'temperature' | 'humidity', string>, Record<'temperature' | 'humidity', string>];
    const range = (key: 'temperature' | 'humidity'): string =>
      low[key] === high[key] ? low[key] : `${low[key]} to ${high[key]}`;
    return `${range('temperature')}, ${range('humidity')}`;
  }

  /** What else could be done: looked for once the timetable stands. */
  readonly ways = resource({
    params: () => (this.busy() ? undefined : (this.timed() ?? undefined)),
    loader: ({ params: { of, table } }) => this.timetables.others(of, table),
  });

  /** How long each step may be put off until the look is another one [s]: worked out once the timetable stands. */
  private readonly holds = resource({
    params: () => (this.busy() ? undefined : (this.timed() ?? undefined)),
    loader: ({ params: { of, table } }) => this.timetables.holds(of, table),
  });

  /** Until when a sitting may begin for the look to hold, where that is before its window closes. */
  softEnd(sitting: Sitting): string {
    const holds = this.holds.hasValue() ? this.holds.value() : {};
    const { step, closes, work } = sitting;
    const wait = step === null || work[0]!.coat > 0 ? undefined : holds[step.id];
    if (wait === undefined || wait > SOON) return '';
    const end = work[0]!.from + wait;
    return closes !== null && closes <= end ? '' : softText(this.clock.time(this.at(end)));
  }

  /** Shows another way in place of the plan, before anybody takes it. */
  async look(way: OtherWay): Promise<void> {
    this.looked.set(way);
    const table = await this.timetables.time(way.plan).catch(() => null);
    if (this.looked() !== way) return;
    if (table === null) this.looked.set(null);
    else this.preview.set({ of: way.plan, table });
  }

  takeLooked(): void {
    const way = this.looked();
    if (way === null) return;
    this.looked.set(null);
    this.store.dispatch(PlanEditor.otherWayTaken({ plan: way.plan }));
  }

  backToPlan(): void {
    this.looked.set(null);
    this.preview.set(null);
  }

  /** What the thread holds to drag from. */
  private held: Timed | null = null;
  private readonly dragging = new Latest<{ timed: Timed; pins: readonly Pin[] }, Schedule>(
    async ({ timed: { of, table }, pins }) => {
      if (this.held?.table !== table) await this.timetables.hold(of, table);
      this.held = { of, table };
      return this.timetables.drag(pins);
    },
  );
  private dragged = false;

  /** A sitting put to another moment [s from the plan's start], shown while the hand has not let go. */
  drag(sitting: Sitting, at: number): void {
    const timed = this.timed();
    // Another way is only looked at: nothing of it is moved.
    if (timed === null || this.looked() !== null) return;
    this.dragged = true;
    const pins = pinsWith(timed.of, sitting, at);
    const start = Date.parse(timed.of.startsAt);
    const moments = pins.map(({ at: instant, ...pin }) => ({
      ...pin,
      at: (Date.parse(instant) - start) / MS,
    }));
    this.dragging.put(
      { timed, pins: moments },
      (table) => {
        if (this.dragged) this.preview.set({ of: timed.of, table });
      },
      () => {
        // Another thread begins with the next move, and holds nothing.
        this.held = null;
      },
    );
  }

  /** Lets go of what is dragged: it stays where it was put. */
  drop(sitting: Sitting, at: number): void {
    const timed = this.timed();
    this.dragged = false;
    if (timed === null || this.looked() !== null) return;
    this.store.dispatch(PlanEditor.timingChanged({ timing: { pins: pinsWith(timed.of, sitting, at) } }));
  }

  putBack(): void {
    this.dragged = false;
    this.preview.set(null);
  }

  isPinned(sitting: Sitting): boolean {
    // At once, before the plan is timed anew.
    const plan = this.looked() === null ? this.file() : this.shown()?.of;
    const pins = plan?.timing.pins ?? [];
    return sitting.work.some((entry) => pins.some((pin) => samePin(pin, entry)));
  }

  unpin(sitting: Sitting): void {
    const pins = (this.file()?.timing.pins ?? []).filter(
      (pin) => !sitting.work.some((entry) => samePin(pin, entry)),
    );
    this.store.dispatch(PlanEditor.timingChanged({ timing: { pins } }));
  }

  /** What a preview breaks and moves, in a sentence; nothing where it breaks nothing. */
  readonly breaks = computed(() => {
    const [timed, preview] = [this.timed(), this.preview()];
    if (timed === null || preview === null) return '';
    const broken = preview.table.missed.map((entry) => missedText(entry, preview.of));
    const [before, after] = [timed.table.ready, preview.table.ready];
    const moved =
      before === null || after === null
        ? 0
        : Date.parse(preview.of.startsAt) + after * MS - (Date.parse(timed.of.startsAt) + before * MS);
    const ready =
      Math.abs(moved) < 60_000 || after === null
        ? []
        : [
            `ready ${this.clock.dayTime(Date.parse(preview.of.startsAt) + after * MS)}, ${duration(Math.abs(moved) / MS)} ${moved > 0 ? 'later' : 'sooner'}`,
          ];
    return [...broken, ...ready].join('; ');
  });
  readonly breaksHard = computed(() => (this.preview()?.table.missed.length ?? 0) > 0);

  change(timing: Partial<TimingFile>): void {
    this.store.dispatch(PlanEditor.timingChanged({ timing }));
  }

  timeAgain(): void {
    this.store.dispatch(PlanApi.timingAskedAgain());
  }

  titleOf(sitting: Sitting): string {
    return sittingTitle(sitting, this.shown()!.of);
  }

  partsOf(sitting: Sitting): string {
    return partsOf(sitting, this.shown()!.of);
  }
}

type FiledPin = TimingFile['pins'][number];
const samePin = (pin: Omit<FiledPin, 'at'>, { partId, stepId, coat }: Entry): boolean =>
  pin.partId === partId && pin.stepId === stepId && pin.coat === coat;

/** The plan's pins with all of a sitting put to a moment [s from the plan's start], its parts as far apart as they are. */
function pinsWith(plan: Plan, sitting: Sitting, at: number): FiledPin[] {
  const first = sitting.work[0]!.from;
  const others = plan.timing.pins.filter((pin) => !sitting.work.some((entry) => samePin(pin, entry)));
  const start = Date.parse(plan.startsAt);
  return [
    ...others,
    ...sitting.work.map(({ partId, stepId, coat, from }) => ({
      partId,
      stepId,
      coat,
      at: new Date(start + (at + from - first) * MS).toISOString(),
    })),
  ];
}
