import { fault, type Plan } from '@zaffet/contract';
import { type PartPlan, partPlan } from '@zaffet/workshop';
import { type Action } from '@ngrx/store';
import { filmOf, samplePlan, savedPlan } from '../testing/plan';
import { PlanApi, PlanEditor } from './plan.actions';
import { planFeature, type PlanState } from './plan.feature';

const run = (...actions: Action[]): PlanState =>
  actions.reduce<PlanState>(
    (state, action) => planFeature.reducer(state, action),
    planFeature.reducer(undefined, { type: 'init' }),
  );
const opened = PlanApi.opened({ saved: savedPlan(), draft: null, table: null, undo: null });
const thicker = (thicknessUm: number, gesture: string | null = null): Action =>
  PlanEditor.stepChanged({ stepId: 'top', edit: { fits: 'film', changes: { thicknessUm } }, gesture });
const planOf = (state: PlanState): Plan => state.history!.present;
const partOf = (state: PlanState): PartPlan => partPlan(planOf(state), state.partId, state.finishId);

describe('plan state', () => {
  it('waits to be saved after an edit, undo or redo, and not otherwise', () => {
    expect(run(opened).save).toBe('saved');
    expect(run(opened, thicker(123)).save).toBe('waiting');
    expect(run(opened, PlanEditor.stepSelected({ stepId: 'top' })).save).toBe('saved');
    expect(run(opened, PlanEditor.undoAsked()).save).toBe('saved');
  });

  it('undoes a drag as one step', () => {
    const state = run(
      opened,
      thicker(110, 'drag'),
      thicker(120, 'drag'),
      thicker(130, 'drag'),
      PlanEditor.gestureEnded(),
      PlanEditor.undoAsked(),
    );
    expect(planOf(state)).toEqual(samplePlan());
    expect(state.history!.future.length).toBe(1);
  });

  it('is saved only when the saved plan is still the one on the screen', () => {
    const edited = run(opened, thicker(120));
    const summary = {
      id: 'plan-1',
      name: 'Sample',
      revision: 2,
      saveId: 'save-2',
      savedAt: '2026-05-12T09:00:00.000Z',
    };
    const plan = planOf(edited);
    const saved = planFeature.reducer(edited, PlanApi.saved({ id: 'plan-1', summary, plan }));
    expect([saved.save, saved.saveId]).toEqual(['saved', 'save-2']);
    const moved = planFeature.reducer(edited, thicker(125));
    expect(planFeature.reducer(moved, PlanApi.saved({ id: 'plan-1', summary, plan })).save).toBe('waiting');
  });

  it('takes up a draft that grew from what the server has', () => {
    const draft = { plan: { ...samplePlan(), name: 'Typed before the crash' }, saveId: 'save-1' };
    const state = run(PlanApi.opened({ saved: savedPlan(), draft, table: null, undo: null }));
    expect(planOf(state).name).toBe('Typed before the crash');
    expect(state.save).toBe('waiting');
    expect(planOf(planFeature.reducer(state, PlanEditor.undoAsked())).name).toBe('Sample');
  });

  it('keeps mine and theirs apart until the person chooses', () => {
    const theirs = savedPlan({ ...samplePlan(), name: 'Theirs' }, 5);
    const mine = { ...samplePlan(), name: 'Mine' };
    const stale = run(
      PlanApi.opened({ saved: theirs, draft: { plan: mine, saveId: 'save-1' }, table: null, undo: null }),
    );
    expect([stale.save, planOf(stale).name, stale.theirs!.name]).toEqual(['stale', 'Mine', 'Theirs']);
    // An edit meanwhile is kept, and still not saved over theirs.
    expect(planFeature.reducer(stale, thicker(99)).save).toBe('stale');
    const kept = planFeature.reducer(stale, PlanApi.mineKept());
    expect([kept.save, kept.saveId, planOf(kept).name]).toEqual(['waiting', 'save-5', 'Mine']);
    const taken = planFeature.reducer(stale, PlanApi.theirsTaken());
    expect([taken.save, taken.saveId, planOf(taken).name]).toEqual(['saved', 'save-5', 'Theirs']);
  });

  it('keeps the plan when a save fails, and tries again', () => {
    const failed = run(
      opened,
      thicker(120),
      PlanApi.saveFailed({ id: 'plan-1', fault: fault('server.failed'), kept: true }),
    );
    expect(failed.save).toBe('failed');
    expect(filmOf(partOf(failed), 2).thicknessUm).toBe(120);
    expect(planFeature.reducer(failed, PlanApi.retryAsked()).save).toBe('waiting');
  });

  it('changes look, name, part, air and pattern as edits', () => {
    const state = run(
      opened,
      PlanEditor.lookChanged({ changes: { spacingMm: 4 } }),
      PlanEditor.planRenamed({ name: 'Renamed' }),
      PlanEditor.partChanged({ partId: 'panel', changes: { widthMm: 321 }, gesture: null }),
      PlanEditor.airChanged({ changes: { humidity: 0.6 }, gesture: null }),
      PlanEditor.patternRerolled({ seed: 99 }),
    );
    const plan = planOf(state);
    expect([
      plan.finishes[0]!.look.spacingMm,
      plan.name,
      plan.piece.parts[0]!.widthMm,
      plan.air.humidity,
      plan.seed,
    ]).toEqual([4, 'Renamed', 321, 0.6, 99]);
    expect(state.history!.past.length).toBe(5);
  });
});

describe('the bench', () => {
  it('holds the part chosen and the what-if tried on it; edits go to that finish', () => {
    const begun = run(
      opened,
      PlanEditor.whatIfBegun({ finishId: 'more', name: 'More', stepIds: ['a', 'b', 'c'] }),
      PlanEditor.stepChanged({
        stepId: 'b',
        edit: { fits: 'film', changes: { thicknessUm: 222 } },
        gesture: null,
      }),
    );
    expect(filmOf(partOf(begun), 1).thicknessUm).toBe(222);
    const back = planFeature.reducer(begun, PlanEditor.finishChosen({ finishId: null }));
    expect(filmOf(partOf(back), 1).thicknessUm).not.toBe(222);
    const taken = planFeature.reducer(begun, PlanEditor.whatIfTaken({ finishId: 'more' }));
    expect(filmOf(partOf(taken), 1).thicknessUm).toBe(222);
    expect(taken.finishId).toBeNull();
  });

  it('paints on the part in hand alone', () => {
    const part = samplePlan().piece.parts[0]!;
    const map = { columns: 1, rows: 1, percent: [60] };
    const state = run(
      opened,
      PlanEditor.partsAdded({ parts: [{ ...part, id: 'front', name: 'Front' }] }),
      PlanEditor.mapPainted({ stepId: 'slip', map, changes: {}, gesture: null }),
    );
    expect(planOf(state).piece.parts.map(({ maps }) => maps)).toEqual([{}, { slip: map }]);
    expect(partOf(state).part.id).toBe('front');
  });
});

describe('derived values', () => {
  it('follow the plan: a thicker top coat, a wider spacing, in the forecast', () => {
    const spacing = (state: PlanState): number =>
      planFeature.selectForecast({ plan: state })!.whole.crack!.spacing;
    expect(spacing(run(opened, thicker(200)))).toBeGreaterThan(spacing(run(opened)));
  });

  it('are not computed anew for a name, a price, a wish, the palette or a part’s name', () => {
    const before = run(opened);
    const computed = (state: PlanState): unknown => {
      const store = { plan: state };
      return [planFeature.selectForecast(store), planFeature.selectBasis(store)];
    };
    const [forecast, basis] = computed(before) as [unknown, unknown];
    const partId = samplePlan().piece.parts[0]!.id;
    for (const action of [
      PlanEditor.planRenamed({ name: 'Another' }),
      PlanEditor.pieceRenamed({ name: 'Another piece' }),
      PlanEditor.priceChanged({ medium: 'chalk', price: 12 }),
      PlanEditor.lookChanged({ changes: { spacingMm: 4 } }),
      PlanEditor.paletteChanged({
        palette: [{ id: 'p', name: 'Kelp', colour: '#55634a', mix: [], dry: false }],
      }),
      PlanEditor.partChanged({ partId, changes: { name: 'Lid' }, gesture: null }),
    ]) {
      const [again, rests] = computed(planFeature.reducer(before, action)) as [unknown, unknown];
      expect(again).withContext(action.type).toBe(forecast);
      expect(rests).withContext(action.type).toBe(basis);
    }
    const [other] = computed(planFeature.reducer(before, thicker(133))) as [unknown];
    expect(other).not.toBe(forecast);
  });
});
