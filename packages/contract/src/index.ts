export * from './api';
export * from './errors';
export { newCoat, newPlan, type School, SCHOOLS } from './plan/create';
export { type Limit, LIMITS } from './plan/limits';
export { migratePlan } from './plan/migrate';
export { toModel } from './plan/toModel';
export {
  type AirFile,
  type CoatStep,
  type Look,
  type Part,
  type Plan,
  PLAN_FORMAT,
  PLAN_VERSION,
  type StartRuleFile,
} from './plan/types';
export * from './words';
