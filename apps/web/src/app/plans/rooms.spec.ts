import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { type Plan } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { figureValues } from '@zaffet/core/readout';
import { basisOf, timetable } from '@zaffet/workshop';
import { provideStore, Store } from '@ngrx/store';
import { disagreements, plansToCompare, valuesOf } from '../../../../../packages/workshop/src/testing/rooms';
import { listedPart } from './plan-tile';
import { calibrationFeature } from '../shop/calibration.feature';
import { savedPlan } from '../testing/plan';
import { PlanApi, PlanEditor } from '../plan/plan.actions';
import { planFeature } from '../plan/plan.feature';

describe('one number, one home', () => {
  const opened = (plan: Plan): { store: Store; wrong: string[] } => {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore({
          [planFeature.name]: planFeature.reducer,
          [calibrationFeature.name]: calibrationFeature.reducer,
        }),
      ],
    });
    const store = TestBed.inject(Store);
    const timed = timetable(plan);
    store.dispatch(PlanApi.opened({ saved: savedPlan(plan), draft: null, table: timed.table, undo: null }));
    const shown = (): ReturnType<typeof figureValues> =>
      figureValues(store.selectSignal(planFeature.selectForecast)()!);
    const [part] = plan.piece.parts;
    const expected = valuesOf(plan, part!.id, timed);
    const listed = figureValues(forecast(basisOf(listedPart(plan, timed.circumstances))));
    const wrong = [...disagreements('layers', expected, shown()), ...disagreements('list', expected, listed)];
    const finish = plan.finishes.find(({ id }) => id === part!.finish)!;
    const stepIds = finish.steps.map((_, i) => `copy-${i}`);
    store.dispatch(PlanEditor.whatIfBegun({ finishId: 'copy', name: 'Copy', stepIds }));
    wrong.push(...disagreements('whatIf', expected, shown()));
    return { store, wrong };
  };

  it('the list, Layers and an untouched what-if show what the core says', () => {
    for (const plan of plansToCompare(100)) {
      const { wrong } = opened(plan);
      expect(wrong).withContext(plan.name).toEqual([]);
    }
  });

  it('a what-if that is changed shows something else, and the plan what it did', () => {
    const [plan] = plansToCompare(0);
    const { store } = opened(plan!);
    const figures = (): ReturnType<typeof figureValues> =>
      figureValues(store.selectSignal(planFeature.selectForecast)()!);
    const before = figures();
    store.dispatch(
      PlanEditor.stepChanged({
        stepId: 'copy-1',
        edit: { fits: 'film', changes: { thicknessUm: 300 } },
        gesture: null,
      }),
    );
    expect(disagreements('whatIf', before, figures()).length).toBeGreaterThan(0);
    store.dispatch(PlanEditor.finishChosen({ finishId: null }));
    expect(disagreements('layers', before, figures())).toEqual([]);
  });
});
