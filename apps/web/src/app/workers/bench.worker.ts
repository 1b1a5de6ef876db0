import { type RunEvent } from '@zaffet/contract';
import { asksBack } from '@zaffet/core/live';
import {
  beliefNow,
  type Beliefs,
  benchOf,
  foldRun,
  mixing,
  shopKnowing,
  type Run,
  type Timed,
  timetable,
} from '@zaffet/workshop';
import { expose } from 'comlink';
import { type BenchWorker } from './bench-messages';

const beliefs: Beliefs = new Map();
/** The timetable of a run's beginning, by the event that holds its plan. */
const begun = new Map<string, { readonly run: Run; readonly timed: Timed }>();

function beginningOf(events: readonly RunEvent[]): { readonly run: Run; readonly timed: Timed } | null {
  const first = events.find(({ kind }) => kind === 'run-begun');
  if (first === undefined) return null;
  let known = begun.get(first.id);
  if (known === undefined) {
    const run = foldRun([first])!;
    begun.set(first.id, (known = { run, timed: timetable(run.plan, { shop: shopKnowing(run.learned) }) }));
  }
  return known;
}

const worker: BenchWorker = {
  stand: (events, now, inHand) => {
    const [run, beginning] = [foldRun(events), beginningOf(events)];
    return run === null || beginning === null
      ? null
      : benchOf(run, beginning.timed.table, now, beliefs, inHand);
  },
  mixes: (events, shelf) => {
    const beginning = beginningOf(events);
    return beginning === null ? null : mixing(beginning.run.plan, shelf, beginning.timed);
  },
  doubts: (events, { partId, stepId, at, look }) => {
    const run = foldRun(events);
    const belief = run === null ? null : beliefNow(run, partId, stepId, at, beliefs);
    return belief !== null && asksBack(belief.belief, { ...look, since: (at - belief.laidAt) / 1000 });
  },
};

expose(worker);
