export * from './api';
export * from './errors';
export { type NamedColour, readGpl, writeGpl } from './formats/gpl';
export {
  CLEAR_COLOURS,
  newCoat,
  newCompanion,
  newDistress,
  newResist,
  newSeal,
  newStep,
} from './plan/create';
export { type Limit, LIMITS } from './plan/limits';
export { beginAt } from './plan/begin';
export { type FiledMap, filePlan, type PlanFile, unfilePlan } from './plan/file';
export { filedMap, mapOfStep, type MapRange, mapRange } from './plan/maps';
export { migratePlan } from './plan/migrate';
export { newFinish, newPart, newPlan, NO_LOOK, NO_WANTS } from './plan/newPlan';
export { EFFECT_KEYS, type EffectKey, effectPlan, EFFECTS, effectWants } from './plan/effects';
export { basisOf } from './plan/basis';
export { type Circumstances, meantFinishes, type PartPlan, partPlan } from './plan/partPlan';
export { PIECE_KEYS, type PieceKey, pieceParts, PIECES, type PieceSize } from './plan/pieces';
export { prepOf } from './plan/prepare';
export { type Remedy, remedyFor } from './plan/remedies';
export { lastBody, type Measured, type Mixing, mixing, type MixPot, type ShoppingLine } from './plan/mixing';
export { schoolPlan, schoolPlans, withSettingsFiled } from './plan/recipes';
export { SCHOOL_KEYS, type School, SCHOOL_STEPS, SCHOOLS } from './plan/schools';
export { toModel } from './plan/toModel';
export * from './plan/types';
export { notOnShelf, pricesKnown } from './shelf/has';
export { potUseBy } from './shelf/keeps';
export * from './shelf/types';
export { isInstant } from './plan/instant';
export { ID, isStorable, plainText } from './text';
export * from './words';
