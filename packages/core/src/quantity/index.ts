export { BODIES, type Body, bodyFor, filmOfBody } from './body';
export { coverageM2PerL, potLife, type Quantity, quantities, WASTE } from './quantity';
