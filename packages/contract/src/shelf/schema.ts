import { BODIES, GRITS, MEDIUM_KEYS } from '@zaffet/core';
import Joi from 'joi';
import { fault, ZaffetError } from '../errors';
import { LIMITS } from '../plan/limits';
import { explain } from '../refusals';
import { type MeasuresFile, SHELF_KINDS, type Shelf, type ShelfItem } from './types';

const number = (key: 'amountMl' | 'price' | 'dilution' | 'sheets' | 'measureMl'): Joi.NumberSchema =>
  Joi.number().strict().min(LIMITS[key].min).max(LIMITS[key].max).required();
const fields = {
  id: Joi.string()
    .pattern(/^[A-Za-z0-9_-]{1,64}$/)
    .required(),
  name: Joi.string().trim().max(LIMITS.textLength.max).required(),
};
const medium = Joi.string()
  .valid(...MEDIUM_KEYS)
  .required();
const colour = Joi.string()
  .pattern(/^#[0-9a-f]{6}$/)
  .allow(null)
  .required();

const ITEMS: Readonly<Record<ShelfItem['kind'], Joi.ObjectSchema>> = {
  tin: Joi.object({
    ...fields,
    kind: Joi.string().valid('tin').required(),
    medium,
    colour,
    amountMl: number('amountMl'),
    pricePerL: number('price').allow(null),
    openedAt: Joi.string().isoDate().allow(null).required(),
  }),
  pot: Joi.object({
    ...fields,
    kind: Joi.string().valid('pot').required(),
    medium,
    colour,
    amountMl: number('amountMl'),
    dilution: number('dilution'),
    mixedAt: Joi.string().isoDate().required(),
    keptCold: Joi.boolean().strict().required(),
    body: Joi.string()
      .valid(...BODIES)
      .allow(null)
      .required(),
  }),
  abrasive: Joi.object({
    ...fields,
    kind: Joi.string().valid('abrasive').required(),
    grit: Joi.number()
      .valid(...GRITS)
      .required(),
    sheets: number('sheets').integer(),
  }),
};
const item = Joi.alternatives().conditional('.kind', {
  switch: SHELF_KINDS.map((kind) => ({ is: kind, then: ITEMS[kind] })),
  otherwise: Joi.object({
    kind: Joi.string()
      .valid(...SHELF_KINDS)
      .required(),
  }).unknown(),
});
const measures = Joi.object({
  dishMl: number('measureMl'),
  spoonMl: number('measureMl'),
  teaspoonMl: number('measureMl'),
}).required();
const shelf = Joi.object({
  items: Joi.array().items(item).max(LIMITS.shelfItems.max).unique('id').required(),
  measures,
}).required();

function check<T>(schema: Joi.Schema, value: unknown): T {
  const result = schema.validate(value, { abortEarly: false, convert: false });
  if (result.error)
    throw new ZaffetError(fault('shelf.invalid', result.error.details.slice(0, 20).map(explain)));
  return result.value as T;
}

/** Reads something for the shelf. @throws ZaffetError `shelf.invalid` with every refused field */
export const parseShelfItem = (value: unknown): ShelfItem => check(item.required(), value);
/** Reads the painter's measures. @throws ZaffetError as `parseShelfItem` */
export const parseMeasures = (value: unknown): MeasuresFile => check(measures, value);
/** Reads a whole shelf. @throws ZaffetError as `parseShelfItem` */
export const parseShelf = (value: unknown): Shelf => check(shelf, value);
