import { inject } from '@angular/core';
import { Router } from '@angular/router';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { mapResponse } from '@ngrx/operators';
import { Store } from '@ngrx/store';
import {
  catchError,
  concatMap,
  debounceTime,
  delay,
  distinctUntilChanged,
  EMPTY,
  exhaustMap,
  filter,
  map,
  of,
  startWith,
  switchMap,
  tap,
  withLatestFrom,
} from 'rxjs';
import { Drafts } from '../data/drafts';
import { currentOf, faultOf, PlansApi } from '../data/plans.api';
import { PlanApi } from './plan.actions';
import { planFeature } from './plan.feature';

/** A pause in the hand's work after which the plan is saved [ms]. */
const SAVE_AFTER = 500;
/** A save that failed is tried again after this [ms]. */
const RETRY_AFTER = 4000;

export const openPlan$ = createEffect(
  (actions = inject(Actions), api = inject(PlansApi), drafts = inject(Drafts)) =>
    actions.pipe(
      ofType(PlanApi.openAsked),
      switchMap(({ id }) =>
        api.read(id).pipe(
          mapResponse({
            next: (saved) => PlanApi.opened({ saved, draft: drafts.find(id) }),
            error: (error) => PlanApi.openFailed({ fault: faultOf(error) }),
          }),
        ),
      ),
    ),
  { functional: true },
);

/** Keeps what is not saved yet in the browser, and drops it once the server has it. */
export const keepDraft$ = createEffect(
  (store = inject(Store), drafts = inject(Drafts)) =>
    store.select(planFeature.selectPlanState).pipe(
      filter((state) => state.id !== null && state.history !== null),
      distinctUntilChanged((a, b) => a.history?.present === b.history?.present && a.save === b.save),
      tap((state) => {
        if (state.id === null || state.history === null) return;
        if (state.save === 'saved') drafts.drop(state.id);
        else drafts.keep(state.id, { plan: state.history.present, revision: state.revision });
      }),
    ),
  { functional: true, dispatch: false },
);

/** Saves after each pause; one save at a time, each from the revision the last one gave. */
export const saveOnEdit$ = createEffect(
  (store = inject(Store), api = inject(PlansApi)) =>
    store.select(planFeature.selectPlanState).pipe(
      // Told apart before it is sieved: a plan that waits again after a failed save is the same plan, and is sent again.
      distinctUntilChanged(
        (a, b) => a.history?.present === b.history?.present && a.revision === b.revision && a.save === b.save,
      ),
      filter((state) => state.save === 'waiting'),
      debounceTime(SAVE_AFTER),
      concatMap(() => of(null).pipe(withLatestFrom(store.select(planFeature.selectPlanState)))),
      concatMap(([, state]) => {
        const { id, history, revision } = state;
        if (id === null || history === null || state.save !== 'waiting') return EMPTY;
        const plan = history.present;
        return api.save(id, revision, plan).pipe(
          mapResponse({
            next: (summary) => PlanApi.saved({ summary, plan }),
            error: (error) => {
              const current = currentOf(error);
              return current === null
                ? PlanApi.saveFailed({ fault: faultOf(error) })
                : PlanApi.saveRefused({ current });
            },
          }),
          startWith(PlanApi.saveStarted({ plan })),
        );
      }),
    ),
  { functional: true },
);

export const retryFailedSave$ = createEffect(
  (actions = inject(Actions)) =>
    actions.pipe(
      ofType(PlanApi.saveFailed),
      delay(RETRY_AFTER),
      map(() => PlanApi.retryAsked()),
    ),
  { functional: true },
);

/** Keeping both: mine becomes a plan of its own, theirs stays. */
export const saveCopy$ = createEffect(
  (actions = inject(Actions), store = inject(Store), api = inject(PlansApi)) =>
    actions.pipe(
      ofType(PlanApi.bothKept),
      withLatestFrom(store.select(planFeature.selectFile)),
      exhaustMap(([, plan]) =>
        plan === null
          ? EMPTY
          : api.create({ ...plan, name: `${plan.name} (mine)`.slice(0, 120) }).pipe(
              map((saved) => PlanApi.copySaved({ saved })),
              catchError((error: unknown) => of(PlanApi.saveFailed({ fault: faultOf(error) }))),
            ),
      ),
    ),
  { functional: true },
);

export const showCopy$ = createEffect(
  (actions = inject(Actions), router = inject(Router), drafts = inject(Drafts), store = inject(Store)) =>
    actions.pipe(
      ofType(PlanApi.copySaved),
      withLatestFrom(store.select(planFeature.selectId)),
      tap(([{ saved }, id]) => {
        if (id !== null) drafts.drop(id);
        void router.navigate(['/plan', saved.id, 'layers']);
      }),
    ),
  { functional: true, dispatch: false },
);
