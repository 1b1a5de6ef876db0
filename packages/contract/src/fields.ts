import Joi from 'joi';
import { isInstant } from './plan/instant';
import { LIMITS } from './plan/limits';
import { ID, isStorable, PHOTO_HASH } from './text';

/** A range as a refusal tells it. */
export interface Range {
  readonly min: number;
  readonly max: number;
  readonly unit: string;
}
export type NumberField = Exclude<keyof typeof LIMITS, 'textLength' | 'noteLength'>;

/** Hands the range on to whatever is refused, so that its sentence can say what is allowed. */
const telling =
  (kind: 'number' | 'array', range: Range): Joi.ValidationErrorFunction =>
  (errors) => {
    // A list is told what is wrong with its entries as well: those have ranges of their own.
    for (const { code, local } of errors) if (code.startsWith(kind)) local['range'] ??= range;
    return errors as unknown as Joi.ValidationErrorItem;
  };

/** A list of a number of entries within a range. */
export const list = (entry: Joi.Schema, key: NumberField): Joi.ArraySchema =>
  Joi.array()
    .items(entry)
    .min(LIMITS[key].min)
    .max(LIMITS[key].max)
    .error(telling('array', LIMITS[key]))
    .required();

/** A number within a range; text that looks like one is refused. */
export const between = (range: Range): Joi.NumberSchema =>
  Joi.number().strict().min(range.min).max(range.max).error(telling('number', range)).required();
export const number = (key: NumberField): Joi.NumberSchema => between(LIMITS[key]);
export const whole = (key: NumberField): Joi.NumberSchema => number(key).integer();
/** A number, or null where nobody said. */
export const wanted = (key: NumberField): Joi.NumberSchema => number(key).allow(null);

const storable: Joi.CustomValidator<string> = (value, helpers) =>
  isStorable(value) ? value : helpers.error('text.letters');
/** A name somebody gave, or what else is told in so many letters. */
export const text = (most: number = LIMITS.textLength.max): Joi.StringSchema =>
  Joi.string().trim().max(most).custom(storable).required();
/** What somebody wrote down. */
export const lines = (): Joi.StringSchema => text(LIMITS.noteLength.max);

/** Names that every object answers to would be found where nothing was filed under them. */
const ownName: Joi.CustomValidator<string> = (value, helpers) =>
  value in {} ? helpers.error('id.reserved') : value;
export const id = (): Joi.StringSchema => Joi.string().pattern(ID, 'id').custom(ownName).required();

const onCalendar: Joi.CustomValidator<string> = (value, helpers) =>
  isInstant(value) ? value : helpers.error('instant.none');
export const instant = (): Joi.StringSchema => Joi.string().custom(onCalendar).required();

/** A day without a time: `2026-05-14`. */
export const calendarDay = (): Joi.StringSchema =>
  Joi.string()
    .pattern(/^\d{4}-\d{2}-\d{2}$/, 'day')
    .custom(onCalendar)
    .required();

export const photoHash = (): Joi.StringSchema => Joi.string().pattern(PHOTO_HASH, 'hash').required();

export const oneOf = (values: readonly string[]): Joi.StringSchema =>
  Joi.string()
    .valid(...values)
    .required();
export const flag = (): Joi.BooleanSchema => Joi.boolean().strict().required();
export const colour = (): Joi.StringSchema =>
  Joi.string()
    .pattern(/^#[0-9a-f]{6}$/, 'colour')
    .required();
