export { BODIES, type Body, bodyFor, filmOfBody } from './body';
export { MILK_REST, type Pot, pots, type PotUse, type Thinning, TINS, tinsFor } from './pots';
export { coverageM2PerL, potLife, type Quantity, quantities, WASTE } from './quantity';
export { inSpoons, type Measures, mixInSpoons, type Spooned, type SpoonedMix, SPOON_TRUE } from './spoons';
