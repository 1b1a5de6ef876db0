import { STROKES } from '../crack';
import { checkRange, InputError } from '../errors';
import { medium, substrate } from '../media';
import { PLAN_RANGES } from './ranges';
import { type Coat, type PanelPlan, START_STATES } from './types';

function checkWhole(field: string, value: number, range: { min: number; max: number }): void {
  checkRange(field, value, range, '');
  if (!Number.isInteger(value)) {
    throw new InputError({
      code: field,
      field,
      value,
      allowed: `a whole number from ${range.min} to ${range.max}`,
    });
  }
}

function checkOneOf(field: string, value: string, allowed: readonly string[]): void {
  if (!allowed.includes(value))
    throw new InputError({ code: field, field, value, allowed: `one of ${allowed.join(', ')}` });
}

function checkCoat(coat: Coat, at: string): void {
  medium(coat.medium);
  checkRange(`${at}.thickness`, coat.thickness, PLAN_RANGES.thickness, 'm');
  checkRange(`${at}.dilution`, coat.dilution, PLAN_RANGES.dilution, '');
  checkWhole(`${at}.passes`, coat.passes, PLAN_RANGES.passes);
  checkOneOf(`${at}.strokes`, coat.strokes, STROKES);
  if (coat.start.rule === 'at') checkRange(`${at}.start.moment`, coat.start.moment, PLAN_RANGES.wait, 's');
  else checkRange(`${at}.start.wait`, coat.start.wait, PLAN_RANGES.wait, 's');
  if (coat.start.rule === 'state') checkOneOf(`${at}.start.state`, coat.start.state, START_STATES);
}

/**
 * The door of every forecast: checks a whole plan once, so that the kernels behind it need not.
 * @throws InputError naming the field, the value and what is allowed
 */
export function checkPlan(plan: PanelPlan): void {
  substrate(plan.panel.substrate);
  checkRange('panel.width', plan.panel.width, PLAN_RANGES.side, 'm');
  checkRange('panel.height', plan.panel.height, PLAN_RANGES.side, 'm');
  checkWhole('seed', plan.seed, PLAN_RANGES.seed);
  checkWhole('coats', plan.coats.length, PLAN_RANGES.coats);
  checkWhole('air.samples', plan.air.length, PLAN_RANGES.airSamples);
  plan.coats.forEach((coat, i) => checkCoat(coat, `coats[${i}]`));
}
