import { TestBed } from '@angular/core/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideStore, Store } from '@ngrx/store';
import { API, USUAL_SHOP } from '@zaffet/contract';
import { airEffects, timetable } from '@zaffet/workshop';
import { planFeature } from '../plan/plan.feature';
import { PlanApi } from '../plan/plan.actions';
import { samplePlan, savedPlan } from '../testing/plan';
import { nextRequest, until } from '../testing/requests';
import { Timetables } from '../workers/timetables';
import { AirModel } from './air-model';
import { DaysModel } from './days-model';

const PLAN = samplePlan();
const { table: TABLE } = timetable(PLAN);

describe('the air of a plan', () => {
  let model: AirModel;
  let http: HttpTestingController;
  let store: Store;

  beforeEach(() => {
    const stub: Partial<Timetables> = {
      others: () => Promise.resolve([]),
      holds: () => Promise.resolve({ top: 900 }),
      air: (plan, table) => Promise.resolve(airEffects(plan, table)),
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideHttpClient(),
        provideHttpClientTesting(),
        provideStore({ [planFeature.name]: planFeature.reducer }),
        DaysModel,
        AirModel,
        { provide: Timetables, useValue: stub },
      ],
    });
    store = TestBed.inject(Store);
    store.dispatch(PlanApi.openAsked({ id: 'plan-1' }));
    store.dispatch(PlanApi.opened({ saved: savedPlan(PLAN), draft: null, table: TABLE, undo: null }));
    model = TestBed.inject(AirModel);
    http = TestBed.inject(HttpTestingController);
  });

  const csv = (...lines: string[]): File =>
    new File([['time,temperature_c,humidity_percent', ...lines].join('\n')], 'air.csv');

  it('is taken from a file, and stays as it was where the file is refused', async () => {
    await model.fromFile(csv('2026-05-12T08:00:00Z,25,40', '2026-05-12T12:00:00Z,27,35'));
    expect(model.trouble()).toEqual([]);
    expect(model.air()).toEqual(
      jasmine.objectContaining({ origin: 'file', temperatureC: 25, humidity: 0.4 }),
    );
    const before = model.air();
    await model.fromFile(csv('2026-05-12T08:00:00Z,25,cold'));
    expect(model.trouble()[1]).toContain('Row 2, humidity_percent: "cold"');
    expect(model.air()).toBe(before);
    await model.fromFile(new File([new Uint8Array(12_000_001)], 'large.csv'));
    expect(model.trouble()[0]).toContain('12 MB');
    expect(model.air()).toBe(before);
  });

  it('is simulated from the shop’s room, past the day all is ready', async () => {
    const asked = model.simulate();
    (await nextRequest(http, 'GET', API.shop)).flush(USUAL_SHOP);
    await asked;
    expect(model.air().origin).toBe('simulated-forecast');
    const last = Date.parse(model.air().later.at(-1)!.at);
    expect(last).toBeGreaterThan(Date.parse(PLAN.startsAt) + TABLE.ready! * 1000 + 40 * 3_600_000);
  });

  it('is what was read, and says where nothing was', async () => {
    const nothing = model.measured();
    (await nextRequest(http, 'GET', API.air)).flush({ readings: [] });
    await nothing;
    expect(model.trouble()[0]).toContain('No instrument has read anything');
    expect(model.air()).toBe(PLAN.air);

    const some = model.measured();
    (await nextRequest(http, 'GET', API.air)).flush({
      readings: [{ at: '2026-05-12T08:00:00.000Z', temperatureC: 15, humidity: 0.7 }],
    });
    (await nextRequest(http, 'GET', API.shop)).flush(USUAL_SHOP);
    await some;
    expect(model.air()).toEqual(jasmine.objectContaining({ origin: 'readings', temperatureC: 15 }));
    expect(model.air().later[0]!.temperatureC).not.toBe(15);
  });

  it('is told by hand in lines, kept in order of time', () => {
    const at = (hour: number): string => `2026-05-12T${String(hour).padStart(2, '0')}:00:00.000Z`;
    const line = (hour: number): { at: string; temperatureC: number; humidity: number } => ({
      at: at(hour),
      temperatureC: 18,
      humidity: 0.6,
    });
    model.setLines([line(14), line(10), line(10)]);
    expect(model.lines()!.map((one) => one.at)).toEqual([at(10), at(14)]);
    model.addLine();
    expect(model.lines()!.at(-1)!.at).toBe(at(20));
    model.setLines(Array.from({ length: 14 }, (_, i) => line(9 + i)));
    expect(model.lines()).toBeNull();
    model.steady();
    expect(model.lines()).toEqual([]);
    expect(model.air().origin).toBe('told');
  });

  it('is worked out for damp and dry days once the timetable stands', async () => {
    TestBed.tick();
    await until(() => model.effects.hasValue());
    const glue = model.effects.value()!.effects.find(({ answer }) => answer === 'next')!;
    expect(glue.other.damp!).toBeGreaterThan(glue.lasts);
  });
});
