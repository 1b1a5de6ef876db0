import { type Sitting } from '@zaffet/workshop';
import { type Day, type PartLane } from './days-model';

/** Sizes of a day's column [px]. */
export const LANE = 7;
export const RAIL = 13;
export const LABEL = 17;
export const GAP = 6;
const LEAST_BLOCK = 3;
const LEAST_HEIGHT = 300;
const HOUR = 3_600_000;

/** The hours all columns show, as ms from a day's midnight, so that days can be compared. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** From the first hour anybody works on any of the days to the last. */
export function spanOf(days: readonly Day[], at: (moment: number) => number): Span {
  const starts: number[] = [];
  const ends: number[] = [];
  for (const day of days) {
    for (const { opens, closes } of day.stretches) {
      starts.push(opens - day.at);
      ends.push(closes - day.at);
    }
    for (const { from, until } of day.sittings) {
      starts.push(at(from) - day.at);
      ends.push(at(until) - day.at);
    }
  }
  const from = Math.floor(Math.min(...starts) / HOUR) * HOUR;
  const to = Math.min(24 * HOUR, Math.ceil(Math.max(...ends) / HOUR) * HOUR);
  return { from, to: Math.max(from + HOUR, to) };
}

export interface Block {
  readonly sitting: Sitting;
  readonly y: number;
  readonly height: number;
  readonly x: number;
  /** Where what it is stands, kept clear of the others. */
  readonly labelY: number;
  /** A window's bracket, where it closes on this day. */
  readonly window: { readonly from: number; readonly to: number; readonly tight: boolean } | null;
}

export interface Ribbon {
  readonly key: string;
  readonly x: number;
  readonly width: number;
  readonly y: number;
  readonly height: number;
  readonly colour: string;
  /** Still shining wet, set, drying, or dry. */
  readonly state: 'wet' | 'set' | 'drying' | 'dry';
}

/** How high a column is: as there is room, and never too low for a line of text for each sitting of the fullest day [px]. */
export function heightOf(days: readonly Pick<Day, 'sittings'>[], room: number): number {
  return Math.max(LEAST_HEIGHT, room, ...days.map(({ sittings }) => sittings.length * LABEL));
}

/** Pixels down a column for a moment of a day, held inside it. */
export function scaleOf(day: Day, { from, to }: Span, height: number): (at: number) => number {
  return (at) => Math.min(height, Math.max(0, ((at - day.at - from) / (to - from)) * height));
}

/** The sittings of a day as blocks on the rails of the hands, with room for a line of text each. */
export function blocksOf(
  day: Day,
  lanes: number,
  y: (at: number) => number,
  at: (moment: number) => number,
  height: number,
): Block[] {
  const left = lanes * LANE + GAP;
  const blocks = day.sittings.map((sitting) => {
    const top = y(at(sitting.from));
    const { closes } = sitting;
    const closesOn = closes === null ? null : at(closes);
    return {
      sitting,
      y: top,
      height: Math.max(LEAST_BLOCK, y(at(sitting.until)) - top),
      x: left + sitting.hand * (RAIL + 2),
      window:
        closesOn === null || closesOn - day.at > 24 * HOUR
          ? null
          : {
              from: y(at(sitting.opens)),
              to: Math.max(y(at(sitting.opens)) + 2, y(closesOn)),
              tight: sitting.urgency === 'must',
            },
    };
  });
  const labels = spread(
    blocks.map((block) => block.y),
    height,
  );
  return blocks.map((block, i) => ({ ...block, labelY: labels[i]! }));
}

/** Places for labels that each want to stand at a height: none over another, all inside, as near as they can. */
export function spread(wanted: readonly number[], height: number): number[] {
  const places = wanted.map((y) => y);
  for (let i = 1; i < places.length; i++) places[i] = Math.max(places[i]!, places[i - 1]! + LABEL);
  let most = height - LABEL;
  for (let i = places.length - 1; i >= 0; i--) {
    places[i] = Math.min(places[i]!, most);
    most = places[i]! - LABEL;
  }
  return places;
}

/** Wide enough to see a day get warmer [px]. */
export const EDGE = 16;

/** A course of the air down a column's edge, from its least to its most over all days at the left and right of it. */
export function airPath(
  points: readonly { readonly at: number; readonly value: number }[],
  day: Day,
  span: Span,
  y: (at: number) => number,
  right: number,
): string {
  const values = points.map(({ value }) => value);
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const x = (value: number): number =>
    right - EDGE + (most - least < 1e-9 ? EDGE / 2 : ((value - least) / (most - least)) * EDGE);
  const [opens, closes] = [day.at + span.from, day.at + span.to];
  const holds = points.findLast(({ at }) => at <= opens) ?? points[0];
  if (holds === undefined) return '';
  let path = `M${x(holds.value).toFixed(1)} ${y(opens).toFixed(1)}`;
  for (const { at, value } of points)
    if (at > opens && at < closes) path += `V${y(at).toFixed(1)}H${x(value).toFixed(1)}`;
  return `${path}V${y(closes).toFixed(1)}`;
}

/** How the films of the parts dry on a day, a ribbon each. */
export function ribbonsOf(
  day: Day,
  lanes: readonly PartLane[],
  y: (at: number) => number,
  span: Span,
): Ribbon[] {
  const opens = day.at + span.from;
  const closes = day.at + span.to;
  return lanes.flatMap(({ id, films }, lane) =>
    films.flatMap((film, i): Ribbon[] => {
      const ends = [film.tacky, film.touch, film.through, Infinity];
      const states = ['wet', 'set', 'drying', 'dry'] as const;
      let from = film.laid;
      return states.flatMap((state, k): Ribbon[] => {
        const begins = from;
        from = Math.max(from, Math.min(ends[k]!, film.covered));
        const [top, bottom] = [Math.max(begins, opens), Math.min(from, closes)];
        if (bottom <= top) return [];
        const dry = state === 'dry';
        return [
          {
            key: `${id} ${i} ${state}`,
            x: lane * LANE + (dry ? 1.5 : 0),
            width: dry ? LANE - 5 : LANE - 1,
            y: y(top),
            height: Math.max(1, y(bottom) - y(top)),
            colour: film.colour,
            state,
          },
        ];
      });
    }),
  );
}
