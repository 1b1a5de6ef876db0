import { forecast } from '@zaffet/core/forecast';
import { type Candidate, knobsOf, solve, type Wish, wishValues, withSettings } from '@zaffet/core/solve';
import { basisOf, newPlan, partPlan, SCHOOL_KEYS } from '@zaffet/workshop';
import { chanceFrom } from '../../packages/core/src/testing/chance';
import { line, type PerfLine } from './report';

const STARTS_AT = '2026-05-11T08:00:00.000Z';

/** Every school as it is mostly done, on one panel. */
function candidates(): Candidate[] {
  return SCHOOL_KEYS.map((key) => {
    let id = 0;
    return { key, basis: basisOf(partPlan(newPlan(key, 'Panel', 7, STARTS_AT, () => `s${++id}`))) };
  });
}

/** Looks that can be had: of a school with its numbers set by chance, all that it gives. */
function wishes(count: number): Wish[] {
  const chance = chanceFrom(20261);
  const schools = candidates();
  const found: Wish[] = [];
  while (found.length < count) {
    const { basis } = schools[Math.floor(chance() * schools.length)]!;
    const settings = knobsOf(basis).map(({ stepId, kind, low, high }) => ({
      stepId,
      kind,
      value: low * (high / low) ** (0.15 + 0.7 * chance()),
    }));
    const values = wishValues(forecast({ ...basis, plan: withSettings(basis.plan, settings) }));
    const cracks = values.spacing !== null && values.opening !== null;
    const shows = (values.chips ?? 0) + (values.worn ?? 0) > 0.03;
    if (!cracks && !shows) continue;
    found.push({
      ...(cracks ? { spacing: values.spacing!, opening: values.opening! } : {}),
      chips: values.chips ?? 0,
      worn: values.worn ?? 0,
      under: values.under ?? 0,
    });
  }
  return found;
}

function solveLines(): PerfLine[] {
  const all = candidates();
  const wanted = wishes(40);
  const times: number[] = [];
  const passes: number[] = [];
  let met = 0;
  const missed: string[] = [];
  for (const wish of wanted) {
    const start = performance.now();
    const recipes = solve(wish, all);
    times.push(performance.now() - start);
    const begun = performance.now();
    for (let i = 0; i < 100; i++) forecast(all[i % all.length]!.basis);
    passes.push(performance.now() - begun);
    if (recipes.some((recipe) => recipe.met)) met++;
    else missed.push(JSON.stringify(wish));
  }
  const mid = (values: number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1]!;
  return [
    line(
      'solve.time',
      'ms',
      mid(times),
      mid(passes),
      wanted.length,
      `all ${all.length} schools; slowest ${Math.max(...times).toFixed(0)} ms; reference: 100 forecasts`,
    ),
    line(
      'solve.met',
      'share',
      met / wanted.length,
      0.9,
      wanted.length,
      `wishes of random valid plans met by some recipe; reference: what is asked`,
    ),
  ];
}

let known: PerfLine[] | null = null;
const once = (): PerfLine[] => (known ??= solveLines());
export const solverLines: Record<string, () => PerfLine> = {
  'solve.time': () => once()[0]!,
  'solve.met': () => once()[1]!,
};
