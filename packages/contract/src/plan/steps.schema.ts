import { MANNERS } from '@zaffet/core/colour';
import { STROKES } from '@zaffet/core/crack';
import {
  COMPANION_TASKS,
  COVERS,
  GRITS,
  HEAT_TOOLS,
  PLACES,
  RESIST_AGENTS,
  SHEENS,
  START_STATES,
  STEP_KINDS,
} from '@zaffet/core/plan';
import { BODIES } from '@zaffet/core/quantity';
import { DISTRESS_TOOLS } from '@zaffet/core/tools';
import { WOODS } from '@zaffet/core/wood';
import Joi from 'joi';
import { colour, flag, id, instant, lines, list, number, oneOf, text, wanted, whole } from '../fields';
import { LIMITS } from './limits';
import { type OtherColour, PRINT_HOLDERS } from './steps.types';

const start = Joi.object({
  rule: oneOf(['state', 'after', 'at']),
  state: Joi.when('rule', { is: 'state', then: oneOf(START_STATES), otherwise: Joi.forbidden() }),
  waitMin: Joi.when('rule', { is: 'at', then: Joi.forbidden(), otherwise: number('waitMin') }),
  at: Joi.when('rule', { is: 'at', then: instant(), otherwise: Joi.forbidden() }),
}).required();

/** A small picture inside the file. */
const PICTURE = /^data:image\/(png|jpeg|webp);base64,[A-Za-z0-9+/]+={0,2}$/;

const placed = {
  where: oneOf(PLACES),
  only: text().allow(null),
  except: list(text().optional(), 'except').unique(),
};
const tint = Joi.object({ name: text().allow(''), colour: colour(), strength: number('tintStrength') })
  .allow(null)
  .required();

/** What somebody wants to remember at a step; mostly nothing. */
const note = lines().allow('').optional();

const film = {
  id: id(),
  start,
  off: flag(),
  note,
  // Checked against the plan's own media as well, by `knownMedia`.
  medium: Joi.string().required(),
  colourName: text().allow(''),
  colour: colour(),
  thicknessUm: number('thicknessUm'),
  dilution: number('dilution'),
  passes: whole('passes'),
  strokes: oneOf(STROKES),
  cover: Joi.object({ style: oneOf(COVERS), share: number('share') }).required(),
  ...placed,
};

/** Further colours of a coat leave room for its own. */
const others = list(
  Joi.object({ name: text().allow(''), colour: colour(), share: number('share') }),
  'others',
).custom((value: readonly OtherColour[], helpers) => {
  const { max } = LIMITS.otherShares;
  // Shares that are no numbers are refused by themselves.
  const shares = value.map((one: OtherColour | null) => (typeof one?.share === 'number' ? one.share : 0));
  const all = shares.reduce((sum, share) => sum + share, 0);
  return all <= max + 1e-9 ? value : helpers.error('others.all', { all, max });
});

/** What each kind of step is made of. */
const STEPS: Readonly<Record<(typeof STEP_KINDS)[number], Joi.ObjectSchema>> = {
  coat: Joi.object({
    ...film,
    kind: oneOf(['coat']),
    bonding: number('bonding'),
    lumps: flag(),
    mixedHours: wanted('mixedHours'),
    keptCold: flag(),
    body: oneOf(BODIES).allow(null),
    others,
    manner: oneOf(MANNERS),
    texture: number('texture'),
  }),
  seal: Joi.object({
    ...film,
    kind: oneOf(['seal']),
    coats: whole('coats'),
    buffAfterMin: wanted('buffAfterMin'),
    sheen: oneOf(SHEENS).allow(null),
  }),
  resist: Joi.object({
    id: id(),
    start,
    off: flag(),
    note,
    kind: oneOf(['resist']),
    agent: oneOf(RESIST_AGENTS),
    thicknessUm: number('thicknessUm'),
    share: number('share'),
    ...placed,
  }),
  heat: Joi.object({
    id: id(),
    start,
    off: flag(),
    note,
    kind: oneOf(['heat']),
    tool: oneOf(HEAT_TOOLS),
    durationS: number('durationS'),
    ...placed,
  }),
  rewet: Joi.object({
    id: id(),
    start,
    off: flag(),
    note,
    kind: oneOf(['rewet']),
    amountUm: number('amountUm'),
    tint,
    ...placed,
  }),
  distress: Joi.object({
    id: id(),
    start,
    off: flag(),
    note,
    kind: oneOf(['distress']),
    tool: oneOf(DISTRESS_TOOLS),
    grit: Joi.number()
      .valid(...GRITS)
      .required(),
    rounds: whole('rounds'),
    pressure: number('pressure'),
    smear: number('smear'),
    tint,
    ...placed,
  }),
  wipe: Joi.object({
    id: id(),
    start,
    off: flag(),
    note,
    kind: oneOf(['wipe']),
    degrease: flag(),
    ...placed,
  }),
  wait: Joi.object({
    id: id(),
    start,
    off: flag(),
    note,
    kind: oneOf(['wait']),
    durationMin: number('durationMin'),
  }),
  companion: Joi.object({
    id: id(),
    start,
    off: flag(),
    note,
    kind: oneOf(['companion']),
    task: oneOf(COMPANION_TASKS),
    handsMin: number('handsMin'),
    restMin: number('restMin'),
    wood: oneOf(WOODS).allow(null),
    print: Joi.object({
      on: text().allow(null),
      holds: oneOf(PRINT_HOLDERS),
      picture: Joi.string().pattern(PICTURE, 'picture').max(LIMITS.printLength.max).allow(null).required(),
    })
      .allow(null)
      .required(),
  }),
};
export const step = Joi.alternatives().conditional('.kind', {
  switch: STEP_KINDS.map((kind) => ({ is: kind, then: STEPS[kind] })),
  otherwise: Joi.object({ kind: oneOf(STEP_KINDS) }).unknown(),
});
