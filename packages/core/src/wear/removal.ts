import { type Medium } from '../media';
import { type Distress, type Grit, GRITS } from '../plan';
import { toolOf } from '../tools';
import { SECONDS_PER_HOUR, SECONDS_PER_DAY } from '../units';

/** Mean grain of coated abrasives [µm], FEPA 43-1 (quoted from memory). */
export const GRAIN_UM: Readonly<Record<Grit, number>> = {
  80: 201,
  100: 162,
  120: 125,
  150: 100,
  180: 82,
  220: 68,
  240: 58.5,
  280: 52.2,
  320: 46.2,
  360: 40.5,
  400: 35,
};

/** The next finer (+1) or coarser (−1) grit; null where there is none. */
export const nextGrit = (grit: Grit, by: 1 | -1): Grit | null => GRITS[GRITS.indexOf(grit) + by] ?? null;

/** Time constant of early hardening [s]; common practice: easy at two hours, hard after a night. */
const HARDENING = 5 * SECONDS_PER_HOUR;

/**
 * Hardness of a film at an age: quickly in the first hours, then slowly as it cures.
 * @param age - since it was touch-dry [s]; below 0 it is soft
 */
export function hardnessAt(medium: Medium, age: number): number {
  const early = 0.08 + 0.92 * (1 - Math.exp(-Math.max(0, age) / HARDENING));
  const late = 0.6 + 0.4 * (1 - Math.exp(-Math.max(0, age) / (medium.cureDays * SECONDS_PER_DAY)));
  return medium.hardness * early * late;
}

/** Effort of cutting with a blade, hardness over what a cured film of it takes: under 0.7 easy, over 0.85 hard. */
export function bladeEffort(medium: Medium, age: number): number {
  return medium.hardness === 0 ? 0 : hardnessAt(medium, age) / (0.66 * medium.hardness);
}

/** Share to which bleach softens a coat in a time [s], while its own film is wet. */
export function softenedShare(duration: number, wetFor: number): number {
  return 1 - Math.exp(-Math.min(duration, wetFor) / 180);
}

/** What one distressing takes off: a depth that varies over the surface. */
export interface Abrasion {
  /** Median depth in a film like the top one [µm]. */
  readonly medianUm: number;
  /** Spread of its logarithm over the surface. */
  readonly spread: number;
  /**
   * How much of the spread goes with how high the surface stands, of the logarithm: what is stiff takes ridges, edges
   * and brush marks first, and leaves the valleys.
   */
  readonly relief: number;
  /** Resistance of each layer against the top one; Infinity where the tool does nothing to it. */
  readonly resistance: (film: FilmNow) => number;
}

/** A film at the moment of a step. */
export interface FilmNow {
  readonly medium: Medium;
  /** Since it was touch-dry [s]; below 0 it is soft. */
  readonly age: number;
  /** How wet it still is: 1 just laid … 0 touch-dry. */
  readonly wet: number;
}

/** A point that scratches goes many times deeper in its lines than it takes on the whole; assumed. */
const LINES_SPREAD = 2.4;
/** Clear coats and enamels stop fine paper and cloth; coarse grit goes through them; common practice. */
const BARRIER_HARDNESS = 68;
const COARSE_GRAIN_UM = 150;
const FINE_ON_BARRIER = 40;
/** A film just laid comes off so much more easily than one that is touch-dry; assumed. */
const LIQUID = { rub: 12, cut: 20 } as const;
/** Where a film is liquid a tool takes it evenly: so much of the spread is gone; assumed. */
const EVEN_WHEN_WET = { rub: 0.25, cut: 0.6 } as const;
/** A surface as rough as this turns a stiff tool's pressure to its ridges [µm]; assumed. */
const STIFF_UM = { sand: 30, cut: 18 } as const;
const MOST_RELIEF = 1.6;

const looseness = ({ wet }: FilmNow): number => 1 + LIQUID.cut * Math.max(0, wet) ** 1.5;

const evenness = ({ wet }: FilmNow, by: keyof typeof EVEN_WHEN_WET): number =>
  1 - EVEN_WHEN_WET[by] * Math.max(0, wet);

/** What water still takes with it, of a film that dries or has dried. */
const softened = (film: FilmNow): number => {
  const { clothStart, clothEnd, clothHours } = film.medium;
  const dried =
    clothEnd + (clothStart - clothEnd) * Math.exp(-Math.max(0, film.age) / (clothHours * SECONDS_PER_HOUR));
  return dried + LIQUID.rub * Math.max(0, film.wet) ** 2;
};

/**
 * Depth a step takes from the top film.
 *
 * Sanding: 45 · P · passes · (grain/100 µm)/(H + 8), wear in proportion to pressure and grain over hardness (Preston
 * 1927, Archard 1953; the constant assumed). Damp cloth and sponge: per rub what is still re-soluble comes off. Blade
 * and scraper: less as the film hardens, and less where what comes off is smeared back. What is still liquid comes off nearly whole. Bleach: what has softened in its
 * time.
 *
 * @param wetFor - how long a film of bleach stays wet in this air [s]
 * @param roughUm - how far the surface stands up and down, root mean square [µm]
 */
export function abrasion(step: Distress, top: FilmNow, wetFor: number, roughUm: number): Abrasion {
  const hard = ({ medium, age }: FilmNow): number => hardnessAt(medium, age) + 8;
  const relative = (film: FilmNow): number => hard(film) / hard(top);
  const { action, perRoundUm, lines = false } = toolOf(step.tool);
  const reliefFor = (stiffUm: number): number => Math.min(MOST_RELIEF, roughUm / stiffUm);
  switch (action) {
    case 'sand': {
      const grain = GRAIN_UM[step.grit];
      const barrier = ({ medium }: FilmNow): number =>
        medium.hardness >= BARRIER_HARDNESS && grain < COARSE_GRAIN_UM ? FINE_ON_BARRIER : 1;
      return {
        medianUm: (perRoundUm * step.pressure * step.rounds * grain) / 100 / hard(top) / barrier(top),
        spread: 0.8,
        relief: reliefFor(STIFF_UM.sand),
        resistance: (film) => (relative(film) * barrier(film)) / barrier(top),
      };
    }
    case 'rub': {
      const off = softened(top);
      return {
        medianUm: perRoundUm * step.rounds * step.pressure * off,
        spread: 0.8 * evenness(top, 'rub'),
        relief: 0,
        resistance: (film) => {
          const theirs = softened(film);
          return theirs <= 0 || off <= 0 ? Infinity : off / theirs;
        },
      };
    }
    case 'cut': {
      const ease = Math.max(0.05, 1.15 - bladeEffort(top.medium, top.age)) * looseness(top);
      return {
        medianUm: perRoundUm * step.rounds * step.pressure * ease * (1 - step.smear),
        spread: lines ? LINES_SPREAD : 1.3 * evenness(top, 'cut'),
        relief: lines ? 0 : reliefFor(STIFF_UM.cut),
        resistance: (film) =>
          (relative(film) * looseness(top) * (film.medium.hardness >= BARRIER_HARDNESS ? 4 : 1)) /
          looseness(film),
      };
    }
    case 'soften': {
      const share = softenedShare(step.rounds * 60, wetFor);
      return {
        medianUm: perRoundUm * share * (1 - step.smear) * softensBy(top.medium),
        spread: 1,
        relief: 0,
        resistance: ({ medium }) =>
          softensBy(medium) <= 0 ? Infinity : softensBy(top.medium) / softensBy(medium),
      };
    }
    case 'lift':
      return { medianUm: 0, spread: 0.8, relief: 0, resistance: () => 1 };
  }
}

/** How far bleach softens a kind: paints with soft binders more, cured clear coats hardly; common practice. */
function softensBy(medium: Medium): number {
  return medium.hardness >= BARRIER_HARDNESS
    ? 0.1
    : medium.kind === 'paint' || medium.kind === 'ground'
      ? 0.5
      : 0.3;
}
