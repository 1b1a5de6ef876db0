export * from './api';
export * from './errors';
export {
  CLEAR_COLOURS,
  newCoat,
  newDistress,
  newPlan,
  newResist,
  newSeal,
  newStep,
  type School,
  SCHOOLS,
} from './plan/create';
export { type Limit, LIMITS } from './plan/limits';
export { filedMap, mapOfStep, type MapRange, mapRange } from './plan/maps';
export { migratePlan } from './plan/migrate';
export { schoolPlans, withSettingsFiled } from './plan/recipes';
export { toModel } from './plan/toModel';
export * from './plan/types';
export * from './words';
