import { deltaE2000, type Manner, MANNERS } from '../../colour';
import { underShare } from '../../outcome';
import { type PanelPlan, type Sheen, type Step } from '../../plan';
import { forecastOf } from '../../testing/forecasts';
import { wholeOf } from '../../testing/practice';
import { after, coat, distress, FIRST, planOf, room, seal, when } from '../../testing/plans';

/*
 * Colour and what is seen. What practitioners know to be so, as trends and ranges on plans: common practice
 * with no source, unless one is named.
 */

const HOUR = 3600;
const NIGHT = 12 * HOUR;
const seen = (plan: PanelPlan, id: string): number => forecastOf(plan).layers.find((l) => l.id === id)!.share;

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

describe('what is there', () => {
  it('has a colour of its own, seen where the paint has gone', () => {
    const plan = planOf([
      coat('a', 'chalk', 60, FIRST, { colour: '#e8e0cc' }),
      distress('s', 'sand', after(NIGHT)),
    ]);
    const coloured = (colour: string): PanelPlan => ({ ...plan, panel: { ...plan.panel, colour } });
    const { appearance } = forecastOf(coloured('#2c4a6b'));
    expect(appearance.layers.find(({ id }) => id === 'panel')!.dry).toBe('#2c4a6b');
    const contrast = (colour: string): number => forecastOf(coloured(colour)).appearance.contrast!;
    expect(contrast('#2c4a6b')).toBeGreaterThan(contrast('#d9d0bb') + 20);
  });
});

describe('several colours in one coat', () => {
  const own = { ...coat('a', 'chalk', 120, FIRST, { colour: '#203040' }) };
  const mixed = (manner: Manner, share: number): PanelPlan =>
    planOf([{ ...own, others: [{ colour: '#d8c070', share }], manner }]);
  const mean = (plan: PanelPlan): string => wholeOf(plan).colour;

  it('come to a colour between them, the nearer to one the more of it there is', () => {
    const most = deltaE2000(mean(mixed('side-by-side', 0.2)), '#203040');
    const least = deltaE2000(mean(mixed('side-by-side', 0.8)), '#203040');
    expect(most).toBeLessThan(least);
    expect(most).toBeGreaterThan(3);
    expect(deltaE2000(mean(mixed('side-by-side', 0)), '#203040')).toBeLessThan(1);
  });

  it('are no fault, however wet they meet', () => {
    for (const manner of MANNERS)
      expect(forecastOf(mixed(manner, 0.4)).findings.map(({ code }) => code)).not.toContain('base-not-dry');
  });
});

describe('sheen', () => {
  it('of a clear coat is the word on its tin (classes of EN 13300, from memory)', () => {
    const gloss = (sheen?: Sheen): number =>
      wholeOf(
        planOf([
          coat('a', 'chalk', 90, FIRST, { colour: '#203040' }),
          { ...seal('v', 'polyW', 80, when('through-dry')), ...(sheen === undefined ? {} : { sheen }) },
        ]),
      ).gloss;
    expect(gloss('matt')).toBeLessThan(10);
    expect(gloss('satin')).toBeGreaterThan(10);
    expect(gloss('satin')).toBeLessThan(60);
    expect(gloss('gloss')).toBeGreaterThan(60);
    expect(gloss()).toBe(30);
  });
});

describe('false alarms', () => {
  const worn = planOf(
    [
      coat('a', 'chalk', 60, FIRST, { colour: '#e8e0cc' }),
      distress('s', 'sand', after(NIGHT), { grit: 80, rounds: 3, where: 'edges' }),
    ],
    room(),
    'raw-softwood',
  );
  const codes = (plan: PanelPlan): readonly string[] => forecastOf(plan).findings.map(({ code }) => code);

  it('bare board is no fault where the look asks for as much', () => {
    const { bareShare } = wholeOf(worn);
    expect(codes(worn)).toContain('bare-shows');
    expect(codes({ ...worn, bareWanted: bareShare })).not.toContain('bare-shows');
    expect(codes({ ...worn, bareWanted: 0.2 * bareShare })).toContain('bare-shows');
  });

  it('a glaze over the last colour leaves it the last colour', () => {
    const plain = [
      coat('a', 'latex', 90, FIRST, { colour: '#203040' }),
      coat('b', 'latex', 90, when('through-dry'), { colour: '#d8c070' }),
    ];
    const glazed = [...plain, coat('g', 'glaze', 40, when('through-dry'), { colour: '#6a5236' })];
    const under = (steps: readonly Step[]): number => underShare(forecastOf(planOf(steps)));
    expect(under(glazed)).toBeCloseTo(under(plain), 2);
    expect(under(plain)).toBeLessThan(0.3);
  });
});
