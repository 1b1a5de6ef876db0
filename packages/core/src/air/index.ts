export { AIR_RANGES, GAS_CONSTANT, SEA_LEVEL_PRESSURE } from './constants';
export { type Air, checkAir, evaporation, type Evaporation } from './evaporation';
export { airIndexAt, type AirSample, type AirSeries, dryingAir, type DryingAir } from './series';
export {
  absoluteHumidity,
  dewPoint,
  humidityRatio,
  pressureAtAltitude,
  saturationVapourPressure,
  vapourPressureDeficit,
  wetBulb,
} from './vapour';
