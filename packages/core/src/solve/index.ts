export { type Knob as SolverKnob, knobsOf, withSettings } from './settings';
export { solve, solveStepwise, wishOutcomes, wishValues } from './solve';
export {
  type Candidate,
  type Recipe,
  type Setting,
  SETTING_KINDS,
  type Wish,
  WISH_KEYS,
  WISH_TOLERANCE,
  type WishKey,
} from './types';
export { lookHolds } from './holds';
export { fitPlace, type PlaceFit, placeValues } from './place';
