export { basisOf } from './basis';
export { type AirPoint, hourlyMeans, pointOf } from './air/hourly';
export { airOver, pointsOf, readThenExpected, shiftedAir } from './air/planAir';
export {
  type AirEffect,
  type AirEffects,
  airEffects,
  type Answer,
  OTHER_AIRS,
  type OtherAir,
} from './air/otherAirs';
export { shopAir, simulatedShopAir } from './air/shopAir';
export { onClock, onWall, usualWork, workEndsMin, workTime } from './calendar';
export { beginAt } from './begin';
export { newCoat, newCompanion, newDistress, newResist, newSeal, newStep } from './create';
export { EFFECT_KEYS, type EffectKey, effectPlan, EFFECTS, effectWants, wishOf } from './effects';
export { gives, lookCandidates, lookWay, type LookWay } from './lookWay';
export {
  lastBody,
  type Measured,
  type Mixing,
  mixing,
  type MixPot,
  potsFor,
  type ShoppingLine,
} from './mixing';
export { copyFinish, ownFinish } from './finishes';
export { startFor, withStepIn } from './insert';
export { bodied, newFinish, newPart, newPlan, NO_LOOK, NO_WANTS } from './newPlan';
export {
  type Circumstances,
  meantFinishes,
  momentsKept,
  type PartPlan,
  partPlan,
  shopKnowing,
} from './partPlan';
export { PIECE_KEYS, type PieceKey, pieceParts, PIECES, type PieceSize } from './pieces';
export { prepLeft, prepOf } from './prepare';
export { schoolPlan, schoolPlans, withSettingsFiled } from './recipes';
export { type PrintOn, printsOn } from './prints';
export { type OtherWay, otherWays, type Way, WAYS } from './otherWays';
export { type Remedy, remedyFor } from './remedies';
export { SCHOOL_KEYS, type School, SCHOOL_STEPS, SCHOOLS } from './schools';
export { type Sitting, sittings, type Urgency, URGENCIES } from './sittings';
export { colours, recipeOf } from './potRecipe';
export { notOnShelf, pricesKnown } from './shelf/has';
export { potUseBy } from './shelf/keeps';
export { RESTOCK_ML, tinSays, type Used, usedBy } from './shelf/used';
export { BOARD_CAMERA_FOCAL, boardCells, boardPhoto, hiddenShop } from './standins/boardCamera';
export { hygrometerReads } from './standins/hygrometer';
export { type MeterReading, meterReads } from './standins/moistureMeter';
export { simulatedWeather } from './standins/weather';
export { softEnds } from './softEnds';
export * from './runs';
export * from './bench';
export * from './boards';
export * from './log';
export { hiddenUnder, mapOfStep } from './stepMap';
export { type Given, problemOf, type Timed, timetable } from './timetable';
export { regionOf, toModel } from './toModel';
export { endsAt, type Standing, standingAt, startToEndBy } from './when';
