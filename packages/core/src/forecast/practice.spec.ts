import { type Cover, type PanelMap, type PanelPlan, type PrepStep, type StartRule, type Step } from '../plan';
import { forecastOf } from '../testing/forecasts';
import {
  after,
  coat,
  type CoatOptions,
  distress,
  FIRST,
  heat,
  overGlue,
  overMedium,
  planOf,
  resist,
  rewet,
  room,
  seal,
  when,
  wipe,
} from '../testing/plans';
import { type SubstrateKey } from '../media';
import { handsOn, tackyShare, working } from '../course';
import { type ZoneForecast } from '../outcome';

/*
 * What practitioners know to be so, as trends and ranges on plans. All of it is common practice with no source, unless
 * one is named.
 */

const of = (plan: PanelPlan): ZoneForecast => forecastOf(plan).whole;
const openArea = (plan: PanelPlan): number => of(plan).crack?.openArea ?? 0;
const opening = (plan: PanelPlan): number => of(plan).crack?.opening ?? 0;
const firstMin = (plan: PanelPlan): number => (of(plan).firstAfter ?? Infinity) / 60;

const part = (share: number): Cover => ({ style: 'blotchy', share });
const crackled = (medium: Partial<{ cover: Cover; map: PanelMap }>, ...more: readonly Step[]): PanelPlan =>
  planOf([
    coat('base', 'latex', 90, FIRST),
    { ...coat('medium', 'crackle', 70, when('through-dry')), ...medium },
    coat('top', 'chalk', 100, when('touch-dry')),
    ...more,
  ]);
/** A map that says one thing on the left half and another on the right. */
const halves = (left: number, right: number): PanelMap => ({
  columns: 60,
  rows: 2,
  values: Array.from({ length: 120 }, (_, i) => (i % 60 < 30 ? left : right)),
});

describe('where medium or glue is missing', () => {
  const whole = openArea(crackled({}));

  it('nothing cracks: the open area follows the area on which it lies', () => {
    expect(openArea(crackled({ cover: part(0.5) })) / whole).toBeGreaterThan(0.35);
    expect(openArea(crackled({ cover: part(0.5) })) / whole).toBeLessThan(0.65);
    expect(openArea(crackled({ cover: part(0) }))).toBe(0);
    const glued = (share: number): number =>
      openArea(
        planOf([
          coat('base', 'latex', 90, FIRST),
          coat('glue', 'pva', 110, when('through-dry'), { cover: part(share) }),
          coat('top', 'latex', 110, after(60)),
        ]),
      );
    expect(glued(0.5) / glued(1)).toBeGreaterThan(0.35);
    expect(glued(0.5) / glued(1)).toBeLessThan(0.65);
  });

  it('nothing cracks there, by a map as by patches', () => {
    const mapped = crackled({ map: halves(1, 0) });
    const at = (left: number): number =>
      forecastOf(mapped, { left, top: 0.1, width: 0.1, height: 0.2 }).whole.crack?.openArea ?? 0;
    expect(at(0.1)).toBeCloseTo(whole, 2);
    expect(at(0.4)).toBe(0);
  });

  it('counts where the top coat is missing as well', () => {
    const top = coat('top', 'chalk', 100, when('touch-dry'), { cover: part(0.5) });
    const plan = crackled({});
    expect(openArea({ ...plan, steps: [...plan.steps.slice(0, 2), top] }) / whole).toBeCloseTo(0.5, 1);
  });

  it('a panel may be crackled as a frame round a plain middle', () => {
    const rim = { columns: 12, rows: 8, values: Array.from({ length: 96 }, (_, i) => (isRim(i) ? 1 : 0)) };
    const framed = forecastOf(crackled({ map: rim }));
    expect(framed.zones.edge.crack!.openArea).toBeGreaterThan(0.8 * whole);
    expect(framed.zones.field.crack!.openArea).toBeLessThan(0.6 * whole);
  });
});

const isRim = (i: number): boolean =>
  i % 12 === 0 || i % 12 === 11 || Math.floor(i / 12) === 0 || Math.floor(i / 12) === 7;

describe('air over a crackle', () => {
  for (const [name, plan] of [
    ['glue', (air: ReturnType<typeof room>) => overGlue(110, 110, 60, air)],
    ['medium', (air: ReturnType<typeof room>) => overMedium(70, 100, air)],
  ] as const) {
    it(`over ${name} damp makes it later, no wider and clearly less`, () => {
      const usual = plan(room(21, 0.5));
      const damp = plan(room(21, 0.9));
      expect(firstMin(damp)).toBeGreaterThan(1.3 * firstMin(usual));
      expect(opening(damp)).toBeLessThanOrEqual(opening(usual));
      expect(openArea(damp)).toBeLessThan(0.7 * openArea(usual));
      expect(openArea(plan(room(10, 0.5)))).toBeLessThan(openArea(usual));
    });

    it(`over ${name} very quick drying does not widen the cracks without limit`, () => {
      const quick = plan(room(32, 0.2, 1.5));
      expect(opening(quick)).toBeLessThan(1.6 * opening(plan(room(21, 0.5))));
    });
  }

  it('over thin glue lets the first cracks come within minutes, in damp and cold too', () => {
    expect(firstMin(overGlue(60, 110, 60))).toBeLessThan(5);
    expect(firstMin(overGlue(60, 110, 60, room(14, 0.85)))).toBeLessThan(8);
    expect(firstMin(overGlue(300, 110, 60))).toBeGreaterThan(1.3 * firstMin(overGlue(100, 110, 60)));
  });
});

describe('a film thicker than anyone lays', () => {
  it('is not told of, rather than told a number', () => {
    for (const um of [420, 510]) {
      const { whole, findings } = forecastOf(overGlue(110, um, 60));
      const known = um <= 500;
      expect(whole.crack !== null)
        .withContext(`${um}`)
        .toBe(known);
      expect(findings.some(({ code }) => code === 'cracks-unknown'))
        .withContext(`${um}`)
        .toBe(!known);
      if (known) expect(whole.crack!.spacing).toBeLessThan(0.03);
    }
  });
});

describe('a touch-up', () => {
  const later = (share: number): PanelPlan =>
    crackled({}, coat('again', 'chalk', 60, after(20000), { cover: { style: 'dry-brushed', share } }));

  it('covers the cracks where it lies and leaves the others', () => {
    const whole = openArea(crackled({}));
    expect(openArea(later(0.05)) / whole).toBeGreaterThan(0.93);
    expect(openArea(later(0.05))).toBeLessThan(whole);
    const full = openArea(crackled({}, coat('again', 'chalk', 90, after(20000))));
    expect(full).toBeLessThan(0.5 * whole);
  });

  it('leaves the pattern of the coat that cracked', () => {
    const pattern = (plan: PanelPlan): readonly number[] =>
      forecastOf(plan).scene.networks.map((n) => n.layer);
    expect(pattern(later(0.05)).every((layer) => layer === 3)).toBeTrue();
  });
});

/** Share that flakes by itself, and the step of the lowest film that goes most. */
const chips = (plan: PanelPlan): number => Math.max(0, ...forecastOf(plan).chips.map(({ share }) => share));
const goes = (plan: PanelPlan): string => {
  const { chips: all, coats } = forecastOf(plan);
  return coats[all.reduce((a, b) => (b.share > a.share ? b : a)).film]!.coat.id;
};
const flakeMm = (plan: PanelPlan): number => (of(plan).flake ?? 0) * 1000;
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
      expect(of(sealed).bareShare).withContext(`${base} sealed`).toBeLessThan(0.01);
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
    const [one, two, three] = [1, 2, 3].map((n) => of(grounds(n)).chippedShare);
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
    expect(of(rubbed('milk')).chippedShare).toBeGreaterThan(0.02);
    expect(of(rubbed('milk')).chippedShare).toBeLessThan(0.15);
    expect(of(rubbed('latex')).chippedShare).toBeLessThan(0.01);
    const scraped = of(rubbed('milk', distress('s', 'scrape', after(43200), { rounds: 1, pressure: 0.3 })));
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

const HOUR = 3600;
const NIGHT = 12 * HOUR;
const worn = (plan: PanelPlan): number => of(plan).wornShare;
const seen = (plan: PanelPlan, id: string): number => forecastOf(plan).layers.find((l) => l.id === id)!.share;

describe('taking off', () => {
  const barred = (barrier: string, um: number, grit: 80 | 150): PanelPlan =>
    on(
      'raw-softwood',
      coat('barrier', barrier, um, FIRST),
      coat('top', 'latex', 90, after(2 * NIGHT)),
      distress('s', 'sand', after(2 * NIGHT), { grit, rounds: 15 }),
    );

  it('stops at a barrier, but for coarse grit', () => {
    for (const [barrier, um] of [
      ['spray', 50],
      ['enamelO', 75],
    ] as const) {
      expect(of(barred(barrier, um, 150)).bareShare)
        .withContext(barrier)
        .toBeLessThan(0.005);
      expect(of(barred(barrier, um, 80)).bareShare)
        .withContext(barrier)
        .toBeGreaterThan(0.05);
    }
  });

  it('takes the ridges of a thick textured base first', () => {
    const cut = (um: number, medium: string): number =>
      seen(
        on(
          'primed',
          coat('base', medium, um, FIRST),
          coat('top', 'mineral', 90, after(NIGHT)),
          distress('cut', 'blade', after(2 * HOUR), { rounds: 3 }),
        ),
        'base',
      );
    expect(cut(1200, 'texture')).toBeGreaterThan(0.1);
    expect(cut(1200, 'texture')).toBeGreaterThan(cut(300, 'texture'));
  });

  it('takes what is still liquid nearly whole, then less and less until it is set', () => {
    for (const [tool, medium] of [
      ['scrape', 'latex'],
      ['cloth', 'chalk'],
    ] as const) {
      const after60 = [1, 3, 10, 20, 40].map((minutes) =>
        worn(
          planOf([
            coat('base', 'latex', 90, FIRST),
            coat('top', medium, 90, when('through-dry')),
            distress('w', tool, after(minutes * 60), { rounds: tool === 'cloth' ? 6 : 2 }),
          ]),
        ),
      );
      expect(after60[0]!).withContext(tool).toBeGreaterThan(0.8);
      expect(after60.slice(1).every((share, i) => share < after60[i]!))
        .withContext(tool)
        .toBeTrue();
      expect(after60[4]!).withContext(tool).toBeLessThan(0.15);
    }
  });

  it('has no steps: a little more work takes a little more', () => {
    const sanded = (rounds: number, pressure: number): number =>
      worn(
        on(
          'scuffed',
          coat('a', 'chalk', 90, FIRST),
          coat('b', 'chalk', 80, when('through-dry')),
          distress('s', 'sand', after(NIGHT), { rounds, pressure }),
        ),
      );
    expect(sanded(1, 1)).toBeGreaterThan(0);
    for (let pressure = 0.4; pressure < 2; pressure += 0.05)
      expect(sanded(3, pressure + 0.05)).toBeGreaterThan(sanded(3, pressure));
  });
});

describe('dark wax', () => {
  const waxed = (buffAfter: number | null): PanelPlan =>
    planOf([
      coat('base', 'latex', 90, FIRST),
      coat('medium', 'crackle', 70, when('through-dry')),
      coat('top', 'chalk', 100, when('touch-dry')),
      seal('clear', 'polyW', 60, when('through-dry')),
      seal('wax', 'darkWax', 12, when('through-dry'), { buffAfter }),
    ]);

  it('rubbed in all over and wiped back stays in the cracks, with a tint on the film', () => {
    const cracks = openArea(waxed(300));
    expect(seen(waxed(300), 'wax')).toBeGreaterThan(0.8 * cracks);
    expect(seen(waxed(300), 'wax')).toBeLessThan(cracks + 0.15);
    expect(seen(waxed(1500), 'wax')).toBeGreaterThan(seen(waxed(300), 'wax'));
    expect(seen(waxed(null), 'wax')).toBeGreaterThan(0.7);
    const codes = forecastOf(waxed(300)).findings.map(({ code }) => code);
    expect(codes).not.toContain('buff-early');
    const clear = planOf([
      coat('a', 'chalk', 90, FIRST),
      seal('w', 'clearWax', 12, when('recoat'), { buffAfter: 120 }),
    ]);
    expect(forecastOf(clear).findings.map(({ code }) => code)).toContain('buff-early');
  });
});

describe('jelly', () => {
  const jellied = (substrate: SubstrateKey): PanelPlan =>
    on(
      substrate,
      resist('j', 'jelly', 0.3, FIRST),
      coat('c', 'latex', 90, after(60)),
      wipe('w', when('through-dry', 8 * HOUR)),
    );

  it('soaks into raw wood and resists less there, not into varnish', () => {
    const codes = (substrate: SubstrateKey): string[] =>
      forecastOf(jellied(substrate)).findings.map(({ code }) => code);
    expect(codes('raw-softwood')).toContain('jelly-unsealed');
    expect(codes('scuffed')).not.toContain('jelly-unsealed');
    expect(of(jellied('raw-softwood')).chippedShare).toBeLessThan(0.8 * of(jellied('scuffed')).chippedShare);
  });
});

describe('what was wetted', () => {
  const wetted = (tool: 'cloth' | 'sponge' | 'bleach', start: StartRule): PanelPlan =>
    planOf([
      coat('a', 'chalk', 90, FIRST),
      distress('w', tool, when('through-dry', NIGHT), { rounds: 3 }),
      coat('b', 'chalk', 80, start),
    ]);

  it('must dry before the next coat, which waits where it follows a state and is warned of where not', () => {
    for (const tool of ['cloth', 'sponge', 'bleach'] as const) {
      const { times, findings } = forecastOf(wetted(tool, when('recoat')));
      const ended = times[1]!.from + (tool === 'bleach' ? 180 : 0);
      expect(times[2]!.from - ended)
        .withContext(tool)
        .toBeGreaterThan(120);
      expect(findings.some(({ code }) => code === 'damp-below'))
        .withContext(tool)
        .toBeFalse();
      const soon = forecastOf(wetted(tool, after(30))).findings.map(({ code }) => code);
      expect(soon).withContext(tool).toContain('damp-below');
    }
  });

  it('dry through means every film below', () => {
    const plan = planOf([
      coat('thick', 'texture', 500, FIRST),
      coat('thin', 'chalk', 40, when('touch-dry')),
      coat('next', 'chalk', 60, when('through-dry')),
    ]);
    const { coats } = forecastOf(plan);
    expect(coats[2]!.laidAt).toBeGreaterThanOrEqual(coats[0]!.open.through!);
  });
});

describe('hours of work', () => {
  const HOURS = { opens: 8 * HOUR, closes: 18 * HOUR, clockAtStart: 9 * HOUR };
  const clock = (moment: number): number => ((9 * HOUR + moment) % 86400) / HOUR;

  it('after a night comes the morning, whatever follows "after five minutes"', () => {
    const rests: Step = { id: 'night', kind: 'wait', duration: 12 * HOUR, start: after(0) };
    const plan = planOf([coat('a', 'chalk', 90, FIRST), rests, seal('w', 'clearWax', 12, after(300))]);
    const { times } = forecastOf({ ...plan, hours: HOURS });
    expect(clock(times[2]!.from)).toBeGreaterThanOrEqual(8);
    expect(clock(times[2]!.from)).toBeLessThan(18);
  });

  it('hold every coat of a seal', () => {
    const plan = planOf([
      coat('a', 'chalk', 90, FIRST),
      seal('s', 'polyW', 80, when('recoat'), { coats: 5 }),
    ]);
    const late = { ...plan, hours: { ...HOURS, clockAtStart: 13 * HOUR } };
    const film = forecastOf(late).course.films[1]!;
    const at = ((13 * HOUR + film.laidAt) % 86400) / HOUR;
    expect(at).toBeGreaterThanOrEqual(8);
    expect(at).toBeLessThan(18);
    expect(film.laidAt).toBeGreaterThan(forecastOf(plan).course.films[1]!.laidAt);
  });

  it('are more than the brush on the wood', () => {
    const side = 0.05 * 0.6;
    const steps = [coat('a', 'chalk', 90, FIRST), distress('s', 'sand', after(NIGHT))];
    for (const step of steps) expect(handsOn(step, side)).toBeGreaterThan(60);
    expect(handsOn(steps[0]!, side)).toBeGreaterThan(working(steps[0]!, side) + 120);
  });
});

describe('cold', () => {
  it('leaves no moment a good one', () => {
    const good = (celsius: number): string[] =>
      forecastOf(overGlue(110, 110, 60, room(celsius, 0.5)))
        .findings.filter(({ level }) => level === 'good')
        .map(({ code }) => code);
    expect(good(21)).toContain('glue-grabs');
    expect(good(5)).toEqual([]);
  });
});

describe('moving air', () => {
  it('dries one and a half to two and a half times sooner than a still shop', () => {
    const touch = (speed: number): number => {
      const { coats } = forecastOf(planOf([coat('a', 'chalk', 90, FIRST)], room(21, 0.5, speed)));
      return coats[0]!.open.touch! - coats[0]!.laidAt;
    };
    expect(touch(0.1) / touch(1)).toBeGreaterThan(1.5);
    expect(touch(0.1) / touch(1)).toBeLessThan(2.5);
  });

  it('dries small parts sooner than large ones', () => {
    const touch = (width: number): number => {
      const plan = planOf([coat('a', 'chalk', 90, FIRST)]);
      const { coats } = forecastOf({ ...plan, panel: { ...plan.panel, width, height: width } });
      return coats[0]!.open.touch!;
    };
    expect(touch(0.1)).toBeLessThan(0.85 * touch(1));
  });
});

describe('colour', () => {
  const seenThrough = (colour: string): number => {
    const plan = planOf([
      coat('base', 'latex', 90, FIRST, { colour: '#6a3b2a' }),
      coat('top', 'chalk', 45, when('recoat'), { colour }),
    ]);
    return seen(plan, 'base');
  };

  it('black and earth hide thin, white and yellow need two or three coats', () => {
    for (const dark of ['#16130f', '#4a3020']) expect(seenThrough(dark)).withContext(dark).toBeLessThan(0.08);
    for (const pale of ['#f6f3ea', '#e8c531']) {
      expect(seenThrough(pale))
        .withContext(pale)
        .toBeGreaterThan(2 * seenThrough('#4a3020'));
    }
    expect(seenThrough('#e8c531')).toBeGreaterThan(seenThrough('#f6f3ea'));
  });

  const fissures = (...more: readonly Step[]): PanelPlan =>
    planOf([
      coat('base', 'latex', 90, FIRST, { colour: '#2f4c50' }),
      coat('paint', 'chalk', 90, when('recoat'), { colour: '#e2d9c3' }),
      coat('medium', 'crackle', 60, when('through-dry')),
      coat('clear', 'polyW', 60, when('touch-dry')),
      ...more,
    ]);

  it('of cracks in a clear coat is not seen until dark wax is rubbed in', () => {
    expect(forecastOf(fissures()).appearance.contrast!).toBeLessThan(3);
    const waxed = fissures(seal('wax', 'darkWax', 12, when('through-dry'), { buffAfter: 300 }));
    expect(forecastOf(waxed).appearance.contrast!).toBeGreaterThan(10);
  });

  it('of two coats of one colour is what comes to light below both', () => {
    const plan = planOf([
      coat('base', 'latex', 90, FIRST, { colour: '#2f4c50' }),
      coat('one', 'chalk', 60, when('recoat'), { colour: '#e2d9c3' }),
      coat('two', 'chalk', 60, when('recoat'), { colour: '#e2d9c3' }),
      distress('s', 'sand', after(NIGHT), { grit: 120, rounds: 25 }),
    ]);
    const { appearance, findings } = forecastOf(plan);
    expect(appearance.contrast!).toBeGreaterThan(20);
    expect(findings.map(({ code }) => code)).not.toContain('contrast-low');
  });

  it('fine paper that only smooths is no fault', () => {
    const plan = (grit: 150 | 320): string[] =>
      forecastOf(
        planOf([
          coat('a', 'polyO', 75, FIRST),
          coat('b', 'latex', 90, after(3 * 86400)),
          distress('s', 'sand', after(9 * 86400), { grit, rounds: 1, pressure: 0.2 }),
        ]),
      ).findings.map(({ code }) => code);
    expect(plan(150)).toContain('nothing-comes-off');
    expect(plan(320)).not.toContain('nothing-comes-off');
  });
});

describe('a quick oil clear coat', () => {
  it('takes its next coat in four to six hours, the slow one in a day', () => {
    const recoat = (medium: string): number => {
      const { coats } = forecastOf(planOf([coat('a', medium, 75, FIRST)]));
      return (coats[0]!.open.recoat! - coats[0]!.laidAt) / HOUR;
    };
    expect(recoat('polyF')).toBeGreaterThan(4);
    expect(recoat('polyF')).toBeLessThan(6);
    expect(recoat('polyO')).toBeGreaterThan(18);
  });
});

describe('glue that closes', () => {
  it('is not kept open by laying more of it', () => {
    const open = (um: number): number => {
      const { course } = forecastOf(overGlue(um, 110, 60));
      return course.windows[1]!.closesAt! - course.films[1]!.laidAt;
    };
    expect(open(220) / open(110)).toBeLessThan(1.3);
  });
});
