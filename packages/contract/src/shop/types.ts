import { type AirFile, type WorkFile } from '../plan/types';

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
