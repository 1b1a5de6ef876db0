import {
  COVERS,
  DISTRESS_TOOLS,
  GRITS,
  HEAT_TOOLS,
  MEDIUM_KEYS,
  type MediumParameter,
  PARAMETERS,
  PLACES,
  RESIST_AGENTS,
  START_STATES,
  STEP_KINDS,
  STROKES,
  SUBSTRATE_KEYS,
  USES,
} from '@zaffet/core';
import Joi from 'joi';
import { type SaveRequest } from './api';
import { fault, type FieldFault, ZaffetError } from './errors';
import { LIMITS } from './plan/limits';
import { migratePlan } from './plan/migrate';
import { type Plan, PLAN_FORMAT, PLAN_VERSION, type StepMap } from './plan/types';

type NumberField = Exclude<keyof typeof LIMITS, 'textLength'>;

const number = (key: NumberField): Joi.NumberSchema =>
  Joi.number().strict().min(LIMITS[key].min).max(LIMITS[key].max).meta({ limit: key }).required();
const whole = (key: NumberField): Joi.NumberSchema => number(key).integer();
const text = (): Joi.StringSchema => Joi.string().trim().max(LIMITS.textLength.max).required();
const id = (): Joi.StringSchema =>
  Joi.string()
    .pattern(/^[A-Za-z0-9_-]{1,64}$/)
    .required();
const instant = (): Joi.StringSchema => Joi.string().isoDate().required();
const oneOf = (values: readonly string[]): Joi.StringSchema =>
  Joi.string()
    .valid(...values)
    .required();

const start = Joi.object({
  rule: oneOf(['state', 'after', 'at']),
  state: Joi.when('rule', { is: 'state', then: oneOf(START_STATES), otherwise: Joi.forbidden() }),
  waitMin: Joi.when('rule', { is: 'at', then: Joi.forbidden(), otherwise: number('waitMin') }),
  at: Joi.when('rule', { is: 'at', then: instant(), otherwise: Joi.forbidden() }),
}).required();

const flag = (): Joi.BooleanSchema => Joi.boolean().strict().required();
const wanted = (key: NumberField): Joi.NumberSchema => number(key).allow(null);
const colour = (): Joi.StringSchema =>
  Joi.string()
    .pattern(/^#[0-9a-f]{6}$/)
    .required();

/** A step's map; its cells are checked in one go, there may be thousands. */
const map = (limit: 'mapPercent' | 'filmMapPercent'): Joi.ObjectSchema =>
  Joi.object({
    columns: whole('columns'),
    rows: whole('rows'),
    percent: Joi.any().required(),
  })
    .allow(null)
    .required()
    .custom((value: StepMap | null, helpers) => {
      if (value === null) return value;
      const { min, max } = LIMITS[limit];
      const cells: unknown = value.percent;
      if (!Array.isArray(cells) || cells.length !== value.columns * value.rows)
        return helpers.error('map.cells', { cells: value.columns * value.rows });
      const bad = cells.findIndex((cell) => !Number.isInteger(cell) || cell < min || cell > max);
      return bad < 0 ? value : helpers.error('map.value', { bad, cell: cells[bad] as unknown, min, max });
    });

const film = {
  map: map('filmMapPercent'),
  id: id(),
  start,
  // Checked against the plan's own media as well, by `knownMedia`.
  medium: Joi.string().required(),
  colourName: text().allow(''),
  colour: colour(),
  thicknessUm: number('thicknessUm'),
  dilution: number('dilution'),
  passes: whole('passes'),
  strokes: oneOf(STROKES),
  cover: Joi.object({ style: oneOf(COVERS), share: number('share') }).required(),
};

/** What each kind of step is made of. */
const STEPS: Readonly<Record<(typeof STEP_KINDS)[number], Joi.ObjectSchema>> = {
  coat: Joi.object({
    ...film,
    kind: oneOf(['coat']),
    bonding: number('bonding'),
    lumps: flag(),
    mixedHours: wanted('mixedHours'),
    keptCold: flag(),
  }),
  seal: Joi.object({
    ...film,
    kind: oneOf(['seal']),
    coats: whole('coats'),
    buffAfterMin: wanted('buffAfterMin'),
  }),
  resist: Joi.object({
    id: id(),
    start,
    kind: oneOf(['resist']),
    agent: oneOf(RESIST_AGENTS),
    thicknessUm: number('thicknessUm'),
    share: number('share'),
    where: oneOf(PLACES),
    map: map('mapPercent'),
  }),
  heat: Joi.object({
    id: id(),
    start,
    kind: oneOf(['heat']),
    tool: oneOf(HEAT_TOOLS),
    durationS: number('durationS'),
  }),
  rewet: Joi.object({ id: id(), start, kind: oneOf(['rewet']), amountUm: number('amountUm') }),
  distress: Joi.object({
    id: id(),
    start,
    kind: oneOf(['distress']),
    tool: oneOf(DISTRESS_TOOLS),
    grit: Joi.number()
      .valid(...GRITS)
      .required(),
    rounds: whole('rounds'),
    pressure: number('pressure'),
    where: oneOf(PLACES),
    smear: number('smear'),
    map: map('mapPercent'),
  }),
  wipe: Joi.object({ id: id(), start, kind: oneOf(['wipe']), degrease: flag() }),
  wait: Joi.object({ id: id(), start, kind: oneOf(['wait']), durationMin: number('durationMin') }),
};
const step = Joi.alternatives().conditional('.kind', {
  switch: STEP_KINDS.map((kind) => ({ is: kind, then: STEPS[kind] })),
  otherwise: Joi.object({ kind: oneOf(STEP_KINDS) }).unknown(),
});

const ownMedium = Joi.object({
  key: id(),
  name: text(),
  like: oneOf(MEDIUM_KEYS),
  changes: Joi.object(
    Object.fromEntries(
      Object.entries(PARAMETERS).map(([name, { min, max }]) => [
        name,
        Joi.number()
          .strict()
          .min(min)
          .max(Number.isFinite(max) ? max : Number.MAX_SAFE_INTEGER),
      ]),
    ),
  ).required(),
});

const part = Joi.object({
  id: id(),
  name: text(),
  widthMm: number('sideMm'),
  heightMm: number('sideMm'),
  substrate: oneOf(SUBSTRATE_KEYS),
  history: Joi.object({
    handled: Joi.boolean().strict().required(),
    tannin: Joi.boolean().strict().required(),
    oldPaint: oneOf(['none', 'known', 'unknown']),
    condition: oneOf(['sound', 'flaking']),
  }).required(),
  flat: flag(),
  use: oneOf(USES),
});

const air = Joi.object({
  temperatureC: number('temperatureC'),
  humidity: number('humidity'),
  draughtMS: number('draughtMS'),
  altitudeM: number('altitudeM'),
  later: Joi.array()
    .items(Joi.object({ at: instant(), temperatureC: number('temperatureC'), humidity: number('humidity') }))
    .max(LIMITS.later.max)
    .required()
    .custom((samples: { at: string }[], helpers) => {
      const rising = samples.every(
        (sample, i) => i === 0 || Date.parse(sample.at) > Date.parse(samples[i - 1]?.at ?? ''),
      );
      return rising ? samples : helpers.error('later.rising');
    }),
}).required();

/** Every medium laid is a generic one or one of the plan's own, whose keys are new. */
const knownMedia: Joi.CustomValidator<Plan> = (plan, helpers) => {
  const keys: string[] = [...MEDIUM_KEYS];
  for (const [i, own] of plan.media.entries()) {
    if (keys.includes(own.key)) return helpers.error('media.taken', { at: `media.${i}.key`, key: own.key });
    keys.push(own.key);
  }
  const i = plan.steps.findIndex((s) => (s.kind === 'coat' || s.kind === 'seal') && !keys.includes(s.medium));
  const unknown = plan.steps[i];
  if (unknown === undefined || !('medium' in unknown)) return plan;
  return helpers.error('medium.unknown', { at: `steps.${i}.medium`, key: unknown.medium, keys });
};

/** A step's own instant lies in the plan's days. */
const withinPlan: Joi.CustomValidator<Plan> = (plan, helpers) => {
  const i = plan.steps.findIndex((step) => {
    if (step.start.rule !== 'at') return false;
    const wait = (Date.parse(step.start.at) - Date.parse(plan.startsAt)) / 60000;
    return wait > LIMITS.waitMin.max;
  });
  return i < 0 ? plan : helpers.error('start.late', { at: `steps.${i}.start.at` });
};

const planSchema = Joi.object<Plan>({
  format: oneOf([PLAN_FORMAT]),
  version: Joi.number().valid(PLAN_VERSION).required(),
  name: text(),
  seed: whole('seed'),
  startsAt: instant(),
  piece: Joi.object({ name: text(), parts: Joi.array().items(part).length(1).required() }).required(),
  look: Joi.object({ spacingMm: wanted('spacingMm'), openingMm: wanted('openingMm') }).required(),
  steps: Joi.array().items(step).min(LIMITS.steps.min).max(LIMITS.steps.max).unique('id').required(),
  air,
  media: Joi.array().items(ownMedium).max(LIMITS.ownMedia.max).required(),
  prices: Joi.object()
    .pattern(/^[A-Za-z0-9_-]{1,64}$/, number('price').optional())
    .required(),
})
  .required()
  .custom(knownMedia)
  .custom(withinPlan);

const saveSchema = Joi.object<SaveRequest>({
  revision: Joi.number().strict().integer().min(1).required(),
  plan: Joi.object().unknown().required(),
}).required();

const shown = (value: unknown): string => {
  const textOf = typeof value === 'object' ? 'not a plain value' : JSON.stringify(value);
  return textOf === undefined ? 'missing' : textOf.length > 40 ? `${textOf.slice(0, 40)}…` : textOf;
};

/** Turns one of Joi's details into a sentence with the field and what is allowed. */
function explain(detail: Joi.ValidationErrorItem): FieldFault {
  const path = detail.path.length === 0 ? 'file' : detail.path.join('.');
  const context = detail.context as Record<string, unknown> | undefined;
  const value = context?.['value'];
  const name = detail.path.findLast((step) => typeof step === 'string');
  const limit = limitOf(String(name));
  const range = limit
    ? `a number from ${limit.min} to ${limit.max}${limit.unit ? ` ${limit.unit}` : ''}`
    : 'a number in range';
  switch (detail.type) {
    case 'any.required':
      return { path, message: `${path} is missing.` };
    case 'object.unknown':
    case 'any.unknown':
      return { path, message: `${path} is not part of a plan; remove it.` };
    case 'any.only':
      return {
        path,
        message: `${path} is ${shown(value)}; it must be one of ${(context?.['valids'] as unknown[]).join(', ')}.`,
      };
    case 'number.base':
    case 'number.min':
    case 'number.max':
    case 'number.infinity':
    case 'number.unsafe':
      return { path, message: `${path} is ${shown(value)}; it must be ${range}.` };
    case 'number.integer':
      return {
        path,
        message: `${path} is ${shown(value)}; it must be a whole number${limit ? ` from ${limit.min} to ${limit.max}` : ''}.`,
      };
    case 'string.isoDate':
      return {
        path,
        message: `${path} is ${shown(value)}; it must be a date and time such as 2026-05-12T08:30:00Z.`,
      };
    case 'string.pattern.base':
      return path.endsWith('colour')
        ? { path, message: `${path} is ${shown(value)}; it must be a colour such as #4a6b5d.` }
        : { path, message: `${path} is ${shown(value)}; it must be letters, digits, - or _.` };
    case 'string.max':
      return { path, message: `${path} is too long; at most ${LIMITS.textLength.max} characters.` };
    case 'string.empty':
      return { path, message: `${path} is empty; give it a name.` };
    case 'array.unique':
      return { path, message: `${path} has the same id as another step; each needs its own.` };
    case 'array.min':
    case 'array.max':
    case 'array.length':
    case 'array.includesRequiredUnknowns':
      return {
        path,
        message: `${path} has ${Array.isArray(value) ? value.length : 'the wrong number of'} entries; allowed is ${listAllowed(String(name))}.`,
      };
    case 'start.late': {
      const at = String(context?.['at']);
      return {
        path: at,
        message: `${at} is more than ${LIMITS.waitMin.max / 1440} days after the plan's start; choose an earlier one.`,
      };
    }
    case 'media.taken': {
      const at = String(context?.['at']);
      return {
        path: at,
        message: `${at} is ${shown(context?.['key'])}, which another medium has; choose a new key.`,
      };
    }
    case 'medium.unknown': {
      const at = String(context?.['at']);
      const keys = (context?.['keys'] as string[]).join(', ');
      return { path: at, message: `${at} is ${shown(context?.['key'])}; it must be one of ${keys}.` };
    }
    case 'map.cells':
      return {
        path,
        message: `${path}.percent must be a list of ${String(context?.['cells'])} whole numbers, one for each cell.`,
      };
    case 'map.value':
      return {
        path: `${path}.percent.${String(context?.['bad'])}`,
        message: `${path}.percent.${String(context?.['bad'])} is ${shown(context?.['cell'])}; it must be a whole number from ${String(context?.['min'])} to ${String(context?.['max'])}.`,
      };
    case 'later.rising':
      return { path, message: `${path} must be in order of time, each later than the one before.` };
    default:
      return { path, message: `${path}: ${detail.message}.` };
  }
}

function listAllowed(name: string): string {
  if (name === 'steps') return `${LIMITS.steps.min} to ${LIMITS.steps.max}`;
  if (name === 'media') return `at most ${LIMITS.ownMedia.max}`;
  if (name === 'later') return `at most ${LIMITS.later.max}`;
  return 'exactly 1';
}

function limitOf(name: string): { min: number; max: number; unit: string } | undefined {
  if (name in PARAMETERS) return PARAMETERS[name as MediumParameter];
  if (name === 'widthMm' || name === 'heightMm') return LIMITS.sideMm;
  return (LIMITS as Record<string, { min: number; max: number; unit: string } | undefined>)[name];
}

function check<T>(schema: Joi.ObjectSchema<T>, value: unknown): T {
  const result = schema.validate(value, { abortEarly: false, convert: false });
  if (result.error)
    throw new ZaffetError(fault('plan.invalid', result.error.details.slice(0, 20).map(explain)));
  return result.value;
}

/**
 * Reads a plan of any known version.
 * @throws ZaffetError with every refused field (at most twenty), its value and what is allowed
 */
export function parsePlan(value: unknown): Plan {
  return check(planSchema, migratePlan(value));
}

/** Reads a save: its revision and its plan. @throws ZaffetError as `parsePlan` */
export function parseSave(value: unknown): SaveRequest {
  const save = check(saveSchema, value);
  return { revision: save.revision, plan: parsePlan(save.plan) };
}
