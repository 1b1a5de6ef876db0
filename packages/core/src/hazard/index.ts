export { type Hazard, HAZARD_CODES, LATER_HAZARDS, type HazardCode, hazards } from './hazard';
