import { forecast } from '@zaffet/core/forecast';
import { type Problem, retimer, schedule } from '@zaffet/core/schedule';
import { basisOf, partPlan, problemOf, usualWork } from '@zaffet/workshop';
import { manyParts } from '../../packages/workshop/src/testing/manyParts';
import { line, type PerfLine } from './report';

const RUNS = 7;
/** Drags of each plan. */
const DRAGS = 40;

const cpu = (work: () => void): number => {
  const start = process.cpuUsage();
  work();
  const { user, system } = process.cpuUsage(start);
  return (user + system) / 1000;
};
const middle = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1]!;

/** A week of one person over so many parts, hour by hour in other air. */
function problem(parts: number, seed: number): Problem {
  const plan = manyParts(seed, parts);
  const later = Array.from({ length: 336 }, (_, hour) => ({
    at: new Date(Date.parse(plan.startsAt) + (hour + 1) * 3_600_000).toISOString(),
    temperatureC: 19 + 3 * Math.sin((hour / 24) * 2 * Math.PI),
    humidity: 0.5 - 0.08 * Math.sin((hour / 24) * 2 * Math.PI),
  }));
  return problemOf({
    ...plan,
    work: usualWork('+02:00'),
    timing: { ...plan.timing, order: [], deliveries: [] },
    air: { ...plan.air, later },
  });
}

function scheduleLines(): PerfLine[] {
  const bases = (n: number): number => {
    const plan = manyParts(5, n);
    const of = plan.piece.parts.map(({ id }) => basisOf(partPlan(plan, id)));
    return middle(
      Array.from({ length: RUNS }, () =>
        cpu(() => Array.from({ length: 100 }, (_, i) => forecast(of[i % of.length]!))),
      ),
    );
  };
  // Warm, as the worker is.
  for (const [seed, parts] of [3, 8, 24, 24, 24].entries()) schedule(problem(parts, 11 + seed));
  return [3, 8, 24].flatMap((parts) => {
    const first: number[] = [];
    const whole: number[] = [];
    const walls: number[] = [];
    const times: number[] = [];
    let builds = 0;
    let missed = 0;
    for (let run = 0; run < RUNS; run++) {
      const asked = problem(parts, 100 + run);
      first.push(cpu(() => void schedule(asked, { tries: 0, seed: 1 })));
      let table = schedule(asked, { tries: 0, seed: 1 });
      const begun = performance.now();
      whole.push(cpu(() => void (table = schedule(asked))));
      walls.push(performance.now() - begun);
      builds += table.builds / RUNS;
      missed += table.missed.length;
      const timed = retimer(asked, table);
      const movable = table.entries.filter(({ kind }) => kind === 'step' || kind === 'sections');
      for (let n = 0; n < DRAGS; n++) {
        const { partId, stepId, coat, from } = movable[(7 * n) % movable.length]!;
        times.push(cpu(() => void timed([{ partId, stepId, coat, at: from + 600 * (n % 12) }])));
      }
    }
    const reference = bases(parts);
    const note = (text: string): string => `${text}; CPU ms; reference: 100 forecasts`;
    return [
      line(`schedule.${parts}.first`, 'ms', middle(first), reference, RUNS, note('starting orders alone')),
      line(
        `schedule.${parts}.whole`,
        'ms',
        middle(whole),
        reference,
        RUNS,
        note(
          `wall ${middle(walls).toFixed(0)}, worst ${Math.max(...whole).toFixed(0)}, ${builds.toFixed(0)} timetables made, ${missed} windows missed`,
        ),
      ),
      line(
        `schedule.${parts}.retime`,
        'ms',
        middle(times),
        reference,
        times.length,
        note(`worst ${Math.max(...times).toFixed(0)}`),
      ),
    ];
  });
}

let known: PerfLine[] | null = null;
const once = (): PerfLine[] => (known ??= scheduleLines());
export const scheduleLinesByName: Record<string, () => PerfLine> = Object.fromEntries(
  [3, 8, 24].flatMap((parts) =>
    ['first', 'whole', 'retime'].map((what) => [
      `schedule.${parts}.${what}`,
      (): PerfLine => once().find(({ name }) => name === `schedule.${parts}.${what}`)!,
    ]),
  ),
);
