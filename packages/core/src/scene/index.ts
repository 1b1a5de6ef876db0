export { type Scene, type SceneEvent, type SceneLayer } from './types';
