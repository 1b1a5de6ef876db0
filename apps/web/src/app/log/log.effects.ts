import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { concatLatestFrom } from '@ngrx/operators';
import { Store } from '@ngrx/store';
import { type LogQuery } from '@zaffet/contract';
import { catchError, debounceTime, EMPTY, map, of, switchMap, timer } from 'rxjs';
import { LogApi } from '../data/log.api';
import { faultOf } from '../data/plans.api';
import { LogHand, LogServer } from './log.actions';
import { logFeature } from './log.feature';

/** Letters that come quicker than this are one question [ms]. */
const TYPING = 150;
/** The log is asked again while it still reads runs [ms]. */
const STILL_READING = 1500;

/** What is looked for, as soon as the hand rests; an answer that was overtaken is dropped. */
export const find$ = createEffect(
  (actions = inject(Actions), store = inject(Store), api = inject(LogApi)) =>
    actions.pipe(
      ofType(LogHand.opened, LogHand.asked, LogHand.moreAsked),
      debounceTime(TYPING),
      concatLatestFrom(() => store.select(logFeature.selectLogState)),
      switchMap(([action, { query, found }]) => {
        const told: LogQuery =
          action.type === LogHand.moreAsked.type ? { ...query, skip: found?.length ?? 0 } : query;
        return api.find(told).pipe(
          map((answer) => LogServer.found({ query: told, answer })),
          catchError((error: unknown) => of(LogServer.failed({ fault: faultOf(error) }))),
        );
      }),
    ),
  { functional: true },
);

/** While runs are still being read, what is shown is not all there is. */
export const again$ = createEffect(
  (actions = inject(Actions)) =>
    actions.pipe(
      ofType(LogServer.found),
      switchMap(({ answer }) =>
        answer.behind === 0 ? EMPTY : timer(STILL_READING).pipe(map(() => LogHand.opened())),
      ),
    ),
  { functional: true },
);
