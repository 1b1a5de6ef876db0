import { inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Router } from '@angular/router';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { mapResponse } from '@ngrx/operators';
import { type Action, Store } from '@ngrx/store';
import { plainText, type Plan } from '@zaffet/contract';
import { type Schedule } from '@zaffet/core/schedule';
import equal from 'fast-deep-equal';
import {
  catchError,
  distinctUntilChanged,
  EMPTY,
  exhaustMap,
  filter,
  from,
  map,
  Observable,
  of,
  pairwise,
  startWith,
  switchMap,
  take,
  tap,
  withLatestFrom,
  debounceTime,
} from 'rxjs';
import { Clock } from '../data/clock';
import { PlanOutbox, type PlanSending } from '../data/plan-outbox';
import { currentOf, faultOf, PlansApi } from '../data/plans.api';
import { Latest } from '../workers/thread';
import { Timetables } from '../workers/timetables';
import { movedMoments } from './moved-moments';
import { PlanApi, PlanEditor } from './plan.actions';
import { UndoStore } from '../data/undo-store';
import { planFeature } from './plan.feature';

export const openPlan$ = createEffect(
  (
    actions = inject(Actions),
    api = inject(PlansApi),
    outbox = inject(PlanOutbox),
    timetables = inject(Timetables),
    undoStore = inject(UndoStore),
  ) =>
    actions.pipe(
      ofType(PlanApi.openAsked),
      switchMap(({ id }) =>
        from(outbox.settled(id)).pipe(
          switchMap(() => api.read(id)),
          // With its timetable at once: moments that come a moment later would move all that is seen.
          switchMap(async (saved) => {
            const waiting = outbox.waiting(id);
            // What was sent as the window closed may have come through.
            const through = waiting !== null && equal(waiting.plan, saved.plan);
            if (through) outbox.drop(id);
            const draft = through ? null : waiting;
            const plan = draft?.plan ?? saved.plan;
            const [table, undo] = await Promise.all([
              timetables.time(plan).catch(() => null),
              undoStore.read(id, plan),
            ]);
            return { saved, draft, table, undo };
          }),
          mapResponse({
            next: (opened) => PlanApi.opened(opened),
            error: (error) => PlanApi.openFailed({ fault: faultOf(error) }),
          }),
        ),
      ),
    ),
  { functional: true },
);

/** Times every plan anew as it changes; of changes that come meanwhile only the last. */
export const timePlan$ = createEffect(
  (store = inject(Store), timetables = inject(Timetables)) =>
    new Observable<Action>((out) => {
      const latest = new Latest<Plan, Schedule>((plan) => timetables.time(plan));
      return store
        .select(planFeature.selectPlanState)
        .pipe(
          map(({ history, timed, untimed }) => {
            const plan = history?.present ?? null;
            return plan === timed?.of || plan === untimed ? null : plan;
          }),
          distinctUntilChanged(),
          filter((plan) => plan !== null),
        )
        .subscribe((plan) =>
          latest.put(
            plan,
            (table) => out.next(PlanApi.timed({ plan, table })),
            () => out.next(PlanApi.timingFailed({ plan })),
          ),
        );
    }),
  { functional: true },
);

/** Quiet time before what can be undone is stored [ms]. */
const QUIET = 300;

/** Keeps what can be undone over a reload. */
export const keepUndo$ = createEffect(
  (store = inject(Store), undoStore = inject(UndoStore)) =>
    store.select(planFeature.selectPlanState).pipe(
      distinctUntilChanged((a, b) => a.history === b.history),
      debounceTime(QUIET),
      tap(({ id, history }) => {
        if (id !== null && history !== null) void undoStore.keep(id, history.present, history);
      }),
    ),
  { functional: true, dispatch: false },
);

/** Hands every change to the outbox; what a person has to decide first is kept there, not sent. */
export const saveOnEdit$ = createEffect(
  (store = inject(Store), outbox = inject(PlanOutbox)) =>
    store.select(planFeature.selectPlanState).pipe(
      distinctUntilChanged(
        (a, b) => a.history?.present === b.history?.present && a.saveId === b.saveId && a.save === b.save,
      ),
      tap(({ id, history, saveId, save }) => {
        if (id === null || history === null) return;
        const body = { plan: history.present, saveId };
        if (save === 'waiting') outbox.put(id, body);
        else if (save === 'stale' || save === 'gone') outbox.hold(id, body);
      }),
    ),
  { functional: true, dispatch: false },
);

function actionOf(sending: PlanSending): Action {
  const { key: id } = sending;
  switch (sending.kind) {
    case 'started':
      return PlanApi.saveStarted({ id });
    case 'sent':
      return PlanApi.saved({ id, summary: sending.answer, plan: sending.body.plan });
    case 'failed':
      return PlanApi.saveFailed({ id, fault: faultOf(sending.error), kept: sending.kept });
    case 'refused': {
      const { error, kept } = sending;
      const current = currentOf(error);
      if (current !== null) return PlanApi.saveRefused({ id, current });
      const fault = faultOf(error);
      return fault.code === 'plan.not-found'
        ? PlanApi.planGone({ id, kept })
        : PlanApi.saveInvalid({ id, fault, kept });
    }
  }
}

/** Tells the open plan what came of its saves. */
export const hearOfSaves$ = createEffect(
  (outbox = inject(PlanOutbox)) => outbox.events$.pipe(map(actionOf)),
  { functional: true },
);

export const retryNow$ = createEffect(
  (actions = inject(Actions), outbox = inject(PlanOutbox)) =>
    actions.pipe(
      ofType(PlanApi.retryAsked),
      tap(() => outbox.flush()),
    ),
  { functional: true, dispatch: false },
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
          : api.create({ ...plan, name: copyName(plan.name) }).pipe(
              map((saved) => PlanApi.copySaved({ saved })),
              catchError((error: unknown) => of(PlanApi.copyFailed({ fault: faultOf(error) }))),
            ),
      ),
    ),
  { functional: true },
);

const MINE = ' (mine)';
const copyName = (name: string): string => plainText(name, 120 - MINE.length) + MINE;

/** What was mine is a plan of its own now, or is not wanted any more: nothing of it waits. */
export const leaveMine$ = createEffect(
  (actions = inject(Actions), router = inject(Router), outbox = inject(PlanOutbox), store = inject(Store)) =>
    actions.pipe(
      ofType(PlanApi.copySaved, PlanApi.mineDropped, PlanApi.theirsTaken),
      withLatestFrom(store.select(planFeature.selectId)),
      tap(([action, id]) => {
        if (id !== null) outbox.drop(id);
        if (action.type === PlanApi.copySaved.type)
          void router.navigate(['/plan', action.saved.id, 'layers']);
        else if (action.type === PlanApi.mineDropped.type) void router.navigate(['/plans']);
      }),
    ),
  { functional: true, dispatch: false },
);

/** Steps an edit of the order is about. */
const touchedBy = (action: ReturnType<(typeof ORDER)[number]>): readonly string[] => {
  if ('step' in action) return [action.step.id];
  if ('steps' in action) return action.steps.map(({ id }) => id);
  return 'stepIds' in action ? action.stepIds : [action.stepId];
};
const ORDER = [
  PlanEditor.stepAdded,
  PlanEditor.stepsPasted,
  PlanEditor.stepsRemoved,
  PlanEditor.stepsMoved,
  PlanEditor.stepPlaced,
  PlanEditor.stepChanged,
] as const;

/** Says at once what an edit of the order did to the moments of the other steps, with a way back. */
export const tellMovedMoments$ = createEffect(
  (actions = inject(Actions), store = inject(Store), snack = inject(MatSnackBar), clock = inject(Clock)) => {
    const forecasts = store.select(planFeature.selectForecast).pipe(startWith(null), pairwise());
    return actions.pipe(
      ofType(...ORDER),
      filter((action) => !('edit' in action) || 'off' in action.edit.changes),
      withLatestFrom(forecasts),
      // Told once the hands of all parts are counted in.
      switchMap(([action, [before]]) =>
        store.select(planFeature.selectTimedNow).pipe(
          filter(Boolean),
          take(1),
          withLatestFrom(store.select(planFeature.selectForecast), store.select(planFeature.selectPlan)),
          map(([, after, plan]) => ({ action, before, after, plan })),
        ),
      ),
      tap(({ action, before, after, plan }) => {
        if (before === null || after === null || plan === null) return;
        const text = movedMoments(before.times, after.times, touchedBy(action), plan, clock);
        if (text === '') return;
        snack
          .open(text, 'Undo', { duration: 9000, horizontalPosition: 'end' })
          .onAction()
          .subscribe(() => store.dispatch(PlanEditor.undoAsked()));
      }),
    );
  },
  { functional: true, dispatch: false },
);
