export { AIR_RANGES, GAS_CONSTANT, SEA_LEVEL_PRESSURE } from './constants';
export { USUAL_PLATE } from './convection';
export { type Air, checkAir, evaporation, evaporationOf } from './evaporation';
export { hotSurface } from './hotSurface';
export { indoors, type OutdoorSample, type Room, ROOM_RANGES } from './indoors';
export { type Carrier, CARRIERS } from './liquids';
export {
  airIndexAt,
  type AirSample,
  type AirSeries,
  type Burst,
  dryingAir,
  type DryingAir,
  evaporationIn,
  scaledAir,
  withBurst,
} from './series';
export { type Evaporation, type HotJet } from './wetSurface';
export {
  absoluteHumidity,
  dewPoint,
  humidityRatio,
  pressureAtAltitude,
  saturationVapourPressure,
  vapourPressureDeficit,
  wetBulb,
} from './vapour';
