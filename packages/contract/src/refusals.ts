import { type MediumParameter, PARAMETERS } from '@zaffet/core';
import type Joi from 'joi';
import { type FieldFault } from './errors';
import { LIMITS } from './plan/limits';

const shown = (value: unknown): string => {
  const textOf = typeof value === 'object' ? 'not a plain value' : JSON.stringify(value);
  return textOf === undefined ? 'missing' : textOf.length > 40 ? `${textOf.slice(0, 40)}…` : textOf;
};

/** Turns one of Joi's details into a sentence with the field and what is allowed. */
export function explain(detail: Joi.ValidationErrorItem): FieldFault {
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
      return { path, message: `${path} is not known here; remove it.` };
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
      return { path, message: `${path} has the same id as another one; each needs its own.` };
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
    case 'link.unknown': {
      const at = String(context?.['at']);
      return {
        path: at,
        message: `${at} is ${shown(context?.['id'])}, but there is no ${String(context?.['what'])} of that id.`,
      };
    }
    case 'id.taken': {
      const at = String(context?.['at']);
      return {
        path: at,
        message: `${at} is ${shown(context?.['id'])}, as another step is; each needs its own.`,
      };
    }
    case 'steps.off': {
      const at = String(context?.['at']);
      return { path: at, message: `${at} are all left out; at least one must be done.` };
    }
    case 'hours.order':
      return { path, message: `${path} must close later than it opens.` };
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
    case 'map.value': {
      const mapPath = typeof context?.['at'] === 'string' ? context['at'] : path;
      return {
        path: `${mapPath}.percent.${String(context?.['bad'])}`,
        message: `${mapPath}.percent.${String(context?.['bad'])} is ${shown(context?.['cell'])}; it must be a whole number from ${String(context?.['min'])} to ${String(context?.['max'])}.`,
      };
    }
    case 'later.rising':
      return { path, message: `${path} must be in order of time, each later than the one before.` };
    default:
      return { path, message: `${path}: ${detail.message}.` };
  }
}

function listAllowed(name: string): string {
  if (name === 'steps') return `${LIMITS.steps.min} to ${LIMITS.steps.max}`;
  if (name === 'parts') return `${LIMITS.parts.min} to ${LIMITS.parts.max}`;
  if (name === 'finishes') return `${LIMITS.finishes.min} to ${LIMITS.finishes.max}`;
  if (name === 'zones') return `at most ${LIMITS.zones.max}`;
  if (name === 'palette') return `at most ${LIMITS.palette.max}`;
  if (name === 'mix') return `at most ${LIMITS.ingredients.max}`;
  if (name === 'media') return `at most ${LIMITS.ownMedia.max}`;
  if (name === 'later') return `at most ${LIMITS.later.max}`;
  return 'fewer';
}

function limitOf(name: string): { min: number; max: number; unit: string } | undefined {
  if (name in PARAMETERS) return PARAMETERS[name as MediumParameter];
  if (name === 'widthMm' || name === 'heightMm') return LIMITS.sideMm;
  if (name === 'leftMm' || name === 'topMm') return LIMITS.placeMm;
  if (name === 'chips' || name === 'worn' || name === 'under' || name === 'natural') return LIMITS.share;
  if (name === 'pricePerL') return LIMITS.price;
  if (name === 'dishMl' || name === 'spoonMl' || name === 'teaspoonMl') return LIMITS.measureMl;
  return (LIMITS as Record<string, { min: number; max: number; unit: string } | undefined>)[name];
}
