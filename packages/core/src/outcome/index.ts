export {
  type LawResponse,
  type OnStand,
  type Scene,
  type SceneEvent,
  type SceneLayer,
  type SceneNetwork,
} from './history';
export { outcomeOf } from './outcome';
export { jellySoaks, saltBed } from './scene';
export * from './types';
export { lookOf } from './zones';
