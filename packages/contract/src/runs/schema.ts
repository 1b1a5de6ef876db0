import { LIVE_STATES } from '@zaffet/core/live';
import Joi from 'joi';
import { learnedSchema } from '../calibration/schema';
import { checkBounds } from '../bounds';
import {
  calendarDay,
  flag,
  id,
  instant,
  lines,
  list,
  number,
  oneOf,
  photoHash,
  text,
  wanted,
  whole,
} from '../fields';
import { filePlan } from '../plan/file';
import { LIMITS } from '../plan/limits';
import { checked } from '../refusals';
import { parsePlan } from '../plan/schema';
import { step } from '../plan/steps.schema';
import {
  type EventsRequest,
  FATES,
  MIX_BODIES,
  PHOTO_TIMES,
  type RunEvent,
  type RunEventKind,
  SEEN_PLACES,
  VERDICT_TIMES,
  VERDICTS,
} from './types';

const ofStep = { partId: id(), stepId: id(), coat: whole('pinnedCoat') };
const told = { minutesAgo: number('minutesAgo') };
const state = Joi.string()
  .valid(...LIVE_STATES)
  .allow(null)
  .required();

const BODIES: Readonly<Record<RunEventKind, Joi.SchemaMap>> = {
  // The plan is read by its own schema: it may be of an older version.
  'run-begun': {
    planId: id().allow(null),
    plan: Joi.object().unknown().required(),
    learned: learnedSchema.allow(null),
  },
  begun: { ...ofStep, ...told },
  done: { ...ofStep, ...told },
  skipped: { ...ofStep, reason: text() },
  'put-in': { partId: id(), afterStepId: id().allow(null), step: step.required() },
  seen: { ...ofStep, ...told, after: state, before: state, now: flag(), places: oneOf(SEEN_PLACES) },
  passes: { ...ofStep, count: whole('passes') },
  section: { ...ofStep, ...told, index: whole('sections'), painted: flag() },
  film: { ...ofStep, thicknessUm: number('thicknessUm') },
  mix: { ...ofStep, body: oneOf(MIX_BODIES), addedMl: number('amountMl') },
  air: { source: text(), temperatureC: number('temperatureC'), humidity: number('humidity') },
  caution: { ...ofStep, code: id() },
  note: { partId: id().allow(null), stepId: id().allow(null).optional(), text: lines() },
  photo: {
    partId: id().allow(null),
    stepId: id().allow(null),
    when: oneOf(PHOTO_TIMES),
    hash: photoHash(),
    text: lines().allow(''),
    wideMm: wanted('sideMm').optional(),
  },
  details: {
    forWhom: text().allow(''),
    fate: oneOf(FATES).allow(null),
    price: wanted('askedPrice'),
    leftOn: calendarDay().allow(null),
    hours: wanted('hours'),
    cost: wanted('askedPrice'),
  },
  outcome: {
    partId: id(),
    spacingMm: wanted('readSpacingMm'),
    openingMm: wanted('readOpeningMm'),
    chipped: wanted('readShare'),
    worn: wanted('readShare'),
    cracked: Joi.boolean().allow(null),
    shares: Joi.object()
      .pattern(id(), number('readShare'))
      .max(LIMITS.layers.max + 1)
      .optional(),
  },
  used: { itemId: id(), name: text(), amountMl: number('amountMl') },
  verdict: { when: oneOf(VERDICT_TIMES), verdict: oneOf(VERDICTS).allow(null), text: lines().allow('') },
  'taken-back': { eventId: id() },
  paused: {},
  resumed: {},
  finished: {},
  reopened: {},
};
const KINDS = Object.keys(BODIES) as RunEventKind[];

const stamp = { id: id(), device: id(), n: whole('eventCount'), at: instant(), offsetMs: number('offsetMs') };
const event = Joi.alternatives().conditional('.kind', {
  switch: KINDS.map((kind) => ({
    is: kind,
    then: Joi.object({ ...stamp, kind: oneOf([kind]), ...BODIES[kind] }),
  })),
  otherwise: Joi.object({ kind: oneOf(KINDS) }).unknown(),
});
const events = Joi.object<EventsRequest>({ events: list(event, 'events') }).required();

/**
 * Reads events of a run.
 * @throws ZaffetError `run.invalid` with every refused field; `plan.invalid` for the plan a run begins with
 */
export function parseEvents(value: unknown): EventsRequest {
  checkBounds(value, 'run.invalid');
  const { events: all } = checked(events, value, 'run.invalid');
  return {
    events: all.map((one): RunEvent =>
      one.kind === 'run-begun' ? { ...one, plan: filePlan(parsePlan(one.plan)) } : one,
    ),
  };
}
