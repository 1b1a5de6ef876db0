import { type MediumLookup } from '../../media';
import { type PanelPlan } from '../../plan';
import { type Run } from '../run';
import { type Forecast } from '../types';
import { type AddFinding, type Finding, FINDING_LEVELS } from './codes';
import { materialRules } from './materials';
import { momentRules } from './moments';
import { outcomeRules } from './outcome';
import { safetyStops, workingRules } from './working';

/** What the plan says about itself, most urgent first; the rules are common practice. */
export function findings(
  plan: PanelPlan,
  result: Omit<Forecast, 'findings'>,
  run: Run,
  media: MediumLookup,
): Finding[] {
  const found: Finding[] = [];
  const add: AddFinding = (code, level, stepId, values = {}) =>
    void found.push({ code, level, stepId, values });
  safetyStops(plan, run, media, add);
  momentRules(plan, result, add);
  materialRules(plan, result, run, add);
  outcomeRules(plan, result, add);
  workingRules(plan, result, run, media, add);
  return found.sort((a, b) => FINDING_LEVELS.indexOf(a.level) - FINDING_LEVELS.indexOf(b.level));
}
