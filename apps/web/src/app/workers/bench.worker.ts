import { type RunEvent } from '@zaffet/contract';
import { asksBack } from '@zaffet/core/live';
import { type Schedule } from '@zaffet/core/schedule';
import { beliefNow, type Beliefs, benchOf, foldRun, timetable } from '@zaffet/workshop';
import { expose } from 'comlink';
import { type BenchWorker } from './bench-messages';

const beliefs: Beliefs = new Map();
/** The timetable of a run's beginning, by the event that holds its plan. */
const tables = new Map<string, Schedule>();

function tableOf(events: readonly RunEvent[]): Schedule | null {
  const begun = events.find(({ kind }) => kind === 'run-begun');
  if (begun === undefined) return null;
  let table = tables.get(begun.id);
  if (table === undefined) {
    table = timetable(foldRun([begun])!.plan).table;
    tables.set(begun.id, table);
  }
  return table;
}

const worker: BenchWorker = {
  stand: (events, now, inHand) => {
    const [run, table] = [foldRun(events), tableOf(events)];
    return run === null || table === null ? null : benchOf(run, table, now, beliefs, inHand);
  },
  doubts: (events, { partId, stepId, at, look }) => {
    const run = foldRun(events);
    const belief = run === null ? null : beliefNow(run, partId, stepId, at, beliefs);
    return belief !== null && asksBack(belief.belief, { ...look, since: (at - belief.laidAt) / 1000 });
  },
};

expose(worker);
