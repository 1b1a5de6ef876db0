import { MINUTE_KEYS } from '@zaffet/core/schedule';
import Joi from 'joi';
import { checkBounds } from '../bounds';
import { calendarDay, instant, list, number, wanted, whole } from '../fields';
import { LIMITS } from '../plan/limits';
import { isZone } from '../plan/zone';
import { checked } from '../refusals';
import { type DayStretch, type Shop, USUAL_SHOP, WEEKDAYS } from './types';

const dayStretch = Joi.object({ opensMin: whole('clockMin'), closesMin: whole('clockMin') }).custom(
  (value: DayStretch, helpers) => (value.closesMin > value.opensMin ? value : helpers.error('stretch.order')),
);

/** Stretches of one day, one after another. */
const day = list(dayStretch, 'stretches').custom((stretches: readonly DayStretch[], helpers) => {
  // What is no number is refused by itself.
  const minute = (value: unknown): number => (typeof value === 'number' ? value : 0);
  const told = Array.from(stretches, (one: DayStretch | null) => [
    minute(one?.opensMin),
    minute(one?.closesMin),
  ]);
  const i = told.findIndex(([opens], k) => k > 0 && opens! < told[k - 1]![1]!);
  return i < 0 ? stretches : helpers.error('stretch.runs-into', { i });
});

export const work = Joi.object({
  zone: Joi.string()
    .max(LIMITS.textLength.max)
    .custom((value: string, helpers) => (isZone(value) ? value : helpers.error('zone.unknown')))
    .required(),
  week: Joi.object(Object.fromEntries(WEEKDAYS.map((name) => [name, day]))).required(),
  daysOff: list(calendarDay().optional(), 'daysOff'),
  extra: list(
    Joi.object({ from: instant(), until: instant() }).custom(
      (value: { from: string; until: string }, helpers) =>
        Date.parse(value.until) > Date.parse(value.from) ? value : helpers.error('extra.order'),
    ),
    'extra',
  ),
  people: whole('people'),
  daylight: dayStretch.allow(null).required(),
  minutes: Joi.object()
    .pattern(Joi.string().valid(...MINUTE_KEYS), number('minutes').optional())
    .required(),
});

const shopSchema = Joi.object<Shop>({
  work: work.allow(null).required(),
  air: Joi.object({
    temperatureC: number('temperatureC'),
    humidity: number('humidity'),
    draughtMS: number('draughtMS'),
    altitudeM: number('altitudeM'),
  }).required(),
  // A shop kept before it was asked for is like most.
  room: Joi.object({
    volumeM3: number('volumeM3'),
    airChanges: number('airChanges'),
    holdsH: number('holdsH'),
    moistureGH: number('moistureGH'),
    heatedC: wanted('temperatureC'),
    restC: wanted('temperatureC'),
  }).default(USUAL_SHOP.room),
}).required();

/** Reads what the shop is. @throws ZaffetError `shop.invalid` with every refused field */
export function parseShop(value: unknown): Shop {
  checkBounds(value, 'shop.invalid');
  return checked(shopSchema, value, 'shop.invalid');
}
