import { MEDIUM_KEYS, PARAMETERS } from '@zaffet/core/media';
import { PLACED_ZONES } from '@zaffet/core/piece';
import { ZONES } from '@zaffet/core/plan';
import Joi from 'joi';
import { checkBounds } from '../bounds';
import { between, colour, flag, id, instant, list, number, oneOf, text, wanted, whole } from '../fields';
import { checked } from '../refusals';
import { work } from '../shop/schema';
import { AIR_ORIGINS } from '../shop/types';
import { migratePlan } from './migrate';
import { part } from './piece.schema';
import { knownMedia, layersTold, linked, ownIds, someDone, withinPlan } from './rules';
import { step } from './steps.schema';
import { type Plan, PLAN_FORMAT, PLAN_VERSION } from './types';

const ownMedium = Joi.object({
  key: id(),
  name: text(),
  like: oneOf(MEDIUM_KEYS),
  changes: Joi.object(
    Object.fromEntries(
      Object.entries(PARAMETERS).map(([name, { min, max, unit }]) => [
        name,
        between({ min, max: Math.min(max, Number.MAX_SAFE_INTEGER), unit }).optional(),
      ]),
    ),
  ).required(),
});

const wants = {
  spacingMm: wanted('spacingMm'),
  openingMm: wanted('openingMm'),
  chips: wanted('share'),
  worn: wanted('share'),
  under: wanted('share'),
};
const look = Joi.object({
  ...wants,
  zones: Joi.object()
    .pattern(Joi.string().valid(...ZONES, ...PLACED_ZONES), Joi.object(wants))
    .required(),
  shows: Joi.object().pattern(id(), number('share').optional()).required(),
  glossUnits: wanted('glossUnits'),
  natural: wanted('share'),
  degree: oneOf(['sale', 'keep']),
}).required();

const finish = Joi.object({
  id: id(),
  name: text(),
  whatIfOf: Joi.string().allow(null).required(),
  steps: list(step, 'steps'),
  look,
});

const paletteColour = Joi.object({
  id: id(),
  name: text(),
  colour: colour(),
  mix: list(Joi.object({ name: text(), colour: colour(), parts: number('ingredientParts') }), 'ingredients'),
  dry: flag(),
});

const timing = Joi.object({
  deadlineAt: instant().allow(null),
  backward: flag(),
  prepares: flag(),
  pins: list(Joi.object({ partId: id(), stepId: id(), coat: whole('pinnedCoat'), at: instant() }), 'pins'),
  deliveries: list(Joi.object({ medium: id(), colour: colour().allow(null), at: instant() }), 'deliveries'),
  order: list(Joi.object({ first: id(), then: id() }), 'order'),
}).required();

const air = Joi.object({
  origin: oneOf(AIR_ORIGINS),
  temperatureC: number('temperatureC'),
  humidity: number('humidity'),
  draughtMS: number('draughtMS'),
  altitudeM: number('altitudeM'),
  later: list(
    Joi.object({ at: instant(), temperatureC: number('temperatureC'), humidity: number('humidity') }),
    'later',
  ),
})
  .required()
  .custom((value: Plan['air'], helpers) => {
    const rising = value.later.every(
      ({ at }, i) => i === 0 || Date.parse(at) > Date.parse(value.later[i - 1]!.at),
    );
    return rising ? value : helpers.error('later.rising', { at: 'air.later' });
  });

const planSchema = Joi.object<Plan>({
  format: oneOf([PLAN_FORMAT]),
  version: Joi.number().valid(PLAN_VERSION).required(),
  name: text(),
  seed: whole('seed'),
  startsAt: instant(),
  piece: Joi.object({
    name: text(),
    bodies: list(Joi.object({ id: id(), name: text() }), 'bodies').unique('id'),
    parts: list(part, 'parts').unique('id'),
  }).required(),
  finishes: list(finish, 'finishes').unique('id'),
  palette: list(paletteColour, 'palette').unique('id'),
  air,
  work: work.allow(null).required(),
  timing,
  media: list(ownMedium, 'ownMedia'),
  prices: Joi.object().pattern(id(), number('price').optional()).required(),
})
  .required()
  .custom(knownMedia)
  .custom(withinPlan)
  .custom(ownIds)
  .custom(someDone)
  .custom(layersTold)
  .custom(linked);

const saveSchema = Joi.object<{ saveId: string; revision?: unknown; plan: object }>({
  saveId: Joi.string().max(64).allow('').default(''),
  // A page from before 0.2 counts revisions, which a restore may count again.
  revision: Joi.any().strip(),
  plan: Joi.object().unknown().required(),
}).required();

/**
 * Reads a plan of any known version.
 * @throws ZaffetError with every refused field (at most twenty), its value and what is allowed
 */
export function parsePlan(value: unknown): Plan {
  checkBounds(value, 'plan.invalid');
  return checked(planSchema, migratePlan(value), 'plan.invalid');
}

/** Reads a save: the save it started from, '' if the page does not know it, and its plan. @throws ZaffetError as `parsePlan` */
export function parseSave(value: unknown): { readonly saveId: string; readonly plan: Plan } {
  checkBounds(value, 'plan.invalid');
  const { saveId, plan } = checked(saveSchema, value, 'plan.invalid');
  return { saveId, plan: parsePlan(plan) };
}
