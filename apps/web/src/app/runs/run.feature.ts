import { createFeature, createReducer, createSelector, on } from '@ngrx/store';
import { type RunEvent, type RunSummary } from '@zaffet/contract';
import { foldRun } from '@zaffet/workshop';
import { BenchHand, RunNotices } from './run.actions';

export interface RunState {
  /** The run on the screen; null while none is. */
  readonly runId: string | null;
  /** Its events, each once, as they came. */
  readonly events: readonly RunEvent[];
  /** Things that were told and are not kept yet. */
  readonly telling: number;
  /** Id of what was told last on this page; null where nothing was. */
  readonly toldLast: string | null;
  /** True once store and server were asked for it. */
  readonly looked: boolean;
  readonly runs: readonly RunSummary[] | null;
  /** The list could not be fetched. */
  readonly away: boolean;
}

const initial: RunState = {
  runId: null,
  events: [],
  telling: 0,
  toldLast: null,
  looked: false,
  runs: null,
  away: false,
};

/** Events with those that are new; the same list where none is. */
function withNew(events: readonly RunEvent[], more: readonly RunEvent[]): readonly RunEvent[] {
  const known = new Set(events.map(({ id }) => id));
  const fresh = more.filter(({ id }) => !known.has(id));
  return fresh.length === 0 ? events : [...events, ...fresh];
}

/** Events of which some got another place in time, once the workshop's clock was known. */
function placed(events: readonly RunEvent[], news: readonly RunEvent[]): readonly RunEvent[] {
  const at = new Map(news.map((event) => [event.id, event]));
  const moved = ({ id, offsetMs }: RunEvent): boolean => at.has(id) && at.get(id)!.offsetMs !== offsetMs;
  return events.some(moved) ? events.map((event) => (moved(event) ? at.get(event.id)! : event)) : events;
}

export const runFeature = createFeature({
  name: 'run',
  reducer: createReducer(
    initial,
    on(BenchHand.runAsked, (state, { runId }) =>
      state.runId === runId ? state : { ...state, runId, events: [], toldLast: null, looked: false },
    ),
    on(BenchHand.runLeft, (state) => ({ ...state, runId: null, events: [], toldLast: null, looked: false })),
    on(BenchHand.told, (state) => ({ ...state, telling: state.telling + 1 })),
    on(RunNotices.kept, (state, { runId, events }) => ({
      ...state,
      telling: state.telling - 1,
      ...(runId === state.runId
        ? { events: withNew(state.events, events), toldLast: events.at(-1)?.id ?? state.toldLast }
        : {}),
    })),
    on(RunNotices.eventsKnown, (state, { runId, events }) =>
      runId === state.runId ? { ...state, events: withNew(placed(state.events, events), events) } : state,
    ),
    on(RunNotices.runLookedFor, (state, { runId }) =>
      runId === state.runId ? { ...state, looked: true } : state,
    ),
    on(RunNotices.runsListed, (state, { runs }) => ({ ...state, runs, away: false })),
    on(RunNotices.runsAway, (state) => ({ ...state, away: true })),
  ),
  extraSelectors: ({ selectEvents }) => ({
    /** How the run stands, folded from its events. */
    selectRun: createSelector(selectEvents, foldRun),
  }),
});
