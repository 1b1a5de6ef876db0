import { provideHttpClient } from '@angular/common/http';
import {
  HttpTestingController,
  provideHttpClientTesting,
  type TestRequest,
} from '@angular/common/http/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import {
  API,
  filePlan,
  migratePlan,
  type Plan,
  type PlanFile,
  type SaveRequest,
  type StoredPlan,
  unfilePlan,
} from '@zaffet/contract';
import { partPlan, timetable } from '@zaffet/workshop';
import { provideEffects } from '@ngrx/effects';
import { provideStore, Store } from '@ngrx/store';
import { OUTBOX_PAUSES } from '../data/outbox';
import { PlanOutbox } from '../data/plan-outbox';
import { type UndoSteps, UndoStore } from '../data/undo-store';
import { filmOf, samplePlan, savedPlan } from '../testing/plan';
import { nextRequest, rest, until } from '../testing/requests';
import { Timetables } from '../workers/timetables';
import { PlanApi, PlanEditor } from './plan.actions';
import * as effects from './plan.effects';
import { planFeature, type PlanState } from './plan.feature';

const { table: TABLE } = timetable(samplePlan());

describe('saving', () => {
  let store: Store;
  let dies = false;
  const left = new Map<string, UndoSteps>();
  const undoStore: Pick<UndoStore, 'keep' | 'read'> = {
    keep: (id, _present, steps) => Promise.resolve(void left.set(id, steps)),
    read: (id) => Promise.resolve(left.get(id) ?? null),
  };
  let http: HttpTestingController;
  const state = (): PlanState => store.selectSignal(planFeature.selectPlanState)();

  beforeEach(() => {
    localStorage.clear();
    left.clear();
    dies = false;
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideHttpClient(),
        provideHttpClientTesting(),
        provideRouter([{ path: '**', children: [] }]),
        provideStore({ [planFeature.name]: planFeature.reducer }),
        provideEffects(effects),
        {
          provide: Timetables,
          useValue: { time: () => (dies ? Promise.reject(new Error()) : Promise.resolve(TABLE)) },
        },
        { provide: UndoStore, useValue: undoStore },
        { provide: OUTBOX_PAUSES, useValue: { send: 100, keep: 20, retry: 200 } },
      ],
    });
    store = TestBed.inject(Store);
    http = TestBed.inject(HttpTestingController);
  });

  const stored = (plan: Plan = samplePlan(), revision = 1): StoredPlan => {
    const saved = savedPlan(plan, revision);
    return { ...saved, plan: filePlan(saved.plan) };
  };
  async function open(plan?: Plan, revision?: number): Promise<void> {
    store.dispatch(PlanApi.openAsked({ id: 'plan-1' }));
    (await next('GET')).flush(stored(plan, revision));
    await rest(5);
  }
  const next = (method: string, id = 'plan-1'): Promise<TestRequest> =>
    nextRequest(http, method, API.plan(id));
  const sentPlan = ({ request }: { request: { body: unknown } }): Plan =>
    unfilePlan((request.body as SaveRequest).plan);
  const refuse = async (code: string, status: number, more: object = {}): Promise<void> =>
    (await next('PUT')).flush(
      { code, message: `It is ${code}.`, fields: [], ...more },
      { status, statusText: 'No' },
    );
  const edit = (thicknessUm: number): void =>
    store.dispatch(
      PlanEditor.stepChanged({
        stepId: 'top',
        edit: { fits: 'film', changes: { thicknessUm } },
        gesture: null,
      }),
    );
  const summary = (revision: number): object => ({
    id: 'plan-1',
    name: 'Sample',
    revision,
    saveId: `save-${revision}`,
    savedAt: '2026-05-12T09:00:00.000Z',
  });

  it('can undo after a reload what was done before it', async () => {
    const before = samplePlan();
    left.set('plan-1', { past: [{ ...before, name: 'Before' }], future: [] });
    await open(before);
    store.dispatch(PlanEditor.undoAsked());
    expect(state().history!.present.name).toBe('Before');
    await rest(400);
    expect(left.get('plan-1')!.future.length).toBe(1);
    (await next('PUT')).flush(savedPlan());
  });

  it('says when a plan cannot be timed, and times it when asked again', async () => {
    await open();
    const state = store.selectSignal(planFeature.selectPlanState);
    dies = true;
    edit(125);
    await until(() => state().untimed !== null);
    expect(state().untimed).toBe(state().history!.present);
    dies = false;
    store.dispatch(PlanApi.timingAskedAgain());
    await until(() => state().timed?.of === state().history!.present);
    expect(state().untimed).toBeNull();
    expect(state().timed!.table).toBe(TABLE);
  });

  it('saves once after a pause, with the save it grew from, then from the new one', async () => {
    await open();
    edit(120);
    edit(130);
    http.expectNone(API.plan('plan-1'));
    const first = await next('PUT');
    expect((first.request.body as SaveRequest).saveId).toBe('save-1');
    expect(filmOf(partPlan(sentPlan(first)), 2).thicknessUm).toBe(130);
    edit(140);
    first.flush(summary(2));
    const second = await next('PUT');
    expect((second.request.body as SaveRequest).saveId).toBe('save-2');
    second.flush(summary(3));
    await until(() => state().save === 'saved');
    expect(state().save).toBe('saved');
  });

  it('keeps what is unsaved until the server has it, and recovers it', async () => {
    const outbox = TestBed.inject(PlanOutbox);
    await open();
    edit(155);
    expect(filmOf(partPlan(outbox.waiting('plan-1')!.plan), 2).thicknessUm).toBe(155);
    (await next('PUT')).error(new ProgressEvent('offline'));
    await until(() => state().save === 'failed');
    expect(state().save).toBe('failed');
    expect(state().kept).toBeTrue();
    // The plan is left and opened again.
    await open();
    expect(filmOf(partPlan(state().history!.present), 2).thicknessUm).toBe(155);
    (await next('PUT')).flush(summary(2));
    await rest(5);
    expect(outbox.waiting('plan-1')).toBeNull();
    expect(state().save).toBe('saved');
  });

  it('opens a plan with its timetable, and times it anew as it changes', async () => {
    await open();
    const of = state().timed!;
    expect(of.of).toBe(state().history!.present);
    const basis = store.selectSignal(planFeature.selectBasis);
    expect(basis()!.moments).toEqual(of.table.moments['panel']);
    edit(155);
    // What was timed holds until it is timed anew.
    expect(basis()!.moments).toEqual(of.table.moments['panel']);
    await rest(5);
    expect(state().timed!.of).toBe(state().history!.present);
    (await next('PUT')).flush(summary(2));
  });

  it('reads what an older Zaffet kept in the browser', async () => {
    const { finishes, palette: _palette, ...plan } = samplePlan();
    const old = { ...plan, version: 3, steps: finishes[0]!.steps, look: { spacingMm: 5, openingMm: null } };
    localStorage.setItem('zaffet-draft-plan-1', JSON.stringify({ plan: old, revision: 1 }));
    localStorage.setItem('zaffet-draft-plan-2', '{"plan": {"format"');
    await open();
    const { present } = state().history!;
    expect(present).toEqual(unfilePlan(migratePlan(old) as PlanFile));
    expect(present.finishes[0]!.look.spacingMm).toBe(5);
    // Which save it grew from is not known: a person decides.
    expect(state().save).toBe('stale');
    store.dispatch(PlanApi.mineKept());
    (await next('PUT')).flush(summary(2));
    await until(() => state().save === 'saved');
    expect(state().save).toBe('saved');
  });

  it('sends the same plan again after a save that failed, without another edit', async () => {
    await open();
    edit(175);
    (await next('PUT')).error(new ProgressEvent('offline'));
    await rest(5);
    store.dispatch(PlanApi.retryAsked());
    (await next('PUT')).flush(summary(2));
    await until(() => state().save === 'saved');
    expect(state().save).toBe('saved');
  });

  it('hands a stale save to the person, with both plans', async () => {
    await open();
    edit(160);
    await refuse('plan.stale', 409, { current: stored({ ...samplePlan(), name: 'Theirs' }, 9) });
    await until(() => state().save === 'stale');
    expect(state().save).toBe('stale');
    expect(state().theirs!.name).toBe('Theirs');
    // What is edited meanwhile is kept, not sent.
    edit(161);
    await rest(150);
    http.expectNone(API.plan('plan-1'));
    store.dispatch(PlanApi.mineKept());
    const again = await next('PUT');
    expect((again.request.body as SaveRequest).saveId).toBe('save-9');
    expect(filmOf(partPlan(sentPlan(again)), 2).thicknessUm).toBe(161);
    again.flush(summary(10));
  });

  it('takes no answer that was lost for a conflict', async () => {
    await open();
    edit(162);
    const lost = await next('PUT');
    const came = sentPlan(lost);
    lost.error(new ProgressEvent('the answer was lost'));
    edit(163);
    await refuse('plan.stale', 409, { current: stored(came, 2) });
    const again = await next('PUT');
    expect((again.request.body as SaveRequest).saveId).toBe('save-2');
    expect(filmOf(partPlan(sentPlan(again)), 2).thicknessUm).toBe(163);
    again.flush(summary(3));
    await until(() => state().save === 'saved');
    expect(state().save).toBe('saved');
  });

  it('goes by the plan an answer is of: another may be open when it comes', async () => {
    await open();
    edit(164);
    const late = await next('PUT');
    store.dispatch(PlanApi.openAsked({ id: 'plan-2' }));
    (await next('GET', 'plan-2')).flush({ ...stored(), id: 'plan-2', saveId: 'save-5' });
    late.flush(summary(2));
    await rest(5);
    expect(state().id).toBe('plan-2');
    expect(state().saveId).toBe('save-5');
    expect(TestBed.inject(PlanOutbox).waiting('plan-1')).toBeNull();
  });

  it('sends what was edited just before the plan was left', async () => {
    await open();
    edit(165);
    store.dispatch(PlanApi.openAsked({ id: 'plan-2' }));
    (await next('GET', 'plan-2')).flush({ ...stored(), id: 'plan-2' });
    expect(filmOf(partPlan(sentPlan(await next('PUT'))), 2).thicknessUm).toBe(165);
  });

  it('shows what the server will not take, stops sending it, and sends it once it is changed', async () => {
    await open();
    edit(166);
    await refuse('plan.invalid', 400, {
      fields: [{ path: 'palette.0.name', message: 'It ends in a blank.' }],
    });
    await rest(350);
    http.expectNone(API.plan('plan-1'));
    expect(state().save).toBe('invalid');
    expect(state().fault!.fields[0]!.message).toBe('It ends in a blank.');
    edit(167);
    expect(state().save).toBe('waiting');
    (await next('PUT')).flush(summary(2));
    await until(() => state().save === 'saved');
    expect(state().save).toBe('saved');
    expect(state().fault).toBeNull();
  });

  it('offers a plan that was removed elsewhere as a new one', async () => {
    await open();
    edit(168);
    await refuse('plan.not-found', 404);
    await until(() => state().save === 'gone');
    expect(state().save).toBe('gone');
    edit(169);
    await rest(150);
    http.expectNone(API.plan('plan-1'));
    store.dispatch(PlanApi.bothKept());
    const made = await nextRequest(http, 'POST', API.plans);
    expect(filmOf(partPlan(unfilePlan(made.request.body as PlanFile)), 2).thicknessUm).toBe(169);
    made.flush({ ...stored(), id: 'plan-3' });
    await rest(5);
    expect(TestBed.inject(PlanOutbox).waiting('plan-1')).toBeNull();
  });

  it('says what is wrong when a plan cannot be opened', async () => {
    store.dispatch(PlanApi.openAsked({ id: 'gone' }));
    (await next('GET', 'gone')).flush(
      { code: 'plan.not-found', message: 'Gone.', fields: [] },
      { status: 404, statusText: 'Not Found' },
    );
    await until(() => state().fault !== null);
    expect(state().fault!.message).toBe('Gone.');
    expect(state().history).toBeNull();
  });
});
