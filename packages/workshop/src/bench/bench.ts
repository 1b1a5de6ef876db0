import { type PlanStep } from '@zaffet/contract';
import { type Basis } from '@zaffet/core/basis';
import { forecast } from '@zaffet/core/forecast';
import { type Belief, shopAirAfter } from '@zaffet/core/live';
import { type Learned } from '@zaffet/core/media';
import { type Finding } from '@zaffet/core/notes';
import { followed, type FollowedTask, type Meant, type PartTask } from '@zaffet/core/schedule';
import { shopKnowing } from '../partPlan';
import { type Run, stepKey } from '../runs/fold';
import { buffCoat } from '../runs/known';
import { problemOf } from '../timetable';
import { airExpected, type Beliefs, believed, type Laid, laidOf, learnedToday, topOf } from './beliefs';
import { carriedOut, type Worked } from './carriedOut';
import { type Bench, type BenchPart, type BenchTask, type TaskState } from './types';
import { bandOf, dueState, filmOf, glueCloses, type Top, waitOf } from './windows';

/**
 * How a run stands.
 * @param table - the timetable of the plan as the run began
 * @param now - by the server's clock [ms since 1970]
 * @param known - beliefs to go on with; filled
 * @param inHand - the part for which it is worked out when to look
 * @throws InputError as `forecast`
 */
export function benchOf(
  run: Run,
  table: Meant,
  now: number,
  known: Beliefs,
  inHand: string | null = null,
): Bench {
  const worked = run.plan.piece.parts.map(({ id }) => carriedOut(run, id, now));
  const laid = worked.flatMap((one) => laidOf(run, one)).sort((a, b) => a.laidAt - b.laidAt);
  let air = airExpected(run.learned);
  let answers = 0;
  const beliefs = new Map<string, Belief>();
  for (const coat of laid) {
    // Nobody looked at it, and another lies over it: it tells nothing any more.
    if (coat.looks.length === 0 && topOf(laid, coat.partId) !== coat) continue;
    const of = worked.find(({ plan }) => plan.part.id === coat.partId)!;
    const belief = believed(of, coat, air, known);
    beliefs.set(stepKey(coat.partId, coat.step.id), belief);
    if (coat.looks.length > 0) air = shopAirAfter(air, belief);
    answers += coat.looks.length;
  }
  const learned = worked.map((one) => (answers === 0 ? run.learned : learnedToday(one, air, beliefs, laid)));
  const bases = worked.map(({ basis }, i) => basis(learned[i]!));
  const start = Date.parse(run.plan.startsAt);
  const at = (moment: number): number => start + moment * 1000;
  const problem = problemOf(run.plan, { shop: shopKnowing(run.learned) });
  const goesOn = followed(
    { ...problem, jobs: problem.jobs.map((job, i) => ({ ...job, basis: bases[i]! })) },
    table,
    (now - start) / 1000,
  );
  return {
    begunAt: run.begunAt,
    parts: worked.map((one, i) =>
      partOf(run, one, {
        table,
        tasks: goesOn.tasks[i]!,
        learned: learned[i]!,
        basis: bases[i]!,
        beliefs,
        laid,
        now,
        looked: one.plan.part.id === inHand,
      }),
    ),
    air: { factor: Math.exp(air.mean), answers },
    readyAt: goesOn.ready === null ? null : at(goesOn.ready),
    overtime: goesOn.overtime === null ? null : at(goesOn.overtime),
  };
}

interface Today {
  readonly table: Meant;
  readonly tasks: readonly FollowedTask[];
  readonly learned: Learned | null;
  readonly basis: Basis;
  readonly beliefs: ReadonlyMap<string, Belief>;
  readonly laid: readonly Laid[];
  readonly now: number;
  /** Whether it is worked out when to look. */
  readonly looked: boolean;
}

/** What a part would say of a task if it were begun at a moment [s from the plan's start]. */
function notesNow(basis: Basis, { kind, stepId, coat }: PartTask, at: number): Finding[] {
  if (kind === 'prepare' || kind === 'buff' || coat > 0) return [];
  const found = forecast({ ...basis, moments: { [stepId]: { fixed: at } } }).findings;
  return found.filter((one) => one.stepId === stepId && (one.level === 'stop' || one.level === 'warn'));
}

function partOf(run: Run, of: Worked, today: Today): BenchPart {
  const { table, learned, basis, beliefs, laid } = today;
  const partId = of.plan.part.id;
  const start = Date.parse(run.plan.startsAt);
  const at = (moment: number): number => start + moment * 1000;
  const coat = topOf(laid, partId);
  const top: Top | null =
    coat === undefined ? null : { coat, belief: beliefs.get(stepKey(partId, coat.step.id))! };
  let current: BenchTask | null = null;
  const tasks = today.tasks.map((task): BenchTask => {
    const key = keyOf(of.plan.steps, partId, task);
    const done = doneState(run, key, task, partId);
    const state = done ?? (current === null ? 'next' : 'later');
    const planned = table.entries.find(
      ({ kind, partId: part, stepId, coat: own }) =>
        part === partId && kind === task.kind && stepId === task.stepId && own === task.coat,
    );
    const real = run.steps[key];
    const from = real?.begunAt ?? at(task.from);
    const { opens, closes, since, until, ...same } = task;
    const one: BenchTask = {
      ...same,
      key,
      partId,
      state,
      plannedAt: planned === undefined ? null : at(planned.from),
      from,
      until: real?.doneAt ?? at(until),
      since: at(since),
      opens: null,
      closes: null,
      below: null,
      waitsFor: null,
      notes: [],
    };
    if (state !== 'next' && state !== 'doing') return one;
    const step = of.plan.steps.find(({ id }) => id === task.stepId);
    const waitsFor = waitOf(step, task, state, top);
    current = {
      ...one,
      opens: bandOf(at(opens), waitsFor !== null && waitsFor === dueState(step, task) ? top : null),
      closes:
        waitsFor === 'skinned' ? glueCloses(top!, task) : closes === null ? null : bandOf(at(closes), top),
      below: waitsFor === null ? null : top!.coat.step.id,
      waitsFor,
      notes: state === 'next' ? notesNow(basis, task, (today.now - start) / 1000) : [],
    };
    return current;
  });
  return {
    partId,
    tasks,
    film: top === null ? null : filmOf(partId, top, today.looked ? current : null),
    learned,
  };
}

const keyOf = (steps: readonly PlanStep[], partId: string, { kind, stepId, coat }: PartTask): string => {
  const step = steps.find(({ id }) => id === stepId);
  return stepKey(partId, stepId, kind === 'buff' && step !== undefined ? buffCoat(step) : coat);
};

/** What became of a task; null where nothing was told of it. */
function doneState(run: Run, key: string, { topId }: PartTask, partId: string): TaskState | null {
  const own = run.steps[key];
  const last = topId === null ? own : run.steps[stepKey(partId, topId)];
  if (own?.skipped != null) return 'skipped';
  if (last?.doneAt != null) return 'done';
  return own?.begunAt == null ? null : 'doing';
}
