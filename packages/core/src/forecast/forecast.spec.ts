import fc from 'fast-check';
import { onTables } from '../basis';
import { crackPattern, fieldInput, measureField } from '../crack';
import { InputError } from '../errors';
import { type PanelPlan, PLAN_RANGES, type Step } from '../plan';
import { grow } from '../testing/fields';
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
import { forecastOf } from '../testing/forecasts';
import { FIGURE_KEYS, readout } from '../readout';
import { type FindingCode } from '../notes';

const codes = (plan: PanelPlan): FindingCode[] => forecastOf(plan).findings.map((finding) => finding.code);

describe('knobs that only work one way', () => {
  const milk = (um: number, coats: number, steps: readonly Step[], options = {}): PanelPlan =>
    planOf(
      [
        ...Array.from({ length: coats }, (_, i) =>
          coat(`m${i}`, 'milk', um, i === 0 ? FIRST : when('recoat'), options),
        ),
        ...steps,
      ],
      room(),
      'sealed',
    );
  const chipped = (plan: PanelPlan): number => Math.max(...forecastOf(plan).chips.map((chip) => chip.share));
  const um = fc.integer({ min: 40, max: 140 });
  const rising = (
    name: string,
    run: (a: number) => [PanelPlan, PanelPlan],
    of: (plan: PanelPlan) => number,
  ): void => {
    it(name, () => {
      fc.assert(
        fc.property(um, (a) => {
          const [less, more] = run(a);
          expect(of(more)).toBeGreaterThanOrEqual(of(less) - 1e-9);
        }),
        { numRuns: 25, seed: 11 },
      );
    });
  };
  rising('thicker milk paint never chips less', (a) => [milk(a, 1, []), milk(a * 1.15, 1, [])], chipped);
  rising('a second coat never chips less', (a) => [milk(a, 1, []), milk(a, 2, [])], chipped);
  rising(
    'hot air never chips less',
    (a) => [milk(a, 1, []), milk(a, 1, [heat('h', 'dryer', 30 + a, when('touch-dry'))])],
    chipped,
  );
  rising(
    'wetting again never chips less',
    (a) => [milk(a, 1, []), milk(a, 1, [rewet('r', when('recoat'), a)])],
    chipped,
  );
  rising(
    'bonding additive never chips more',
    (a) => [milk(a, 1, [], { bonding: 0.5 }), milk(a, 1, [], { bonding: 0.2 })],
    chipped,
  );
  const rubbed = (rounds: number, pressure: number, grit: 80 | 220): PanelPlan =>
    planOf(
      [
        coat('a', 'chalk', 80, FIRST),
        coat('b', 'chalk', 80, when('through-dry')),
        distress('d', 'sand', after(36000), { rounds, pressure, grit }),
      ],
      room(),
      'scuffed',
    );
  const worn = (plan: PanelPlan): number => forecastOf(plan).whole.wornShare;
  rising('more passes never wear less', (a) => [rubbed(5, a / 80, 220), rubbed(8, a / 80, 220)], worn);
  rising('a harder hand never wears less', (a) => [rubbed(6, a / 80, 220), rubbed(6, a / 60, 220)], worn);
  rising('a coarser grit never wears less', (a) => [rubbed(6, a / 80, 220), rubbed(6, a / 80, 80)], worn);
});

describe('any number out of its range', () => {
  // Every number of every kind of step: where it stands, and its range.
  const NUMBERS: readonly [string, string, { min: number; max: number }][] = [
    ['coat', 'thickness', PLAN_RANGES.thickness],
    ['coat', 'dilution', PLAN_RANGES.dilution],
    ['coat', 'passes', PLAN_RANGES.passes],
    ['coat', 'bonding', PLAN_RANGES.share],
    ['coat', 'mixedAge', PLAN_RANGES.mixedAge],
    ['seal', 'coats', PLAN_RANGES.sealCoats],
    ['seal', 'buffAfter', PLAN_RANGES.wait],
    ['resist', 'share', PLAN_RANGES.share],
    ['resist', 'thickness', PLAN_RANGES.thickness],
    ['heat', 'duration', PLAN_RANGES.heatDuration],
    ['rewet', 'amount', PLAN_RANGES.rewetAmount],
    ['distress', 'rounds', PLAN_RANGES.rounds],
    ['distress', 'pressure', PLAN_RANGES.pressure],
    ['distress', 'smear', PLAN_RANGES.share],
    ['wait', 'duration', PLAN_RANGES.wait],
  ];
  const steps: Readonly<Record<string, Step>> = {
    coat: coat('x', 'chalk', 80, after(60), { mixedAge: 60 }),
    seal: seal('x', 'clearWax', 12, after(60), { buffAfter: 60 }),
    resist: resist('x', 'candle', 0.2, after(60)),
    heat: heat('x', 'dryer', 60, after(60)),
    rewet: rewet('x', after(60)),
    distress: distress('x', 'sand', after(60)),
    wait: { id: 'x', kind: 'wait', duration: 60, start: after(60) },
  };
  it('is refused with its field and its range', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...NUMBERS),
        fc.constantFrom('below', 'above', 'not a number'),
        fc.double({ min: 0.01, max: 1e6, noNaN: true }),
        ([kind, field, range], how, by) => {
          const value =
            how === 'below'
              ? range.min - by
              : how === 'above'
                ? range.max + by * Math.max(1, range.max)
                : NaN;
          const plan = planOf([coat('a', 'chalk', 80, FIRST), { ...steps[kind]!, [field]: value } as Step]);
          expect(() => forecastOf(plan)).toThrowError(
            InputError,
            new RegExp(`^steps\\[1\\]\\.${field} is .*; it must be .* from ${range.min} to ${range.max}`),
          );
        },
      ),
      { numRuns: 120, seed: 12 },
    );
  });

  it('is refused in an own medium too', () => {
    const plan = (changes: Record<string, number>): PanelPlan => ({
      ...planOf([coat('a', 'mine', 80, FIRST)]),
      media: [{ key: 'mine', name: 'Mine', like: 'chalk', changes }],
    });
    expect(forecastOf(plan({ volumeSolids: 0.5 })).coats[0]!.dryThickness).toBeCloseTo(40e-6, 9);
    expect(() => forecastOf(plan({ volumeSolids: 2 }))).toThrowError(
      InputError,
      /media\.mine\.volumeSolids is 2; it must be a number from 0\.05 to 1/,
    );
    expect(() => forecastOf(plan({ charm: 1 }))).toThrowError(InputError, /media\.mine\.charm/);
    expect(() =>
      forecastOf({ ...plan({}), media: [{ key: 'pva', name: 'Mine', like: 'pva', changes: {} }] }),
    ).toThrowError(InputError, /a key that no other medium has/);
  });
});

describe('the door of the forecast', () => {
  const plan = overMedium(70, 60);
  const withTop = (changes: object): PanelPlan => ({
    ...plan,
    steps: [plan.steps[0]!, plan.steps[1]!, { ...plan.steps[2]!, ...changes }],
  });
  const coats = (count: number): PanelPlan =>
    planOf(
      Array.from({ length: count }, (_, i) => coat(`c${i}`, 'chalk', 40, i === 0 ? FIRST : when('recoat'))),
    );
  const refused: [string, PanelPlan, RegExp][] = [
    [
      'thickness',
      withTop({ thickness: 5 }),
      /steps\[2\]\.thickness is 5; it must be a number from 0.000004 to 0.0012 m/,
    ],
    ['not a number', withTop({ thickness: NaN }), /steps\[2\]\.thickness is NaN/],
    ['passes', withTop({ passes: 2.5 }), /steps\[2\]\.passes is 2.5; it must be a whole number/],
    ['strokes', withTop({ strokes: 'zigzag' }), /one of one-way, crosswise/],
    ['medium', withTop({ medium: 'treacle' }), /coat\.medium is treacle; it must be one of chalk/],
    ['dilution', withTop({ dilution: -0.4 }), /steps\[2\]\.dilution/],
    ['wait', withTop({ start: { rule: 'after', wait: -1 } }), /steps\[2\]\.start\.wait/],
    ['state', withTop({ start: { rule: 'state', state: 'crisp', wait: 0 } }), /start\.state is crisp/],
    ['no coats', { ...plan, steps: [] }, /steps is 0/],
    ['number of layers', coats(32), /layers is 32; it must be a number from 0 to 31/],
    [
      'substrate',
      { ...plan, panel: { ...plan.panel, substrate: 'ice' as never } },
      /panel\.substrate is ice/,
    ],
    ['size', { ...plan, panel: { ...plan.panel, width: 12 } }, /panel\.width is 12/],
    ['air', { ...plan, air: [{ from: 0, ...room(90) }] }, /air\.temperature/],
    ['seed', { ...plan, seed: -1 }, /seed is -1/],
  ];
  it('lets in as many layers as can be told apart, and loses none of them', () => {
    const { scene, layers } = forecastOf(coats(31));
    expect([scene.layers.length, layers.length]).toEqual([32, 32]);
  });
  for (const [what, bad, message] of refused) {
    it(`refuses a bad ${what}, naming the field and what is allowed`, () => {
      expect(() => forecastOf(bad)).toThrowError(InputError, message);
    });
  }
});

describe('what the plan says about itself', () => {
  it('knows that the schools want opposite moments', () => {
    expect(codes(overGlue(110, 90, 90))).toContain('glue-grabs');
    expect(codes(overGlue(110, 90, 10))).toContain('glue-still-open');
    expect(codes(overGlue(110, 90, 700))).toContain('glue-closing');
    expect(codes(overGlue(110, 90, 4 * 3600))).toEqual(
      jasmine.arrayContaining(['glue-dried', 'crackle-missing']),
    );
    expect(codes(overMedium(70, 60))).toContain('medium-ready');
    const wet = planOf([
      coat('base', 'latex', 90, FIRST),
      coat('m', 'crackle', 70, when('recoat')),
      coat('t', 'chalk', 60, after(60)),
    ]);
    expect(codes(wet)).toContain('medium-wet');
  });

  it('warns of overworking, a second coat, a thin top coat, a soft base, damp air', () => {
    expect(codes(overGlue(110, 90, 90, room(), { passes: 5 }))).toContain('overworked');
    const plan = overMedium(70, 60);
    expect(codes({ ...plan, steps: [...plan.steps, coat('again', 'chalk', 80, when('recoat'))] })).toContain(
      'second-coat-closes',
    );
    expect(codes(overMedium(70, 25))).toContain('too-thin');
    expect(
      codes(
        planOf([
          coat('base', 'latex', 90, FIRST),
          coat('g', 'pva', 100, after(60)),
          coat('t', 'latex', 80, after(60)),
        ]),
      ),
    ).toContain('base-not-dry');
    expect(codes(overMedium(70, 60, room(18, 0.86)))).toContain('damp-air');
    expect(codes(planOf([coat('a', 'latex', 90, FIRST), coat('b', 'chalk', 80, when('recoat'))]))).toContain(
      'paint-before-paint',
    );
  });

  it('says when a moment never comes, and puts the coat a day later', () => {
    const plan = planOf(
      [coat('g', 'hide', 90, FIRST), coat('t', 'chalk', 60, when('through-dry'))],
      room(21, 0.92),
    );
    const result = forecastOf(plan);
    expect(result.findings).toContain(
      jasmine.objectContaining({ code: 'start-never', level: 'stop', stepId: 't' }),
    );
    expect(result.coats[1]!.laidAt).toBe(86400);
  });
});

describe('readout', () => {
  it('names the knobs a painter would turn, with the sign the facts have', () => {
    const spacing = readout(onTables(overGlue(110, 90, 120))).panel.figures.find(
      (figure) => figure.key === 'spacing',
    )!;
    const glue = spacing.movers.find(
      (mover) => mover.knob.kind === 'thickness' && mover.knob.stepId === 'glue',
    );
    const later = readout(onTables(overGlue(110, 90, 120)))
      .panel.figures.find((f) => f.key === 'strength')!
      .movers.find((mover) => mover.knob.kind === 'moment');
    expect(glue!.change!).toBeGreaterThan(0);
    expect(later!.change!).toBeLessThan(0);
    const sizes = spacing.movers.map((mover) => Math.abs(mover.change ?? Infinity));
    expect([...sizes].sort((a, b) => b - a)).toEqual(sizes);
  });

  it('has a band as wide as an untried plan deserves', () => {
    const spacing = readout(onTables(overMedium(70, 60))).panel.figures.find(
      (figure) => figure.key === 'spacing',
    )!;
    const factor = spacing.high! / spacing.value!;
    expect(factor).toBeGreaterThan(1.4);
    expect(factor).toBeLessThan(2.5);
    expect(spacing.value! / spacing.low!).toBeCloseTo(factor, 6);
  });

  it('holds its peace where nothing cracks', () => {
    const figures = readout(onTables(planOf([coat('a', 'latex', 90, FIRST)]))).panel.figures;
    expect(figures.map((figure) => figure.key)).toEqual([...FIGURE_KEYS]);
    expect(figures.find((figure) => figure.key === 'spacing')!.value).toBeNull();
    expect(figures.find((figure) => figure.key === 'openArea')!.value).toBe(0);
  });
});

describe('one physics, two speeds', () => {
  // The field must measure what the closed form predicts, inside its 80 % band, over a grid of plans.
  const grid: [string, PanelPlan][] = [
    ['thin over medium', overMedium(60, 55)],
    ['ordinary over medium', overMedium(80, 90)],
    ['thick over medium', overMedium(150, 170)],
    ['thin over glue', overGlue(70, 60, 120)],
    ['ordinary over glue', overGlue(110, 90, 120)],
    ['thick over glue', overGlue(200, 160, 60)],
    ['late over glue', overGlue(120, 90, 600)],
    ['hot day', overMedium(80, 90, room(30, 0.35))],
    ['damp day', overGlue(110, 90, 120, room(14, 0.75))],
    ['overworked', overMedium(80, 90, room(), { passes: 3 })],
  ];
  for (const [name, plan] of grid) {
    it(`agrees: ${name}`, () => {
      const { law } = forecastOf(plan).course.cracks[2]!;
      const closed = crackPattern(law);
      const figures = readout(onTables(plan)).panel.figures;
      const side = Math.max(20, (closed.spacingUm / 1000) * 22);
      const field = measureField(
        grow(
          fieldInput(law, {
            widthMm: side,
            heightMm: side,
            edges: { left: 'pinned', right: 'pinned', top: 'pinned', bottom: 'pinned' },
            seed: 5,
            strokes: 'crosswise',
            quality: 'full',
          }),
        ),
      );
      const inBand = (key: 'spacing' | 'opening' | 'openArea', value: number): void => {
        const figure = figures.find((f) => f.key === key)!;
        expect(value).withContext(key).toBeGreaterThan(figure.low!);
        expect(value).withContext(key).toBeLessThan(figure.high!);
      };
      inBand('spacing', field.spacingMm / 1000);
      inBand('opening', field.openingMm / 1000);
      inBand('openArea', field.openSum * 0.95);
      // Far closer than the band asks.
      expect(field.spacingMm / (closed.spacingUm / 1000)).toBeGreaterThan(0.85);
      expect(field.spacingMm / (closed.spacingUm / 1000)).toBeLessThan(1.18);
      expect(field.openingMm / (closed.openingUm / 1000)).toBeGreaterThan(0.85);
      expect(field.openingMm / (closed.openingUm / 1000)).toBeLessThan(1.18);
    });
  }
});
