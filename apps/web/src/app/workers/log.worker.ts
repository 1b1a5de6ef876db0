import { compareRun, keptOf } from '@zaffet/workshop';
import { expose } from 'comlink';
import { type LogWorker } from './log-messages';

const worker: LogWorker = {
  compare: ({ events }, learned) => compareRun(events, learned),
  kept: (runs) => runs.flatMap(({ id, events }) => keptOf(id, events)),
};

expose(worker);
