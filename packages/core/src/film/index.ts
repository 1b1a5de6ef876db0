export { arrhenius, balanceWater, dryFilm, HORIZON } from './dry';
export {
  CLOSE_PACKING,
  fallsTo,
  oxidised,
  risesTo,
  skinEvaporation,
  stateTimes,
  type StateTimes,
  valueAt,
  waterAtShare,
} from './states';
export { fromLabel, LABEL_AIR, type LabelTimes, labelTimes } from './label';
export { type DryingCurve, type FilmInput, type Ground } from './types';
