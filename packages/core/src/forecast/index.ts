export { type Factors, forecast, startOf } from './forecast';
export { MAX_PASSES } from './findings';
export {
  type Figure,
  FIGURE_KEYS,
  type FigureKey,
  figureValues,
  type Knob,
  type Mover,
  readout,
  type Readout,
} from './readout';
export {
  type CoatCracks,
  type CoatForecast,
  type Finding,
  FINDING_CODES,
  type FindingCode,
  type Forecast,
  type TopcoatWindow,
} from './types';
