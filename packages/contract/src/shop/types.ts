import { type MinuteKey } from '@zaffet/core/schedule';

/**
 * Where the air over a plan's days comes from: told by hand, out of a file, read by instruments, or foretold. What is
 * simulated stays known as such.
 */
export const AIR_ORIGINS = ['told', 'file', 'readings', 'simulated-forecast'] as const;
export type AirOrigin = (typeof AIR_ORIGINS)[number];

/** What the shop's air is like, and how it changes. */
export interface AirFile {
  readonly origin: AirOrigin;
  readonly temperatureC: number;
  readonly humidity: number;
  readonly draughtMS: number;
  readonly altitudeM: number;
  readonly later: readonly {
    readonly at: string;
    readonly temperatureC: number;
    readonly humidity: number;
  }[];
}

/** A stretch of a day, minutes from midnight by the shop's clock. */
export interface DayStretch {
  readonly opensMin: number;
  readonly closesMin: number;
}
export const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const;
export type Weekday = (typeof WEEKDAYS)[number];

/** Who works when, and how long what goes round the work takes. */
export interface WorkFile {
  /** What the shop's clocks go by: the name of a time zone, or an offset like `+02:00`. */
  readonly zone: string;
  /** Breaks lie between the stretches of a day; a day without one is free. */
  readonly week: Readonly<Record<Weekday, readonly DayStretch[]>>;
  /** Days nobody works, `2026-05-14`. */
  readonly daysOff: readonly string[];
  /** Stretches beside the week's. */
  readonly extra: readonly { readonly from: string; readonly until: string }[];
  /** People, each at one thing at a time. */
  readonly people: number;
  /** By what colour and wear are judged; null where lamps do. */
  readonly daylight: DayStretch | null;
  /** Minutes that differ from the usual ones, by what takes them. */
  readonly minutes: Readonly<Partial<Record<MinuteKey, number>>>;
}

/** The room the work is done in, as far as its air is concerned. */
export interface RoomFile {
  readonly volumeM3: number;
  /** How often its air is exchanged with that outside, an hour. */
  readonly airChanges: number;
  /** How many hours it takes to follow the temperature outside when nobody heats. */
  readonly holdsH: number;
  /** Water given off by people, wet paint and washing. */
  readonly moistureGH: number;
  /** What it is heated to while there is work, and at other hours; null where nobody heats. */
  readonly heatedC: number | null;
  readonly restC: number | null;
}

/** The shop itself: what a new plan begins with. */
export interface Shop {
  /** Day and night, and one person, when null. */
  readonly work: WorkFile | null;
  /** Its usual air, and how high it lies. */
  readonly air: Pick<AirFile, 'temperatureC' | 'humidity' | 'draughtMS' | 'altitudeM'>;
  readonly room: RoomFile;
}

/** A shop of which nobody said anything. */
export const USUAL_SHOP: Shop = {
  work: null,
  air: { temperatureC: 21, humidity: 0.5, draughtMS: 0.1, altitudeM: 0 },
  room: { volumeM3: 80, airChanges: 0.7, holdsH: 12, moistureGH: 80, heatedC: 20, restC: 14 },
};
