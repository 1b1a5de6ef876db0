import { type CalibrationFile, type Fault, type KeptCalibration } from '@zaffet/contract';
import { createActionGroup, emptyProps, props } from '@ngrx/store';

/** What a person decided of what the shop has learned. */
export const CalibrationHand = createActionGroup({
  source: 'Calibration',
  events: {
    Asked: emptyProps(),
    /** To be used from now on; also to go back to what held before. */
    Taken: props<{ file: CalibrationFile }>(),
  },
});

export const CalibrationServer = createActionGroup({
  source: 'Calibration server',
  events: {
    Loaded: props<{ kept: readonly KeptCalibration[] }>(),
    Kept: props<{ calibration: KeptCalibration }>(),
    Failed: props<{ fault: Fault }>(),
  },
});
