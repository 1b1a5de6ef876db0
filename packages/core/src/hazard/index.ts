export { type Hazard, HAZARD_CODES, type HazardCode, hazards } from './hazard';
