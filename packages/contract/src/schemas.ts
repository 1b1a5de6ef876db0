import { DISTRESS_TOOLS } from '@zaffet/core/tools';
import { MANNERS } from '@zaffet/core/colour';
import { STROKES } from '@zaffet/core/crack';
import { MEDIUM_KEYS, PARAMETERS, SUBSTRATE_KEYS } from '@zaffet/core/media';
import { FACINGS, PLACED_ZONES } from '@zaffet/core/piece';
import {
  COAT_AGES,
  COMPANION_TASKS,
  COVERS,
  GRAIN_WAYS,
  GRITS,
  HEAT_TOOLS,
  OLD_COATS,
  PLACES,
  PREP_STEPS,
  RELIEF_KINDS,
  RESIST_AGENTS,
  SHEENS,
  START_STATES,
  STEP_KINDS,
  USES,
  ZONES,
} from '@zaffet/core/plan';
import { BODIES } from '@zaffet/core/quantity';
import { MINUTE_KEYS } from '@zaffet/core/schedule';
import { WOODS } from '@zaffet/core/wood';
import Joi from 'joi';
import { checkBounds } from './bounds';
import {
  between,
  calendarDay,
  colour,
  flag,
  id,
  instant,
  lines,
  list,
  number,
  oneOf,
  text,
  wanted,
  whole,
} from './fields';
import { LIMITS } from './plan/limits';
import { badCell, mapRange } from './plan/maps';
import { migratePlan } from './plan/migrate';
import { unpackMap } from './plan/file';
import { checked } from './refusals';
import { type Shop, USUAL_SHOP } from './shop/types';
import { isZone } from './plan/zone';
import {
  AIR_ORIGINS,
  type DayStretch,
  FITTING_KINDS,
  FITTING_TREATMENTS,
  isFilmStep,
  isMapped,
  layersOf,
  type OtherColour,
  type Plan,
  PLAN_FORMAT,
  PLAN_VERSION,
  PRINT_HOLDERS,
  type StepMap,
  WEEKDAYS,
} from './plan/types';

const start = Joi.object({
  rule: oneOf(['state', 'after', 'at']),
  state: Joi.when('rule', { is: 'state', then: oneOf(START_STATES), otherwise: Joi.forbidden() }),
  waitMin: Joi.when('rule', { is: 'at', then: Joi.forbidden(), otherwise: number('waitMin') }),
  at: Joi.when('rule', { is: 'at', then: instant(), otherwise: Joi.forbidden() }),
}).required();

/** A small picture inside the file. */
const PICTURE = /^data:image\/(png|jpeg|webp);base64,[A-Za-z0-9+/]+={0,2}$/;

/** A step's map, packed or cell by cell; its cells are checked in one go, there may be thousands. */
const stepMap = Joi.object({
  columns: whole('columns'),
  rows: whole('rows'),
  percent: Joi.any().required(),
}).custom((value: Omit<StepMap, 'percent'> & { percent: unknown }, helpers) => {
  const { min } = LIMITS.mapPercent;
  const { max } = LIMITS.filmMapPercent;
  const { columns, rows, percent } = value;
  const map = typeof percent === 'string' ? unpackMap({ columns, rows, percent }) : value;
  const cells = map?.percent;
  if (map === null || !Array.isArray(cells) || cells.length !== columns * rows)
    return helpers.error('map.cells', { cells: columns * rows });
  const bad = badCell(cells, { min, max });
  return bad < 0 ? map : helpers.error('map.value', { bad, cell: cells[bad] as unknown, min, max });
});

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

const zone = Joi.object({
  id: id(),
  kind: oneOf(PLACED_ZONES),
  name: text(),
  oval: flag(),
  leftMm: number('placeMm'),
  topMm: number('placeMm'),
  widthMm: number('zoneMm'),
  heightMm: number('zoneMm'),
});

const part = Joi.object({
  id: id(),
  name: text(),
  widthMm: number('sideMm'),
  heightMm: number('sideMm'),
  oval: flag(),
  facing: oneOf(FACINGS),
  body: id().allow(null),
  substrate: oneOf(SUBSTRATE_KEYS),
  ground: Joi.object({ colour: colour().allow(null), grain: oneOf(GRAIN_WAYS) }).required(),
  relief: Joi.object({
    kind: oneOf(RELIEF_KINDS),
    depthMm: number('reliefDepthMm'),
    pitchMm: number('reliefPitchMm'),
  })
    .allow(null)
    .required(),
  history: Joi.object({
    handled: flag(),
    tannin: flag(),
    coat: oneOf(OLD_COATS),
    age: oneOf(COAT_AGES),
    condition: oneOf(['sound', 'flaking']),
  }).required(),
  moisture: wanted('moisture'),
  fittings: Joi.array()
    .items(Joi.object({ kind: oneOf(FITTING_KINDS), treatment: oneOf(FITTING_TREATMENTS) }))
    .unique('kind')
    .required(),
  prepared: Joi.array()
    .items(Joi.string().valid(...PREP_STEPS))
    .unique()
    .required(),
  zones: list(zone, 'zones').unique('id'),
  finish: id(),
  maps: Joi.object().pattern(id(), stepMap).required(),
  flat: flag(),
  use: oneOf(USES),
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

const dayStretch = Joi.object({ opensMin: whole('clockMin'), closesMin: whole('clockMin') }).custom(
  (value: DayStretch, helpers) => (value.closesMin > value.opensMin ? value : helpers.error('stretch.order')),
);

/** Stretches of one day, one after another. */
const day = list(dayStretch, 'stretches').custom((stretches: readonly DayStretch[], helpers) => {
  // What is no number is refused by itself.
  const minute = (value: unknown): number => (typeof value === 'number' ? value : 0);
  const told = Array.from(stretches, (one: DayStretch | null) => [
    minute(one?.opensMin),
    minute(one?.closesMin),
  ]);
  const i = told.findIndex(([opens], k) => k > 0 && opens! < told[k - 1]![1]!);
  return i < 0 ? stretches : helpers.error('stretch.runs-into', { i });
});

const work = Joi.object({
  zone: Joi.string()
    .max(LIMITS.textLength.max)
    .custom((value: string, helpers) => (isZone(value) ? value : helpers.error('zone.unknown')))
    .required(),
  week: Joi.object(Object.fromEntries(WEEKDAYS.map((name) => [name, day]))).required(),
  daysOff: list(calendarDay().optional(), 'daysOff'),
  extra: list(
    Joi.object({ from: instant(), until: instant() }).custom(
      (value: { from: string; until: string }, helpers) =>
        Date.parse(value.until) > Date.parse(value.from) ? value : helpers.error('extra.order'),
    ),
    'extra',
  ),
  people: whole('people'),
  daylight: dayStretch.allow(null).required(),
  minutes: Joi.object()
    .pattern(Joi.string().valid(...MINUTE_KEYS), number('minutes').optional())
    .required(),
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

/** Every medium laid is a generic one or one of the plan's own, whose keys are new. */
const knownMedia: Joi.CustomValidator<Plan> = (plan, helpers) => {
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
const withinPlan: Joi.CustomValidator<Plan> = (plan, helpers) => {
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
const ownIds: Joi.CustomValidator<Plan> = (plan, helpers) => {
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
const someDone: Joi.CustomValidator<Plan> = (plan, helpers) => {
  const f = plan.finishes.findIndex(({ steps }) => steps.every(({ off }) => off));
  return f < 0 ? plan : helpers.error('steps.off', { at: `finishes.${f}.steps` });
};

/** No more lies on a panel than can be told apart. */
const layersTold: Joi.CustomValidator<Plan> = (plan, helpers) => {
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
const linked: Joi.CustomValidator<Plan> = (plan, helpers) => {
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

const saveSchema = Joi.object<{ revision: number; plan: object }>({
  revision: whole('revision'),
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

const shopSchema = Joi.object<Shop>({
  work: work.allow(null).required(),
  air: Joi.object({
    temperatureC: number('temperatureC'),
    humidity: number('humidity'),
    draughtMS: number('draughtMS'),
    altitudeM: number('altitudeM'),
  }).required(),
  // A shop kept before it was asked for is like most.
  room: Joi.object({
    volumeM3: number('volumeM3'),
    airChanges: number('airChanges'),
    holdsH: number('holdsH'),
    moistureGH: number('moistureGH'),
    heatedC: wanted('temperatureC'),
    restC: wanted('temperatureC'),
  }).default(USUAL_SHOP.room),
}).required();

/** Reads what the shop is. @throws ZaffetError `shop.invalid` with every refused field */
export function parseShop(value: unknown): Shop {
  checkBounds(value, 'shop.invalid');
  return checked(shopSchema, value, 'shop.invalid');
}

/** Reads a save: its revision and its plan. @throws ZaffetError as `parsePlan` */
export function parseSave(value: unknown): { readonly revision: number; readonly plan: Plan } {
  checkBounds(value, 'plan.invalid');
  const { revision, plan } = checked(saveSchema, value, 'plan.invalid');
  return { revision, plan: parsePlan(plan) };
}

export { parseReadings } from './air/schema';
export { parseItemChanges, parseMeasures, parseShelf, parseShelfItem } from './shelf/schema';
