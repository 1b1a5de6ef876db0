import { TestBed } from '@angular/core/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { provideStore, Store } from '@ngrx/store';
import { type Plan } from '@zaffet/contract';
import { otherWays, problemOf, sittings, timetable, usualWork } from '@zaffet/workshop';
import { type Pin, retimer, type Schedule } from '@zaffet/core/schedule';
import { PlanApi } from '../plan/plan.actions';
import { planFeature } from '../plan/plan.feature';
import { samplePlan, savedPlan } from '../testing/plan';
import { rest, until } from '../testing/requests';
import { Timetables } from '../workers/timetables';
import { airPath, blocksOf, heightOf, LABEL, ribbonsOf, scaleOf, spanOf, spread } from './board-layout';
import { DaySigns, signsIn } from './day-signs';
import { Sound } from '../data/sound';
import { DaysModel } from './days-model';

const sample = samplePlan();
const [part] = sample.piece.parts;
/** Three parts, two of them turned together, in a week of work. */
const PLAN: Plan = {
  ...sample,
  work: usualWork(Intl.DateTimeFormat().resolvedOptions().timeZone),
  piece: {
    ...sample.piece,
    bodies: [{ id: 'piece', name: 'Chest' }],
    parts: [
      { ...part!, id: 'lid', name: 'Lid', facing: 'top', body: 'piece' },
      { ...part!, id: 'side', name: 'Side', facing: 'left', body: 'piece' },
      { ...part!, id: 'board', name: 'Board' },
    ],
  },
};
const { table: TABLE } = timetable(PLAN);

describe('labels beside the hands', () => {
  it('stand where they belong, none over another, all inside', () => {
    expect(spread([10, 60, 120], 200)).toEqual([10, 60, 120]);
    const crowded = spread([0, 2, 4, 190, 195], 200);
    for (let i = 1; i < crowded.length; i++)
      expect(crowded[i]! - crowded[i - 1]!).toBeGreaterThanOrEqual(LABEL);
    expect(crowded.at(-1)! + LABEL).toBeLessThanOrEqual(200);
  });

  it('have room on a day of forty sittings: none is pushed over the name of the day', () => {
    const sitting = sittings(PLAN, TABLE)[0]!;
    const days = [{ sittings: [sitting] }, { sittings: Array.from({ length: 40 }, () => sitting) }];
    const height = heightOf(days, 500);
    const places = spread(new Array<number>(40).fill(490), height);
    expect(places[0]).toBeGreaterThanOrEqual(0);
    expect(places.at(-1)! + LABEL).toBeLessThanOrEqual(height);
    expect(heightOf([days[0]!], 500)).toBe(500);
  });
});

describe('the room of days', () => {
  let model: DaysModel;
  let store: Store;
  const dragged: (readonly Pin[])[] = [];

  beforeEach(() => {
    dragged.length = 0;
    const stub: Partial<Timetables> = {
      hold: () => Promise.resolve(),
      drag: (pins): Promise<Schedule> => {
        dragged.push(pins);
        return Promise.resolve(retimer(problemOf(PLAN), TABLE)(pins));
      },
      others: () => Promise.resolve([]),
      holds: () => Promise.resolve({ top: 900 }),
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore({ [planFeature.name]: planFeature.reducer }),
        { provide: Timetables, useValue: stub },
        DaysModel,
        DaySigns,
      ],
    });
    store = TestBed.inject(Store);
    store.dispatch(PlanApi.openAsked({ id: 'plan-1' }));
    store.dispatch(PlanApi.opened({ saved: savedPlan(PLAN), draft: null, table: TABLE, undo: null }));
    model = TestBed.inject(DaysModel);
  });

  it('draws every sitting of a day, and films that shine before they are dry', () => {
    for (const day of model.days()) {
      const span = spanOf(model.days(), model.at);
      const y = scaleOf(day, span, 500);
      const blocks = blocksOf(day, model.lanes().length, y, model.at, 500);
      expect(blocks.length).toBe(day.sittings.length);
      for (const { y: top, height, window } of blocks) {
        expect(top).toBeGreaterThanOrEqual(0);
        expect(top + height).toBeLessThanOrEqual(504);
        if (window !== null) expect(window.to).toBeGreaterThan(window.from);
      }
      const order = ['wet', 'set', 'drying', 'dry'];
      const ribbons = ribbonsOf(day, model.lanes(), y, span);
      ribbons.slice(1).forEach((ribbon, i) => {
        const before = ribbons[i]!;
        const [film, was] = [ribbon, before].map(({ key }) => key.split(' ').slice(0, 2).join(' '));
        if (film !== was) return;
        expect(order.indexOf(ribbon.state)).toBeGreaterThan(order.indexOf(before.state));
        expect(ribbon.y).toBeCloseTo(before.y + before.height, 0);
      });
    }
    expect(model.days().flatMap(({ sittings }) => sittings).length).toBe(model.sittings().length);
  });

  it('shows what a drag does before the hand lets go, puts it back, and keeps it when it is let go', async () => {
    const sitting = model.sittings().find(({ kind }) => kind === 'step')!;
    const at = sitting.work[0]!.from + 7200;
    model.drag(sitting, at);
    await rest(5);
    expect(dragged.at(-1)![0]).toEqual(jasmine.objectContaining({ partId: sitting.work[0]!.partId, at }));
    expect(model.preview()).not.toBeNull();
    expect(model.sittings().some(({ work }) => Math.abs(work[0]!.from - at) < 1)).toBeTrue();
    model.putBack();
    expect(model.preview()).toBeNull();
    expect(model.file()!.timing.pins).toEqual([]);
    model.drop(sitting, at);
    expect(model.file()!.timing.pins.length).toBe(sitting.work.length);
    expect(model.isPinned(sitting)).toBeTrue();
    model.unpin(sitting);
    expect(model.file()!.timing.pins).toEqual([]);
  });

  it('says until when the look holds, where no window closes before', async () => {
    TestBed.tick();
    const top = model.sittings().find(({ step }) => step?.id === 'top');
    const sections = model.sittings().find(({ kind }) => kind === 'sections')!;
    await until(
      () => model.softEnd({ ...sections, step: { ...sections.step!, id: 'top' }, closes: null }) !== '',
    );
    const told = { ...sections, step: { ...sections.step!, id: 'top' }, closes: null };
    expect(top).toBeUndefined();
    expect(model.softEnd(told)).toMatch(/^the look holds until \d\d:\d\d$/);
    expect(model.softEnd({ ...told, closes: told.work[0]!.from + 60 })).toBe('');
    expect(model.softEnd(sections)).toBe('');
  });

  it('draws the air down the edge of a day, a step where it changes', () => {
    const [day] = model.days();
    const span = spanOf(model.days(), model.at);
    const y = scaleOf(day!, span, 500);
    const at = day!.at + span.from;
    const middle = (span.from + span.to) / 2 + day!.at;
    const path = airPath(
      [
        { at: at - 1000, value: 18 },
        { at: middle, value: 22 },
      ],
      day!,
      span,
      y,
      200,
    );
    expect(path).toBe('M184.0 0.0V250.0H200.0V500.0');
    expect(airPath([], day!, span, y, 200)).toBe('');
  });

  it('gives a sign five minutes before what is done, and when it must be', () => {
    const [first] = model.sittings().filter(({ kind }) => kind === 'sections');
    const at = first!.work[0]!.from;
    const must = { ...first!, urgency: 'must' } as const;
    expect(signsIn([must], at - 301, at).map((sign) => [sign.at - at, sign.now])).toEqual([
      [-300, false],
      [0, true],
    ]);
    expect(signsIn([must], at - 300, at - 1)).toEqual([]);
    expect(signsIn([{ ...first!, urgency: 'may' }], at - 10, at)).toEqual([]);
  });

  it('rings once while the days are looked at, unless it was told to be silent', () => {
    jasmine.clock().install();
    jasmine.clock().mockDate(new Date(model.at(0)));
    const ring = spyOn(TestBed.inject(Sound), 'ring');
    const signs = TestBed.inject(DaySigns);
    const due = model.sittings().find(({ kind, work }) => kind !== 'mix' && work[0]!.from > 600)!;
    jasmine.clock().tick((due.work[0]!.from - 285) * 1000);
    expect(ring).toHaveBeenCalledTimes(signsIn(model.sittings(), 0, due.work[0]!.from - 285).length);
    expect(signs.told()).toBe(`In 5 min: ${model.titleOf(due)}: ${model.partsOf(due)}`);
    jasmine.clock().uninstall();
  });

  it('says what another way gains, and moves nothing while it is looked at', async () => {
    const standing = {
      ...PLAN,
      piece: { ...PLAN.piece, parts: PLAN.piece.parts.map((one) => ({ ...one, flat: false })) },
    };
    const { sums } = otherWays(PLAN, TABLE)[0]!;
    const told = { outcome: 'found', ready: null, days: 1, sums, tight: 0, gains: 0 } as const;
    model.looked.set({ way: 'standing', plan: standing, ...told });
    model.preview.set({ of: standing, table: timetable(standing).table });
    const [sitting] = model.sittings();
    model.drag(sitting!, 9000);
    model.drop(sitting!, 9000);
    await rest(5);
    expect(dragged).toEqual([]);
    expect(model.file()!.timing.pins).toEqual([]);
    model.takeLooked();
    expect(model.file()!.piece.parts.every(({ flat }) => !flat)).toBeTrue();
    expect(model.looked()).toBeNull();
  });

  it('tells windows that are missed, and parts that go take what was asked of them along', () => {
    const [entry] = TABLE.entries.filter(({ kind }) => kind === 'step');
    const late = { ...entry!, closes: entry!.from - 600 };
    model.preview.set({ of: PLAN, table: { ...TABLE, missed: [late] } });
    expect(model.breaks()).toMatch(/misses its window by 10 min/);
    expect(model.breaksHard()).toBeTrue();
  });
});
