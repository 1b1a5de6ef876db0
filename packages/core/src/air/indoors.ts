import { checkRange, type Range } from '../errors';
import { SECONDS_PER_HOUR, ZERO_CELSIUS } from '../units';
import { AIR_RANGES, VAPOUR_GAS_CONSTANT } from './constants';
import { saturationPressureC } from './vapour';

/** The air outside from one moment on. */
export interface OutdoorSample {
  /** [s] */
  readonly from: number;
  /** [K] */
  readonly temperature: number;
  /** Relative humidity [fraction]. */
  readonly humidity: number;
}

/** A shop as far as its air is concerned. */
export interface Room {
  /** [m³] */
  readonly volume: number;
  /** How often the air is exchanged with that outside [1/s]. */
  readonly exchange: number;
  /** How quickly it follows the temperature outside when nobody heats: its time constant [s]. */
  readonly holds: number;
  /** Water given off by people, wet paint and washing [kg/s]. */
  readonly moisture: number;
}

/** Ranges of a shop; everything outside is refused at the door. */
export const ROOM_RANGES = {
  /** [m³] */
  volume: { min: 10, max: 5000 },
  /** [1/s]: from 0.1 to 10 an hour */
  exchange: { min: 0.1 / SECONDS_PER_HOUR, max: 10 / SECONDS_PER_HOUR },
  /** [s]: from one hour to ten days */
  holds: { min: SECONDS_PER_HOUR, max: 240 * SECONDS_PER_HOUR },
  /** [kg/s]: to 2 kg an hour */
  moisture: { min: 0, max: 2 / SECONDS_PER_HOUR },
} as const satisfies Record<string, Range>;

/** Sun and people keep a room that nobody heats so much warmer than the air outside [K]; assumed. */
const FREE_WARMTH = 2;
/** A stove warms a cold shop no quicker than this [K/s]: five degrees an hour; assumed. */
const WARMS = 5 / SECONDS_PER_HOUR;
/**
 * Wood, paper and plaster take up vapour with the air and give it off again: the room answers like one of so many times
 * its volume. Assumed; building simulation takes 5 to 25 for furnished rooms.
 */
const BUFFER = 10;

const clamped = (value: number, { min, max }: Range): number => Math.min(max, Math.max(min, value));

/** Water in a cubic metre of air [kg/m³] whose vapour has this pressure [Pa]. */
const waterIn = (vapour: number, temperature: number): number => vapour / (VAPOUR_GAS_CONSTANT * temperature);

/**
 * The air in a shop, from the air outside: one well-mixed room.
 *
 * Heat: dT/dt = (To + 2 K − T)/τ; where it is heated to more, up to that, by five degrees an hour at most. Vapour:
 * B V dv/dt = n V (vo − v) + G, which in a steady state is v = vo + G/(n V), the excess by which ISO 13788 sorts
 * buildings. Both are solved exactly within each sample; air cannot hold more than saturation, and what is outside
 * `AIR_RANGES` is brought to its bounds.
 *
 * @param outside - in rising order, at least one
 * @param heatedTo - what it is heated to at a moment [K]; null where nobody heats
 * @returns one sample for each of the air outside: how the room is when it begins
 * @throws InputError `room.*` outside `ROOM_RANGES`
 */
export function indoors(
  outside: readonly OutdoorSample[],
  room: Room,
  heatedTo: (moment: number) => number | null,
): OutdoorSample[] {
  checkRange('room.volume', room.volume, ROOM_RANGES.volume, 'm³');
  checkRange('room.exchange', room.exchange, ROOM_RANGES.exchange, '1/s');
  checkRange('room.holds', room.holds, ROOM_RANGES.holds, 's');
  checkRange('room.moisture', room.moisture, ROOM_RANGES.moisture, 'kg/s');
  const vapourOf = ({ temperature, humidity }: OutdoorSample): number =>
    waterIn(humidity * saturationPressureC(temperature - ZERO_CELSIUS), temperature);
  const excess = room.moisture / (room.exchange * room.volume);
  const first = outside[0];
  let temperature =
    first === undefined ? 0 : Math.max(first.temperature + FREE_WARMTH, heatedTo(first.from) ?? 0);
  let water = first === undefined ? 0 : vapourOf(first) + excess;
  return outside.map((sample, i) => {
    const { from } = sample;
    const saturated = waterIn(saturationPressureC(temperature - ZERO_CELSIUS), temperature);
    // What the air cannot hold runs down the panes.
    water = Math.min(water, saturated);
    const told = {
      from,
      temperature: clamped(temperature, AIR_RANGES.temperature),
      humidity: clamped(water / saturated, AIR_RANGES.humidity),
    };
    const lasts = (outside[i + 1]?.from ?? from) - from;
    const free = sample.temperature + FREE_WARMTH;
    const cooled = free + (temperature - free) * Math.exp(-lasts / room.holds);
    const set = heatedTo(from) ?? 0;
    temperature = Math.max(cooled, Math.min(set, Math.max(temperature, cooled) + WARMS * lasts));
    const settles = vapourOf(sample) + excess;
    water = settles + (water - settles) * Math.exp((-lasts * room.exchange) / BUFFER);
    return told;
  });
}
