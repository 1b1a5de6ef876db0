import { type Fault, type LogFound, type LogQuery } from '@zaffet/contract';
import { createFeature, createReducer, on } from '@ngrx/store';
import { LogHand, LogServer } from './log.actions';

export interface LogState {
  readonly query: LogQuery;
  /** What was found so far, in its order; null until something was. */
  readonly found: readonly LogFound[] | null;
  readonly count: number;
  readonly behind: number;
  readonly busy: boolean;
  readonly fault: Fault | null;
}

const initial: LogState = { query: {}, found: null, count: 0, behind: 0, busy: false, fault: null };

/** A question without what is free. */
export const asked = (query: LogQuery): LogQuery =>
  Object.fromEntries(Object.entries(query).filter(([, value]) => value !== undefined && value !== ''));

/** The log as it is looked through. */
export const logFeature = createFeature({
  name: 'log',
  reducer: createReducer(
    initial,
    on(LogHand.opened, (state): LogState => ({ ...state, busy: true })),
    on(LogHand.asked, (state, { query }): LogState => ({
      ...state,
      query: asked({ ...state.query, ...query }),
      busy: true,
    })),
    on(LogHand.moreAsked, (state): LogState => ({ ...state, busy: true })),
    on(LogServer.found, (state, { query, answer }): LogState => ({
      ...state,
      found: (query.skip ?? 0) === 0 ? answer.found : [...(state.found ?? []), ...answer.found],
      count: answer.count,
      behind: answer.behind,
      busy: false,
      fault: null,
    })),
    on(LogServer.failed, (state, { fault }): LogState => ({ ...state, busy: false, fault })),
  ),
});
