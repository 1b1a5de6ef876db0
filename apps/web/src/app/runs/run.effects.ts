import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { catchError, concatMap, from, map, merge, Observable, of, switchMap, takeUntil } from 'rxjs';
import { BenchHand, RunNotices } from './run.actions';
import { RunBox } from './run-box';

/** What this device knows at once, then what the server has, then whatever others tell as long as the run is open. */
export const openRun$ = createEffect(
  (actions = inject(Actions), box = inject(RunBox)) =>
    actions.pipe(
      ofType(BenchHand.runAsked),
      switchMap(({ runId }) =>
        from(box.known(runId)).pipe(
          switchMap((events) =>
            merge(
              of(RunNotices.eventsKnown({ runId, events })),
              from(box.fetch(runId)).pipe(
                catchError(() => of(undefined)),
                map(() => RunNotices.runLookedFor({ runId })),
              ),
              new Observable<never>(() => box.follow(runId)),
            ),
          ),
          takeUntil(actions.pipe(ofType(BenchHand.runLeft))),
        ),
      ),
    ),
  { functional: true },
);

/** Each thing in the order it was told. */
export const tell$ = createEffect(
  (actions = inject(Actions), box = inject(RunBox)) =>
    actions.pipe(
      ofType(BenchHand.told),
      concatMap(({ runId, tellings }) =>
        from(box.tell(runId, tellings)).pipe(map((events) => RunNotices.kept({ runId, events }))),
      ),
    ),
  { functional: true },
);

export const hearOfRuns$ = createEffect(
  (box = inject(RunBox)) =>
    box.news$.pipe(map(({ runId, events }) => RunNotices.eventsKnown({ runId, events }))),
  { functional: true },
);

export const listRuns$ = createEffect(
  (actions = inject(Actions), box = inject(RunBox)) =>
    actions.pipe(
      ofType(BenchHand.runsAsked),
      switchMap(() =>
        from(box.runs()).pipe(
          map((runs) => RunNotices.runsListed({ runs })),
          catchError(() => of(RunNotices.runsAway())),
        ),
      ),
    ),
  { functional: true },
);
