import Joi from 'joi';
import { checkBounds } from '../bounds';
import { instant, list, number, text } from '../fields';
import { checked } from '../refusals';
import { type ReadingsRequest } from './types';

const reading = { temperatureC: number('temperatureC'), humidity: number('humidity') };
const messages = Joi.object<ReadingsRequest>({
  source: text().default('sensor').optional(),
  readings: list(Joi.object({ at: instant(), ...reading }), 'readings'),
}).required();
const single = Joi.object<ReadingsRequest['readings'][number] & { source: string }>({
  source: text().default('sensor').optional(),
  at: instant().optional(),
  ...reading,
}).required();

/**
 * Reads what an instrument sends: one reading, of this moment where it names none, or a list of them.
 * @param now - the moment it comes in, ISO 8601
 * @throws ZaffetError `air.refused` with every refused field
 */
export function parseReadings(value: unknown, now: string): ReadingsRequest {
  checkBounds(value, 'air.refused');
  if (typeof value === 'object' && value !== null && 'readings' in value)
    return checked(messages, value, 'air.refused');
  const { source, at, temperatureC, humidity } = checked(single, value, 'air.refused');
  return { source, readings: [{ at: at ?? now, temperatureC, humidity }] };
}
