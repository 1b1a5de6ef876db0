export { checkPlan } from './check';
export { PLAN_RANGES } from './ranges';
export {
  type Coat,
  type History,
  type Panel,
  type PanelPlan,
  START_STATES,
  type StartRule,
  type StartState,
} from './types';
