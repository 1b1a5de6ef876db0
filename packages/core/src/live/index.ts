export {
  asksBack,
  believe,
  factorBelieved,
  heard,
  inShopAir,
  likelihood,
  momentBelieved,
  nextLook,
  shopAirAfter,
  stepFactors,
  usualPrior,
} from './belief';
export {
  type Belief,
  COAT_FACTORS,
  type CoatFactor,
  LIVE_STATES,
  type LiveState,
  type Look,
  type Moment,
  type Prior,
  type Spread,
} from './types';
