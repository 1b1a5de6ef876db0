import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { mapResponse } from '@ngrx/operators';
import { Store } from '@ngrx/store';
import {
  concatMap,
  debounceTime,
  delay,
  distinctUntilChanged,
  EMPTY,
  filter,
  map,
  type Observable,
  of,
  switchMap,
  tap,
  withLatestFrom,
} from 'rxjs';
import { Drafts } from '../data/drafts';
import { faultOf } from '../data/plans.api';
import { ShelfApi } from '../data/shelf.api';
import { ShelfServer } from './shelf.actions';
import { type Change, shelfFeature } from './shelf.feature';

/** A pause in typing after which a change is saved [ms]. */
const SAVE_AFTER = 400;
/** A save that failed is tried again after this [ms]. */
const RETRY_AFTER = 4000;

export const loadShelf$ = createEffect(
  (actions = inject(Actions), api = inject(ShelfApi), drafts = inject(Drafts)) =>
    actions.pipe(
      ofType(ShelfServer.shelfAsked),
      switchMap(() =>
        api.read().pipe(
          mapResponse({
            next: (shelf) => ShelfServer.loaded({ shelf, unsaved: drafts.findShelf() }),
            error: (error) => ShelfServer.loadFailed({ fault: faultOf(error) }),
          }),
        ),
      ),
    ),
  { functional: true },
);

/** Keeps what is not saved yet in the browser. */
export const keepShelf$ = createEffect(
  (store = inject(Store), drafts = inject(Drafts)) =>
    store.select(shelfFeature.selectShelfState).pipe(
      filter(({ shelf }) => shelf !== null),
      map(({ unsaved }) => unsaved),
      distinctUntilChanged(),
      tap((unsaved) => drafts.keepShelf(unsaved)),
    ),
  { functional: true, dispatch: false },
);

function sent(api: ShelfApi, change: Change): Observable<unknown> {
  if ('put' in change) return api.put(change.put);
  return 'take' in change ? api.take(change.take) : api.measure(change.measures);
}

/** Sends one change after the other. */
export const saveShelf$ = createEffect(
  (store = inject(Store), api = inject(ShelfApi)) =>
    store.select(shelfFeature.selectShelfState).pipe(
      // Told apart before it is sieved, so that what failed once is sent again.
      distinctUntilChanged((a, b) => a.unsaved === b.unsaved && a.fault === b.fault),
      filter(({ shelf, unsaved, fault }) => shelf !== null && unsaved.length > 0 && fault === null),
      debounceTime(SAVE_AFTER),
      concatMap(() => of(null).pipe(withLatestFrom(store.select(shelfFeature.selectUnsaved)))),
      concatMap(([, unsaved]) => {
        const change = unsaved[0];
        if (change === undefined) return EMPTY;
        return sent(api, change).pipe(
          mapResponse({
            next: () => ShelfServer.saved({ change }),
            error: (error) => {
              const fault = faultOf(error);
              // What the server will never take is not sent again and again.
              return fault.code === 'server.failed'
                ? ShelfServer.saveFailed({ fault })
                : ShelfServer.saveRefused({ fault, change });
            },
          }),
        );
      }),
    ),
  { functional: true },
);

export const retryShelf$ = createEffect(
  (actions = inject(Actions)) =>
    actions.pipe(
      ofType(ShelfServer.saveFailed),
      delay(RETRY_AFTER),
      map(() => ShelfServer.retryAsked()),
    ),
  { functional: true },
);
