export {
  abrasion,
  bladeEffort,
  type Abrasion,
  type FilmNow,
  GRAIN_UM,
  hardnessAt,
  nextGrit,
  softenedShare,
} from './removal';
export { abrade, createStack, layInto, lift, openCracks, type StackState, visibleShares } from './stack';
