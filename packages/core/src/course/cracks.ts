import { boundaryBond, jointBond } from '../chip';
import {
  type CrackInput,
  crackLaw,
  crackPattern,
  type CrackTimes,
  crackTimes,
  forcedStrain,
  type Hold,
} from '../crack';
import { isClear, type Substrate } from '../media';
import { groundOf, type Panel, type Step } from '../plan';
import { BRITTLE } from './forces';
import { type Factors, type FilmCracks, type FilmRun } from './types';

/** A boundary with the films that pull on it. */
export interface HeldFilms extends Hold {
  /** Index of the lowest film above the boundary. */
  readonly film: number;
}

/**
 * The weakest boundary under a film: brittle films that lie directly on each other pull together, down to the first
 * tough or slipping layer, which shields what lies deeper.
 */
export function weakestBoundary(
  films: readonly FilmRun[],
  index: number,
  panel: Panel,
  factors: Factors,
): HeldFilms {
  let solidsUm = 0;
  let energyJM2 = 0;
  let weakest: HeldFilms | null = null;
  const ground = groundOf(panel);
  for (let k = index; k >= 0; k--) {
    const film = films[k]!;
    const below = films[k - 1];
    solidsUm += film.solidsUm;
    energyJM2 +=
      film.medium.energyJM2Um *
      film.solidsUm *
      (film.medium.strainFactor * forcedStrain(film.heat, film.cycles, film.solidsUm)) ** 2;
    const boundary = {
      bond: film.medium.bondJM2 * (fused(film, below) ? FUSED : 1),
      baseBond: below === undefined ? ground.baseBond : holdOf(films, k - 1, ground),
      bonding: film.step.kind === 'coat' ? film.step.bonding : 0,
      cycles: film.cycles,
      lumps: film.step.kind === 'coat' && film.step.lumps,
    };
    const bonds = film.closedPlaces.map((closed) => boundaryBond({ ...boundary, closed }));
    const bondJM2 = (factors.bond ?? 1) * jointBond(bonds, energyJM2);
    if (weakest === null || energyJM2 / bondJM2 > weakest.energyJM2 / weakest.bondJM2) {
      weakest = { film: k, solidsUm, energyJM2, bondJM2 };
    }
    if (below === undefined || below.medium.slipRate > 0 || below.medium.energyJM2Um < BRITTLE) break;
  }
  return weakest!;
}

/** Two coats of one paint, the lower not yet dry through, grow into one film: their boundary holds so much more; assumed. */
const FUSED = 8;
/** For about this long after a coat was laid another of the same melts into it [s]; common practice. */
const MELTS = 3600;

function fused(film: FilmRun, below: FilmRun | undefined): boolean {
  if (below === undefined || below.medium.like !== film.medium.like || isClear(film.medium)) return false;
  const { through } = below.openStates;
  return film.laidAt - below.laidAt < MELTS || through === null || film.laidAt < through;
}

/** Water a porous layer and what lies below it must be able to take up for a coat to key into it in full [µm]. */
const DEEP = 70;
/** Hold of a porous paint that has nothing porous below it: the coat's binder stays at the surface. */
const SHALLOW = 0.75;

/** How well a film is held on by: a porous one by how much it, and what lies below it, drinks. */
function holdOf(films: readonly FilmRun[], index: number, ground: Substrate): number {
  const { baseBond, suctionUm } = films[index]!.medium;
  if (suctionUm === 0 || baseBond <= SHALLOW) return baseBond;
  let drinks = 0;
  let k = index;
  for (; k >= 0 && films[k]!.medium.suctionUm > 0; k--)
    drinks += films[k]!.medium.suctionCapacity * films[k]!.solidsUm;
  if (k < 0 && ground.suctionUm > 0) drinks += ground.capacityUm;
  return SHALLOW + (baseBond - SHALLOW) * Math.min(1, drinks / DEEP) ** 2;
}

/** Later paint runs into cracks; clear films and waxes lie over them without hiding them. */
function coveringUm(films: readonly FilmRun[], index: number): number {
  return films
    .slice(index + 1)
    .filter((film) => !isClear(film.medium))
    .reduce((sum, film) => sum + film.solidsUm * film.step.cover.share, 0);
}

/** Below this share of the film cracked nobody sees cracks. */
const SEEN = 0.05;
const NO_CRACKS: CrackTimes = { first: null, clear: null, done: null };

/** Films this much thicker than a medium is laid have been tried by nobody; common practice. */
export const TRIED = 5;

/** Whether a film is so thick that nobody knows what it cracks into. */
export const tooThickToTell = ({ wetUm, medium }: FilmRun): boolean => wetUm > TRIED * medium.wetFilmUm;

/** What a film cracks into; null when it never becomes touch-dry in this air, or is too thick to tell. */
export function cracksOf(
  films: readonly FilmRun[],
  index: number,
  panel: Panel,
  steps: readonly Step[],
  heatedAt: (stepId: string) => number,
  factors: Factors,
): FilmCracks | null {
  const film = films[index]!;
  if (film.medium.carrier === 'none' || film.openStates.touch === null || tooThickToTell(film)) return null;
  // Wax is too soft to crack; a seal that does not lie on something that slips holds together what it covers.
  const onSlip = (films[index - 1]?.medium.slipRate ?? 0) > 0;
  if (film.medium.kind === 'wax' || (film.step.kind === 'seal' && !onSlip)) return null;
  const hold = weakestBoundary(films, index, panel, factors);
  const input: CrackInput = {
    // Several coats of one seal part from what lies below all of them.
    curve: { ...film.open, ground: film.ground },
    closedBelow: film.closedBelow,
    passes: film.step.passes,
    temperature: film.sample.temperature,
    humidity: film.sample.humidity,
    coveringUm: coveringUm(films, index),
    hold,
    heat: film.heat,
    cycles: film.cycles,
    slipFactor: (factors.slip ?? 1) * film.slipFactor,
    strainFactor: factors.strain ?? 1,
  };
  const law = crackLaw(input);
  if (law === null) return null;
  const pattern = crackPattern(law);
  const shows = pattern.crackedShare > SEEN;
  const times = shows ? crackTimes(input) : NO_CRACKS;
  const { laidAt } = film;
  const at = (t: number | null): number | null => (t === null ? null : t + laidAt);
  // Cracks that only hot air or wetting brings open when that is done.
  const forced = steps
    .slice(film.stepIndex + 1)
    .find((step) => step.kind === 'heat' || step.kind === 'rewet');
  const forcedAt = shows && times.first === null && forced ? heatedAt(forced.id) : null;
  return {
    law,
    pattern,
    firstAt: at(times.first) ?? forcedAt,
    clearAt: at(times.clear) ?? forcedAt,
    doneAt: at(times.done),
    boundary: hold.film,
    input,
  };
}
