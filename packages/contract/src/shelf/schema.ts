import { MEDIUM_KEYS } from '@zaffet/core/media';
import { GRITS } from '@zaffet/core/plan';
import { BODIES } from '@zaffet/core/quantity';
import Joi from 'joi';
import { checkBounds } from '../bounds';
import {
  calendarDay,
  colour,
  flag,
  id,
  instant,
  list,
  number,
  oneOf,
  photoHash,
  text,
  wanted,
  whole,
} from '../fields';
import { checked } from '../refusals';
import { type ItemChanges, type MeasuresFile, SHELF_KINDS, type Shelf, type ShelfItem } from './types';

const fields = { id: id(), name: text() };

const ITEMS: Readonly<Record<ShelfItem['kind'], Joi.ObjectSchema>> = {
  tin: Joi.object({
    ...fields,
    kind: oneOf(['tin']),
    medium: oneOf(MEDIUM_KEYS),
    colour: colour().allow(null),
    amountMl: number('amountMl'),
    pricePerL: wanted('price'),
    openedAt: instant().allow(null),
    restockMl: wanted('amountMl').optional(),
    useBy: calendarDay().allow(null).optional(),
    photo: photoHash().allow(null).optional(),
    prices: list(Joi.object({ on: calendarDay(), pricePerL: number('price') }), 'tinPrices').optional(),
  }),
  pot: Joi.object({
    ...fields,
    kind: oneOf(['pot']),
    medium: oneOf(MEDIUM_KEYS),
    colour: colour().allow(null),
    amountMl: number('amountMl'),
    dilution: number('dilution'),
    mixedAt: instant(),
    keptCold: flag(),
    body: oneOf(BODIES).allow(null),
  }),
  abrasive: Joi.object({
    ...fields,
    kind: oneOf(['abrasive']),
    grit: Joi.number()
      .valid(...GRITS)
      .required(),
    sheets: whole('sheets'),
  }),
};
const item = Joi.alternatives().conditional('.kind', {
  switch: SHELF_KINDS.map((kind) => ({ is: kind, then: ITEMS[kind] })),
  otherwise: Joi.object({ kind: oneOf(SHELF_KINDS) }).unknown(),
});
const measures = Joi.object({
  dishMl: number('measureMl'),
  spoonMl: number('measureMl'),
  teaspoonMl: number('measureMl'),
}).required();
const shelf = Joi.object({
  items: list(item, 'shelfItems').unique('id'),
  measures,
}).required();
/** Which fields may change depends on what the thing is: they are checked with it, once they are laid over it. */
const changes = Joi.object({ id: Joi.forbidden(), kind: Joi.forbidden() }).unknown().min(1).required();

function check<T>(schema: Joi.Schema, value: unknown): T {
  checkBounds(value, 'shelf.invalid');
  return checked(schema as Joi.Schema<T>, value, 'shelf.invalid');
}

/** Reads something for the shelf. @throws ZaffetError `shelf.invalid` with every refused field */
export const parseShelfItem = (value: unknown): ShelfItem => check(item.required(), value);
/** Reads what changes about a thing on the shelf. @throws ZaffetError as `parseShelfItem` */
export const parseItemChanges = (value: unknown): ItemChanges => check(changes, value);
/** Reads the painter's measures. @throws ZaffetError as `parseShelfItem` */
export const parseMeasures = (value: unknown): MeasuresFile => check(measures, value);
/** Reads a whole shelf. @throws ZaffetError as `parseShelfItem` */
export const parseShelf = (value: unknown): Shelf => check(shelf, value);
