import { type Basis } from '../basis';
import { appearance, type Appearance, contrastWith } from '../colour';
import { type Course, type Factors } from '../course';
import { type Region } from '../maps';
import { isClear } from '../media';
import { type Step, whereOf } from '../plan';
import { isGround, type Scene } from './history';
import { coverThere, cracksThere, type LocalCracks, type Patch, patchesOf, responsesOf } from './places';
import { sceneOf } from './scene';
import { type Shown, showThrough } from './show';
import { standsOf, toldApart } from './stands';
import { type Outcome } from './types';
import { joinedPattern, zoneForecasts } from './zones';

/** Cracks that read less than this are not what the panel shows. */
const READS = 0.02;
/** Share of the panel that is no mere speck. */
const PLACE = 0.005;

/**
 * What comes of a course: what cracks, flakes and wears, and what is seen in the end.
 * @param region - told of this part of the panel alone, where one is given
 */
export function outcomeOf(basis: Basis, course: Course, factors: Factors, region?: Region): Outcome {
  const { plan, films } = course;
  const told = toldApart(course);
  const stands = standsOf(basis, course, factors);
  const patches = patchesOf(plan.panel, plan.steps, told, plan.steps.every(alike), region);
  const responses = responsesOf(basis, course, factors);
  const local = films.map(({ step }, i) => {
    const like = stands.find(({ cracks }) => cracks[i] !== null)?.cracks[i];
    if (!like) return [];
    return patches.map((patch) => {
      const { cracks } = stands[patch.stand]!;
      return cracksThere(cracks[i]!, like, responses[i]!, patch, coverThere(step, patch, stands));
    });
  });
  const { scene, efforts } = sceneOf(course, stands, patches, local, responses, basis.shop.learned, factors);
  const filmOf = scene.layers.map(({ id }) => films.findIndex((film) => film.step.id === id));
  const cracksAt = (layer: number, patch: number): LocalCracks => local[filmOf[layer]!]![patch]!;
  const shown = showThrough(scene, patches, stands, local, cracksAt, efforts);
  const crackedCoat = strongest(
    local.map((cracked) => (readsSomewhere(patches, cracked) ? joinedPattern(patches, cracked).strength : 0)),
  );
  const drawn = looksOf(course, scene, shown);
  // Cracks in a clear coat reach the paint below it: nothing is seen of them until something dark is rubbed in.
  const unseen = crackedCoat !== null && clearAbove(films, crackedCoat);
  const shareOf = (id: string): number => shown.layers.find((layer) => layer.id === id)?.share ?? 0;
  const looks = { ...drawn, contrast: unseen ? 0 : contrastWith(drawn, shareOf) };
  return {
    crackedCoat,
    chips: shown.chips,
    removals: shown.removals,
    ...zoneForecasts(patches, local, course, crackedCoat, shown, looks),
    layers: shown.layers,
    appearance: looks,
    scene,
  };
}

/** Whether a film and all above it are clear. */
const clearAbove = (films: Course['films'], index: number): boolean =>
  films.slice(index).every(({ medium }) => isClear(medium));

function looksOf({ films }: Course, scene: Scene, shown: Shown): Appearance {
  const filmOf = new Map(films.map((film) => [film.step.id, film]));
  const clearOver = (index: number): number | null => {
    const over = films
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
      const drawn = scene.layers[i]!;
      if (isGround(drawn))
        return { id: layer.id, colour: drawn.colour, opacity: 1, sealed: clearOver(-1), there: true };
      const film = filmOf.get(layer.id);
      const index = film === undefined ? 0 : films.indexOf(film);
      return {
        id: layer.id,
        colour: drawn.colour,
        opacity: shown.opacity[i]!,
        sealed: clearOver(index),
      };
    }),
  );
}

/** Whether the cracks of a film read where they are strongest, on no less than a place of the panel. */
function readsSomewhere(patches: readonly Patch[], cracked: readonly LocalCracks[]): boolean {
  const order = cracked
    .map(({ pattern, cover }, k) => ({ area: patches[k]!.area, strength: cover * pattern.strength }))
    .sort((a, b) => b.strength - a.strength);
  let area = 0;
  let sum = 0;
  for (const patch of order) {
    if (area >= PLACE) break;
    area += patch.area;
    sum += patch.area * patch.strength;
  }
  return area > 0 && sum / area > READS;
}

function strongest(strengths: readonly number[]): number | null {
  let best: number | null = null;
  strengths.forEach((strength, i) => {
    if (strength > 0 && (best === null || strength >= strengths[best]!)) best = i;
  });
  return best;
}

/** Whether a step does the same all over the panel. */
const alike = (step: Step): boolean => step.kind !== 'distress' && whereOf(step) === 'all';
