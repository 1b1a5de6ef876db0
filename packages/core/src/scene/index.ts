export { type LawResponse, type Scene, type SceneEvent, type SceneLayer, type SceneNetwork } from './types';
