import {
  filedMap,
  isMapped,
  mapRange,
  type StepMap,
  WANT_KEYS,
  type Wants,
  type UnitSystem,
} from '@zaffet/contract';
import { type Where } from '@zaffet/core/maps';
import { type Step } from '@zaffet/core/plan';
import { fitPlace, type PlaceFit } from '@zaffet/core/solve';
import { WANTED_LENGTHS, WISH_OF } from '../data/wants';
import { figureText, stepTitle, WISH_WORDS } from '@zaffet/words';
import { basisOf, type PartPlan } from '@zaffet/workshop';

/** How a step is mapped from now on. */
export interface Worked {
  readonly stepId: string;
  readonly map: StepMap;
  readonly changes: PlaceFit['changes'];
}

/**
 * Lays or works steps more or less in some places until they look as wished, wish by wish and place by place, each on
 * what the one before left.
 * @returns the maps in the order they are made, and a sentence for each wish
 */
export function workPlaces(
  plan: PartPlan,
  places: readonly Where[],
  wants: Wants,
  units: UnitSystem,
): { worked: Worked[]; said: string[] } {
  const worked: Worked[] = [];
  const said: string[] = [];
  let basis = basisOf(plan);
  for (const key of WANT_KEYS) {
    const wanted = wants[key];
    if (wanted === null) continue;
    const wish = WISH_OF[key];
    const name = WISH_WORDS[wish].name;
    const asked = WANTED_LENGTHS.includes(key) ? wanted / 1000 : wanted;
    for (const [i, place] of places.entries()) {
      const fit = fitPlace(basis, place, wish, asked);
      const step = plan.steps.find(({ id }) => id === fit?.stepId);
      if (fit === null || step === undefined || !isMapped(step)) {
        said.push(`Nothing in the plan has to do with ${name.toLowerCase()} here.`);
        break;
      }
      worked.push({ stepId: fit.stepId, map: filedMap(fit.map, mapRange(step)), changes: fit.changes });
      const steps = basis.plan.steps.map((s) =>
        s.id === fit.stepId ? ({ ...s, ...fit.changes, map: fit.map } as Step) : s,
      );
      basis = { ...basis, plan: { ...basis.plan, steps } };
      // Places of one kind come out alike: the first, the largest, speaks for them.
      if (i > 0) continue;
      const { number, unit } = figureText(wish === 'under' ? 'layer' : wish, fit.value, units);
      const does = `${name}: ${number} ${unit}, by ${stepTitle(step, plan.media).toLowerCase()}`;
      said.push(fit.met ? `${does}.` : `${does}, which is the nearest it comes.`);
    }
  }
  return { worked, said };
}
