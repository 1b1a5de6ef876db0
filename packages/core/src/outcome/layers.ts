import { hidingFactor, opacityOf } from '../colour';
import { type FilmRun } from '../course';
import { isClear, substrate } from '../media';
import { type PanelPlan, type Step } from '../plan';
import { type SceneLayer } from './history';

/** The panel itself, as the lowest layer. */
export function groundLayer(plan: PanelPlan): SceneLayer {
  const ground = substrate(plan.panel.substrate);
  const wood = ['raw-softwood', 'raw-hardwood', 'plywood', 'sealed', 'scuffed', 'gloss', 'waxed'];
  return {
    id: 'panel',
    thicknessUm: 0,
    opacity: 1,
    hidingUm: 1,
    colour: ground.colour,
    strokes: 'one-way',
    finish: wood.includes(ground.key) ? 'wood' : 'ground',
    agent: null,
    yellowing: 0,
    glossUnits: ground.key === 'gloss' ? 60 : 5,
  };
}

/** What a step lays; a resist where it lays no film. */
export function layerOfStep(step: Step, film: FilmRun | undefined): SceneLayer {
  if (film === undefined) {
    const thicknessUm = step.kind === 'resist' ? step.thickness * 1e6 : 0;
    return {
      id: step.id,
      thicknessUm,
      opacity: 0,
      hidingUm: 1e6,
      colour: null,
      strokes: 'one-way',
      finish: 'resist',
      agent: step.kind === 'resist' ? step.agent : null,
      yellowing: 0,
      glossUnits: 20,
    };
  }
  const { medium } = film;
  const clear = isClear(medium);
  const hidingUm = medium.hidingUm * (clear ? 1 : hidingFactor(film.step.colour));
  return {
    id: step.id,
    thicknessUm: film.solidsUm,
    opacity: opacityOf(film.solidsUm, hidingUm),
    hidingUm,
    colour: clear ? null : film.step.colour,
    strokes: film.step.strokes,
    finish: medium.kind === 'wax' ? 'wax' : clear ? 'clear' : 'paint',
    agent: null,
    yellowing: medium.yellowing,
    glossUnits: medium.glossUnits,
  };
}
