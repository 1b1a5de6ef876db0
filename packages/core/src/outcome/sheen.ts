import { SECONDS_PER_HOUR } from '../units';
import { type FilmRun } from '../course';
import { type Shown } from './show';

/*
 * Sheen of a wax follows from when it was buffed; common practice: after 20 … 30 min satin, left overnight matte, a
 * buff next day still brings some of it. There is no hard end; the sheen fades as the wax hardens.
 */
const UNBUFFED = 0.25;
const LATE_BUFF = 0.6;
/** Buffing before the solvent has gone drags the wax [GU share]. */
const EARLY_BUFF = 0.4;
const FADES_OVER = 6 * SECONDS_PER_HOUR;

/** Share of a wax's full sheen that its buffing brings, 0 … 1. */
export function buffed(film: FilmRun): number {
  if (film.step.kind !== 'seal' || film.medium.kind !== 'wax') return 1;
  const { buffAfter } = film;
  if (buffAfter === null) return UNBUFFED;
  const ready = (film.openStates.touch ?? Infinity) - film.laidAt;
  if (buffAfter < 0.6 * ready) return EARLY_BUFF;
  const late = Math.max(0, buffAfter - ready);
  return LATE_BUFF + (1 - LATE_BUFF) * Math.exp(-late / FADES_OVER);
}

/**
 * Gloss at 60 degrees [GU]: of the seal that covers it, else of what is seen, by area.
 * @param seen - how much of each layer is seen
 */
export function glossOf(films: readonly FilmRun[], shown: Shown, seen: readonly number[]): number {
  let gloss = 0;
  shown.layers.forEach((layer, i) => {
    const film = films.find((f) => f.step.id === layer.id);
    gloss += (i === 0 || film === undefined ? 5 : film.medium.glossUnits) * seen[i]!;
  });
  for (const film of films) {
    if (film.step.kind !== 'seal') continue;
    const { share } = film.step.cover;
    gloss = (1 - share) * gloss + share * film.medium.glossUnits * buffed(film);
  }
  return gloss;
}
