import { dewPoint } from '../air';
import { type Course, type FilmRun } from '../course';
import { isOf, substrate } from '../media';
import { type PanelPlan } from '../plan';
import { potLife } from '../quantity';
import { type AddFinding } from './codes';
import { COLD, DAMP, FRESH_OIL, SPRAY_LATE, SPRAY_SOON, TALL } from './limits';

/** What does not go together, and what the air does not allow. */
export function materialRules({ plan, films }: Course, add: AddFinding): void {
  const { panel } = plan;
  films.forEach((film, i) => {
    const { step, medium, sample } = film;
    const { id } = step;
    const below = films[i - 1];
    const wetUm = step.thickness * 1e6;
    if (wetUm > medium.hardensUpToUm) add('wax-thick', 'warn', id, { most: medium.hardensUpToUm * 1e-6 });
    else if (film.openStates.touch === null) add('never-dry', 'stop', id, { humidity: sample.humidity });
    const coldest = Math.min(film.first.sample.temperature, sample.temperature);
    if (medium.carrier === 'water' && coldest < COLD) add('cold-air', 'warn', id, { temperature: coldest });
    if (['alcohol', 'thinner', 'propellant'].includes(medium.carrier)) {
      const dew = dewPoint(sample.temperature, sample.humidity);
      const surface = film.solventSurface;
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
    if (i === 0) firstCoat(plan, film, add);
    if (step.kind === 'coat' && step.mixedAge !== null) {
      const life = potLife(medium, step.keptCold ? COLD_STORE : sample.temperature);
      if (step.mixedAge > life) add('milk-old', 'warn', id, { age: step.mixedAge, life });
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
      const age = film.laidAt - below.laidAt;
      if (age < FRESH_OIL) add('water-over-fresh-oil', 'tip', id, { age });
    }
    if (isOf(below.medium, 'sprayed')) {
      const age = film.laidAt - below.laidAt;
      if (age > SPRAY_SOON && age < SPRAY_LATE) add('spray-recoat', 'warn', id, { age });
    }
  });
  const first = plan.air[0];
  const top = films.at(-1);
  if (first && top && first.humidity >= DAMP)
    add('damp-air', 'tip', top.step.id, { humidity: first.humidity });
}

/** What the first coat meets, where it was not prepared for. */
function firstCoat({ panel }: PanelPlan, { step, medium }: FilmRun, add: AddFinding): void {
  const done = panel.prepared ?? [];
  const { coat: old, age } = panel.history;
  if ((panel.substrate === 'waxed' || old === 'wax') && medium.kind !== 'wax' && !done.includes('dewax'))
    add('wax-below', 'warn', step.id);
  if (old === 'oil' && age === 'fresh' && medium.carrier === 'water' && !done.includes('wait-oil'))
    add('fresh-oil-below', 'warn', step.id);
  if (old === 'unknown' && !done.includes('test-hold')) add('unknown-below', 'tip', step.id);
  // Stain wants wood: on an old finish it stands on top and wipes away.
  if (isOf(medium, 'stains') && !substrate(panel.substrate).bare) add('wash-on-sealed', 'tip', step.id);
}

/** A refrigerator [K]. */
const COLD_STORE = 277.15;
