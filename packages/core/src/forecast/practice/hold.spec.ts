import { type PanelPlan, type PrepStep, type Step } from '../../plan';
import { forecastOf } from '../../testing/forecasts';
import { wholeOf } from '../../testing/practice';
import {
  after,
  coat,
  type CoatOptions,
  distress,
  FIRST,
  heat,
  planOf,
  resist,
  rewet,
  room,
  seal,
  when,
} from '../../testing/plans';
import { type SubstrateKey } from '../../media';
import { tackyShare } from '../../course';

/*
 * What lets go. What practitioners know to be so, as trends and ranges on plans: common practice
 * with no source, unless one is named.
 */

/** Share that flakes by itself, and the step of the lowest film that goes most. */
const chips = (plan: PanelPlan): number => Math.max(0, ...forecastOf(plan).chips.map(({ share }) => share));
const goes = (plan: PanelPlan): string => {
  const { chips: all, coats } = forecastOf(plan);
  return coats[all.reduce((a, b) => (b.share > a.share ? b : a)).film]!.coat.id;
};
const flakeMm = (plan: PanelPlan): number => (wholeOf(plan).flake ?? 0) * 1000;
const on = (substrate: SubstrateKey, ...steps: readonly Step[]): PanelPlan =>
  planOf(steps, room(), substrate);
const twice = (options: CoatOptions = {}, between: readonly Step[] = []): readonly Step[] => [
  coat('milk', 'milk', 70, when('through-dry'), options),
  ...between,
  coat('again', 'milk', 60, when('recoat'), options),
];
const prepared = (plan: PanelPlan, handled: boolean, ...done: readonly PrepStep[]): PanelPlan => ({
  ...plan,
  panel: { ...plan.panel, history: { ...plan.panel.history, handled, coat: 'varnish' }, prepared: done },
});

describe('which boundary parts', () => {
  it('a dark base on scuffed varnish holds, and chips part above it', () => {
    for (const base of ['chalk', 'clay', 'latex']) {
      const plan = on('scuffed', coat('base', base, 90, FIRST), ...twice());
      expect(goes(plan)).withContext(base).toBe('milk');
      const sealed = on(
        'scuffed',
        coat('base', base, 90, FIRST),
        coat('s', 'polyW', 80, when('through-dry')),
        {
          ...coat('milk', 'milk', 70, after(25 * 60)),
        },
      );
      expect(goes(sealed)).withContext(`${base} sealed`).toBe('milk');
      expect(wholeOf(sealed).bareShare).withContext(`${base} sealed`).toBeLessThan(0.01);
    }
  });

  const grounds = (n: number): PanelPlan =>
    on(
      'scuffed',
      coat('shellac', 'shellac', 60, FIRST),
      ...Array.from({ length: n }, (_, i) =>
        coat(`g${i}`, 'gesso', 110, i === 0 ? when('through-dry') : when('recoat'), { dilution: 0.5 }),
      ),
      coat('milk', 'milk', 60, when('through-dry')),
      distress('s', 'scrape', after(1800), { rounds: 3 }),
    );

  it('one or two chalk grounds over shellac give specks, three jagged pieces with much white left', () => {
    const [one, two, three] = [1, 2, 3].map((n) => wholeOf(grounds(n)).chippedShare);
    expect(one!).toBeLessThan(0.1);
    expect(two!).toBeLessThan(0.3);
    expect(three!).toBeGreaterThan(0.3);
    expect(three!).toBeLessThan(0.6);
    expect(flakeMm(grounds(3))).toBeGreaterThan(5);
    expect(flakeMm(grounds(3))).toBeLessThan(20);
  });

  it('preparation changes the bond, not only a note', () => {
    const plan = on('gloss', ...twice());
    const bare = chips(prepared(plan, false));
    expect(chips(prepared(plan, false, 'scuff'))).toBeLessThan(0.7 * bare);
    expect(chips(prepared(plan, false, 'bond'))).toBeLessThan(0.2 * bare);
    expect(chips(prepared(plan, true))).toBeGreaterThan(1.2 * bare);
    expect(chips(prepared(plan, true, 'degrease'))).toBeCloseTo(bare, 9);
  });
});

describe('the levers of milk paint', () => {
  for (const [name, ground] of [
    ['clay on scuffed varnish', ['scuffed', coat('base', 'clay', 90, FIRST)]],
    ['chalk on scuffed varnish', ['scuffed', coat('base', 'chalk', 90, FIRST)]],
    ['latex on scuffed varnish', ['scuffed', coat('base', 'latex', 90, FIRST)]],
  ] as const) {
    it(`all work over ${name}`, () => {
      const [substrate, base] = ground;
      const plain = chips(on(substrate, base, ...twice()));
      expect(chips(on(substrate, base, ...twice({ bonding: 0.5 })))).toBeLessThan(0.7 * plain);
      expect(chips(on(substrate, base, ...twice({ lumps: true })))).toBeGreaterThan(1.3 * plain);
      const once = on(substrate, base, coat('milk', 'milk', 70, when('through-dry')));
      expect(chips(once)).toBeLessThan(0.7 * plain);
      const early = twice({}, [heat('h', 'dryer', 60, after(600))]);
      expect(chips(on(substrate, base, ...early))).toBeGreaterThan(1.3 * plain);
      const wet = [rewet('r', after(3600)), rewet('r2', after(3600))];
      expect(chips(on(substrate, base, ...twice(), ...wet))).toBeGreaterThan(1.3 * plain);
    });
  }

  it('over a clay base it chips on a finished piece, and not where that is thin on nearly raw wood', () => {
    const warm = twice({}, [heat('h', 'dryer', 60, after(600))]);
    const clay = (substrate: SubstrateKey, um: number): PanelPlan =>
      on(substrate, coat('base', 'clay', um, FIRST), ...warm);
    expect(chips(clay('scuffed', 90))).toBeGreaterThan(0.04);
    expect(chips(clay('raw-softwood', 50))).toBeLessThan(0.005);
  });

  it('forcing brings chips on raw wood too', () => {
    const force = [0, 1, 2].flatMap((k) => [
      rewet(`r${k}`, after(k === 0 ? 43200 : 900)),
      heat(`h${k}`, 'gun', 60, after(60)),
    ]);
    const milk = twice();
    const raw = on('raw-softwood', { ...milk[0]!, start: FIRST } as Step, milk[1]!, ...force);
    expect(chips(raw)).toBeGreaterThan(0.02);
    expect(chips({ ...raw, steps: raw.steps.slice(0, 2) })).toBeLessThan(0.005);
  });

  it('a second coat ten minutes after the first becomes one film with it, and parts from the base', () => {
    for (const wait of [600, 900]) {
      const plan = on(
        'sealed',
        coat('base', 'latex', 90, FIRST),
        coat('milk', 'milk', 70, when('through-dry')),
        coat('again', 'milk', 70, after(wait)),
      );
      expect(goes(plan)).withContext(`${wait}`).toBe('milk');
    }
  });
});

describe('tack', () => {
  const sealed = (medium: string, um: number, wait: number): PanelPlan =>
    planOf([
      coat('base', 'latex', 90, FIRST),
      coat('s', medium, um, when('through-dry')),
      coat('milk', 'milk', 70, after(wait)),
    ]);

  for (const [medium, um] of [
    ['polyW', 80],
    ['lacquer', 75],
  ] as const) {
    it(`is one measure for state, window, note and chips: ${medium}`, () => {
      const { course } = forecastOf(sealed(medium, um, 60));
      const { opensAt, closesAt } = course.windows[1]!;
      const film = course.films[1]!;
      expect(tackyShare(film, opensAt)).toBeCloseTo(0.25, 1);
      expect(tackyShare(film, closesAt!)).toBeCloseTo(0.25, 1);
      expect(film.openStates.tacky!).toBeGreaterThan(opensAt);
      expect(film.openStates.touch!).toBeLessThan(closesAt!);
      const noteAt = (moment: number): string[] =>
        forecastOf(sealed(medium, um, moment - film.laidAt)).findings.map(({ code }) => code);
      expect(noteAt(opensAt - 20)).toContain('base-not-dry');
      expect(noteAt(opensAt + 20)).toContain('sealer-tacky');
      expect(noteAt(closesAt! - 20)).toContain('sealer-tacky');
      expect(noteAt(closesAt! + 20)).toContain('sealer-dry');
      const at = (moment: number): number => chips(sealed(medium, um, moment - film.laidAt));
      const middle = at(film.laidAt + 0.7 * (film.openStates.touch! - film.laidAt));
      expect(middle).toBeGreaterThan(0.1);
      expect(middle).toBeGreaterThan(5 * at(closesAt! + 4 * (closesAt! - film.laidAt)));
      // Nothing falls within a minute.
      for (let t = opensAt; t < closesAt!; t += 60)
        expect(at(t + 60))
          .withContext(`${t - film.laidAt}`)
          .toBeGreaterThan(0.6 * at(t));
    });
  }

  it('of a brushed clear coat lasts a quarter of an hour and more', () => {
    const { opensAt, closesAt } = forecastOf(sealed('polyW', 80, 60)).course.windows[1]!;
    expect(closesAt! - opensAt).toBeGreaterThan(15 * 60);
  });

  it('gives flakes of 3 to 12 mm, on a waxed sealer larger still', () => {
    const flakes = flakeMm(sealed('polyW', 80, 15 * 60));
    expect(flakes).toBeGreaterThan(3);
    expect(flakes).toBeLessThan(12);
    const waxed = planOf([
      coat('base', 'latex', 90, FIRST),
      seal('w', 'clearWax', 12, when('through-dry')),
      coat('milk', 'milk', 60, after(43200)),
    ]);
    expect(flakeMm(waxed)).toBeGreaterThan(flakes);
    expect(flakeMm(waxed)).toBeLessThan(30);
  });
});

describe('wax under milk paint', () => {
  const rubbed = (medium: string, ...more: readonly Step[]): PanelPlan =>
    planOf([
      coat('base', 'latex', 90, FIRST),
      resist('wax', 'candle', 0.3, when('through-dry')),
      coat('top', medium, 60, after(60)),
      ...more,
    ]);

  it('chips somewhat by itself, and much more under a tool', () => {
    expect(wholeOf(rubbed('milk')).chippedShare).toBeGreaterThan(0.02);
    expect(wholeOf(rubbed('milk')).chippedShare).toBeLessThan(0.15);
    expect(wholeOf(rubbed('latex')).chippedShare).toBeLessThan(0.01);
    const scraped = wholeOf(
      rubbed('milk', distress('s', 'scrape', after(43200), { rounds: 1, pressure: 0.3 })),
    );
    expect(scraped.chippedShare).toBeGreaterThan(0.2);
  });
});

describe('slick vinyl', () => {
  it('lets chalk-type paint fail where it is handled, not on an untouched panel', () => {
    const plan = on('vinyl', coat('a', 'chalk', 90, FIRST), coat('b', 'chalk', 80, when('through-dry')));
    expect(chips(plan)).toBeLessThan(0.05);
    expect(forecastOf(plan).findings.map(({ code }) => code)).toContain('poor-hold');
  });
});
