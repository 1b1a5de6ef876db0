export {
  GROUND_IDS,
  isGround,
  type LawResponse,
  type OnStand,
  type Scene,
  type SceneEvent,
  type SceneLayer,
  type SceneNetwork,
  type Tones,
} from './history';
export { fluteAt } from './carving';
export { coloursOf, topPaint, underShare } from './under';
export { outcomeOf } from './outcome';
export { removalsBy } from './rub';
export { jellySoaks, saltBed, staysPale } from './scene';
export * from './types';
export { lookOf } from './zones';
