import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { samplePlan } from '../testing/plan';
import { UndoStore } from './undo-store';

describe('what can be undone', () => {
  const plan = samplePlan();
  const past = [
    { ...plan, name: 'Once' },
    { ...plan, name: 'Twice' },
  ];
  let store: UndoStore;

  beforeEach(() => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    store = TestBed.inject(UndoStore);
  });

  it('is there again for the plan as it was left', async () => {
    await store.keep('undo-spec', plan, { past, future: [] });
    expect(await store.read('undo-spec', structuredClone(plan))).toEqual({ past, future: [] });
    expect(await store.read('another', plan)).toBeNull();
  });

  it('is gone once the plan was changed elsewhere', async () => {
    await store.keep('undo-spec', plan, { past, future: [] });
    expect(await store.read('undo-spec', { ...plan, name: 'Changed elsewhere' })).toBeNull();
  });
});
