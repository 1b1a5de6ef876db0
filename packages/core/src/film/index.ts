export { arrhenius, balanceWater, dryFilm, HORIZON } from './dry';
export {
  CLOSE_PACKING,
  fallsTo,
  risesTo,
  skinEvaporation,
  stateTimes,
  type StateTimes,
  valueAt,
  waterAtShare,
} from './states';
export { type DryingCurve, FILM_STATES, type FilmInput, type FilmState, type Ground } from './types';
