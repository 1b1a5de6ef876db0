export {
  FIGURE_KEYS,
  type FigureKey,
  figureRow,
  type FigureRow,
  figureValues,
  type Quantity,
} from './figures';
export { type Knob } from './knobs';
export { floorFor } from './spreads';
export {
  bandedFigures,
  type ColourFigure,
  explain,
  type Figure,
  type LayerFigure,
  type Mover,
  type Predicted,
  readout,
  type Readout,
  regionReadout,
  type ZoneReadout,
} from './readout';
