export * from './work';
export { checkPlan, checkWork } from './check';
export { groundOf } from './ground';
export {
  evenMap,
  FILM_MAP_RANGE,
  type FirstMapped,
  firstMapped,
  MAP_CELLS,
  MAP_RANGE,
  mapAt,
  mapExtent,
  mapMean,
  NO_FILM,
  NOT_DONE,
  OUTLINE_CELLS,
  type PanelMap,
  rimMap,
} from './map';
export { fromRim, panelArea, type PanelSize } from './outline';
export { PLAN_RANGES } from './ranges';
export { roundsFor, type Settable, type SettableKey, SETTABLES } from './settable';
export * from './types';
export { reaches, workedArea, type Zone, ZONES, zoneDepths, zonePlaces, zoneShares } from './zones';
