export { type Scene, type SceneEvent, type SceneLayer, type TakenOff } from './types';
