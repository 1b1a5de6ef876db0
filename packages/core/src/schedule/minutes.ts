import { type Medium, isOf } from '../media';
import { type PrepStep } from '../plan';

/*
 * Minutes of what goes round the work. Nobody has measured them: assumed, after common practice, and each shop sets its
 * own.
 */

/** What takes a fixed time: its minutes. */
export const MINUTES = {
  /** Turning a piece so that another face lies up. */
  turn: 3,
  /** Changing from one brush to another in the middle of a section. */
  change: 0.5,
  /** A brush may wait so long for the same paint. */
  brushWaits: 20,
  washWater: 4,
  washSpirit: 6,
  washOil: 8,
  washWax: 2,
  washSpray: 1,
  /** Measuring and stirring a pot. */
  mix: 5,
  /** Buffing a wax, for each m². */
  buffPerM2: 4,
} as const;
export type MinuteKey = keyof typeof MINUTES;
export const MINUTE_KEYS = Object.keys(MINUTES) as MinuteKey[];
/** What a shop may set them to. */
export const MINUTE_RANGE = { min: 0, max: 120 } as const;

/** Minutes of a shop: its own, else the table's. */
export type Minutes = Readonly<Record<MinuteKey, number>>;
export const minutesOf = (own: Partial<Minutes> = {}): Minutes => ({ ...MINUTES, ...own });

/** A stage of preparation: fixed minutes, minutes for each m², and what it rests afterwards [min]. */
export interface PrepMinutes {
  readonly fixed: number;
  readonly perM2: number;
  readonly rest: number;
}

const HOUR = 60;
const DAY = 24 * HOUR;
export const PREP_MINUTES: Readonly<Record<PrepStep, PrepMinutes>> = {
  'test-old-paint': { fixed: 10, perM2: 0, rest: 0 },
  'take-off': { fixed: 8, perM2: 0, rest: 0 },
  mask: { fixed: 6, perM2: 0, rest: 0 },
  'loosen-flakes': { fixed: 4, perM2: 15, rest: 0 },
  degrease: { fixed: 3, perM2: 8, rest: 30 },
  dewax: { fixed: 4, perM2: 15, rest: HOUR },
  'wait-oil': { fixed: 0, perM2: 0, rest: 3 * DAY },
  'test-hold': { fixed: 6, perM2: 0, rest: 0 },
  scuff: { fixed: 2, perM2: 12, rest: 0 },
  bond: { fixed: 3, perM2: 8, rest: 4 * HOUR },
  'dry-wood': { fixed: 0, perM2: 0, rest: 3 * DAY },
  'stop-tannin': { fixed: 3, perM2: 8, rest: HOUR },
  'seal-raw-wood': { fixed: 3, perM2: 8, rest: HOUR },
  'seal-mdf': { fixed: 3, perM2: 8, rest: HOUR },
};

/** Minutes to clean a brush or cloth of a medium. */
export function washMinutes(medium: Medium, minutes: Minutes): number {
  if (isOf(medium, 'sprayed')) return minutes.washSpray;
  if (medium.kind === 'wax') return minutes.washWax;
  switch (medium.carrier) {
    case 'alcohol':
    case 'thinner':
      return medium.oxidationHours > 0 ? minutes.washOil : minutes.washSpirit;
    case 'water':
      return minutes.washWater;
    default:
      return medium.oxidationHours > 0 ? minutes.washOil : minutes.washWax;
  }
}
