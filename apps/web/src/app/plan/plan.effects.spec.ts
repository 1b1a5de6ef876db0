import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { API, partPlan, type SaveRequest } from '@zaffet/contract';
import { provideEffects } from '@ngrx/effects';
import { provideStore, Store } from '@ngrx/store';
import { Drafts } from '../data/drafts';
import { filmOf, samplePlan, savedPlan } from '../testing/plan';
import { PlanApi, PlanEditor } from './plan.actions';
import * as effects from './plan.effects';
import { planFeature, type PlanState } from './plan.feature';

const rest = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

describe('saving', () => {
  let store: Store;
  let http: HttpTestingController;
  const state = (): PlanState => store.selectSignal(planFeature.selectPlanState)();

  beforeEach(() => {
    localStorage.clear();
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideHttpClient(),
        provideHttpClientTesting(),
        provideRouter([]),
        provideStore({ [planFeature.name]: planFeature.reducer }),
        provideEffects(effects),
      ],
    });
    store = TestBed.inject(Store);
    http = TestBed.inject(HttpTestingController);
  });

  function open(): void {
    store.dispatch(PlanApi.openAsked({ id: 'plan-1' }));
    http.expectOne(API.plan('plan-1')).flush(savedPlan());
  }
  const edit = (thicknessUm: number): void =>
    store.dispatch(PlanEditor.stepChanged({ stepId: 'top', changes: { thicknessUm }, gesture: null }));
  const summary = (revision: number): object => ({
    id: 'plan-1',
    name: 'Sample',
    revision,
    savedAt: '2026-05-12T09:00:00.000Z',
  });

  it('saves once after a pause, with the revision it grew from, then from the new one', async () => {
    open();
    edit(120);
    edit(130);
    http.expectNone(API.plan('plan-1'));
    await rest(620);
    const first = http.expectOne(API.plan('plan-1'));
    expect((first.request.body as SaveRequest).revision).toBe(1);
    expect(filmOf(partPlan((first.request.body as SaveRequest).plan), 2).thicknessUm).toBe(130);
    edit(140);
    first.flush(summary(2));
    await rest(620);
    const second = http.expectOne(API.plan('plan-1'));
    expect((second.request.body as SaveRequest).revision).toBe(2);
    second.flush(summary(3));
    expect(state().save).toBe('saved');
  });

  it('keeps a draft until the server has it, and recovers it', async () => {
    const drafts = TestBed.inject(Drafts);
    open();
    edit(155);
    expect(filmOf(partPlan(drafts.find('plan-1')!.plan), 2).thicknessUm).toBe(155);
    await rest(620);
    http.expectOne(API.plan('plan-1')).error(new ProgressEvent('offline'));
    expect(state().save).toBe('failed');
    expect(drafts.find('plan-1')).not.toBeNull();
    // The window is closed and opened again.
    open();
    expect(filmOf(partPlan(state().history!.present), 2).thicknessUm).toBe(155);
    await rest(620);
    http.expectOne(API.plan('plan-1')).flush(summary(2));
    expect(drafts.find('plan-1')).toBeNull();
  });

  it('sends the same plan again after a save that failed, without another edit', async () => {
    open();
    edit(175);
    await rest(620);
    http.expectOne(API.plan('plan-1')).error(new ProgressEvent('offline'));
    store.dispatch(PlanApi.retryAsked());
    await rest(620);
    http.expectOne(API.plan('plan-1')).flush(summary(2));
    expect(state().save).toBe('saved');
  });

  it('hands a stale save to the person, with both plans', async () => {
    open();
    edit(160);
    await rest(620);
    const current = savedPlan({ ...samplePlan(), name: 'Theirs' }, 9);
    http
      .expectOne(API.plan('plan-1'))
      .flush(
        { code: 'plan.stale', message: '', fields: [], current },
        { status: 409, statusText: 'Conflict' },
      );
    expect(state().save).toBe('stale');
    expect(state().theirs!.name).toBe('Theirs');
    store.dispatch(PlanApi.mineKept());
    await rest(620);
    const again = http.expectOne(API.plan('plan-1'));
    expect((again.request.body as SaveRequest).revision).toBe(9);
    again.flush(summary(10));
  });

  it('says what is wrong when a plan cannot be opened', () => {
    store.dispatch(PlanApi.openAsked({ id: 'gone' }));
    http
      .expectOne(API.plan('gone'))
      .flush(
        { code: 'plan.not-found', message: 'Gone.', fields: [] },
        { status: 404, statusText: 'Not Found' },
      );
    expect(state().fault!.message).toBe('Gone.');
    expect(state().history).toBeNull();
  });
});
