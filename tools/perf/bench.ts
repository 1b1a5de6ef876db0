import { filePlan, type RunBodies, type RunEvent, type RunEventKind } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { basisOf, type Beliefs, benchOf, foldRun, partPlan, timetable } from '@zaffet/workshop';
import { manyParts } from '../../packages/workshop/src/testing/manyParts';
import { line, type PerfLine, race } from './report';

const RUNS = 60;
const MINUTE = 60_000;

/** A piece of so many parts of which the first coat is laid everywhere. */
function underWay(parts: number): { events: RunEvent[]; of: ReturnType<typeof timetable>; start: number } {
  const made = manyParts(3, parts);
  const plan = { ...made, timing: { ...made.timing, prepares: false } };
  const start = Date.parse(plan.startsAt);
  let n = 0;
  const told = <Kind extends RunEventKind>(minute: number, kind: Kind, body: RunBodies[Kind]): RunEvent => {
    n += 1;
    const at = new Date(start + minute * MINUTE).toISOString();
    return { id: `e${n}`, device: 'd', n, at, offsetMs: 0, kind, ...body } as unknown as RunEvent;
  };
  const events = [told(0, 'run-begun', { planId: null, plan: filePlan(plan) })];
  plan.piece.parts.forEach(({ id, finish }, i) => {
    const step = plan.finishes.find((one) => one.id === finish)!.steps[0]!;
    events.push(told(3 * i, 'done', { partId: id, stepId: step.id, coat: 0, minutesAgo: 0 }));
  });
  return { events, of: timetable(plan), start };
}

/** From an answer to how everything stands after it, as the bench's thread works it out. */
function answerLine(parts: number): PerfLine {
  const { events, of, start } = underWay(parts);
  const run = foldRun(events)!;
  const first = run.plan.piece.parts[0]!;
  const stepId = run.plan.finishes.find(({ id }) => id === first.finish)!.steps[0]!.id;
  const known: Beliefs = new Map();
  const at = start + (3 * parts + 20) * MINUTE;
  benchOf(run, of.table, at, known);
  const basis = basisOf(partPlan(run.plan, first.id));
  let n = 1000;
  const { subject, reference } = race(
    RUNS,
    () => {
      n += 1;
      const body = {
        partId: first.id,
        stepId,
        coat: 0,
        minutesAgo: 0,
        after: null,
        before: 'recoat',
        now: false,
      };
      const seen = {
        ...{ id: `s${n}`, device: 'd', n, at: new Date(at + n * 1000).toISOString(), offsetMs: 0 },
        ...{ kind: 'seen', ...body, places: 'most' },
      } as unknown as RunEvent;
      benchOf(foldRun([...events, seen])!, of.table, at + n * 1000, known, first.id);
    },
    () => void forecast(basis),
  );
  return line(
    `bench.answer.${parts}`,
    'ms',
    subject,
    reference,
    RUNS,
    'an answer to how all stands; reference: one forecast',
  );
}

export const benchLines: Record<string, () => PerfLine> = Object.fromEntries(
  [1, 5, 12].map((parts) => [`bench.answer.${parts}`, () => answerLine(parts)]),
);
