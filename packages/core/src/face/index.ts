export { type DrawnPanel, drawPanel, type PanelView } from './draw';
export { patternInput } from './local';
export {
  drawMode,
  FACE_MODES,
  type FaceMode,
  LAYER_COLOURS,
  type ModePicture,
  type ModeScale,
  RAMP_STOPS,
} from './modes';
export { type CrackedLayer, type PanelField, runScene, type SceneWindow } from './run';
export { brushRelief } from './texture';
export { FACE_VIEWS, faceView, type FaceView, type FaceViewKey } from './view';
