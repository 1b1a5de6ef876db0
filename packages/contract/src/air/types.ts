/** What an instrument read of the air. */
export interface Reading {
  /** Instant in ISO 8601. */
  readonly at: string;
  readonly temperatureC: number;
  readonly humidity: number;
}

/** Readings as an instrument sends them. */
export interface ReadingsRequest {
  /** Which instrument: readings of one and the same moment replace each other. */
  readonly source: string;
  readonly readings: readonly Reading[];
}

/** A reading as it is kept, and told to whoever listens. */
export interface KeptReading extends Reading {
  readonly source: string;
}

/** The instrument that ships with Zaffet: a stand-in for a real one, and always called so. */
export const SIMULATED_SOURCE = 'simulated hygrometer';

/** What was read in some time, an hour's mean each. */
export interface ReadingsAnswer {
  readonly readings: readonly Reading[];
}
