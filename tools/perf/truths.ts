import { type Basis, NO_SHOP, onTables } from '@zaffet/core/basis';
import { courseOf } from '@zaffet/core/course';
import {
  type Belief,
  believe,
  heard,
  type LiveState,
  momentBelieved,
  nextLook,
  usualPrior,
} from '@zaffet/core/live';
import { uniform } from '@zaffet/core/numeric';
import { after, coat, FIRST, planOf, when } from '../../packages/core/src/testing/plans';
import { line, type PerfLine } from './report';

/*
 * How much looks tell: two hundred coats whose factors nobody knows, three looks at each when a look tells most. The eye errs, states come a little otherwise than by our tables, one answer in twenty is a slip.
 */

const TRUTHS = 200;
/** Standard deviations of the logarithm: rates off by half, a film laid by eye, a state that comes otherwise, the eye. */
const HIDDEN = { air: 0.405, dry: 0.405, thickness: 0.12, sign: 0.15, eye: 0.15 } as const;
const SLIPS = 0.05;
const LOOKS = 3;
const STATES: readonly LiveState[] = ['matte', 'tacky', 'touch', 'recoat', 'through'];

/** A standard normal draw (Box and Muller). */
const normal = (seed: number, channel: number): number =>
  Math.sqrt(-2 * Math.log(uniform(2 * channel, seed, 7))) *
  Math.cos(2 * Math.PI * uniform(2 * channel + 1, seed, 7));

/** When states really come, were the factors such [s since laid]. */
function comes(
  basis: Basis,
  hidden: { air: number; dry: number; thickness: number },
  state: LiveState,
): number {
  const learned = { keys: [], mean: [], covariance: [], steps: { medium: hidden } };
  const film = courseOf({ ...basis, shop: { ...NO_SHOP, learned } }).films.find(
    ({ step }) => step.id === 'medium',
  )!;
  const at = state === 'first-cracks' ? null : film.openStates[state];
  return at === null ? Infinity : at - film.laidAt;
}

interface Told {
  /** Mean size of the logarithm, before any look and after each. */
  readonly errors: readonly number[];
  /** Share of truths that the last band holds. */
  readonly cover: number;
}

function looksTell(basis: Basis, state: LiveState, seen: readonly LiveState[]): Told {
  const first = believe(basis, 'medium', usualPrior({ mean: 0, sd: 0.35 }, false));
  const sizes = new Array<number>(LOOKS).fill(0);
  let before = 0;
  let held = 0;
  for (let seed = 0; seed < TRUTHS; seed++) {
    const hidden = {
      air: HIDDEN.air * normal(seed, 1),
      dry: HIDDEN.dry * normal(seed, 2),
      thickness: HIDDEN.thickness * normal(seed, 3),
    };
    const signs = seen.map(
      (one, i) => comes(basis, hidden, one) * Math.exp(HIDDEN.sign * normal(seed, 10 + i)),
    );
    const real = signs[seen.indexOf(state)]!;
    let belief: Belief = first;
    before += Math.abs(Math.log(momentBelieved(belief, state)!.at / real));
    let last = 1;
    for (let k = 0; k < LOOKS; k++) {
      const since = nextLook(belief, state, 1.05 * last)!;
      last = since;
      const judged = since * Math.exp(HIDDEN.eye * normal(seed, 20 + k));
      const slip = uniform(30 + k, seed, 9) < SLIPS;
      const passed = slip
        ? Math.floor(uniform(40 + k, seed, 9) * (seen.length + 1))
        : signs.filter((at) => at <= judged).length;
      belief = heard(belief, {
        since,
        after: seen[passed - 1] ?? null,
        before: seen[passed] ?? null,
        now: false,
      });
      sizes[k]! += Math.abs(Math.log(momentBelieved(belief, state)!.at / real));
    }
    const { low, high } = momentBelieved(belief, state)!;
    if (real >= low && real <= high) held += 1;
  }
  return {
    errors: [before, ...sizes].map((sum) => sum / TRUTHS),
    cover: held / TRUTHS,
  };
}

const base = coat('base', 'latex', 100, FIRST);
const CASES: Record<string, () => Told> = {
  'medium opens': () =>
    looksTell(
      onTables(planOf([base, coat('medium', 'crackle', 90, when('recoat'))])),
      'touch',
      STATES.slice(0, 3),
    ),
  'paint takes a coat': () =>
    looksTell(
      onTables(planOf([base, coat('medium', 'chalk', 100, after(86400))])),
      'recoat',
      STATES.slice(0, 4),
    ),
  'glue closes': () =>
    looksTell(onTables(planOf([base, coat('medium', 'pva', 140, when('recoat'))])), 'skinned', ['skinned']),
};

/** What is left of the error after three looks, beside the error before any: less is better. */
export const truthLines: Record<string, () => PerfLine> = Object.fromEntries(
  Object.entries(CASES).map(([name, tell]) => [
    `bench.truths.${name.replaceAll(' ', '-')}`,
    () => {
      const { errors, cover } = tell();
      const told = errors.map((one) => `${(100 * one).toFixed(0)} %`).join(', ');
      return line(
        `bench.truths.${name.replaceAll(' ', '-')}`,
        'ln',
        errors.at(-1)!,
        errors[0]!,
        TRUTHS,
        `error before and after 1, 2, 3 looks: ${told}; the band holds ${(100 * cover).toFixed(0)} %; reference: no look`,
      );
    },
  ]),
);
