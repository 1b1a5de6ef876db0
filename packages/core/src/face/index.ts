export { type DrawnPanel, drawPanel, type PanelView } from './draw';
export { findIslands, type Islands } from './islands';
export { patternInput } from './local';
export { measurePanel, type PanelShares } from './measure';
export {
  drawMode,
  FACE_MODES,
  type FaceMode,
  LAYER_COLOURS,
  type ModePicture,
  type ModeScale,
  RAMP_STOPS,
} from './modes';
export {
  marksOf,
  NATURAL_CODES,
  NATURAL_LIMITS,
  type NaturalCode,
  type Naturalness,
  naturalness,
  type SurfaceMarks,
} from './naturalness';
export { rasterise, type RasterWindow } from './raster';
export { type CrackedLayer, type PanelField, runScene, type SceneWindow } from './run';
export { brushRelief } from './texture';
export { type CrackRaster } from './types';
export { FACE_VIEWS, faceView, type FaceView, type FaceViewKey } from './view';
