import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { mapResponse } from '@ngrx/operators';
import { concatMap, switchMap } from 'rxjs';
import { CalibrationApi } from '../data/calibration.api';
import { faultOf } from '../data/plans.api';
import { CalibrationHand, CalibrationServer } from './calibration.actions';

export const loadCalibrations$ = createEffect(
  (actions = inject(Actions), api = inject(CalibrationApi)) =>
    actions.pipe(
      ofType(CalibrationHand.asked),
      switchMap(() =>
        api.read().pipe(
          mapResponse({
            next: (kept) => CalibrationServer.loaded({ kept }),
            error: (error) => CalibrationServer.failed({ fault: faultOf(error) }),
          }),
        ),
      ),
    ),
  { functional: true },
);

export const keepCalibration$ = createEffect(
  (actions = inject(Actions), api = inject(CalibrationApi)) =>
    actions.pipe(
      ofType(CalibrationHand.taken),
      concatMap(({ file }) =>
        api.keep(file).pipe(
          mapResponse({
            next: (calibration) => CalibrationServer.kept({ calibration }),
            error: (error) => CalibrationServer.failed({ fault: faultOf(error) }),
          }),
        ),
      ),
    ),
  { functional: true },
);
