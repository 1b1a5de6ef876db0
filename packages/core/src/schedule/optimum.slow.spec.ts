import highs from 'highs';
import { type PanelPlan } from '../plan';
import { coat, distress, FIRST, planOf, when } from '../testing/plans';
import { EIGHT_TO_FIVE, jobOf, problemOf } from '../testing/timetables';
import { MINUTES, type Problem, schedule } from '.';
import { benchOf } from './build';
import { readyAt, windowAt } from './chain';

/*
 * Small timetables against the optimum, proved by an exact solver of mixed-integer programmes (HiGHS, Huangfu and Hall
 * 2018). In air that stays the same what dries needs the same time whenever it is laid, but for a little water that is
 * left below; there the programme is exact: starts, hands, and stretches of work.
 */

const MINUTE = 60;
const DAYS = 6;

const two = (width: number): PanelPlan =>
  sized(planOf([coat('a', 'latex', 90, FIRST), coat('b', 'chalk', 90, when('recoat'))]), width);
const three = (width: number): PanelPlan =>
  sized(
    planOf([
      coat('a', 'chalk', 80, FIRST),
      coat('b', 'chalk', 80, when('recoat')),
      distress('s', 'sand', when('through-dry')),
    ]),
    width,
  );
const four = (width: number): PanelPlan =>
  sized(
    planOf([
      coat('a', 'latex', 90, FIRST),
      coat('b', 'milk', 90, when('recoat')),
      coat('c', 'milk', 90, when('recoat')),
      distress('s', 'sand', when('through-dry')),
    ]),
    width,
  );
function sized(plan: PanelPlan, width: number): PanelPlan {
  return { ...plan, panel: { ...plan.panel, width, height: 2.4 } };
}

const CASES: readonly (readonly PanelPlan[])[] = [
  [two(0.4), two(0.8)],
  [two(2.8), two(2.8)],
  [three(0.5), two(1)],
  [three(2.5), three(2.5)],
  [two(2.8), three(1.5), two(0.3)],
  [four(1), two(2.8)],
  [three(3), two(3), two(2)],
  [four(2.8), three(2.8)],
];

/** A problem as a mixed-integer programme in the format that solvers read; moments in minutes. */
function programme(problem: Problem): string {
  const bench = benchOf(problem);
  const days = EIGHT_TO_FIVE.slice(0, DAYS);
  const most = days.at(-1)!.closes / MINUTE;
  const rows: string[] = [];
  const binary: string[] = [];
  const tasks: { name: string; job: number; takes: number }[] = [];
  bench.chains.forEach((chain, job) => {
    const begins = chain.tasks.map((_, i) => windowAt(chain, chain.alone[i]!, i).opens / MINUTE);
    chain.tasks.forEach((task, i) => {
      const name = `s${job}_${i}`;
      const takes = task.hands / MINUTE;
      tasks.push({ name, job, takes });
      // In one stretch of one day.
      const chosen = days.map((_, d) => `d${job}_${i}_${d}`);
      binary.push(...chosen);
      rows.push(`${chosen.join(' + ')} = 1`);
      rows.push(`${name}${days.map(({ opens }, d) => ` - ${opens / MINUTE} ${chosen[d]}`).join('')} >= 0`);
      rows.push(
        `${name}${days.map(({ closes }, d) => ` - ${closes / MINUTE} ${chosen[d]}`).join('')} <= ${-takes}`,
      );
      if (i === 0) return;
      const before = chain.tasks[i - 1]!.hands / MINUTE;
      rows.push(`${name} - s${job}_${i - 1} >= ${Math.max(before, begins[i]! - begins[i - 1]!)}`);
    });
    const last = chain.tasks.length - 1;
    rows.push(`mk - s${job}_${last} >= ${readyAt(chain.alone.at(-1)!)! / MINUTE - begins[last]!}`);
  });
  tasks.forEach((a, i) =>
    tasks.slice(i + 1).forEach((b) => {
      if (a.job === b.job) return;
      const first = `f${a.name}${b.name}`;
      binary.push(first);
      rows.push(`${b.name} - ${a.name} - ${2 * most} ${first} >= ${a.takes - 2 * most}`);
      rows.push(`${a.name} - ${b.name} + ${2 * most} ${first} >= ${b.takes}`);
    }),
  );
  return [
    'Minimize',
    ' obj: mk',
    'Subject To',
    ...rows.map((row, i) => ` c${i}: ${row}`),
    'Bounds',
    ...tasks.map(({ name }) => ` 0 <= ${name} <= ${most}`),
    'Binary',
    ` ${binary.join('\n ')}`,
    'End',
  ].join('\n');
}

describe('small timetables', () => {
  it('are at most a hundredth longer than the optimum on the mean, and none by more than a twentieth', async () => {
    const solver = await highs();
    const minutes = Object.fromEntries(
      Object.keys(MINUTES).map((key) => [key, 0]),
    ) as unknown as typeof MINUTES;
    const ratios = CASES.map((plans) => {
      const problem = problemOf(
        plans.map((plan, i) => jobOf(`p${i}`, plan)),
        { minutes },
      );
      const best = solver.solve(programme(problem), { time_limit: 60 });
      expect(best.Status).toBe('Optimal');
      const ours = schedule(problem).ready! / MINUTE;
      return ours / best.ObjectiveValue;
    });
    // Ours begins at whole minutes, and knows what water is left below.
    for (const ratio of ratios) {
      expect(ratio).toBeGreaterThan(0.985);
      expect(ratio).toBeLessThan(1.05);
    }
    expect(ratios.reduce((sum, ratio) => sum + ratio, 0) / ratios.length).toBeLessThan(1.01);
  }, 600_000);
});
