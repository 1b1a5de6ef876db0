import Joi from 'joi';
import { fault, ZaffetError } from '../errors';
import { calendarDay, colour, id, text } from '../fields';
import { LIMITS } from '../plan/limits';
import { explain } from '../refusals';
import { VERDICTS } from '../runs/types';
import { type LogQuery } from './types';

/** An address tells numbers as text. */
const told = ({ min, max }: { readonly min: number; readonly max: number }): Joi.NumberSchema =>
  Joi.number().min(min).max(max);
const MOST_WITHIN = 100;
const MOST_SKIPPED = 1_000_000;

const query = Joi.object<LogQuery>({
  words: text().allow('').optional(),
  colour: colour().optional(),
  within: told({ min: 0, max: MOST_WITHIN }),
  school: id().optional(),
  medium: id().optional(),
  verdict: Joi.string().valid(...VERDICTS),
  from: calendarDay().optional(),
  until: calendarDay().optional(),
  spacingFromMm: told(LIMITS.readSpacingMm),
  spacingToMm: told(LIMITS.readSpacingMm),
  chippedFrom: told(LIMITS.readShare),
  chippedTo: told(LIMITS.readShare),
  humidityFrom: told(LIMITS.humidity),
  humidityTo: told(LIMITS.humidity),
  skip: told({ min: 0, max: MOST_SKIPPED }).integer(),
});

/**
 * Reads what is looked for in the log, out of an address.
 * @throws ZaffetError `log.invalid` with every refused field
 */
export function parseLogQuery(value: unknown): LogQuery {
  const result = query.validate(value, { abortEarly: false });
  if (result.error) throw new ZaffetError(fault('log.invalid', result.error.details.map(explain)));
  return result.value;
}
