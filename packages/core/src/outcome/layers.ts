import { blendOf, fromHex, hidingFactor, opacityOf, toHex } from '../colour';
import { type FilmRun } from '../course';
import { isClear, type Medium, medium, type OldFinish, substrate } from '../media';
import { type FilmStep, laysLayer, PLAN_RANGES, type PanelPlan, type Step, type Tint, tintOf } from '../plan';
import { toolOf, type ToolAction } from '../tools';
import { type FilmNow } from '../wear';
import { IRON_TANNATE, stainDarkness } from '../wood';
import { type SceneLayer, type Tones } from './history';

/** Surfaces whose own texture is seen: grain, threads, wires. */
const GROUND_LOOKS: Readonly<Record<string, SceneLayer['finish']>> = {
  'raw-softwood': 'wood',
  'raw-hardwood': 'wood',
  plywood: 'wood',
  sealed: 'wood',
  scuffed: 'wood',
  gloss: 'wood',
  waxed: 'wood',
  fabric: 'cloth',
  mesh: 'mesh',
};
/** Tools that go on through an old finish. */
const GOES_THROUGH: readonly string[] = ['sand', 'cut'] satisfies ToolAction[];

const GROUND = {
  opacity: 1,
  hidingUm: 1,
  tones: null,
  strokes: 'one-way',
  agent: null,
  yellowing: 0,
  glossUnits: 5,
} as const;

/**
 * What was there before the first coat, from below: the surface, and where a stiff tool may go through an old finish
 * the wood under it.
 */
export function groundLayers({ panel, steps }: Pick<PanelPlan, 'panel' | 'steps'>): readonly SceneLayer[] {
  const ground = substrate(panel.substrate);
  const surface: SceneLayer = {
    ...GROUND,
    id: 'panel',
    thicknessUm: 0,
    colour: stained(panel.colour ?? ground.colour, ground.bare, steps),
    finish: GROUND_LOOKS[ground.key] ?? 'ground',
    glossUnits: ground.key === 'gloss' ? 60 : GROUND.glossUnits,
  };
  const old = ground.finish;
  const meets = steps.some(
    (step) => step.kind === 'distress' && GOES_THROUGH.includes(toolOf(step.tool).action),
  );
  // A point's bits tell one layer less apart than a plan may have: with all of them the old finish is taken for whole.
  if (old === null || !meets || steps.filter(laysLayer).length >= PLAN_RANGES.layers.max) return [surface];
  return [
    { ...GROUND, id: 'wood', thicknessUm: 0, colour: old.wood, finish: 'wood' },
    { ...surface, thicknessUm: old.dryUm },
  ];
}

/** Bare wood under a reactive stain goes towards iron tannate, as far as its tannin and the time let it. */
function stained(colour: string, bare: boolean, steps: readonly Step[]): string {
  const stain = steps.find((step) => step.kind === 'companion' && step.task === 'reactive-stain');
  if (!bare || stain?.kind !== 'companion' || stain.wood === undefined) return colour;
  const turned = stainDarkness(stain.wood, stain.rest);
  const [own, iron] = [fromHex(colour), fromHex(IRON_TANNATE)];
  const at = (c: 0 | 1 | 2): number => own[c] + turned * (iron[c] - own[c]);
  return toHex([at(0), at(1), at(2)]);
}

/** An old finish as a tool finds it: cured long ago. */
export const oldFilm = ({ like }: OldFinish): FilmNow => ({ medium: medium(like), age: Infinity, wet: 0 });

function finishOf(medium: Medium): SceneLayer['finish'] {
  if (medium.kind === 'wax' || medium.kind === 'glaze') return medium.kind;
  return isClear(medium) ? 'clear' : 'paint';
}

function tonesOf(step: FilmStep): Tones | null {
  if (step.kind !== 'coat' || step.colour === null || !step.others?.length) return null;
  const { colour, others, manner = 'side-by-side' } = step;
  const own = 1 - others.reduce((sum, { share }) => sum + share, 0);
  return { ...blendOf([{ colour, share: own }, ...others], manner), manner };
}

/** A veil that tinted water leaves: so thin that it has no body. */
const VEIL_UM = 0.5;

function veilOf(step: Step, { colour, strength }: Tint): SceneLayer {
  return {
    id: step.id,
    thicknessUm: VEIL_UM,
    opacity: strength,
    hidingUm: -VEIL_UM / Math.log(1 - strength),
    colour,
    tones: null,
    strokes: 'dabbed',
    finish: 'glaze',
    agent: null,
    yellowing: 0,
    glossUnits: 3,
  };
}

/** What a step lays; a resist or a veil where it lays no film. */
export function layerOfStep(step: Step, film: FilmRun | undefined): SceneLayer {
  const tint = tintOf(step);
  if (tint !== null) return veilOf(step, tint);
  if (film === undefined) {
    const thicknessUm = step.kind === 'resist' ? step.thickness * 1e6 : 0;
    return {
      id: step.id,
      thicknessUm,
      opacity: 0,
      hidingUm: 1e6,
      colour: null,
      tones: null,
      strokes: 'one-way',
      finish: 'resist',
      agent: step.kind === 'resist' ? step.agent : null,
      yellowing: 0,
      glossUnits: 20,
    };
  }
  const { medium } = film;
  const clear = isClear(medium);
  const tones = clear ? null : tonesOf(film.step);
  const colour = clear ? null : (tones?.mean ?? film.step.colour);
  const hidingUm = medium.hidingUm * (clear ? 1 : hidingFactor(colour));
  return {
    id: step.id,
    thicknessUm: film.solidsUm,
    opacity: opacityOf(film.solidsUm, hidingUm),
    hidingUm,
    colour,
    tones,
    strokes: film.step.strokes,
    finish: finishOf(medium),
    agent: null,
    yellowing: medium.yellowing,
    glossUnits: medium.glossUnits,
  };
}
