import { type Fault, type KeptCalibration } from '@zaffet/contract';
import { createFeature, createReducer, createSelector, on } from '@ngrx/store';
import { CalibrationHand, CalibrationServer } from './calibration.actions';

export interface CalibrationState {
  /** The newest first; null until they were fetched. */
  readonly kept: readonly KeptCalibration[] | null;
  readonly saving: boolean;
  readonly fault: Fault | null;
}

const initial: CalibrationState = { kept: null, saving: false, fault: null };

/** What the shop has learned: the newest calibration holds, everywhere. */
export const calibrationFeature = createFeature({
  name: 'calibration',
  reducer: createReducer(
    initial,
    on(CalibrationHand.taken, (state): CalibrationState => ({ ...state, saving: true, fault: null })),
    on(CalibrationServer.loaded, (state, { kept }): CalibrationState => ({ ...state, kept, fault: null })),
    on(CalibrationServer.kept, (state, { calibration }): CalibrationState => ({
      kept: [calibration, ...(state.kept ?? [])],
      saving: false,
      fault: null,
    })),
    on(CalibrationServer.failed, (state, { fault }): CalibrationState => ({
      ...state,
      saving: false,
      fault,
    })),
  ),
  extraSelectors: ({ selectKept }) => ({
    selectLearned: createSelector(selectKept, (kept) => kept?.[0]?.learned ?? null),
  }),
});
