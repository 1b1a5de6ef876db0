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
export { runScene } from './run';
export { type CrackedLayer, type PanelField, type SceneWindow } from './work';
export { brushRelief } from './texture';
export { FACE_VIEWS, faceView, type FaceView, type FaceViewKey } from './view';
