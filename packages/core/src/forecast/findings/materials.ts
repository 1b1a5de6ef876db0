import { dewPoint } from '../../air';
import { isOf, substrate } from '../../media';
import { type PanelPlan } from '../../plan';
import { potLife } from '../../quantity';
import { type Run } from '../run';
import { type CoatForecast, type Forecast } from '../types';
import { type AddFinding } from './codes';
import { COLD, DAMP, FRESH_OIL, SPRAY_LATE, SPRAY_SOON, TALL } from './limits';

/** What does not go together, and what the air does not allow. */
export function materialRules(
  plan: PanelPlan,
  result: Pick<Forecast, 'coats'>,
  run: Run,
  add: AddFinding,
): void {
  const { panel } = plan;
  result.coats.forEach((coat, i) => {
    const { id } = coat.coat;
    const below = result.coats[i - 1];
    const { medium } = coat;
    const sample = run.films[i]!.sample;
    const wetUm = coat.coat.thickness * 1e6;
    if (wetUm > medium.hardensUpToUm) add('wax-thick', 'warn', id, { most: medium.hardensUpToUm * 1e-6 });
    else if (coat.open.touch === null) add('never-dry', 'stop', id, { humidity: sample.humidity });
    if (medium.carrier === 'water' && sample.temperature < COLD)
      add('cold-air', 'warn', id, { temperature: sample.temperature });
    if (['alcohol', 'thinner', 'propellant'].includes(medium.carrier)) {
      const dew = dewPoint(sample.temperature, sample.humidity);
      const surface = run.films[i]!.solventSurface;
      if (surface !== null && surface < dew) add('blush', 'warn', id, { surface, dew });
    }
    if (
      i === 0 &&
      panel.history.tannin &&
      medium.carrier === 'water' &&
      !isOf(medium, 'stains') &&
      substrate(panel.substrate).bare
    )
      add('tannin-bleeds', 'warn', id);
    if (i === 0) firstCoat(plan, coat, add);
    if (coat.coat.kind === 'coat' && coat.coat.mixedAge !== null) {
      const life = potLife(medium, coat.coat.keptCold ? COLD_STORE : sample.temperature);
      if (coat.coat.mixedAge > life) add('milk-old', 'warn', id, { age: coat.coat.mixedAge, life });
    }
    if (!panel.flat && isOf(medium, 'casein') && panel.height > TALL) add('lay-flat', 'tip', id);
    if (below === undefined) return;
    if (below.medium.kind === 'wax' && medium.kind !== 'wax')
      add(medium.kind === 'clear' ? 'clear-over-wax' : 'paint-over-wax', 'warn', id);
    if (
      below.medium.oxidationHours > 0 &&
      !isOf(below.medium, 'sprayed') &&
      medium.carrier === 'water' &&
      medium.kind !== 'wax'
    ) {
      const age = coat.laidAt - below.laidAt;
      if (age < FRESH_OIL) add('water-over-fresh-oil', 'tip', id, { age });
    }
    if (isOf(below.medium, 'sprayed')) {
      const age = coat.laidAt - below.laidAt;
      if (age > SPRAY_SOON && age < SPRAY_LATE) add('spray-recoat', 'warn', id, { age });
    }
  });
  const first = plan.air[0];
  const top = result.coats.at(-1);
  if (first && top && first.humidity >= DAMP)
    add('damp-air', 'tip', top.coat.id, { humidity: first.humidity });
}

/** What the first coat meets, where it was not prepared for. */
function firstCoat({ panel }: PanelPlan, { coat, medium }: CoatForecast, add: AddFinding): void {
  const done = panel.prepared ?? [];
  const { coat: old, age } = panel.history;
  if ((panel.substrate === 'waxed' || old === 'wax') && medium.kind !== 'wax' && !done.includes('dewax'))
    add('wax-below', 'warn', coat.id);
  if (old === 'oil' && age === 'fresh' && medium.carrier === 'water' && !done.includes('wait-oil'))
    add('fresh-oil-below', 'warn', coat.id);
  if (old === 'unknown' && !done.includes('test-hold')) add('unknown-below', 'tip', coat.id);
}

/** A refrigerator [K]. */
const COLD_STORE = 277.15;
