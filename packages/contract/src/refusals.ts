import type Joi from 'joi';
import { type ErrorCode, fault, type FieldFault, ZaffetError } from './errors';
import { type Range } from './fields';
import { YEARS } from './plan/instant';
import { LIMITS } from './plan/limits';

/** Most refused fields that are told at once. */
const MOST_TOLD = 20;

const shown = (value: unknown): string => {
  if (Array.isArray(value)) return 'a list';
  if (typeof value === 'object' && value !== null) return 'a group of fields';
  const text = JSON.stringify(value) ?? 'missing';
  return text.length > 40 ? `${text.slice(0, 40)}…` : text;
};

const rangeText = ({ min, max, unit }: Range): string => `from ${min} to ${max}${unit ? ` ${unit}` : ''}`;

const PATTERNS: Readonly<Record<string, string>> = {
  colour: 'a colour such as #4a6b5d',
  day: 'a day such as 2026-05-14',
  key: 'the key of an invitation as it was given',
  path: 'the path of a page such as /plans',
};

/** What a field must be, by what Joi says is wrong with it. */
function allowed({ type, context = {} }: Joi.ValidationErrorItem): string {
  const range = context['range'] as Range | undefined;
  switch (type) {
    case 'any.only':
      return `one of ${(context['valids'] as unknown[]).join(', ')}`;
    case 'number.integer':
      return range === undefined ? 'a whole number' : `a whole number ${rangeText(range)}`;
    case 'number.base':
    case 'number.min':
    case 'number.max':
    case 'number.infinity':
    case 'number.unsafe':
      return range === undefined ? 'a number' : `a number ${rangeText(range)}`;
    case 'zone.unknown':
      return 'a time zone such as Europe/Lisbon, or an offset such as +02:00';
    case 'instant.none':
      return `a date and time such as 2026-05-12T08:30:00Z, of a day the calendar has, in the years ${YEARS.min} to ${YEARS.max}`;
    case 'string.pattern.name':
      return PATTERNS[String(context['name'])] ?? 'letters, digits, - or _';
    case 'id.reserved':
      return 'another word; this one has a meaning of its own';
    case 'string.trim':
      return 'without blanks before or after';
    case 'text.letters':
      return 'whole letters; it holds half of one, or NUL';
    case 'string.base':
      return 'a text';
    case 'boolean.base':
      return 'true or false';
    case 'array.base':
      return 'a list, [ … ]';
    case 'object.base':
      return 'a group of fields, { … }';
    default:
      return 'something else';
  }
}

/** What is wrong as a whole sentence, where it is not a value that must be something else. */
function sentence(path: string, { type, context = {} }: Joi.ValidationErrorItem): string | null {
  const told = (key: string): string => shown(context[key]);
  switch (type) {
    case 'any.required':
      return `${path} is missing.`;
    case 'object.unknown':
    case 'any.unknown':
      return `${path} is not known here; remove it.`;
    case 'object.missing':
    case 'object.xor':
      return `${path} must name just one of ${(context['peers'] as string[]).join(', ')}.`;
    case 'object.min':
      return `${path} names no field; name at least one.`;
    case 'string.max':
      return `${path} is too long; at most ${told('limit')} characters.`;
    case 'string.empty':
      return `${path} is empty; give it a name.`;
    case 'array.unique':
      return `${path} is there twice; each needs to be its own.`;
    case 'array.min':
    case 'array.max': {
      const entries = Array.isArray(context['value']) ? context['value'].length : 0;
      const { min, max } = context['range'] as Range;
      return `${path} has ${entries} entries; allowed is ${min} to ${max}.`;
    }
    case 'start.late':
      return `${path} is more than ${LIMITS.waitMin.max / 1440} days after the plan's start; choose an earlier one.`;
    case 'link.unknown':
      return `${path} is ${told('id')}, but there is no ${String(context['what'])} of that id.`;
    case 'id.taken':
      return `${path} is ${told('id')}, as another step is; each needs its own.`;
    case 'steps.off':
      return `${path} are all left out; at least one must be done.`;
    case 'layers.many':
      return `${path} lay more than ${told('most')} films and resists; leave some out, or go on with them as another finish.`;
    case 'stretch.order':
      return `${path} must close later than it opens.`;
    case 'stretch.runs-into':
      return `${path}.${told('i')} opens before the stretch before it closes; put them one after another.`;
    case 'extra.order':
      return `${path} must end later than it begins.`;
    case 'order.circle':
      return `${path} leads back to the part it begins with; take one of them out.`;
    case 'media.taken':
      return `${path} is ${told('key')}, which another medium has; choose a new key.`;
    case 'medium.unknown':
      return `${path} is ${told('key')}; it must be one of ${(context['keys'] as string[]).join(', ')}.`;
    case 'map.cells':
      return `${path}.percent must be a list of ${told('cells')} whole numbers, one for each cell, or the same packed.`;
    case 'map.value':
      return `${path} is ${told('cell')}; it must be a whole number from ${told('min')} to ${told('max')}.`;
    case 'others.all':
      return `${path} take ${told('all')} of the coat together; it must be at most ${told('max')}, so that its own colour has a place.`;
    case 'later.rising':
      return `${path} must be in order of time, each later than the one before.`;
    default:
      return null;
  }
}

/** Turns one of Joi's details into a sentence with the field and what is allowed. */
export function explain(detail: Joi.ValidationErrorItem): FieldFault {
  const { context = {} } = detail;
  const own = typeof context['at'] === 'string' ? context['at'] : detail.path.join('.');
  const cell = detail.type === 'map.value' ? `.percent.${String(context['bad'])}` : '';
  const path = `${own === '' ? 'file' : own}${cell}`;
  return {
    path,
    message:
      sentence(path, detail) ?? `${path} is ${shown(context['value'])}; it must be ${allowed(detail)}.`,
  };
}

/**
 * A value as a schema reads it.
 * @throws ZaffetError of the code given, with at most twenty refused fields
 */
export function checked<T>(schema: Joi.Schema<T>, value: unknown, code: ErrorCode): T {
  const result = schema.validate(value, { abortEarly: false, convert: false });
  if (result.error) throw new ZaffetError(fault(code, result.error.details.slice(0, MOST_TOLD).map(explain)));
  return result.value;
}
