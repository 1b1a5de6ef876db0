export { coverageM2PerL, potLife, type Quantity, quantities, WASTE } from './quantity';
