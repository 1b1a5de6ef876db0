import { fault, type KeptCalibration } from '@zaffet/contract';
import { type Action } from '@ngrx/store';
import { CalibrationHand, CalibrationServer } from './calibration.actions';
import { calibrationFeature, type CalibrationState } from './calibration.feature';

const kept = (id: number, mean: number | null): KeptCalibration => ({
  id,
  at: '2026-05-12T08:00:00.000Z',
  learned: mean === null ? null : { keys: ['air'], mean: [mean], covariance: [[0.01]], centre: [] },
  runs: [],
  leftOut: [],
});
const run = (...actions: Action[]): CalibrationState =>
  actions.reduce<CalibrationState>(
    (state, action) => calibrationFeature.reducer(state, action),
    calibrationFeature.reducer(undefined, { type: 'init' }),
  );
const learned = (state: CalibrationState): unknown => calibrationFeature.selectLearned.projector(state.kept);

describe('what the shop has learned', () => {
  it('is nothing before it was fetched, and the newest of what was kept from then on', () => {
    expect(learned(run())).toBeNull();
    const loaded = CalibrationServer.loaded({ kept: [kept(2, 0.3), kept(1, 0.1)] });
    expect(learned(run(loaded))).toEqual(kept(2, 0.3).learned);
    expect(learned(run(loaded, CalibrationServer.kept({ calibration: kept(3, null) })))).toBeNull();
  });

  it('stays what it was while a new one is on its way, and when the workshop would not keep it', () => {
    const file = { learned: null, runs: [], leftOut: [] };
    const waiting = run(CalibrationServer.loaded({ kept: [kept(1, 0.1)] }), CalibrationHand.taken({ file }));
    expect([waiting.saving, learned(waiting)]).toEqual([true, kept(1, 0.1).learned]);
    const failed = calibrationFeature.reducer(
      waiting,
      CalibrationServer.failed({ fault: fault('server.failed') }),
    );
    expect([failed.saving, failed.fault?.code, learned(failed)]).toEqual([
      false,
      'server.failed',
      kept(1, 0.1).learned,
    ]);
  });
});
