import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { type StepMap } from '@zaffet/contract';
import { type PartPlan, type School } from '@zaffet/workshop';
import { provideState, provideStore, Store } from '@ngrx/store';
import { PlanApi, PlanEditor } from '../../plan/plan.actions';
import { planFeature } from '../../plan/plan.feature';
import { samplePlan, savedPlan } from '../../testing/plan';
import { PaintDesk } from './paint-desk';

function deskOn(school: School): { desk: PaintDesk; store: Store; plan: () => PartPlan } {
  TestBed.configureTestingModule({
    providers: [provideZonelessChangeDetection(), provideStore(), provideState(planFeature), PaintDesk],
  });
  const store = TestBed.inject(Store);
  store.dispatch(
    PlanApi.opened({ saved: savedPlan(samplePlan(school)), draft: null, table: null, undo: null }),
  );
  const present = store.selectSignal(planFeature.selectPlan);
  return { desk: TestBed.inject(PaintDesk), store, plan: () => present()! };
}

const mapOf = (plan: PartPlan, id: string): StepMap | null => plan.part.maps[id] ?? null;
const at = (map: StepMap, u: number, v: number): number =>
  map.percent[Math.floor(v * map.rows) * map.columns + Math.floor(u * map.columns)]!;

describe('paint desk', () => {
  it('lays a resist only where it is painted, densely, each stroke one step to undo', () => {
    const { desk, store, plan } = deskOn('jelly-resist');
    desk.begin();
    const id = desk.step()!.id;
    expect(desk.step()!.kind).toBe('resist');
    desk.down(0.2, 0.5);
    desk.move(0.3, 0.5);
    desk.move(0.4, 0.5);
    desk.up();
    const map = mapOf(plan(), id)!;
    expect(at(map, 0.3, 0.5)).toBe(100);
    expect(at(map, 0.8, 0.5)).toBe(0);
    const step = plan().steps.find((candidate) => candidate.id === id)!;
    expect(step.kind === 'resist' && step.share).toBe(0.95);
    desk.down(0.8, 0.5);
    desk.up();
    expect(at(mapOf(plan(), id)!, 0.8, 0.5)).toBe(100);
    store.dispatch(PlanEditor.undoAsked());
    expect(mapOf(plan(), id)).toEqual(map);
    store.dispatch(PlanEditor.undoAsked());
    expect(mapOf(plan(), id)).toBeNull();
  });

  it('lays a coat thicker under the brush and plain again under the eraser, within what a film can be', () => {
    const { desk, plan } = deskOn('wet-glue');
    desk.begin();
    desk.choose('top');
    desk.setAmount(250);
    desk.down(0.5, 0.5);
    desk.up();
    expect(at(mapOf(plan(), 'top')!, 0.5, 0.5)).toBe(250);
    expect(at(mapOf(plan(), 'top')!, 0.1, 0.1)).toBe(100);
    desk.tool.set('eraser');
    desk.down(0.5, 0.5);
    desk.up();
    expect(at(mapOf(plan(), 'top')!, 0.5, 0.5)).toBe(100);
    desk.clear();
    expect(mapOf(plan(), 'top')).toBeNull();
  });

  it('proposes wear by use round the touches, and leaves touches to steps that wear', () => {
    const { desk, plan } = deskOn('wet-distress');
    desk.begin();
    const id = desk.step()!.id;
    desk.tool.set('touch');
    desk.down(0.5, 0.3);
    expect(desk.touches()).toEqual([{ u: 0.5, v: 0.3 }]);
    expect(mapOf(plan(), id)).toBeNull();
    desk.wear('handled');
    const map = mapOf(plan(), id)!;
    expect(at(map, 0.5, 0.3)).toBeGreaterThan(at(map, 0.05, 0.95));
    desk.choose('base');
    expect(desk.tool()).toBe('brush');
  });

  it('lets the map alone say where, once there is one', () => {
    const { desk, store, plan } = deskOn('wax-resist');
    const [wax, sanding] = plan().steps.filter(({ kind }) => kind === 'resist' || kind === 'distress');
    for (const step of [wax!, sanding!])
      store.dispatch(
        PlanEditor.stepChanged({
          stepId: step.id,
          edit: { fits: 'placed', changes: { where: 'edges' } },
          gesture: null,
        }),
      );
    for (const step of [wax!, sanding!]) {
      desk.choose(step.id);
      desk.down(0.5, 0.5);
      desk.up();
      const now = plan().steps.find(({ id }) => id === step.id)!;
      expect('where' in now && now.where).toBe('all');
      expect(at(mapOf(plan(), step.id)!, 0.5, 0.5)).toBeGreaterThan(99);
      expect(at(mapOf(plan(), step.id)!, 0.25, 0.25)).toBe(0);
    }
    // Edges that were worked before still are.
    expect(at(mapOf(plan(), sanding!.id)!, 0.5, 0.005)).toBe(100);
  });

  it('fills zones and keeps the rest', () => {
    const { desk, plan } = deskOn('wet-distress');
    desk.begin();
    const id = desk.step()!.id;
    desk.setAmount(200);
    desk.fill('bottom');
    const map = mapOf(plan(), id)!;
    expect(at(map, 0.5, 0.995)).toBe(200);
    expect(at(map, 0.5, 0.5)).toBe(100);
  });
});
