export { type DrawnPanel, drawPanel, type PanelView } from './draw';
export { measurePanel, type PanelShares } from './measure';
export { type CrackedLayer, type PanelField, runScene, type SceneWindow } from './run';
