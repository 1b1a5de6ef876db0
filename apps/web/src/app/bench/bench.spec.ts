import { type RunEvent } from '@zaffet/contract';
import { TestBed } from '@angular/core/testing';
import { provideStore } from '@ngrx/store';
import { provideZonelessChangeDetection } from '@angular/core';
import { type BenchTask, newPlan, type StepRun } from '@zaffet/workshop';
import { filePlan } from '@zaffet/contract';
import { worthTelling } from './bench-air';
import { countdown } from './countdown';
import { PlaceDrawing } from './place-drawing';
import { BenchHand, RunNotices } from '../runs/run.actions';
import { runFeature, type RunState } from '../runs/run.feature';
import { newId } from '../data/fresh';
import { RunStore, type Telling } from '../runs/run-store';
import { sectionsTold } from './sections';
import { WindowRing } from './window-ring';

const MINUTE = 60_000;
const note = (text: string): Telling => ({ kind: 'note', partId: null, text });

describe('time on the bench', () => {
  it('is told to the second while it is short, and to the hour when it is long', () => {
    expect([
      countdown(35_000),
      countdown(-190_000),
      countdown(125 * MINUTE),
      countdown(27 * 60 * MINUTE),
    ]).toEqual(['0:35', '3:10', '2 h 05', '1 d 3 h']);
  });
});

describe('what a hygrometer reads', () => {
  it('is told when it says something new', () => {
    const at = (
      minute: number,
      temperatureC: number,
      humidity: number,
    ): Parameters<typeof worthTelling>[0] => ({
      at: new Date(minute * MINUTE).toISOString(),
      temperatureC,
      humidity,
    });
    const first = at(0, 20, 0.5);
    expect(worthTelling(first, null)).toBeTrue();
    expect(worthTelling(at(1, 20.1, 0.51), first)).toBeFalse();
    expect(worthTelling(at(1, 20.4, 0.5), first)).toBeTrue();
    expect(worthTelling(at(1, 20, 0.53), first)).toBeTrue();
    expect(worthTelling(at(16, 20, 0.5), first)).toBeTrue();
  });
});

describe('sections of glue', () => {
  const task = { sections: 3 } as BenchTask;
  const told = (sections: StepRun['sections']): StepRun => ({ sections }) as unknown as StepRun;

  it('have the one glued first painted next, and the first bare one glued', () => {
    expect(sectionsTold(task, null)).toEqual(jasmine.objectContaining({ count: 3, oldest: null, bare: 0 }));
    const some = sectionsTold(
      task,
      told([
        { gluedAt: 1, paintedAt: 5 },
        { gluedAt: 9, paintedAt: null },
        { gluedAt: 4, paintedAt: null },
      ]),
    );
    expect([some.oldest, some.bare]).toEqual([2, null]);
    // More than were meant: a hand went smaller.
    expect(
      sectionsTold(task, told(Array.from({ length: 5 }, () => ({ gluedAt: 1, paintedAt: 2 })))).count,
    ).toBe(5);
  });
});

describe('a window as a ring', () => {
  beforeEach(() => TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] }));

  it('has a stretch for each time, in order, and a hand at now', async () => {
    const ring = TestBed.createComponent(WindowRing);
    ring.componentRef.setInput('from', 0);
    ring.componentRef.setInput('opens', { at: 20 * MINUTE, low: 15 * MINUTE, high: 30 * MINUTE });
    ring.componentRef.setInput('closes', { at: 60 * MINUTE, low: 50 * MINUTE, high: 80 * MINUTE });
    ring.componentRef.setInput('now', 44 * MINUTE);
    await ring.whenStable();
    const host = ring.nativeElement as HTMLElement;
    expect([...host.querySelectorAll('path')].map((path) => path.getAttribute('class'))).toEqual([
      'shut',
      'opening',
      'open',
      'closing',
      'over',
    ]);
    // 88 minutes round: a tenth beyond the latest closing.
    expect(host.querySelector('.hand')!.getAttribute('transform')).toBe('rotate(180)');
  });

  it('stays open where nothing closes', async () => {
    const ring = TestBed.createComponent(WindowRing);
    ring.componentRef.setInput('from', 0);
    ring.componentRef.setInput('opens', { at: 20 * MINUTE, low: 20 * MINUTE, high: 20 * MINUTE });
    ring.componentRef.setInput('closes', null);
    ring.componentRef.setInput('now', 0);
    await ring.whenStable();
    const paths = [...(ring.nativeElement as HTMLElement).querySelectorAll('path')];
    expect(paths.map((path) => path.getAttribute('class'))).toEqual(['shut', 'open']);
  });
});

describe('the drawing of a part', () => {
  it('fills the places a step goes to, and leaves the others bare', async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    let id = 0;
    const plan = newPlan('dried-medium', 'Stand', 1, '2026-05-12T08:00:00.000Z', () => `d${++id}`);
    const zone = {
      id: 'z',
      kind: 'pull' as const,
      name: 'Pull',
      oval: true,
      leftMm: 10,
      topMm: 10,
      widthMm: 40,
      heightMm: 20,
    };
    const part = { ...plan.piece.parts[0]!, zones: [zone] };
    const step = { ...plan.finishes[0]!.steps[0]!, only: 'Pull' };
    const drawing = TestBed.createComponent(PlaceDrawing);
    drawing.componentRef.setInput('part', part);
    drawing.componentRef.setInput('step', step);
    await drawing.whenStable();
    const host = drawing.nativeElement as HTMLElement;
    const colour = 'colour' in step ? step.colour : '';
    expect(host.querySelector('ellipse')!.getAttribute('fill')).toBe(colour);
    expect(host.querySelector('rect')!.getAttribute('fill')).not.toBe(colour);
    expect(host.textContent).toContain('only Pull');

    // Only the field: the rim stays bare over it.
    drawing.componentRef.setInput('part', { ...part, zones: [] });
    drawing.componentRef.setInput('step', { ...step, only: null, where: 'field' });
    await drawing.whenStable();
    const fills = [...host.querySelectorAll('rect')].map((rect) => rect.getAttribute('fill'));
    expect(fills.length).toBe(5);
    expect(fills[0]).toBe(colour);
    expect(fills.slice(1).includes(colour)).toBeFalse();
  });
});

describe('what this device keeps of runs', () => {
  it('counts events over two tabs without a gap, and gives them back', async () => {
    const [one, two] = [new RunStore(), new RunStore()];
    await Promise.all([one.open(), two.open()]);
    const run = newId();
    const first = await one.add(run, [note('a'), note('b')], 1000, 7);
    const other = await two.add(run, [note('c')], 2000, 7);
    expect([first.kept, other.kept]).toEqual([true, true]);
    const [a, b, c] = [...first.events, ...other.events];
    expect([b!.n - a!.n, c!.n - b!.n]).toEqual([1, 1]);
    expect(new Set([a!.device, b!.device, c!.device]).size).toBe(1);
    expect(a).toEqual(jasmine.objectContaining({ at: new Date(1000).toISOString(), offsetMs: 7, text: 'a' }));
    const back = await new Promise<RunEvent[]>((resolve) => void two.eventsOf(run).then(resolve));
    expect(back.map(({ id }) => id).sort()).toEqual([a!.id, b!.id, c!.id].sort());
  });

  it('keeps waiting what the server has not got, and no longer', async () => {
    const store = new RunStore();
    await store.open();
    const run = newId();
    const { events } = await store.add(run, [note('x'), note('y')], 0, 0);
    const waiting = async (): Promise<string[]> =>
      (await store.waiting()).filter(({ runId }) => runId === run).map(({ event }) => event.id);
    expect(await waiting()).toEqual(events.map(({ id }) => id));
    await store.taken(run, [events[0]!]);
    expect(await waiting()).toEqual([events[1]!.id]);
    expect((await store.eventsOf(run)).length).toBe(2);
  });

  it('places what was told before the workshop’s clock was known, once, and for good', async () => {
    const store = new RunStore();
    await store.open();
    const run = newId();
    const { events } = await store.add(run, [note('early')], 0, null);
    await store.add(run, [note('sure')], 0, 7);
    const offsets = async (one: RunStore): Promise<number[]> =>
      (await one.waiting()).filter(({ runId }) => runId === run).map(({ event }) => event.offsetMs);
    expect(await offsets(store)).toEqual([0, 7]);
    const placed = (await store.place(-420_000)).filter(({ runId }) => runId === run);
    expect(placed.map(({ event }) => event)).toEqual([{ ...events[0]!, offsetMs: -420_000 }]);
    expect(await offsets(store)).toEqual([-420_000, 7]);
    expect((await store.place(99)).filter(({ runId }) => runId === run)).toEqual([]);
    // Another page of the device finds it placed.
    store.close();
    const next = new RunStore();
    await next.open();
    expect(await offsets(next)).toEqual([-420_000, 7]);
  });

  it('has what it cannot write in the page, and says that it is not kept', async () => {
    // Never opened: as where the browser forbids it.
    const store = new RunStore();
    const run = newId();
    const { events, kept } = await store.add(run, [note('only here')], 0, 0);
    expect(kept).toBeFalse();
    expect(await store.eventsOf(run)).toEqual(events);
    expect((await store.waiting()).length).toBe(1);
    await store.taken(run, events);
    expect(await store.waiting()).toEqual([]);
  });
});

describe('a run in the store', () => {
  const { reducer } = runFeature;
  const begin = reducer(undefined, BenchHand.runAsked({ runId: 'r' }));
  const event = (id: string): RunEvent => ({ id }) as RunEvent;
  const known = (state: RunState, ...ids: string[]): RunState =>
    reducer(state, RunNotices.eventsKnown({ runId: 'r', events: ids.map(event) }));

  it('takes each event once, however often it comes, and none of another run', () => {
    const some = known(known(begin, 'a', 'b'), 'b', 'c');
    expect(some.events.map(({ id }) => id)).toEqual(['a', 'b', 'c']);
    expect(known(some, 'a').events).toBe(some.events);
    // What was told shows once it is kept, and until then something is under way.
    const told = reducer(some, BenchHand.told({ runId: 'r', tellings: [] }));
    expect(told.telling).toBe(1);
    const kept = reducer(told, RunNotices.kept({ runId: 'r', events: [event('k')] }));
    expect([kept.telling, kept.events.at(-1)!.id, kept.toldLast]).toEqual([0, 'k', 'k']);
    expect(known(kept, 'theirs').toldLast).toBe('k');
    expect(reducer(kept, BenchHand.runLeft()).toldLast).toBeNull();
    expect(reducer(told, RunNotices.kept({ runId: 'other', events: [event('k')] }))).toEqual({
      ...some,
      telling: 0,
    });
    expect(reducer(some, RunNotices.eventsKnown({ runId: 'other', events: [event('d')] }))).toBe(some);
    expect(reducer(some, BenchHand.runLeft()).events).toEqual([]);
    // Asked for again, it stays as it is.
    expect(reducer(some, BenchHand.runAsked({ runId: 'r' }))).toBe(some);
  });

  it('moves an event whose place in time became known, and never back', () => {
    const at = (id: string, offsetMs: number): RunEvent => ({ id, offsetMs }) as RunEvent;
    const news = (state: RunState, ...events: RunEvent[]): RunState =>
      reducer(state, RunNotices.eventsKnown({ runId: 'r', events }));
    const told = news(begin, at('a', 0), at('b', 0));
    const moved = news(told, at('a', 420_000));
    expect(moved.events).toEqual([at('a', 420_000), at('b', 0)]);
    expect(news(moved, at('a', 420_000)).events).toBe(moved.events);
    // What was told comes back as it was told, be it later than its place.
    const late = reducer(moved, RunNotices.kept({ runId: 'r', events: [at('a', 0)] }));
    expect(late.events).toBe(moved.events);
  });

  it('is folded from its events', () => {
    TestBed.configureTestingModule({
      providers: [provideZonelessChangeDetection(), provideStore({ run: reducer })],
    });
    let id = 0;
    const plan = newPlan('wet-glue', 'Lid', 1, '2026-05-12T08:00:00.000Z', () => `f${++id}`);
    const begun: RunEvent = {
      id: 'e1',
      device: 'd',
      n: 1,
      at: plan.startsAt,
      offsetMs: 0,
      kind: 'run-begun',
      planId: null,
      plan: filePlan(plan),
    };
    const state = { run: reducer(begin, RunNotices.eventsKnown({ runId: 'r', events: [begun] })) };
    expect(runFeature.selectRun(state)!.plan.name).toBe('Lid');
    expect(runFeature.selectRun({ run: begin })).toBeNull();
  });
});
