import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { API, filePlan, type PlanSummary, type StoredPlan } from '@zaffet/contract';
import { firstValueFrom } from 'rxjs';
import { savedPlan } from '../testing/plan';
import { newId } from './fresh';
import { PlanCache } from './plan-cache';
import { PlansApi } from './plans.api';

describe('plans that this device has', () => {
  let http: HttpTestingController;
  let api: PlansApi;

  beforeEach(async () => {
    TestBed.configureTestingModule({
      providers: [provideZonelessChangeDetection(), provideHttpClient(), provideHttpClientTesting()],
    });
    http = TestBed.inject(HttpTestingController);
    api = TestBed.inject(PlansApi);
    // Other specs leave plans in the same browser.
    await TestBed.inject(PlanCache).keepOnly([]);
  });

  const stored = (name: string): StoredPlan => {
    const saved = savedPlan();
    return { ...saved, id: newId(), name, plan: filePlan(saved.plan) };
  };
  const summaryOf = ({ plan: _plan, ...summary }: StoredPlan): PlanSummary => summary;
  const away = (): ProgressEvent => new ProgressEvent('error');
  async function read(plan: StoredPlan): Promise<void> {
    const answer = firstValueFrom(api.read(plan.id));
    http.expectOne(API.plan(plan.id)).flush(plan);
    await answer;
  }
  async function list(plans: readonly StoredPlan[] | null): Promise<string[]> {
    const answer = firstValueFrom(api.list());
    const asked = http.expectOne(API.plans);
    if (plans === null) asked.error(away());
    else asked.flush(plans.map(summaryOf));
    return (await answer).map(({ name }) => name);
  }

  it('are listed and opened while the server is away: those that were opened before', async () => {
    const [lid, leg] = [stored('Lid'), stored('Leg')];
    await list([lid, leg]);
    await read(lid);
    expect(await list(null)).toEqual(['Lid']);
    expect(api.away()).toBeTrue();
    const answer = firstValueFrom(api.read(lid.id));
    http.expectOne(API.plan(lid.id)).error(away());
    expect((await answer).saveId).toBe(lid.saveId);
    const never = firstValueFrom(api.read(leg.id));
    http.expectOne(API.plan(leg.id)).error(away());
    await expectAsync(never).toBeRejected();
    expect(await list([lid, leg])).toEqual(['Lid', 'Leg']);
    expect(api.away()).toBeFalse();
  });

  it('go where they are gone from the server, and are as they were saved last', async () => {
    const [lid, leg] = [stored('Lid'), stored('Leg')];
    await read(lid);
    await read(leg);
    const saved = firstValueFrom(api.save(lid.id, lid.saveId, { ...savedPlan().plan, seed: 77 }));
    http.expectOne(API.plan(lid.id)).flush({ ...summaryOf(lid), saveId: 'newer' });
    await saved;
    await list([lid]);
    const cache = TestBed.inject(PlanCache);
    for (let n = 0; n < 400 && (await cache.read(leg.id)) !== null; n++)
      await new Promise((go) => setTimeout(go, 5));
    expect(await cache.read(leg.id)).toBeNull();
    const found = (await cache.read(lid.id))!;
    expect([found.saveId, found.plan.seed]).toEqual(['newer', 77]);
  });

  it('are not shown in the place of a refusal', async () => {
    const lid = stored('Lid');
    await read(lid);
    const answer = firstValueFrom(api.read(lid.id));
    http.expectOne(API.plan(lid.id)).flush({ code: 'plan.not-found' }, { status: 404, statusText: 'No' });
    await expectAsync(answer).toBeRejected();
  });
});
