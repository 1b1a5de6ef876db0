export {
  abrasion,
  bladeEffort,
  type Abrasion,
  GRAIN_UM,
  hardnessAt,
  LIFTING,
  nextGrit,
  RESIST_LIFT,
  softenedShare,
} from './removal';
export { abrade, createStack, layInto, lift, openCracks, type StackState, visibleShares } from './stack';
export { EXPOSURE, reaches, type Zone, ZONES, zoneDepths, zonePlaces, zoneShares } from './zones';
