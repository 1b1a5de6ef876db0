import { type Plan, USUAL_MEASURES } from '@zaffet/contract';
import { FIGURE_KEYS, figureRow } from '@zaffet/core/readout';
import {
  benchOf,
  compareRun,
  foldRun,
  mixing,
  partPlan,
  sittings,
  type Timed,
  timetable,
} from '@zaffet/workshop';
import { demoPlans } from '../../workshop/src/testing/demo';
import { disagreements, plansToCompare, type Values, valuesOf } from '../../workshop/src/testing/rooms';
import { beginning, deviceOf } from '../../workshop/src/testing/runs';
import { predictionOf } from './predict';

/*
 * One number, one home: every figure and moment that two rooms show is the same in both. The list, Layers and the what-if
 * are compared in the web's own spec, the job sheet in the server's, all with the same table (workshop/src/testing/rooms).
 */

const SHELF = { items: [], measures: USUAL_MEASURES };

/** What the command line says, in SI units. */
function commandOf(plan: Plan, partId: string, { circumstances }: Timed): Values {
  const { figures } = predictionOf(partPlan(plan, partId, null, circumstances));
  return Object.fromEntries(
    FIGURE_KEYS.map((key) => {
      const value = figures.find((figure) => figure.key === key)?.value ?? null;
      return [key, value !== null && figureRow(key).quantity === 'length' ? value / 1000 : value];
    }),
  );
}

/** What the Log says was planned, of a run that was begun and no more. */
function plannedInLog(plan: Plan, partId: string): Values {
  const [begun] = [deviceOf('log', plan)(0, 'run-begun', beginning(plan))];
  const part = compareRun([begun], null).find((compared) => compared.partId === partId)!;
  return Object.fromEntries(part.figures.map(({ key, planned }) => [key, planned?.value ?? null]));
}

/** When each coat of each step begins, by part, step and coat, as a room has it [s from the plan's start]. */
type Begins = ReadonlyMap<string, number>;

function entriesOf({ table }: Timed): Begins {
  const work = table.entries.filter(
    ({ kind }) => !['turn', 'clean', 'mix', 'buff', 'prepare'].includes(kind),
  );
  return new Map(work.map(({ partId, stepId, coat, from }) => [`${partId} ${stepId} ${coat}`, from]));
}

const inSchedule = (plan: Plan, { table }: Timed): Begins =>
  new Map(
    sittings(plan, table).flatMap(({ kind, work }) =>
      ['mix', 'buff', 'prepare'].includes(kind)
        ? []
        : work.map(({ partId, stepId, coat, from }) => [`${partId} ${stepId} ${coat}`, from] as const),
    ),
  );

/** Moments at which paint is taken out of pots, by part and step. */
function inMix(plan: Plan, timed: Timed): ReadonlyMap<string, readonly number[]> {
  const uses = mixing(plan, SHELF, timed).pots.flatMap((pot) => pot.uses);
  const moments = new Map<string, number[]>();
  for (const { partId, stepId, at } of uses) {
    const key = `${partId} ${stepId}`;
    moments.set(
      key,
      [...new Set([...(moments.get(key) ?? []), at])].sort((a, b) => a - b),
    );
  }
  return moments;
}

function atBench(plan: Plan, { table }: Timed): Begins {
  const begun = deviceOf('bench', plan)(0, 'run-begun', beginning(plan));
  const start = Date.parse(plan.startsAt);
  const { parts } = benchOf(foldRun([begun])!, table, start, new Map());
  const tasks = parts.flatMap((part) => part.tasks);
  return new Map(
    tasks.flatMap(({ kind, partId, stepId, coat, plannedAt }) =>
      ['buff', 'prepare'].includes(kind) || plannedAt === null
        ? []
        : [[`${partId} ${stepId} ${coat}`, (plannedAt - start) / 1000] as const],
    ),
  );
}

const differences = (room: string, expected: Begins, shown: Begins): string[] =>
  [...expected].flatMap(([key, at]) => {
    const there = shown.get(key);
    return there !== undefined && Math.abs(there - at) < 1e-3
      ? []
      : [`${room}: ${key} begins at ${there}, and ${at} by the timetable`];
  });

describe('one number, one home', () => {
  const plans = [...demoPlans(), ...plansToCompare(100)];
  const timed = new Map<Plan, Timed>();
  const timedOf = (plan: Plan): Timed => {
    const found = timed.get(plan) ?? timetable(plan);
    timed.set(plan, found);
    return found;
  };

  it('the command line and the Log say of every part what the core says', () => {
    let compared = 0;
    for (const plan of plans)
      for (const { id } of plan.piece.parts) {
        const expected = valuesOf(plan, id, timedOf(plan));
        const wrong = [
          ...disagreements('command', expected, commandOf(plan, id, timedOf(plan))),
          ...disagreements('log', expected, plannedInLog(plan, id)),
        ];
        expect(wrong).withContext(`${plan.name}, ${id}`).toEqual([]);
        compared += 1;
      }
    expect(compared).toBeGreaterThan(120);
  });

  it('Schedule, Mix and the Bench begin every step when the timetable does', () => {
    for (const plan of plans) {
      const all = timedOf(plan);
      const expected = entriesOf(all);
      const wrong = [
        ...differences('schedule', expected, inSchedule(plan, all)),
        ...differences('bench', expected, atBench(plan, all)),
      ];
      for (const [key, moments] of inMix(plan, all)) {
        const coats = [...expected].filter(([coat]) => coat.startsWith(`${key} `)).map(([, at]) => at);
        // The paint over glue follows in the same sitting, behind the glue.
        if (coats.length > 0 && coats.some((at, i) => Math.abs(at - (moments[i] ?? NaN)) > 1e-3))
          wrong.push(
            `mix: ${key} is used at ${moments.join(', ')}, and ${coats.join(', ')} by the timetable`,
          );
      }
      expect(wrong).withContext(plan.name).toEqual([]);
    }
  });

  it('a room that says something else is found', () => {
    const [plan] = plans;
    const { id } = plan!.piece.parts[0]!;
    const expected = valuesOf(plan!, id, timedOf(plan!));
    expect(disagreements('log', expected, { ...expected, chips: expected.chips! + 0.01 }).length).toBe(1);
    const begins = entriesOf(timedOf(plan!));
    const late = new Map([...begins].map(([key, at], i) => [key, i === 0 ? at + 1 : at]));
    expect(differences('bench', begins, late).length).toBe(1);
  });
});
