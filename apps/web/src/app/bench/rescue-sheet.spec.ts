import { provideZonelessChangeDetection, signal } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { MAT_DIALOG_DATA, MatDialogRef } from '@angular/material/dialog';
import { fault, filePlan, type Plan, type RunEvent, type SavedPlan, ZaffetError } from '@zaffet/contract';
import { foldRun, newPlan, partPlan } from '@zaffet/workshop';
import { of, throwError } from 'rxjs';
import { PlansApi } from '../data/plans.api';
import { BenchModel } from '../runs/bench-model';
import { RescueSheet } from './rescue-sheet';

let next = 0;
const plan: Plan = newPlan('wet-glue', 'Lid', 7, '2026-05-12T08:00:00.000Z', () => `r${++next}`);
const [part] = plan.piece.parts;
const steps = plan.finishes[0]!.steps;
const begun = {
  id: 'e1',
  n: 1,
  at: plan.startsAt,
  offsetMs: 0,
  kind: 'run-begun',
  planId: 'p',
  plan: filePlan(plan),
} as unknown as RunEvent;

const saved = (revision: number, own = plan): SavedPlan => ({
  id: 'p',
  name: own.name,
  revision,
  saveId: `save-${revision}`,
  savedAt: own.startsAt,
  plan: own,
});

describe('a way out of what went wrong', () => {
  let sheet: ComponentFixture<RescueSheet>;
  let plans: jasmine.SpyObj<Pick<PlansApi, 'read' | 'save'>>;
  const tell = jasmine.createSpy('tell');
  const close = jasmine.createSpy('close');

  beforeEach(async () => {
    tell.calls.reset();
    close.calls.reset();
    plans = jasmine.createSpyObj<Pick<PlansApi, 'read' | 'save'>>('plans', ['read', 'save']);
    plans.read.and.returnValue(of(saved(3)));
    plans.save.and.returnValue(of(saved(4)));
    const tasks = steps.map(({ id }) => ({ stepId: id, topId: null, kind: 'lay', state: 'done' }));
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        { provide: MAT_DIALOG_DATA, useValue: { part } },
        { provide: MatDialogRef, useValue: { close } },
        { provide: PlansApi, useValue: plans },
        {
          provide: BenchModel,
          useValue: {
            tell,
            kept: () => Promise.resolve(),
            partPlanOf: () => partPlan(plan),
            bench: signal({ parts: [{ partId: part!.id, tasks }] }),
            run: signal(foldRun([begun])),
          },
        },
      ],
    });
    sheet = TestBed.createComponent(RescueSheet);
    await sheet.whenStable();
  });

  const element = (): HTMLElement => sheet.nativeElement as HTMLElement;
  const press = async (button: HTMLElement | undefined): Promise<void> => {
    button!.click();
    await sheet.whenStable();
  };
  const named = (words: RegExp): HTMLElement | undefined =>
    [...element().querySelectorAll('button')].find(({ textContent }) => words.test(textContent ?? ''));

  const putIn = async (also: boolean): Promise<void> => {
    await press(named(/No cracks/i));
    if (also) await press(element().querySelector<HTMLElement>('.also input')!);
    await press(named(/Put it into this run/));
    await sheet.whenStable();
  };

  it('goes into the run alone, unless it is wished for next time', async () => {
    await putIn(false);
    expect(tell).toHaveBeenCalledTimes(1);
    expect(plans.save).not.toHaveBeenCalled();
    expect(close).toHaveBeenCalledTimes(1);
  });

  it('goes into the plan as it stands now too, after the step it mends', async () => {
    await putIn(true);
    const [id, saveId, kept] = plans.save.calls.mostRecent().args;
    expect([id, saveId]).toEqual(['p', 'save-3']);
    const all = kept.finishes.flatMap((finish) => finish.steps.map((step) => step.id));
    expect(all.length).toBeGreaterThan(steps.length);
    expect(all.slice(0, steps.length)).toEqual(steps.map((step) => step.id));
    expect(close).toHaveBeenCalledTimes(1);
  });

  it('says why it is not in the plan, and is not put into the run again when that is tried once more', async () => {
    plans.save.and.returnValue(throwError(() => new ZaffetError(fault('server.busy'))));
    await putIn(true);
    expect(element().querySelector('[role="alert"]')?.textContent).toContain('not in the plan');
    expect(close).not.toHaveBeenCalled();
    plans.save.and.returnValue(of(saved(4)));
    await press(named(/Put it into this run/));
    await sheet.whenStable();
    expect(tell).toHaveBeenCalledTimes(1);
    expect(close).toHaveBeenCalledTimes(1);
  });

  it('leaves a plan alone in which the step it comes after is gone', async () => {
    const others = plan.finishes.map((finish) => ({
      ...finish,
      steps: finish.steps.map((step) => ({ ...step, id: `other ${step.id}` })),
    }));
    plans.read.and.returnValue(of(saved(5, { ...plan, finishes: others })));
    await putIn(true);
    expect(plans.save).not.toHaveBeenCalled();
    expect(element().querySelector('[role="alert"]')?.textContent).toContain('by hand');
  });
});
