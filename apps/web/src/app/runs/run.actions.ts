import { createActionGroup, emptyProps, props } from '@ngrx/store';
import { type RunEvent, type RunSummary } from '@zaffet/contract';
import { type Telling } from './run-store';

/** What a person does at the bench. */
export const BenchHand = createActionGroup({
  source: 'Bench hand',
  events: {
    'Run asked': props<{ runId: string }>(),
    'Run left': emptyProps(),
    'Runs asked': emptyProps(),
    /** What happened, one thing or several at once. */
    Told: props<{ runId: string; tellings: readonly Telling[] }>(),
  },
});

/** What this device's store and the server say of runs. */
export const RunNotices = createActionGroup({
  source: 'Run notices',
  events: {
    /** What was told is kept, as these events. */
    Kept: props<{ runId: string; events: readonly RunEvent[] }>(),
    'Events known': props<{ runId: string; events: readonly RunEvent[] }>(),
    'Runs listed': props<{ runs: readonly RunSummary[] }>(),
    'Runs away': emptyProps(),
    /** All that can be found of a run is here; nothing where it is unknown. */
    'Run looked for': props<{ runId: string }>(),
  },
});
