import { checkLearned, PRIOR_SPREAD } from '@zaffet/core/media';
import { InputError } from '@zaffet/core/errors';
import Joi from 'joi';
import { checkBounds } from '../bounds';
import { fault, ZaffetError } from '../errors';
import { id, list, number, text } from '../fields';
import { checked } from '../refusals';
import { type CalibrationFile } from './types';

const KINDS = Object.keys(PRIOR_SPREAD)
  .filter((kind) => kind !== 'air')
  .join('|');
const factorKey = Joi.string()
  .pattern(new RegExp(`^(air|(${KINDS}):[A-Za-z0-9-]{1,80})$`), 'a factor: air, or a kind and what it is of')
  .max(100);
const finite = (limit: number): Joi.NumberSchema => Joi.number().min(-limit).max(limit);
/** Logarithms of factors, and their variances. */
const MOST = { ln: 5, variance: 25 } as const;

const centre = Joi.object({
  top: id(),
  below: id(),
  films: Joi.array().items(Joi.number().greater(0).max(0.01)).length(2).required(),
  humidity: number('humidity'),
  temperature: Joi.number().min(200).max(400).required(),
});
/** What was learned, wherever it is told. */
export const learnedSchema = Joi.object({
  keys: list(factorKey, 'factors').unique(),
  mean: list(finite(MOST.ln), 'factors'),
  covariance: list(Joi.array().items(finite(MOST.variance)), 'factors'),
  centre: Joi.array().items(centre).max(100),
});
const calibration = Joi.object({
  learned: learnedSchema.allow(null).required(),
  runs: list(id().optional(), 'calibrationRuns').unique(),
  leftOut: list(text().optional(), 'calibrationRuns').unique(),
}).required();

/**
 * Reads a calibration.
 * @throws ZaffetError `calibration.invalid` with every refused field
 */
export function parseCalibration(value: unknown): CalibrationFile {
  checkBounds(value, 'calibration.invalid');
  const file = checked(calibration as Joi.Schema<CalibrationFile>, value, 'calibration.invalid');
  try {
    if (file.learned !== null) checkLearned(file.learned);
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    throw new ZaffetError(fault('calibration.invalid', [{ path: error.field, message: error.message }]));
  }
  return file;
}
