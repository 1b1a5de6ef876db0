import { type AirFile, type WorkFile } from '../plan/types';

/** The shop itself: what a new plan begins with. */
export interface Shop {
  /** Day and night, and one person, when null. */
  readonly work: WorkFile | null;
  /** Its usual air, and how high it lies. */
  readonly air: Pick<AirFile, 'temperatureC' | 'humidity' | 'draughtMS' | 'altitudeM'>;
}

/** A shop of which nobody said anything. */
export const USUAL_SHOP: Shop = {
  work: null,
  air: { temperatureC: 21, humidity: 0.5, draughtMS: 0.1, altitudeM: 0 },
};
