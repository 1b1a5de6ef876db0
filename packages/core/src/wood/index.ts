export { IRON_TANNATE, stainDarkness, type Wood, WOODS } from './stain';
export { equilibriumMoisture, moistureReady } from './moisture';
