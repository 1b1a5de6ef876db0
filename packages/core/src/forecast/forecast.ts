import { appearance, type Appearance } from '../colour';
import { fallsTo, type StateTimes } from '../film';
import { isClear, substrate } from '../media';
import { type Region } from '../maps';
import { checkPlan, type PanelPlan, type Step } from '../plan';
import { umToMetres } from '../units';
import { cracksOf } from './cracks';
import { findings } from './findings/findings';
import { type Factors, type FilmRun, type Run, runSteps } from './run';
import { cracksThere, type LocalCracks, patchesOf, responsesOf } from './places';
import { sceneOf } from './scene';
import { type Shown, showThrough } from './show';
import { type CoatForecast, type Forecast, type StepTimes, type TopcoatWindow } from './types';
import { joinedPattern, zoneForecasts } from './zones';

/** White glue is spread and left to grab for about this long; common practice. */
const GLUE_GRABS = 60;

/** When each step begins and ends, without what comes of it. @throws InputError as `forecast` */
export const stepTimes = (plan: PanelPlan): readonly StepTimes[] => runSteps(plan, checkPlan(plan), {}).times;

/**
 * What a stack of steps will do: when each is done and ready, what cracks, flakes and wears, what is seen in the end,
 * and what is wrong with the plan.
 *
 * @param region - told of this part of the panel alone, where one is given; notes and times are the whole panel's
 * @throws InputError when a field of the plan is out of range
 */
export function forecast(plan: PanelPlan, factors: Factors = {}, region?: Region): Forecast {
  const media = checkPlan(plan);
  const run = runSteps(plan, media, factors);
  const { films, times } = run;
  const heatedAt = (id: string): number => times.find((t) => t.step.id === id)?.until ?? 0;
  const cracks = films.map((_, i) => cracksOf(films, i, plan.panel, plan.steps, heatedAt, factors));
  const coats = films.map((film, i): CoatForecast => {
    const over = films[i + 1];
    return {
      coat: film.step,
      stepIndex: film.stepIndex,
      medium: film.medium,
      laidAt: film.laidAt,
      coveredAt: film.coveredAt,
      dryThickness: umToMetres(film.solidsUm),
      open: film.openStates,
      states: over === undefined ? film.openStates : coveredStates(film, over),
      window: windowOf(film),
      curve: film.open,
      crack: cracks[i]!,
    };
  });
  const patches = patchesOf(plan.panel, plan.steps, plan.steps.every(alike), region);
  const responses = responsesOf(plan, run, cracks, media, factors);
  const local = cracks.map((crack, i) =>
    crack === null ? [] : patches.map((patch) => cracksThere(crack, responses[i]!, patch)),
  );
  const { scene, efforts } = sceneOf(plan, run, cracks, local, responses, media, factors);
  const filmOf = scene.layers.map(({ id }) => films.findIndex((film) => film.step.id === id));
  const cracksAt = (layer: number, patch: number): LocalCracks => local[filmOf[layer]!]![patch]!;
  const shown = showThrough(scene, patches, cracks, cracksAt, efforts);
  const crackedCoat = strongest(
    local.map((cracked) => (cracked.length === 0 ? 0 : joinedPattern(patches, cracked).strength)),
  );
  const looks = looksOf(plan, run, shown);
  const result = {
    times,
    coats,
    crackedCoat,
    chips: shown.chips,
    removals: shown.removals,
    ...zoneForecasts(patches, local, coats, crackedCoat, shown, run, looks),
    layers: shown.layers,
    appearance: looks,
    scene,
    readyAt: readyAt(coats, run),
  };
  return { ...result, findings: findings(plan, result, run, media) };
}

/** When the last film is dry and the last step done. */
function readyAt(coats: readonly CoatForecast[], run: Run): number | null {
  const last = coats.at(-1);
  if (last === undefined) return run.times.at(-1)?.until ?? 0;
  if (last.states.through === null) return null;
  return Math.max(last.states.through, run.times.at(-1)?.until ?? 0);
}

function looksOf(plan: PanelPlan, run: Run, shown: Shown): Appearance {
  const filmOf = new Map(run.films.map((film) => [film.step.id, film]));
  const ground = substrate(plan.panel.substrate);
  const clearOver = (index: number): number | null => {
    const over = run.films
      .slice(index + 1)
      .filter((film) => film.step.kind === 'seal' && film.step.cover.share > 0.5);
    return over.length === 0
      ? null
      : over.reduce(
          (sum, film) => Math.min(1, sum + film.medium.yellowing * Math.min(1, film.solidsUm / 100)),
          0,
        );
  };
  return appearance(
    shown.layers.map((layer, i) => {
      if (i === 0) return { id: layer.id, colour: ground.colour, opacity: 1, sealed: clearOver(-1) };
      const film = filmOf.get(layer.id);
      const index = film === undefined ? 0 : run.films.indexOf(film);
      return {
        id: layer.id,
        colour: film === undefined || isClear(film.medium) ? null : film.step.colour,
        opacity: shown.opacity[i]!,
        sealed: clearOver(index),
      };
    }),
  );
}

function windowOf(film: FilmRun): TopcoatWindow | null {
  const { laidAt, openStates: open } = film;
  const from = (opensAt: number | null): TopcoatWindow | null =>
    opensAt === null ? null : { opensAt, closesAt: null };
  switch (film.medium.kind) {
    case 'wet-glue': {
      const closesAt = open.skinned;
      return {
        opensAt: closesAt === null ? laidAt + GLUE_GRABS : Math.min(laidAt + GLUE_GRABS, closesAt),
        closesAt,
      };
    }
    case 'crackle-medium':
      return from(open.touch);
    case 'cured-glue':
      return from(open.through);
    case 'wax':
      return from(open.touch);
    case 'clear':
    case 'paint':
    case 'primer':
    case 'ground':
    case 'glaze':
      return from(open.recoat);
    case 'resist':
    case 'agent':
      return null;
  }
}

/** States of a film that another covered: what it had reached stays, the rest follows its water under the cover. */
function coveredStates(before: FilmRun, over: FilmRun): StateTimes {
  const { open: curve, openStates: open, medium: m } = before;
  const coveredAt = before.coveredAt ?? Infinity;
  const under = (reached: number | null, water: number): number | null => {
    if (reached !== null && reached <= coveredAt) return reached;
    // What dries without the other's carrier goes on as if it were open.
    if (over.medium.carrier !== m.carrier) return reached;
    const later = fallsTo(over.open, over.open.waterBelow, water);
    return later === null ? null : Math.max(coveredAt + later, reached ?? 0);
  };
  const s = curve.solidsUm;
  const through = under(open.through, m.throughWater * s);
  const cureTime = open.cured !== null && open.through !== null ? open.cured - open.through : null;
  return {
    matte: open.matte !== null && open.matte <= coveredAt ? open.matte : null,
    tacky: under(open.tacky, (s * m.gelWater) / (1 - m.gelWater)),
    skinned: open.skinned !== null && open.skinned <= coveredAt ? open.skinned : null,
    touch: under(open.touch, m.touchWater * s),
    recoat: under(open.recoat, m.recoatWater * s),
    through,
    cured: through === null || cureTime === null ? null : through + cureTime,
  };
}

function strongest(strengths: readonly number[]): number | null {
  let best: number | null = null;
  strengths.forEach((strength, i) => {
    if (strength > 0.02 && (best === null || strength >= strengths[best]!)) best = i;
  });
  return best;
}

/** Whether a step does the same all over the panel. */
const alike = (step: Step): boolean =>
  step.kind !== 'distress' && (step.kind !== 'resist' || step.where === 'all');
