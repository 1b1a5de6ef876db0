import { MEDIUM_KEYS } from '@zaffet/core/media';
import type Joi from 'joi';
import { LIMITS } from './limits';
import { badCell, mapRange } from './maps';
import { isFilmStep, isMapped, layersOf } from './steps.types';
import { type Plan } from './types';

/** Every medium laid is a generic one or one of the plan's own, whose keys are new. */
export const knownMedia: Joi.CustomValidator<Plan> = (plan, helpers) => {
  const keys: string[] = [...MEDIUM_KEYS];
  for (const [i, own] of plan.media.entries()) {
    if (keys.includes(own.key)) return helpers.error('media.taken', { at: `media.${i}.key`, key: own.key });
    keys.push(own.key);
  }
  for (const [f, { steps }] of plan.finishes.entries()) {
    const i = steps.findIndex((s) => isFilmStep(s) && !keys.includes(s.medium));
    const unknown = steps[i];
    if (unknown === undefined || !isFilmStep(unknown)) continue;
    return helpers.error('medium.unknown', {
      at: `finishes.${f}.steps.${i}.medium`,
      key: unknown.medium,
      keys,
    });
  }
  return plan;
};

/** A step's own instant lies in the plan's days. */
export const withinPlan: Joi.CustomValidator<Plan> = (plan, helpers) => {
  for (const [f, { steps }] of plan.finishes.entries()) {
    const i = steps.findIndex(({ start }) => {
      if (start.rule !== 'at') return false;
      return (Date.parse(start.at) - Date.parse(plan.startsAt)) / 60000 > LIMITS.waitMin.max;
    });
    if (i >= 0) return helpers.error('start.late', { at: `finishes.${f}.steps.${i}.start.at` });
  }
  return plan;
};

/** Steps are told apart by their ids in the whole plan: maps and wishes name them. */
export const ownIds: Joi.CustomValidator<Plan> = (plan, helpers) => {
  const seen = new Set<string>();
  for (const [f, { steps }] of plan.finishes.entries()) {
    for (const [i, { id }] of steps.entries()) {
      if (seen.has(id)) return helpers.error('id.taken', { at: `finishes.${f}.steps.${i}.id`, id });
      seen.add(id);
    }
  }
  return plan;
};

/** Of every finish at least one step is done. */
export const someDone: Joi.CustomValidator<Plan> = (plan, helpers) => {
  const f = plan.finishes.findIndex(({ steps }) => steps.every(({ off }) => off));
  return f < 0 ? plan : helpers.error('steps.off', { at: `finishes.${f}.steps` });
};

/** No more lies on a panel than can be told apart. */
export const layersTold: Joi.CustomValidator<Plan> = (plan, helpers) => {
  const f = plan.finishes.findIndex(({ steps }) => layersOf(steps) > LIMITS.layers.max);
  return f < 0 ? plan : helpers.error('layers.many', { at: `finishes.${f}.steps`, most: LIMITS.layers.max });
};

/** Index of an order of parts that leads back to where it began; null where none does. */
function circle({ timing: { order } }: Plan): number | null {
  const leads = (from: string, to: string, seen: readonly string[]): boolean =>
    order.some(
      ({ first, then }) =>
        first === from && (then === to || (!seen.includes(then) && leads(then, to, [...seen, then]))),
    );
  const i = order.findIndex(({ first, then }) => first === then || leads(then, first, [then]));
  return i < 0 ? null : i;
}

/** Parts name finishes that are meant, what-ifs name what they stand beside; a film lies at least thinly everywhere. */
export const linked: Joi.CustomValidator<Plan> = (plan, helpers) => {
  const meant = plan.finishes.filter(({ whatIfOf }) => whatIfOf === null).map(({ id }) => id);
  for (const [i, { finish, maps, body }] of plan.piece.parts.entries()) {
    if (body !== null && plan.piece.bodies.every(({ id }) => id !== body))
      return helpers.error('link.unknown', { at: `piece.parts.${i}.body`, id: body, what: 'body' });
    if (!meant.includes(finish))
      return helpers.error('link.unknown', { at: `piece.parts.${i}.finish`, id: finish, what: 'finish' });
    for (const [stepId, { percent }] of Object.entries(maps)) {
      const at = `piece.parts.${i}.maps.${stepId}`;
      const step = plan.finishes.flatMap(({ steps }) => steps).find(({ id }) => id === stepId);
      if (step === undefined || !isMapped(step))
        return helpers.error('link.unknown', { at, id: stepId, what: 'step that may have a map' });
      const { min, max } = mapRange(step);
      const bad = badCell(percent, { min, max });
      if (bad >= 0) return helpers.error('map.value', { at, bad, cell: percent[bad], min, max });
    }
  }
  const round = circle(plan);
  if (round !== null) return helpers.error('order.circle', { at: `timing.order.${round}` });
  const i = plan.finishes.findIndex(({ whatIfOf }) => whatIfOf !== null && !meant.includes(whatIfOf));
  const lost = plan.finishes[i];
  return lost === undefined
    ? plan
    : helpers.error('link.unknown', { at: `finishes.${i}.whatIfOf`, id: lost.whatIfOf, what: 'finish' });
};
