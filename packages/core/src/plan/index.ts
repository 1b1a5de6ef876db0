export { checkPlan } from './check';
export { PLAN_RANGES } from './ranges';
export * from './types';
