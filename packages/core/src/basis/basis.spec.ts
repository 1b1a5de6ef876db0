import { courseOf } from '../course';
import { forecast } from '../forecast';
import { type FactorKey, type Learned } from '../media';
import { type PanelPlan } from '../plan';
import { readout } from '../readout';
import {
  after,
  coat,
  distress,
  FIRST,
  overGlue,
  overMedium,
  planOf,
  room,
  seal,
  when,
} from '../testing/plans';
import { onTables } from './basis';
import { type Basis, type Known, NO_SHOP } from './types';

const learned = (factors: Partial<Record<FactorKey, number>>, sd = 0.1): Learned => {
  const keys = Object.keys(factors) as FactorKey[];
  return {
    keys,
    mean: keys.map((key) => factors[key]!),
    covariance: keys.map((_, i) => keys.map((_, j) => (i === j ? sd * sd : 0))),
  };
};
const knowing = (plan: PanelPlan, what: Learned): Basis => ({ plan, shop: { ...NO_SHOP, learned: what } });
const NOTHING_DONE: Known = { now: 0, done: {}, answers: [], air: [] };

const milk = planOf(
  [coat('a', 'milk', 90, FIRST), coat('b', 'milk', 90, when('recoat')), distress('s', 'sand', after(86400))],
  room(),
  'sealed',
);

describe('what a shop has learned', () => {
  const up = Math.log(1.5);

  it('changes nothing while every factor is that of the tables', () => {
    const plain = forecast(onTables(overMedium(80, 90)));
    const keys: FactorKey[] = [
      'air',
      'dry:crackle',
      'slip:crackle',
      'strain:chalk',
      'tough:chalk',
      'bond:chalk',
    ];
    const same = forecast(
      knowing(overMedium(80, 90), learned(Object.fromEntries(keys.map((key) => [key, 0])))),
    );
    expect(same.whole).toEqual(plain.whole);
    expect(same.times).toEqual(plain.times);
  });

  it('moves what each factor stands for, and leaves the rest', () => {
    const plan = overMedium(80, 90);
    const below = plan.steps[1]!;
    const medium = 'medium' in below ? below.medium : '';
    const { whole, coats } = forecast(onTables(plan));
    const of = (factors: Partial<Record<FactorKey, number>>): ReturnType<typeof forecast> =>
      forecast(knowing(plan, learned(factors)));
    expect(of({ air: up }).coats[0]!.open.touch!).toBeLessThan(coats[0]!.open.touch!);
    expect(of({ [`dry:${medium}`]: up }).coats[1]!.open.through!).toBeLessThan(coats[1]!.open.through!);
    expect(of({ [`dry:${medium}`]: up }).coats[0]!.open).toEqual(coats[0]!.open);
    expect(of({ [`slip:${medium}`]: up }).whole.crack!.spacing).toBeGreaterThan(1.05 * whole.crack!.spacing);
    expect(of({ 'strain:chalk': up }).whole.crack!.opening).toBeGreaterThan(1.1 * whole.crack!.opening);
    expect(of({ 'tough:chalk': up }).whole.firstAfter!).toBeGreaterThan(whole.firstAfter!);
    const { whole: milky } = forecast(onTables(milk));
    expect(forecast(knowing(milk, learned({ 'bond:milk': up }))).whole.chippedShare).toBeLessThan(
      milky.chippedShare,
    );
    expect(forecast(knowing(milk, learned({ 'wear:sand': up }))).whole.wornShare).toBeGreaterThan(
      milky.wornShare,
    );
    expect(forecast(knowing(milk, learned({ 'wear:blade': up }))).whole.wornShare).toBe(milky.wornShare);
  });

  it('holds for an own medium of that kind, unless something was learned of it itself', () => {
    const plan: PanelPlan = {
      ...planOf([coat('a', 'own', 90, FIRST)]),
      media: [{ key: 'own', name: 'Own', like: 'chalk', changes: {} }],
    };
    const touch = (factors: Partial<Record<FactorKey, number>>): number =>
      forecast(knowing(plan, learned(factors))).coats[0]!.open.through!;
    const plain = forecast(onTables(plan)).coats[0]!.open.through!;
    expect(touch({ 'dry:chalk': up })).toBeLessThan(plain);
    expect(touch({ 'dry:chalk': up, 'dry:own': 0 })).toBe(plain);
  });

  it('may be of one coat alone', () => {
    const plan = overMedium(80, 90);
    const { coats } = forecast(onTables(plan));
    const steps = { top: { air: up, dry: 0, thickness: Math.log(1.2) } };
    const there = forecast(knowing(plan, { ...learned({}), steps })).coats;
    expect(there[0]!.open).toEqual(coats[0]!.open);
    expect(there[2]!.open.matte! - there[2]!.laidAt).toBeLessThan(coats[2]!.open.matte! - coats[2]!.laidAt);
    expect(there[2]!.dryThickness / coats[2]!.dryThickness).toBeCloseTo(1.2, 9);
  });

  it('is refused where its arrays do not fit or a factor is beyond belief', () => {
    const bad = { keys: ['air'], mean: [0], covariance: [] } as unknown as Learned;
    expect(() => forecast(knowing(milk, bad))).toThrowError(/a mean, a row and a column/);
    expect(() => forecast(knowing(milk, learned({ air: 4 })))).toThrowError(/learned\.air/);
  });
});

describe('bands', () => {
  const plan = overMedium(110, 100, room(23, 0.45));
  const { medium } = plan.steps[1] as { medium: string };
  const cracking = (sd: number): Learned =>
    learned(
      {
        air: 0,
        'dry:chalk': 0,
        'strain:chalk': 0,
        'tough:chalk': 0,
        'bond:chalk': 0,
        [`slip:${medium}`]: 0,
      },
      sd,
    );
  const width = (basis: Basis, key = 'spacing'): number => {
    const { high, value } = readout(basis).panel.figures.find((figure) => figure.key === key)!;
    return high! / value!;
  };

  it('narrow as boards teach, and never below what one board differs from the next', () => {
    const wide = width(onTables(plan));
    const narrow = width(knowing(plan, cracking(0.12)));
    const none = width(knowing(plan, cracking(0.0001)));
    expect(narrow).toBeLessThan(0.9 * wide);
    expect(none).toBeLessThan(narrow);
    expect(none).toBeGreaterThan(Math.exp(1.28 * 0.18));
  });

  it('widen again away from where the boards stood', () => {
    const [, below, top] = forecast(onTables(plan)).coats;
    const at = (humidity: number): number =>
      width(
        knowing(plan, {
          ...cracking(0.12),
          centre: [
            {
              top: top!.medium.like,
              below: below!.medium.like,
              films: [top!.dryThickness, below!.dryThickness],
              humidity,
              temperature: 296.15,
            },
          ],
        }),
      );
    expect(at(0.45)).toBeGreaterThan(width(knowing(plan, cracking(0.12))));
    expect(at(0.85)).toBeGreaterThan(1.02 * at(0.45));
  });

  it('count what moves together once: slip and strain that were told apart badly still tell the opening', () => {
    const keys: FactorKey[] = ['air', `slip:${medium}`, 'strain:chalk'];
    const of = (rho: number): Learned => ({
      keys,
      mean: [0, 0, 0],
      covariance: keys.map((_, i) =>
        keys.map((_, j) => (i === j ? (i === 0 ? 0.01 : 0.09) : i > 0 && j > 0 ? 0.09 * rho : 0)),
      ),
    });
    // More slip and more strain both widen a crack: together they move it most.
    expect(width(knowing(plan, of(0.95)), 'opening')).toBeGreaterThan(
      width(knowing(plan, of(-0.95)), 'opening'),
    );
  });

  it('of an own medium rest on what was learned of its kind', () => {
    const own: PanelPlan = {
      ...plan,
      media: [{ key: 'mine', name: 'Mine', like: 'chalk', changes: {} }],
      steps: plan.steps.map((step) =>
        step.id === 'top' ? ({ ...step, medium: 'mine' } as typeof step) : step,
      ),
    };
    const taught: Learned = {
      ...cracking(0.12),
      mean: cracking(0.12).keys.map((key) => (key === 'strain:chalk' ? 0.4 : 0)),
    };
    const told = (of: PanelPlan): unknown =>
      readout(knowing(of, taught)).panel.figures.map(({ value, low, high }) => [value, low, high]);
    expect(told(own)).toEqual(told(plan));
  });

  it('do not hang on factors of paints that are not there', () => {
    const alone = cracking(0.12);
    const more: Learned = {
      keys: [...alone.keys, 'dry:shellac'],
      mean: [...alone.mean, 0.3],
      covariance: [...alone.covariance.map((row) => [...row, 0]), [...alone.mean.map(() => 0), 0.2]],
    };
    expect(width(knowing(plan, more))).toBe(width(knowing(plan, alone)));
  });

  it('narrow where a coat was weighed', () => {
    const { from } = forecast(onTables(plan)).times[2]!;
    const laid = (weighed: { thickness?: number }): Basis => ({
      ...onTables(plan),
      known: { ...NOTHING_DONE, done: { top: { from, until: null, ...weighed } } },
    });
    expect(width(laid({ thickness: 100e-6 }))).toBeLessThan(width(laid({})));
  });
});

describe('moments of a timetable', () => {
  const plan = overGlue(110, 90, 120);
  const { times } = courseOf(onTables(plan));

  it('hold a step back, and never bring it forward', () => {
    const later = times[1]!.from + 3600;
    const held = courseOf({ ...onTables(plan), moments: { [times[1]!.step.id]: { notBefore: later } } });
    expect(held.times[1]!.from).toBe(later);
    expect(held.times[2]!.from - held.times[1]!.from).toBeCloseTo(times[2]!.from - times[1]!.from, 6);
    const early = courseOf({ ...onTables(plan), moments: { [times[1]!.step.id]: { notBefore: 0 } } });
    expect(early.times).toEqual(times);
  });

  it('are as they were where something was done', () => {
    const id = times[2]!.step.id;
    const fixed = courseOf({ ...onTables(plan), moments: { [id]: { fixed: times[2]!.from + 240 } } });
    expect(fixed.times[2]!.from).toBe(times[2]!.from + 240);
    expect(
      forecast({ ...onTables(plan), moments: { [id]: { fixed: times[2]!.from + 240 } } }).whole.crack!
        .spacing,
    )
      // Late over white glue: smaller islands; common practice.
      .toBeLessThan(forecast(onTables(plan)).whole.crack!.spacing);
  });

  it('tell each coat of a seal and when a wax is buffed', () => {
    const waxed = planOf([
      coat('a', 'chalk', 90, FIRST),
      seal('w', 'clearWax', 12, when('through-dry'), { coats: 2 }),
    ]);
    const { films, times: plain } = courseOf(onTables(waxed));
    const at = plain[1]!.from;
    const moments = { w: { fixed: at, coats: [at, at + 50_000], buffAt: at + 51_800 } };
    const told = courseOf({ ...onTables(waxed), moments }).films[1]!;
    expect(told.laidAt).toBe(at + 50_000);
    expect(told.buffAfter).toBe(1800);
    expect(films[1]!.laidAt).not.toBe(at + 50_000);
  });
});

describe('what is known of a run', () => {
  const plan = overMedium(80, 90);
  const plain = courseOf(onTables(plan));

  it('is nothing at its beginning', () => {
    expect(courseOf({ ...onTables(plan), known: NOTHING_DONE }).times).toEqual(plain.times);
  });

  it('is when steps were begun and ended, how thick a film was weighed and how often it was brushed', () => {
    const from = plain.times[2]!.from + 720;
    const done = { top: { from, until: from + 500, thickness: 120e-6, passes: 3 } };
    const course = courseOf({ ...onTables(plan), known: { ...NOTHING_DONE, now: from + 600, done } });
    expect(course.times[2]!.from).toBe(from);
    expect(course.times[2]!.until).toBe(from + 500);
    expect(course.films[2]!.wetUm).toBeCloseTo(120, 9);
    expect(course.films[2]!.step.passes).toBe(3);
    expect(course.times.slice(0, 2)).toEqual(plain.times.slice(0, 2));
  });

  it('is refused where it cannot be', () => {
    const done = { top: { from: 0, until: null, thickness: 1 } };
    expect(() => courseOf({ ...onTables(plan), known: { ...NOTHING_DONE, done } })).toThrowError(
      /thickness is 1/,
    );
  });

  it('is the air as it was read, up to now', () => {
    const cold = { from: 0, ...room(12, 0.75) };
    const read = (now: number): number =>
      courseOf({ ...onTables(plan), known: { ...NOTHING_DONE, now, air: [cold] } }).films[0]!.openStates
        .touch!;
    const { touch } = plain.films[0]!.openStates;
    expect(read(touch! / 2)).toBeGreaterThan(1.1 * touch!);
    expect(read(10 * touch!)).toBeGreaterThan(read(touch! / 2));
  });
});
