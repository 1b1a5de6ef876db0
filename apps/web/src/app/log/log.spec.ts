import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideEffects } from '@ngrx/effects';
import { provideState, provideStore, Store } from '@ngrx/store';
import { type LogAnswer, type LogFound, type LogQuery } from '@zaffet/contract';
import { type Observable, of, Subject, throwError } from 'rxjs';
import { LogApi } from '../data/log.api';
import { LogHand } from './log.actions';
import * as effects from './log.effects';
import { asked, logFeature } from './log.feature';

const entry = (runId: string): LogFound => ({ runId, name: runId }) as LogFound;
const answer = (count: number, ...ids: string[]): LogAnswer => ({ found: ids.map(entry), count, behind: 0 });
const rest = (ms = 220): Promise<void> => new Promise((go) => setTimeout(go, ms));

describe('what is looked for in the log', () => {
  let queries: LogQuery[];
  let answers: (query: LogQuery) => Observable<LogAnswer>;
  let store: Store;
  const state = (): ReturnType<typeof logFeature.selectLogState> =>
    store.selectSignal(logFeature.selectLogState)();

  beforeEach(() => {
    queries = [];
    answers = () => of(answer(1, 'a'));
    const find = (query: LogQuery): Observable<LogAnswer> => {
      queries.push(query);
      return answers(query);
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(logFeature),
        provideEffects(effects),
        { provide: LogApi, useValue: { find } },
      ],
    });
    store = TestBed.inject(Store);
  });

  it('is asked for once the hand rests, with all that was told and nothing that is free', async () => {
    store.dispatch(LogHand.asked({ query: { words: 'wa' } }));
    store.dispatch(LogHand.asked({ query: { words: 'wax' } }));
    store.dispatch(LogHand.asked({ query: { school: 'wet-glue', medium: undefined } }));
    expect(state().busy).toBeTrue();
    await rest();
    expect(queries).toEqual([{ words: 'wax', school: 'wet-glue' }]);
    expect(state().found!.map(({ runId }) => runId)).toEqual(['a']);
    expect(state().busy).toBeFalse();
    store.dispatch(LogHand.asked({ query: { words: '' } }));
    expect(state().query).toEqual({ school: 'wet-glue' });
    expect(asked({ words: undefined, skip: 0 })).toEqual({ skip: 0 });
  });

  it('goes on after what was found, and begins anew with another question', async () => {
    answers = ({ skip }) => of(skip === 1 ? answer(2, 'b') : answer(2, 'a'));
    store.dispatch(LogHand.opened());
    await rest();
    store.dispatch(LogHand.moreAsked());
    await rest();
    expect(queries.at(-1)).toEqual({ skip: 1 });
    expect(state().found!.map(({ runId }) => runId)).toEqual(['a', 'b']);
    store.dispatch(LogHand.asked({ query: { words: 'x' } }));
    await rest();
    expect(state().found!.map(({ runId }) => runId)).toEqual(['a']);
  });

  it('drops an answer that was overtaken', async () => {
    const slow = new Subject<LogAnswer>();
    answers = ({ words }) => (words === 'slow' ? slow : of(answer(1, 'quick')));
    store.dispatch(LogHand.asked({ query: { words: 'slow' } }));
    await rest();
    store.dispatch(LogHand.asked({ query: { words: 'quick' } }));
    await rest();
    slow.next(answer(1, 'slow'));
    expect(state().found!.map(({ runId }) => runId)).toEqual(['quick']);
  });

  it('keeps what was found where the workshop is away, and says so', async () => {
    store.dispatch(LogHand.opened());
    await rest();
    answers = () => throwError(() => new Error('away'));
    store.dispatch(LogHand.asked({ query: { words: 'x' } }));
    await rest();
    expect(state().fault).not.toBeNull();
    expect(state().found!.map(({ runId }) => runId)).toEqual(['a']);
    expect(state().busy).toBeFalse();
  });

  it('asks again while the log still reads runs', async () => {
    let left = 1;
    answers = () => of({ ...answer(1, 'a'), behind: left-- });
    store.dispatch(LogHand.opened());
    await rest(2200);
    expect(queries.length).toBe(2);
    expect(state().behind).toBe(0);
  });
});
