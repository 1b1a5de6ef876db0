import { airIndexAt, type DryingAir, evaporationIn } from '../air';
import { type Distress, type HeatTool, type Step } from '../plan';
import { toolOf } from '../tools';
import { celsiusToKelvin, SECONDS_PER_HOUR } from '../units';
import { type Course, type FilmRun, type StepTimes } from './types';

/** Hot air where it meets the surface: a hairdryer, a heat gun held off and moving; common practice. */
export const JETS = {
  dryer: { temperature: celsiusToKelvin(63), convective: 35 },
  gun: { temperature: celsiusToKelvin(250), convective: 60 },
} as const;
/** How soon hot air has done what it can to a drying film [s], and how much that is; assumed. */
const HEAT_TIME = { dryer: 45, gun: 20 } as const;
const HEAT_POWER = { dryer: 0.8, gun: 1 } as const;
/** What hot air still does to a film that is through-dry and was not wetted again. */
const HEAT_ON_DRY = 0.35;
/** Water that counts as one wetting [m]. */
const ONE_WETTING = 30e-6;
/** A film with less energy than this is tough enough to shield what lies below it [J/m²/µm]. */
export const BRITTLE = 0.0105;

/** Index of the lowest of the films that one event works on together: the top one and the brittle ones below it. */
export function groupFrom(films: readonly FilmRun[]): number {
  for (let i = films.length - 1; i > 0; i--) {
    if (films[i]!.medium.energyJM2Um < BRITTLE || films[i - 1]!.medium.slipRate !== 0) return i;
  }
  return 0;
}

/** Strains what is not hard yet with hot air. @param dampUntil - when what was wetted again is dry */
export function heated(
  film: FilmRun,
  tool: HeatTool,
  duration: number,
  at: number,
  dampUntil: number,
): FilmRun {
  const done = HEAT_POWER[tool] * (1 - Math.exp(-duration / HEAT_TIME[tool]));
  const dry = film.openStates.through !== null && film.openStates.through < at;
  const share = dry && at > dampUntil + SECONDS_PER_HOUR ? HEAT_ON_DRY * done : done;
  return { ...film, heat: 1 - (1 - film.heat) * (1 - share) };
}

/** Wets what can be wetted again. @param amount - [m] of water */
export const wetted = (film: FilmRun, amount: number): FilmRun => ({
  ...film,
  cycles: film.cycles + Math.min(1.5, amount / ONE_WETTING) * Math.min(1, film.medium.clothStart / 0.8),
});

/** When water put on dried paint has gone again [s]; it evaporates as from a free surface. */
export function driedAgain(air: readonly DryingAir[], from: number, amount: number): number {
  let left = amount;
  let t = from;
  for (let i = airIndexAt(air, from); i < air.length; i++) {
    const rate = Math.max(1e-12, evaporationIn(air[i]!, 'water'));
    const until = air[i]!.until;
    if (left / rate <= until - t) return t + left / rate;
    left -= (until - t) * rate;
    t = until;
  }
  return t;
}

/** How long a film of bleach stays wet on the work [s]. */
export function bleachWetFor({ times, air, media }: Course, step: Distress): number {
  const at = times.find((done) => done.step.id === step.id)?.from ?? 0;
  const bleach = media('bleach');
  const water = (bleach.wetFilmUm * (1 - bleach.volumeSolids)) / 1e6;
  return driedAgain(air, at, water) - at;
}

/** Water a step leaves on the work [m]. */
export const leaves = (step: Step): number =>
  step.kind === 'rewet' ? step.amount : step.kind === 'distress' ? toolOf(step.tool).leaves : 0;

const softens = (step: Step): boolean =>
  leaves(step) > 0 ||
  step.kind === 'heat' ||
  (step.kind === 'distress' && toolOf(step.tool).action === 'soften');

/** Whether bleach, water or heat came on a film since it was laid, and before a moment [s from the plan's start]. */
export const isSoftened = (times: readonly StepTimes[], { laidAt }: FilmRun, before = Infinity): boolean =>
  times.some(({ step, from }) => softens(step) && from >= laidAt && from < before);

/** Until when what was wetted before a film was laid is still damp [s from the plan's start]; −∞ where nothing was. */
export function dampAt({ times, air }: Course, film: FilmRun): number {
  const wetted = times.slice(0, film.stepIndex).filter(({ step }) => leaves(step) > 0);
  return Math.max(-Infinity, ...wetted.map(({ step, from }) => driedAgain(air, from, leaves(step))));
}
