/** How lengths, temperatures and volumes are shown; nothing is stored in it. */
export const UNIT_SYSTEMS = ['metric', 'imperial'] as const;
export type UnitSystem = (typeof UNIT_SYSTEMS)[number];

/** How the time of day is written: by 24 hours or by 12. */
export const CLOCK_FACES = ['24', '12'] as const;
export type ClockFace = (typeof CLOCK_FACES)[number];
/** Patterns of Unicode's technical standard 35, as date libraries take them. */
export const TIME_PATTERNS: Readonly<Record<ClockFace, string>> = { '24': 'HH:mm', '12': 'h:mm a' };

/** How a reader wants numbers and times written. */
export interface Notation {
  readonly units: UnitSystem;
  readonly clock: ClockFace;
}

/** How it is written where nobody asked for anything else. */
export const METRIC: Notation = { units: 'metric', clock: '24' };
