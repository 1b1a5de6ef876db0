import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { mapResponse } from '@ngrx/operators';
import { type Action, Store } from '@ngrx/store';
import { filter, from, map, switchMap, tap, withLatestFrom } from 'rxjs';
import { faultOf } from '../data/plans.api';
import { ShelfApi } from '../data/shelf.api';
import { changeKey, type ShelfChange, ShelfOutbox, type ShelfSending } from '../data/shelf-outbox';
import { ShelfEditor, ShelfServer } from './shelf.actions';
import { shelfFeature, type ShelfState } from './shelf.feature';

export const loadShelf$ = createEffect(
  (actions = inject(Actions), api = inject(ShelfApi), outbox = inject(ShelfOutbox)) =>
    actions.pipe(
      ofType(ShelfServer.shelfAsked),
      switchMap(() =>
        from(outbox.ready).pipe(
          switchMap(() => api.read()),
          mapResponse({
            next: (shelf) => ShelfServer.loaded({ shelf, unsaved: outbox.all() }),
            error: (error) => ShelfServer.loadFailed({ fault: faultOf(error) }),
          }),
        ),
      ),
    ),
  { functional: true },
);

type Edit = ReturnType<(typeof ShelfEditor)[keyof typeof ShelfEditor]>;

/** What an edit changes for the server; null where there is no shelf to change. */
function changeOf(edit: Edit, { shelf }: ShelfState): ShelfChange | null {
  switch (edit.type) {
    case ShelfEditor.itemPut.type:
      return { put: edit.item };
    case ShelfEditor.itemChanged.type: {
      const item = shelf?.items.find(({ id }) => id === edit.id);
      return item === undefined ? null : { changes: edit.changes, item };
    }
    case ShelfEditor.itemTaken.type:
      return { take: edit.id };
    case ShelfEditor.measuresSet.type:
      return { measures: edit.measures };
  }
}

/** Hands every change to the outbox. */
export const saveShelf$ = createEffect(
  (actions = inject(Actions), store = inject(Store), outbox = inject(ShelfOutbox)) =>
    actions.pipe(
      ofType(ShelfEditor.itemPut, ShelfEditor.itemChanged, ShelfEditor.itemTaken, ShelfEditor.measuresSet),
      withLatestFrom(store.select(shelfFeature.selectShelfState)),
      map(([edit, state]) => (state.shelf === null ? null : changeOf(edit, state))),
      filter((change) => change !== null),
      tap((change) => outbox.put(changeKey(change), change)),
    ),
  { functional: true, dispatch: false },
);

function actionOf(sending: ShelfSending, outbox: ShelfOutbox): Action | null {
  switch (sending.kind) {
    case 'started':
      return null;
    case 'sent':
      return ShelfServer.saved({
        stands: outbox.waiting(sending.key) === null ? sending.answer : null,
        left: outbox.all().length,
      });
    case 'failed':
    case 'refused':
      // What is refused stands on the screen as it was typed; the next change of it is sent again.
      return ShelfServer.saveFailed({ fault: faultOf(sending.error), kept: sending.kept });
  }
}

export const hearOfShelf$ = createEffect(
  (outbox = inject(ShelfOutbox)) =>
    outbox.events$.pipe(
      map((sending) => actionOf(sending, outbox)),
      filter((action) => action !== null),
    ),
  { functional: true },
);

export const retryShelf$ = createEffect(
  (actions = inject(Actions), outbox = inject(ShelfOutbox)) =>
    actions.pipe(
      ofType(ShelfServer.retryAsked),
      tap(() => outbox.flush()),
    ),
  { functional: true, dispatch: false },
);
