import { ApplicationRef, provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { MatDialog } from '@angular/material/dialog';
import { type BenchTask, newPlan, type Run } from '@zaffet/workshop';
import { PlansApi } from '../data/plans.api';
import { BenchModel, type Card } from '../runs/bench-model';
import { type Telling } from '../runs/run-store';
import { PhotoBox } from '../data/photo-box';
import { provideSheets } from '../ui/sheets';
import { BenchSheets } from './bench-sheets';

let id = 0;
const plan = newPlan('wet-glue', 'Lid', 1, '2026-05-12T08:00:00.000Z', () => `s${++id}`);
const [part] = plan.piece.parts;
const step = plan.finishes[0]!.steps[0]!;
const task = { key: 'k', partId: part!.id, stepId: step.id, topId: null, kind: 'lay', state: 'next' };
const card: Card = { id: 'k', part: part!, task: task as unknown as BenchTask, step, film: null };

describe('a sheet over the bench', () => {
  const tell = jasmine.createSpy<(telling: Telling) => void>('tell');
  let kept: () => void;

  beforeEach(() => {
    tell.calls.reset();
    const keeping = new Promise<void>((resolve) => (kept = resolve));
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideSheets(),
        BenchSheets,
        { provide: PlansApi, useValue: {} },
        { provide: PhotoBox, useValue: { state: signal({ unsent: 0, kept: true, refused: null }) } },
        {
          provide: BenchModel,
          useValue: {
            tell,
            kept: () => keeping,
            title: () => 'Lay the primer',
            bench: signal(null),
            run: signal({ air: [], photos: [], plan, planId: null } as unknown as Run),
          },
        },
      ],
    });
  });
  afterEach(() => TestBed.inject(MatDialog).closeAll());

  const stable = (): Promise<void> => TestBed.inject(ApplicationRef).whenStable();
  const sheet = (): HTMLElement | null => document.querySelector('mat-dialog-container');

  for (const name of ['more', 'wrong'] as const) {
    it(`has the keys at once, and none of its buttons in hand: ${name}`, async () => {
      TestBed.inject(BenchSheets)[name](card);
      await stable();
      // Long before it has opened wide.
      expect(document.activeElement === sheet()).toBeTrue();
      expect(sheet()!.querySelectorAll('button').length).toBeGreaterThan(2);
    });
  }

  it('stays until what was told in it is kept, and tells it once', async () => {
    TestBed.inject(BenchSheets).more(card);
    await stable();
    const note = sheet()!.querySelector<HTMLInputElement>('input.note')!;
    note.value = 'a drip at the left';
    for (let i = 0; i < 2; i++) note.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    await stable();
    expect(tell.calls.allArgs()).toEqual([
      [{ kind: 'note', partId: part!.id, stepId: step.id, text: 'a drip at the left' }],
    ]);
    const [open] = TestBed.inject(MatDialog).openDialogs;
    const closed = jasmine.createSpy('closed');
    open!.beforeClosed().subscribe(closed);
    expect(closed).not.toHaveBeenCalled();
    expect(sheet()!.querySelector('mat-dialog-content')!.hasAttribute('inert')).toBeTrue();
    kept();
    await stable();
    await new Promise((resolve) => setTimeout(resolve));
    expect(closed).toHaveBeenCalledTimes(1);
  });
});
