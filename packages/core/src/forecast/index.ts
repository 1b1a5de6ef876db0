export {
  type Finding,
  FINDING_CODES,
  type FindingCode,
  FINDING_LEVELS,
  type FindingLevel,
} from './findings/codes';
export { MAX_PASSES } from './findings/limits';
export { forecast, stepTimes } from './forecast';
export { type Knob } from './knobs';
export {
  type Area,
  AREAS,
  bandedFigures,
  type ColourFigure,
  explain,
  type Figure,
  FIGURE_KEYS,
  type FigureKey,
  figureValues,
  type LayerFigure,
  type Mover,
  type Predicted,
  readout,
  type Readout,
  regionReadout,
  type ZoneReadout,
} from './readout';
export { restraint, type RestraintCode } from './restraint';
export { type Factors, handsOn } from './run';
export {
  type ChipForecast,
  type CoatCracks,
  type CoatForecast,
  type Forecast,
  type LayerShare,
  type RemovalForecast,
  type StepTimes,
  type TopcoatWindow,
  type ZoneForecast,
} from './types';
