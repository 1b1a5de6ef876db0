import { courseOf } from '../course';
import { type Companion, type PanelPlan, type Seal, type Step } from '../plan';
import { broken } from '../testing/checkSchedule';
import { forecastOf } from '../testing/forecasts';
import {
  after,
  coat,
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
} from '../testing/plans';
import { EIGHT_TO_FIVE, jobOf, problemOf } from '../testing/timetables';
import {
  followed,
  longPauseOf,
  retimer,
  schedule,
  sectionsOf,
  sumsOf,
  type Entry,
  type Job,
  MINUTES,
  type Problem,
  type Schedule,
} from '.';

/*
 * What a painter knows of a working day, as facts of timetables: common practice, with the figures of the trade where
 * they are named.
 */

const MINUTE = 60;
const HOUR = 3600;
const DAY = 86_400;
const OPENS = 8 * HOUR;

const kept = (problem: Problem): Schedule => {
  const table = schedule(problem);
  expect(table.outcome).toBe('found');
  expect(broken(problem, table)).toEqual([]);
  return table;
};
const entryOf = (table: Schedule, partId: string, stepId: string, coatNo = 0): Entry =>
  table.entries.find(
    (entry) =>
      entry.partId === partId &&
      entry.stepId === stepId &&
      entry.coat === coatNo &&
      !['turn', 'clean', 'mix', 'buff'].includes(entry.kind),
  )!;
/** Time of day [s]. */
const clock = (moment: number): number => (OPENS + moment) % DAY;
const sized = (plan: PanelPlan, width: number, height: number): PanelPlan => ({
  ...plan,
  panel: { ...plan.panel, width, height },
});
const hide = planOf([
  coat('base', 'latex', 90, FIRST),
  coat('glue', 'hide', 140, when('recoat')),
  coat('top', 'chalk', 90, when('through-dry')),
]);

describe('a timetable', () => {
  it('never glues so late that the paint would come after closing', () => {
    const begun = (from: number): Schedule => kept(problemOf([jobOf('p', overGlue(140, 90, 120))], { from }));
    for (const from of [0, 8.5 * HOUR, 8.8 * HOUR]) {
      const table = begun(from);
      const both = entryOf(table, 'p', 'glue');
      expect(both.kind).toBe('sections');
      expect(clock(both.from)).toBeGreaterThanOrEqual(OPENS);
      expect(clock(both.until)).toBeLessThanOrEqual(17 * HOUR);
    }
  });

  it('lets hide glue cure over night, twelve hours, and two boards share the one wait', () => {
    const one = kept(problemOf([jobOf('a', hide)]));
    const wait = entryOf(one, 'a', 'top').from - entryOf(one, 'a', 'glue').from;
    expect(wait).toBeGreaterThan(8 * HOUR);
    expect(Math.floor((OPENS + entryOf(one, 'a', 'top').from) / DAY)).toBe(1);
    const two = kept(problemOf([jobOf('a', hide), jobOf('b', hide)]));
    expect(two.ready! - one.ready!).toBeLessThan(HOUR);
  });

  it('lays salt over night, and strews it while the coat is wet', () => {
    const salted = planOf([
      coat('base', 'latex', 90, FIRST),
      coat('bed', 'chalk', 220, when('recoat')),
      resist('salt', 'salt', 0.3, after(MINUTE)),
      distress('off', 'scrape', after(14 * HOUR)),
    ]);
    const table = kept(problemOf([jobOf('p', salted)]));
    const salt = entryOf(table, 'p', 'salt');
    expect(salt.closes! - salt.from).toBeGreaterThanOrEqual(0);
    expect(salt.closes! - entryOf(table, 'p', 'bed').from).toBeLessThan(HOUR);
    const off = entryOf(table, 'p', 'off');
    expect(Math.floor((OPENS + off.from) / DAY)).toBeGreaterThan(Math.floor((OPENS + salt.from) / DAY));
  });

  it('lays five coats of a top in working time only, each when the one before takes it', () => {
    const worked = planOf([
      coat('a', 'chalk', 90, FIRST),
      seal('s', 'polyW', 80, when('through-dry'), { coats: 5 }),
    ]);
    const table = kept(problemOf([jobOf('p', worked)]));
    const coats = [0, 1, 2, 3, 4].map((k) => entryOf(table, 'p', 's', k));
    for (let k = 1; k < 5; k++) expect(coats[k]!.from - coats[k - 1]!.from).toBeGreaterThan(30 * MINUTE);
    for (const { from, until } of coats) {
      expect(clock(from)).toBeGreaterThanOrEqual(OPENS);
      expect(clock(until)).toBeLessThanOrEqual(17 * HOUR);
    }
    expect((table.moments['p']!['s'] as { coats: readonly number[] }).coats).toEqual(
      coats.map(({ from }) => from),
    );
  });

  it('buffs a wax not before it is told, and before four times what it takes to be ready', () => {
    const waxed = planOf([
      coat('a', 'chalk', 90, FIRST),
      seal('w', 'clearWax', 12, when('through-dry'), { buffAfter: 30 * MINUTE }),
    ]);
    const table = kept(problemOf([jobOf('p', waxed)]));
    const buff = table.entries.find(({ kind }) => kind === 'buff')!;
    const laid = entryOf(table, 'p', 'w').from;
    expect(buff.from).toBeGreaterThanOrEqual(laid + 30 * MINUTE);
    const { films } = courseOf({ ...jobOf('p', waxed).basis, moments: table.moments['p']! });
    expect(buff.from - laid).toBeLessThan(4 * (films.at(-1)!.openStates.touch! - laid));
  });

  it('lays milk paint while the sealer is tacky: 7 to 33 minutes', () => {
    const tacky = planOf([
      coat('base', 'latex', 90, FIRST),
      seal('size', 'polyW', 60, when('recoat')),
      coat('milk', 'milk', 90, after(20 * MINUTE)),
    ]);
    const others = ['b', 'c', 'd'].map((id) => jobOf(id, planOf([coat('x', 'latex', 90, FIRST)])));
    const table = kept(problemOf([jobOf('a', tacky), ...others]));
    const wait = entryOf(table, 'a', 'milk').from - entryOf(table, 'a', 'size').from;
    expect(wait).toBeGreaterThanOrEqual(20 * MINUTE);
    expect(wait).toBeLessThanOrEqual(34 * MINUTE);
  });

  it('washes a brush after a window that would close meanwhile, and not before it', () => {
    const tacky = planOf([
      coat('base', 'latex', 90, FIRST),
      seal('size', 'polyW', 60, when('recoat')),
      coat('milk', 'milk', 90, after(10 * MINUTE)),
    ]);
    const table = kept(problemOf([jobOf('a', tacky)], { minutes: { ...MINUTES, washWater: 40 } }));
    expect(table.missed).toEqual([]);
    const [size, milk] = [entryOf(table, 'a', 'size'), entryOf(table, 'a', 'milk')];
    expect(milk.from - size.from).toBeLessThan(15 * MINUTE);
    const washed = table.entries.filter(({ kind, from }) => kind === 'clean' && from >= milk.until);
    expect(washed.reduce((sum, { from, until }) => sum + until - from, 0)).toBe(80 * MINUTE);
  });

  it('says what puts a task off: the hours, busy hands, a piece that lies otherwise', () => {
    const paint = planOf([coat('x', 'latex', 90, FIRST)]);
    const late = kept(
      problemOf([
        jobOf('a', planOf([coat('x', 'latex', 90, FIRST), coat('y', 'latex', 90, after(10 * HOUR))])),
      ]),
    );
    expect(entryOf(late, 'a', 'x').delay).toBeNull();
    expect(entryOf(late, 'a', 'y').delay).toBe('hours');
    const busy = kept(problemOf([jobOf('a', paint), jobOf('b', paint)]));
    expect(['a', 'b'].map((id) => entryOf(busy, id, 'x').delay).filter(Boolean)).toEqual(['hands']);
    const faces = (['top', 'left'] as const).map((up) => jobOf(up, paint, { body: 'chest', up }));
    const turned = kept(problemOf(faces, { people: 2 }));
    expect(faces.map(({ id }) => entryOf(turned, id, 'x').delay)).toContain('piece');
    const pinned = kept(
      problemOf([jobOf('a', paint)], { pins: [{ partId: 'a', stepId: 'x', coat: 0, at: HOUR }] }),
    );
    expect(entryOf(pinned, 'a', 'x').delay).toBe('order');
  });

  it('turns a piece by hand, and not while its paint runs', () => {
    const faces: Job[] = (['top', 'left', 'right', 'bottom'] as const).map((up) =>
      jobOf(up, overMedium(80, 90), { body: 'chest', up }),
    );
    const lying = kept(problemOf(faces));
    const standing = kept(problemOf(faces.map((job) => ({ ...job, up: 'top' as const }))));
    expect(sumsOf(lying).turns).toBeGreaterThanOrEqual(3);
    expect(sumsOf(standing).turns).toBe(0);
    // Turning and drying are what costs, not the hands.
    expect(lying.ready!).toBeGreaterThan(standing.ready! + HOUR);
    const helped = kept(problemOf(faces, { people: 2 }));
    expect(lying.ready! - helped.ready!).toBeLessThan(0.5 * (lying.ready! - standing.ready!));
  });

  it('cleans a brush unless the same paint follows soon, and mixes a pot before it is used', () => {
    const milk = { recipe: 'milk', mixing: 5 * MINUTE, rest: 20 * MINUTE, life: DAY };
    const painted = planOf([coat('x', 'milk', 90, FIRST)]);
    const jobs = ['a', 'b', 'c'].map((id) => jobOf(id, painted, { pots: { x: [milk] } }));
    const table = kept(problemOf(jobs));
    expect(table.entries.filter(({ kind }) => kind === 'mix').length).toBe(1);
    expect(table.entries.filter(({ kind }) => kind === 'clean').length).toBe(1);
    // Powder rests before it is used; common practice, 15 to 20 minutes.
    expect(entryOf(table, 'a', 'x').from).toBeGreaterThanOrEqual(25 * MINUTE);
    expect(table.mixes.map(({ recipe }) => recipe)).toEqual(['milk']);
  });

  it('cuts long work into pieces that fit between breaks', () => {
    const fabric: Companion = {
      id: 'f',
      kind: 'companion',
      task: 'fabric',
      hands: 5 * HOUR,
      rest: HOUR,
      start: FIRST,
    };
    const short: Step[] = [fabric, coat('x', 'latex', 90, after(0))];
    const table = kept(problemOf([jobOf('p', planOf(short))], { work: breaks() }));
    const pieces = table.entries.filter(({ kind }) => kind === 'piece');
    expect(pieces.length).toBeGreaterThanOrEqual(3);
    expect(pieces.every(({ from, until }) => until - from <= 2 * HOUR)).toBeTrue();
    expect(entryOf(table, 'p', 'x').from).toBeGreaterThanOrEqual(pieces.at(-1)!.until + HOUR);
  });

  it('waits for what is not in the house, for parts that come first, and for daylight', () => {
    const worn = planOf([coat('x', 'chalk', 90, FIRST), distress('s', 'sand', when('through-dry'))]);
    const jobs = [jobOf('a', worn, { notBefore: { x: 3 * HOUR } }), jobOf('b', worn, { follows: ['a'] })];
    const daylight = EIGHT_TO_FIVE.map(({ opens }) => ({
      opens: opens + 4 * HOUR,
      closes: opens + 7 * HOUR,
    }));
    const table = kept(problemOf(jobs, { daylight }));
    expect(entryOf(table, 'a', 'x').from).toBe(3 * HOUR);
    expect(entryOf(table, 'b', 'x').from).toBeGreaterThanOrEqual(entryOf(table, 'a', 's').until);
    for (const id of ['a', 'b'])
      expect(clock(entryOf(table, id, 's').from)).toBeGreaterThanOrEqual(12 * HOUR);
  });

  it('says what stands in the way where there is none', () => {
    const huge = sized(planOf([coat('x', 'latex', 90, FIRST)]), 3, 3);
    const hour = EIGHT_TO_FIVE.map(({ opens }) => ({ opens, closes: opens + HOUR }));
    const { outcome, obstacle } = schedule(problemOf([jobOf('wall', huge)], { work: hour }));
    expect(outcome).toBe('impossible');
    expect(obstacle).toEqual(
      jasmine.objectContaining({ reason: 'too-long', partId: 'wall', stepId: 'x', longest: HOUR }),
    );
    expect(obstacle!.needs).toBeGreaterThan(HOUR);
    expect(schedule(problemOf([jobOf('p', overMedium(80, 90))], { work: [] })).obstacle!.partId).toBe('p');
  });

  it('begins as late as a deadline allows, and still meets it', () => {
    const jobs = ['a', 'b'].map((id) => jobOf(id, overMedium(80, 90)));
    const deadline = 4 * DAY + 9 * HOUR;
    const late = kept(problemOf(jobs, { deadline, backward: true }));
    expect(late.ready!).toBeLessThanOrEqual(deadline);
    expect(late.entries[0]!.from).toBeGreaterThan(3 * DAY);
    // Half an hour of work later it would not.
    const later = schedule(problemOf(jobs, { from: late.entries[0]!.from + HOUR }));
    expect(later.ready!).toBeGreaterThan(deadline - HOUR);
  });

  it('puts work where it is dragged, and all that hangs on it follows', () => {
    const jobs = ['a', 'b', 'c'].map((id) => jobOf(id, overGlue(140, 90, 120)));
    const problem = problemOf(jobs);
    const table = kept(problem);
    const at = entryOf(table, 'b', 'base').from + 2 * HOUR;
    const pins = [{ partId: 'b', stepId: 'base', coat: 0, at }];
    const moved = retimer(problem, table)(pins);
    expect(broken({ ...problem, pins }, moved)).toEqual([]);
    expect(entryOf(moved, 'b', 'base').from).toBe(at);
    expect(entryOf(moved, 'b', 'glue').from).toBeGreaterThan(at);
    expect(retimer(problem, table)([]).entries).toEqual(table.entries);
  });

  it('is the same every time, and nothing of the seal but its coats is told twice', () => {
    const jobs = ['a', 'b', 'c'].map((id) =>
      jobOf(id, overMedium(80, 90), { body: 'x', up: id === 'a' ? 'top' : 'left' }),
    );
    expect(JSON.stringify(schedule(problemOf(jobs)))).toBe(JSON.stringify(schedule(problemOf(jobs))));
  });

  it('never ends later with one more person, longer hours or more daylight, where it goes on from the same order', () => {
    const faces: Job[] = (['top', 'left', 'front'] as const).map((up) =>
      jobOf(up, overGlue(140, 90, 120), { body: 'chest', up }),
    );
    const problem = problemOf([...faces, jobOf('board', hide)]);
    const table = kept(problem);
    const longer = EIGHT_TO_FIVE.map(({ opens, closes }) => ({ opens, closes: closes + 2 * HOUR }));
    for (const freer of [{ people: 2 }, { people: 3 }, { work: longer }]) {
      const other = schedule({ ...problem, ...freer }, { tries: 24, seed: 1 }, table.order);
      expect(other.ready!).toBeLessThanOrEqual(table.ready! + MINUTE);
    }
  });

  it('tells how much later each thing may begin', () => {
    const long = overMedium(80, 90);
    const short = planOf([coat('x', 'latex', 90, FIRST)]);
    const problem = problemOf([jobOf('long', hide), jobOf('short', short), jobOf('mid', long)]);
    const table = kept(problem);
    expect(entryOf(table, 'short', 'x').float).toBeGreaterThan(HOUR);
    const base = entryOf(table, 'long', 'base');
    // What decides when all is ready may not be moved by more than it says.
    const pins = [{ partId: 'long', stepId: 'base', coat: 0, at: base.from + base.float }];
    expect(retimer(problem, table)(pins).ready!).toBeLessThanOrEqual(table.ready! + MINUTE);
  });

  it('has a band: quicker and slower air, the same order', () => {
    const { band, ready } = kept(problemOf([jobOf('p', hide)]));
    expect(band![0]).toBeLessThanOrEqual(ready!);
    expect(band![1]).toBeGreaterThan(ready!);
  });
});

describe('sections of a large panel', () => {
  // Areas and what they need, by hands at the brush of 0.12 m² a minute and a skin at 4.1 minutes; common practice.
  const CASES = [
    { area: 0.09, sections: 1, one: 2.8 },
    { area: 0.38, sections: 2, one: 8.3 },
    { area: 0.96, sections: 4, one: 20 },
    { area: 2.0, sections: 7, one: 40 },
    { area: 3.6, sections: 12, one: 72 },
  ];
  for (const { area, sections, one } of CASES)
    it(`of ${area} m² are ${sections}, so that every place sees the paint after the same lag`, () => {
      const hands = (area / 0.12) * MINUTE;
      const told = sectionsOf(hands, hands, 120, 4.1 * MINUTE, 30);
      expect(told.sections).toBe(sections);
      expect(told.whole / MINUTE / one).toBeGreaterThan(0.9);
      // The sheet's own figures leave out the last change of brushes.
      expect((told.whole - 30) / MINUTE / one).toBeLessThan(1.12);
      expect(told.lag).toBeGreaterThanOrEqual(120);
      expect(told.lag).toBeLessThan(4.1 * MINUTE);
    });
});

describe('a checker of timetables', () => {
  const waxed: Seal = seal('w', 'clearWax', 12, when('through-dry'), { buffAfter: 30 * MINUTE });
  const plan = planOf([...overGlue(140, 90, 120).steps, waxed]);
  const milk = { recipe: 'm', mixing: 5 * MINUTE, rest: 20 * MINUTE, life: DAY };
  const jobs = [
    jobOf('a', plan, { body: 'x', up: 'left' }),
    jobOf('b', plan, { body: 'x', up: 'front', follows: ['c'] }),
    jobOf('c', planOf([coat('x', 'milk', 90, FIRST)]), { pots: { x: [milk] }, notBefore: { x: HOUR } }),
  ];
  const problem = problemOf(jobs);
  const table = schedule(problem);
  const with_ = (change: (entry: Entry) => Entry | null): Schedule => ({
    ...table,
    entries: table.entries.flatMap((entry) => change(entry) ?? []),
  });
  const is = (entry: Entry, partId: string, stepId: string, kind?: Entry['kind']): boolean =>
    entry.partId === partId && entry.stepId === stepId && (kind === undefined || entry.kind === kind);
  const moved = (entry: Entry, by: number): Entry => ({
    ...entry,
    from: entry.from + by,
    until: entry.until + by,
  });

  it('finds nothing wrong with one that is kept', () => expect(broken(problem, table)).toEqual([]));

  const CASES: readonly [string, RegExp, () => Schedule][] = [
    ['a step left out', /is done never/, () => with_((e) => (is(e, 'a', 'base', 'step') ? null : e))],
    ['a wax nobody buffs', /is buffed 0 times/, () => with_((e) => (e.kind === 'buff' ? null : e))],
    [
      'a step before the one before it',
      /comes before/,
      () => with_((e) => (is(e, 'a', 'glue') ? moved(e, -8 * HOUR) : e)),
    ],
    [
      'a step before its film allows it',
      /by its own rule/,
      () => ({ ...with_((e) => (is(e, 'a', 'glue', 'sections') ? moved(e, -10 * MINUTE) : e)) }),
    ],
    [
      'a window that is missed',
      /glue-dried|glue-closing/,
      () => {
        const own = table.moments['a']!;
        const glued = own['glue'] as { notBefore: number };
        return {
          ...table,
          moments: { ...table.moments, a: { ...own, top: { notBefore: glued.notBefore + HOUR } } },
        };
      },
    ],
    [
      'two things at once',
      /while at/,
      () => with_((e) => (is(e, 'c', 'x', 'step') ? { ...e, until: e.until + DAY } : e)),
    ],
    [
      'work after hours',
      /out of hours/,
      () => with_((e) => (is(e, 'c', 'x', 'mix') ? moved(e, 14 * HOUR) : e)),
    ],
    [
      'a hand that is not there',
      /by nobody/,
      () => with_((e) => (is(e, 'a', 'base', 'step') ? { ...e, hand: 3 } : e)),
    ],
    ['a brush nobody cleans', /unwashed/, () => with_((e) => (e.kind === 'clean' ? null : e))],
    ['a piece nobody turns', /nobody turned it/, () => with_((e) => (e.kind === 'turn' ? null : e))],
    [
      'a face turned down while it is wet',
      /turned while/,
      () => {
        const other = table.entries.find((e) => is(e, 'b', 'base', 'step'))!;
        const first = table.entries.find((e) => is(e, 'a', 'base', 'step'))!;
        return with_((e) => (e === other ? { ...e, from: first.until, until: first.until + MINUTE } : e));
      },
    ],
    ['a pot nobody mixed', /nothing in the pot/, () => with_((e) => (e.kind === 'mix' ? null : e))],
    [
      'a delivery that is not there yet',
      /before it is delivered/,
      () => with_((e) => (is(e, 'c', 'x', 'step') ? moved(e, -HOUR) : e)),
    ],
    [
      'a part before the one it follows',
      /begins before c is done/,
      () => with_((e) => (is(e, 'c', 'x', 'step') ? moved(e, 3 * DAY) : e)),
    ],
    ['an end before the end', /after all is said to be/, () => ({ ...table, ready: table.ready! - HOUR })],
  ];
  for (const [what, says, made] of CASES)
    it(`finds ${what}`, () => expect(broken(problem, made()).join('\n')).toMatch(says));
});

function breaks(): Problem['work'] {
  return EIGHT_TO_FIVE.flatMap(({ opens, closes }) => [
    { opens, closes: opens + 4 * HOUR },
    { opens: opens + 5 * HOUR, closes },
  ]);
}

describe('a long pause', () => {
  const entry = (stepId: string, fromDay: number, days = 0.1): Entry =>
    ({ stepId, from: fromDay * DAY, until: (fromDay + days) * DAY }) as Entry;

  it('is named where it is longer than a week, the longest of several', () => {
    const entries = [entry('a', 0), entry('c', 30), entry('b', 9), entry('d', 31)];
    expect(longPauseOf({ entries })).toEqual({ since: 9.1 * DAY, next: entries[1]! });
    expect(longPauseOf({ entries: [entry('a', 0), entry('b', 7)] })).toBeNull();
    // Somebody is at something else meanwhile.
    expect(longPauseOf({ entries: [entry('a', 0, 8), entry('b', 1), entry('c', 9)] })).toBeNull();
    expect(longPauseOf({ entries: [] })).toBeNull();
  });
});

// A scraper takes what bleach, water or heat has softened, however old the paint is (common practice).
describe('a scraper after bleach', () => {
  const windowAfter = (steps: readonly Step[]): number | null =>
    followed(
      problemOf([jobOf('rail', planOf([...steps, distress('scrape', 'scrape', after(60))], room(13)))]),
      {
        entries: [],
        order: { learned: {} },
      },
      -Infinity,
    ).tasks[0]!.at(-1)!.closes;
  const paint = coat('paint', 'latex', 90, FIRST);

  it('has no closing window: the paint below it grew hard before', () => {
    expect(windowAfter([paint])).not.toBeNull();
    for (const softener of [
      distress('b', 'bleach', after(14 * DAY)),
      rewet('w', after(14 * DAY)),
      heat('h', 'gun', 30, after(14 * DAY)),
    ])
      expect(windowAfter([paint, softener])).toBeNull();
  });

  it('is not put off for months, nor warned of', () => {
    const plan = planOf(
      [
        paint,
        distress('b', 'bleach', when('through-dry', 14 * DAY)),
        distress('scrape', 'scrape', after(60)),
      ],
      room(13),
    );
    const { entries, ready } = schedule(problemOf([jobOf('rail', plan)]));
    expect(ready!).toBeLessThan(30 * DAY);
    expect(entries.map(({ stepId }) => stepId)).toContain('scrape');
    expect(forecastOf(plan).findings.map(({ code }) => code)).not.toContain('blade-hard');
  });
});
