import { provideZonelessChangeDetection, signal } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { PhotoBox } from '../data/photo-box';
import { PlanOutbox } from '../data/plan-outbox';
import { ShelfOutbox } from '../data/shelf-outbox';
import { RunBox } from '../runs/run-box';
import { samplePlan } from '../testing/plan';
import { WaitingSign } from './waiting-sign';

describe('the sign of what waits', () => {
  const plans = signal<{ waiting: number; held: unknown[] }>({ waiting: 0, held: [] });
  const shelf = signal({ waiting: 0, held: [] });
  const photos = signal<{ unsent: number; kept: boolean; refused: unknown[] }>({
    ...{ unsent: 0, kept: true, refused: [] },
  });
  const runs = signal({ unsent: 0, kept: true });
  const drop = jasmine.createSpy('drop');
  let fixture: ComponentFixture<WaitingSign>;

  beforeEach(() => {
    plans.set({ waiting: 0, held: [] });
    photos.set({ unsent: 0, kept: true, refused: [] });
    runs.set({ unsent: 0, kept: true });
    jasmine.clock().install();
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([{ path: '**', children: [] }]),
        { provide: PlanOutbox, useValue: { state: plans } },
        { provide: ShelfOutbox, useValue: { state: shelf } },
        { provide: PhotoBox, useValue: { state: photos, drop } },
        { provide: RunBox, useValue: { state: runs } },
      ],
    });
    fixture = TestBed.createComponent(WaitingSign);
    fixture.detectChanges();
  });
  afterEach(() => jasmine.clock().uninstall());

  const text = (): string => {
    fixture.detectChanges();
    return (fixture.nativeElement as HTMLElement).textContent!.replace(/\s+/g, ' ').trim();
  };
  const press = (name: string): void => {
    const buttons = [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')];
    buttons.find((button) => button.textContent?.trim() === name)!.click();
    fixture.detectChanges();
  };

  it('shows nothing while all passes at once', () => {
    plans.set({ waiting: 1, held: [] });
    expect(text()).toBe('');
    jasmine.clock().tick(2000);
    plans.set({ waiting: 0, held: [] });
    expect(text()).toBe('');
    plans.set({ waiting: 1, held: [] });
    fixture.detectChanges();
    jasmine.clock().tick(2000);
    expect(text()).toBe('');
  });

  it('counts everything that waits, of every kind', () => {
    plans.set({ waiting: 1, held: [] });
    photos.set({ unsent: 2, kept: true, refused: [] });
    runs.set({ unsent: 4, kept: true });
    fixture.detectChanges();
    jasmine.clock().tick(3000);
    expect(text()).toContain('7 things wait to be sent.');
    press('Details');
    for (const part of ['1 plan.', '2 photographs.', '4 bench reports.']) expect(text()).toContain(part);
    plans.set({ waiting: 0, held: [] });
    photos.set({ unsent: 0, kept: true, refused: [] });
    runs.set({ unsent: 1, kept: true });
    expect(text()).toContain('1 thing waits to be sent.');
    expect(text()).not.toContain('leave this page open');
    runs.set({ unsent: 1, kept: false });
    expect(text()).toContain('leave this page open');
  });

  it('leaves the bench’s reports to the bench, which says in large letters how it stands with them', async () => {
    runs.set({ unsent: 2, kept: false });
    fixture.detectChanges();
    jasmine.clock().tick(3000);
    expect(text()).toContain('2 things wait');
    jasmine.clock().uninstall();
    await TestBed.inject(Router).navigateByUrl('/bench/run-1');
    expect(text()).toBe('');
    jasmine.clock().install();
  });

  it('asks at once for what a person has to decide', () => {
    plans.set({ waiting: 0, held: [{ key: 'plan-1', body: { plan: samplePlan(), saveId: 'x' } }] });
    photos.set({ unsent: 0, kept: true, refused: [{ hash: 'abc', refused: 'This is no photograph.' }] });
    expect(text()).toContain('2 things need your decision.');
    press('Details');
    expect(text()).toContain('“Sample” was changed elsewhere too');
    expect(text()).toContain('This is no photograph.');
    press('Delete');
    expect(drop).toHaveBeenCalledWith('abc');
  });
});
