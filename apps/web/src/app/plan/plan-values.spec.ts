import { TestBed } from '@angular/core/testing';
import { forecast } from '@zaffet/core/forecast';
import fc from 'fast-check';
import { layersOf, LIMITS, type Plan, type PlanStep } from '@zaffet/contract';
import { basisOf, beginAt, newCoat, newStep, partPlan, toModel, ownFinish } from '@zaffet/workshop';
import { Clock } from '../data/clock';
import { workBegins } from '../data/fresh';
import { filmOf, samplePlan } from '../testing/plan';
import {
  addStep,
  addWhatIf,
  changeAir,
  changeFinish,
  changeMap,
  changePart,
  changeStep,
  fitted,
  moveSteps,
  pasteSteps,
  placeStep,
  removeFinish,
  removePart,
  removeSteps,
  renamePlace,
  replaceSteps,
  takeWhatIf,
} from './edits';
import { movedMoments } from './moved-moments';
import { record, redo, startHistory, undo } from './history';

describe('history', () => {
  const plan = samplePlan();
  const named = (name: string): typeof plan => ({ ...plan, name });

  it('goes back and forth through edits', () => {
    const edited = record(record(startHistory(plan), named('a'), null), named('b'), null);
    expect(undo(edited).present.name).toBe('a');
    expect(undo(undo(edited)).present).toBe(plan);
    expect(redo(undo(edited)).present.name).toBe('b');
    expect(undo(undo(undo(edited))).present).toBe(plan);
    expect(redo(edited)).toBe(edited);
  });

  it('joins the edits of one gesture, and no others', () => {
    let history = startHistory(plan);
    for (const name of ['a', 'b', 'c']) history = record(history, named(name), 'drag 1');
    history = record(history, named('d'), 'drag 2');
    expect(history.past.length).toBe(2);
    expect(undo(history).present.name).toBe('c');
    expect(undo(undo(history)).present).toBe(plan);
  });

  it('keeps still when nothing changed, and drops the future on a new edit', () => {
    const history = startHistory(plan);
    expect(record(history, plan, null)).toBe(history);
    const back = undo(record(history, named('a'), null));
    expect(record(back, named('b'), null).future).toEqual([]);
  });

  it('remembers a hundred steps', () => {
    let history = startHistory(plan);
    for (let i = 0; i < 140; i++) history = record(history, named(String(i)), null);
    expect(history.past.length).toBe(100);
  });
});

describe('edits', () => {
  const OFF = { fits: 'any', changes: { off: true } } as const;
  const plan = samplePlan();
  const finish = plan.finishes[0]!.id;
  const stepsOf = (p: Plan): readonly PlanStep[] => p.finishes[0]!.steps;
  const ids = (p: Plan): string[] => stepsOf(p).map((step) => step.id);
  const film = (p: Plan, index: number): ReturnType<typeof filmOf> => filmOf(partPlan(p), index);

  it('return the same plan when nothing changes', () => {
    expect(
      changeStep(plan, 'top', { fits: 'film', changes: { thicknessUm: film(plan, 2).thicknessUm } }),
    ).toBe(plan);
    expect(changeAir(plan, { temperatureC: plan.air.temperatureC })).toBe(plan);
    expect(changePart(plan, 'panel', { widthMm: 600 })).toBe(plan);
    expect(moveSteps(plan, ['top'], 1)).toBe(plan);
  });

  it('are taken by the steps they fit, and by no other', () => {
    expect(changeStep(plan, 'top', { fits: 'wipe', changes: { degrease: true } })).toBe(plan);
    const wait = newStep('wait', 'w');
    const waits = addStep(plan, partPlan(plan), wait, 1);
    expect(changeStep(waits, 'w', { fits: 'placed', changes: { where: 'edges' } })).toBe(waits);
    expect(changeStep(plan, 'top', { fits: 'placed', changes: { where: 'edges' } })).not.toBe(plan);
  });

  it('give a place another name, and steps that speak of it go with it', () => {
    const zone = {
      id: 'z',
      kind: 'spot',
      oval: true,
      leftMm: 5,
      topMm: 5,
      widthMm: 20,
      heightMm: 20,
    } as const;
    const zones = [
      { ...zone, name: 'Hook' },
      { ...zone, id: 'y', name: 'Knob' },
    ];
    const placed = changeStep(changePart(plan, 'panel', { zones }), 'top', {
      fits: 'placed',
      changes: { only: 'Hook' },
    });
    const both = changeStep(placed, 'base', { fits: 'placed', changes: { except: ['Hook', 'Knob'] } });
    const named = renamePlace(both, 'panel', 'z', 'Peg');
    expect(film(named, 2).only).toBe('Peg');
    expect(film(named, 0).except).toEqual(['Peg', 'Knob']);
    // Another place of the old name keeps the steps.
    const twice = changePart(both, 'panel', { zones: [...zones, { ...zone, id: 'x', name: 'Hook' }] });
    expect(film(renamePlace(twice, 'panel', 'z', 'Peg'), 2).only).toBe('Hook');
    expect(renamePlace(both, 'panel', 'z', 'Hook')).toBe(both);
    expect(film(renamePlace(both, 'panel', 'z', 'Knob'), 0).except).toEqual(['Knob']);
  });

  it('change only what they name', () => {
    const next = changeStep(plan, 'top', { fits: 'film', changes: { thicknessUm: 120 } });
    expect(film(next, 2).thicknessUm).toBe(120);
    expect(next.piece).toBe(plan.piece);
    expect(stepsOf(next)[0]).toBe(stepsOf(plan)[0]!);
    expect(film(plan, 2).thicknessUm).not.toBe(120);
  });

  it('add, remove and move steps', () => {
    const coat = newCoat('new', 'chalk', '#112233', '', { rule: 'after', waitMin: 5 });
    expect(ids(addStep(plan, partPlan(plan), coat, 3))).toEqual(['base', 'slip', 'top', 'new']);
    expect(ids(removeSteps(plan, ['slip']))).toEqual(['base', 'top']);
    expect(ids(moveSteps(plan, ['top'], -1))).toEqual(['base', 'top', 'slip']);
    expect(ids(moveSteps(plan, ['base', 'slip'], 1))).toEqual(['top', 'base', 'slip']);
    expect(moveSteps(plan, ['slip', 'top'], 1)).toBe(plan);
    expect(ids(placeStep(plan, 'base', 2))).toEqual(['slip', 'top', 'base']);
    expect(placeStep(plan, 'base', 3)).toBe(plan);
  });

  it('leave every other step when it begins, wherever one is moved or taken out (property)', () => {
    const coat = newCoat('new', 'chalk', '#112233', '', { rule: 'after', waitMin: 5 });
    const more = ['x', 'y', 'z'].map((id) => ({ ...coat, id }));
    const long = changeFinish(plan, finish, { steps: [...stepsOf(plan), ...more] });
    const startsOf = (p: Plan): Map<string, string> =>
      new Map(stepsOf(p).map(({ id, start }) => [id, JSON.stringify(start)]));
    const edit = fc.oneof(
      fc.record({ do: fc.constant('place' as const), at: fc.nat(8), to: fc.nat(8) }),
      fc.record({
        do: fc.constant('move' as const),
        at: fc.nat(8),
        by: fc.constantFrom(1 as const, -1 as const),
      }),
      fc.record({ do: fc.constant('remove' as const), at: fc.nat(8) }),
    );
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 12 }), (edits) => {
        let now = long;
        edits.forEach((one) => {
          const before = startsOf(now);
          const idAt = stepsOf(now)[one.at]?.id ?? 'none';
          if (one.do === 'place') now = placeStep(now, idAt, one.to);
          else if (one.do === 'move') now = moveSteps(now, [idAt], one.by);
          else now = removeSteps(now, [idAt]);
          for (const [id, start] of startsOf(now)) if (before.has(id)) expect(start).toBe(before.get(id)!);
        });
      }),
    );
  });

  it('bring copied steps in, with the media of one’s own that they are made of', () => {
    const coat = newCoat('copy', 'chalk', '#112233', '', { rule: 'after', waitMin: 5 });
    const own = { key: 'mine', name: 'Mine', like: 'chalk', changes: {} };
    const next = pasteSteps(plan, finish, [{ ...coat, medium: 'mine' }], [own], 1);
    expect(ids(next)).toEqual(['base', 'copy', 'slip', 'top']);
    expect(next.media).toEqual([own]);
    expect(pasteSteps(next, finish, [{ ...coat, id: 'again' }], [own], 0).media).toEqual([own]);
  });

  it('never take the last coat, nor more coats than a plan may hold', () => {
    const one = removeSteps(plan, ['top', 'slip']);
    expect(removeSteps(one, ['base'])).toBe(one);
    let many = plan;
    for (let i = 0; i < 50; i++)
      many = addStep(
        many,
        partPlan(many),
        newCoat(`n${i}`, 'chalk', '#112233', '', { rule: 'after', waitMin: 5 }),
        0,
      );
    expect(layersOf(stepsOf(many))).toBe(LIMITS.layers.max);
    for (let i = 0; i < 20; i++) many = addStep(many, partPlan(many), newStep('wait', `w${i}`), 0);
    expect(stepsOf(many).length).toBe(LIMITS.steps.max);
    const swapped = changeStep(many, 'w0', OFF);
    expect(layersOf(stepsOf(swapped))).toBe(LIMITS.layers.max);
  });

  it('never leave out, nor take, the last step that is done', () => {
    const two = changeStep(changeStep(plan, 'slip', OFF), 'top', OFF);
    expect(changeStep(two, 'base', OFF)).toBe(two);
    expect(removeSteps(two, ['base'])).toBe(two);
    expect(ids(removeSteps(two, ['top']))).toEqual(['base', 'slip']);
  });

  it('move the whole day with its beginning, inside what air can be', () => {
    const later = [
      { at: '2026-05-12T10:00:00Z', temperatureC: 24, humidity: 0.4 },
      { at: '2026-05-12T12:00:00Z', temperatureC: 44, humidity: 0.96 },
    ];
    const warmer = changeAir({ ...plan, air: { ...plan.air, later } }, { temperatureC: 23, humidity: 0.55 });
    expect(warmer.air.later.map((sample) => sample.temperatureC)).toEqual([26, 45]);
    expect(warmer.air.later.map((sample) => sample.humidity)).toEqual([0.45, 0.98]);
    expect(toModel(partPlan(warmer)).air.length).toBe(3);
  });

  it('begin at another moment, with what was set by the clock', () => {
    const atStart = { fits: 'any', changes: { start: { rule: 'at', at: plan.startsAt } } } as const;
    const later = beginAt(changeStep(plan, 'base', atStart), '2026-05-13T09:30:00.000Z');
    expect(stepsOf(later)[0]!.start).toEqual({ rule: 'at', at: '2026-05-13T09:30:00.000Z' });
    expect(stepsOf(later)[2]!.start).toEqual(stepsOf(plan)[2]!.start);
    expect(beginAt(plan, plan.startsAt)).toBe(plan);
    expect(workBegins(new Date(2026, 4, 12, 21, 15))).toEqual(new Date(2026, 4, 13, 8));
    expect(workBegins(new Date(2026, 4, 12, 3))).toEqual(new Date(2026, 4, 12, 8));
    expect(workBegins(new Date(2026, 4, 12, 9, 5))).toEqual(new Date(2026, 4, 12, 9, 5));
  });

  it('keep where a step lies with the part, until the step goes', () => {
    const map = { columns: 2, rows: 1, percent: [50, 150] };
    const painted = changeMap(plan, 'panel', 'slip', map);
    expect(painted.piece.parts[0]!.maps).toEqual({ slip: map });
    expect(changeMap(painted, 'panel', 'slip', null)).toEqual(plan);
    expect(removeSteps(painted, ['slip']).piece.parts[0]!.maps).toEqual({});
    expect(replaceSteps(painted, finish, [stepsOf(plan)[0]!]).piece.parts[0]!.maps).toEqual({});
  });

  it('try something on beside what is meant, and take it over or drop it', () => {
    const map = { columns: 1, rows: 1, percent: [80] };
    const tried = addWhatIf(changeMap(plan, 'panel', 'slip', map), finish, 'more', 'More glue', [
      'a',
      'b',
      'c',
    ]);
    expect(tried.finishes[1]).toEqual(
      jasmine.objectContaining({ id: 'more', name: 'More glue', whatIfOf: finish }),
    );
    expect(tried.piece.parts[0]!.maps).toEqual({ slip: map, b: map });
    const thicker = changeStep(tried, 'b', { fits: 'film', changes: { thicknessUm: 300 } });
    expect(film(thicker, 1).thicknessUm).toBe(film(plan, 1).thicknessUm);
    const taken = takeWhatIf(thicker, 'more');
    expect(film(taken, 1).thicknessUm).toBe(300);
    expect(taken.finishes[1]!.name).toBe('Before More glue');
    expect(removeFinish(taken, finish)).toBe(taken);
    const dropped = removeFinish(taken, 'more');
    expect(dropped.finishes.length).toBe(1);
    expect(dropped.piece.parts[0]!.maps).toEqual({ b: map });
  });

  it('give a part a finish of its own, and never take the last part', () => {
    const own = ownFinish(plan, ['panel'], 'lid', 'Lid', ['a', 'b', 'c']);
    expect(own.piece.parts[0]!.finish).toBe('lid');
    expect(own.finishes.map(({ id }) => id)).toEqual([finish, 'lid']);
    expect(removePart(plan, 'panel')).toBe(plan);
  });

  it('fit numbers into their limit and onto their step', () => {
    expect([-5, 33.4, 9999].map((value) => fitted(LIMITS.thicknessUm, value))).toEqual([4, 33, 1200]);
    expect(fitted(LIMITS.humidity, 0.4567)).toBe(0.46);
  });
});

describe('what an edit of the order does to moments', () => {
  const told = (before: Plan, after: Plan, touched: readonly string[]): string => {
    const [was, is] = [before, after].map((plan) => forecast(basisOf(partPlan(plan))).times);
    return movedMoments(was!, is!, touched, partPlan(after), TestBed.inject(Clock));
  };

  it('is told of the others that moved, and of none that did not', () => {
    const plan = samplePlan();
    const wait = { ...newStep('wait', 'pause'), durationMin: 90 } as PlanStep;
    const later = addStep(plan, partPlan(plan), wait, 2);
    expect(told(plan, later, ['pause'])).toMatch(/^4\. .* now \d\d:\d\d, was \d\d:\d\d\.$/);
    expect(told(plan, addStep(plan, partPlan(plan), wait, 3), ['pause'])).toBe('');
    expect(told(plan, plan, [])).toBe('');
  });
});
