import { SUBSTRATE_KEYS } from '@zaffet/core/media';
import { FACINGS, PLACED_ZONES } from '@zaffet/core/piece';
import { COAT_AGES, GRAIN_WAYS, OLD_COATS, PREP_STEPS, RELIEF_KINDS, USES } from '@zaffet/core/plan';
import Joi from 'joi';
import { colour, flag, id, list, number, oneOf, text, wanted, whole } from '../fields';
import { unpackMap } from './file';
import { LIMITS } from './limits';
import { badCell } from './maps';
import { FITTING_KINDS, FITTING_TREATMENTS } from './piece.types';
import { type StepMap } from './steps.types';

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

const prepSteps = (): Joi.ArraySchema =>
  Joi.array()
    .items(Joi.string().valid(...PREP_STEPS))
    .unique()
    .required();

export const part = Joi.object({
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
  prepared: prepSteps(),
  unneeded: prepSteps(),
  zones: list(zone, 'zones').unique('id'),
  finish: id(),
  maps: Joi.object().pattern(id(), stepMap).required(),
  flat: flag(),
  use: oneOf(USES),
});
