import { type PanelPlan, type StartRule, type Step, type Relief, type Grit } from '../../plan';
import { forecastOf } from '../../testing/forecasts';
import { wholeOf } from '../../testing/practice';
import { after, coat, distress, FIRST, planOf, resist, room, seal, when, wipe } from '../../testing/plans';
import { type SubstrateKey } from '../../media';
import { type LayerShare } from '../../outcome';

/*
 * Taking off. What practitioners know to be so, as trends and ranges on plans: common practice
 * with no source, unless one is named.
 */

const HOUR = 3600;
const NIGHT = 12 * HOUR;
const openArea = (plan: PanelPlan): number => wholeOf(plan).crack?.openArea ?? 0;
const on = (substrate: SubstrateKey, ...steps: readonly Step[]): PanelPlan =>
  planOf(steps, room(), substrate);
const worn = (plan: PanelPlan): number => wholeOf(plan).wornShare;
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
      expect(wholeOf(barred(barrier, um, 150)).bareShare)
        .withContext(barrier)
        .toBeLessThan(0.005);
      expect(wholeOf(barred(barrier, um, 80)).bareShare)
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
    expect(wholeOf(jellied('raw-softwood')).chippedShare).toBeLessThan(
      0.8 * wholeOf(jellied('scuffed')).chippedShare,
    );
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

describe('a carved face', () => {
  const FLUTED: Relief = { kind: 'flutes', depth: 3e-3, pitch: 12e-3 };
  const on = (relief: Relief | undefined, ...more: readonly Step[]): PanelPlan => {
    const plan = planOf([
      coat('base', 'latex', 90, FIRST, { colour: '#33443a' }),
      coat('top', 'chalk', 110, when('through-dry'), { colour: '#e8e0cc' }),
      ...more,
    ]);
    return { ...plan, panel: { ...plan.panel, ...(relief === undefined ? {} : { relief }) } };
  };
  const sanded = (relief: Relief | undefined, rounds: number): number =>
    worn(on(relief, distress('s', 'sand', after(NIGHT), { grit: 120, rounds })));

  it('is sanded through on its ridges first, and keeps paint in its grounds', () => {
    expect(sanded(FLUTED, 2)).toBeGreaterThan(2 * sanded(undefined, 2));
    expect(1 - sanded(FLUTED, 60)).toBeGreaterThan(2 * (1 - sanded(undefined, 60)));
  });

  it('is hardly felt where it is shallow and wide, and a wet cloth goes into it', () => {
    const shallow: Relief = { kind: 'carving', depth: 0.3e-3, pitch: 60e-3 };
    expect(sanded(shallow, 8)).toBeCloseTo(sanded(undefined, 8), 2);
    const wiped = (relief: Relief | undefined): number =>
      seen(on(relief, distress('c', 'cloth', after(HOUR), { rounds: 20 })), 'top');
    expect(wiped(FLUTED)).toBe(wiped(undefined));
  });

  it('keeps dark wax that is wiped back in its grounds', () => {
    const waxed = (relief: Relief | undefined): number =>
      seen(on(relief, seal('w', 'darkWax', 12, after(NIGHT), { buffAfter: 300 })), 'w');
    expect(waxed(FLUTED)).toBeGreaterThan(2 * waxed(undefined));
    expect(waxed(FLUTED)).toBeLessThan(0.6);
  });
});

describe('an old finish', () => {
  const sanded = (grit: Grit, rounds: number, ...paint: readonly Step[]): PanelPlan =>
    planOf([...paint, distress('s', 'sand', after(NIGHT), { grit, rounds })], room(), 'gloss');
  const wood = (plan: PanelPlan): LayerShare => forecastOf(plan).layers.find(({ id }) => id === 'wood')!;

  it('is gone through by coarse grit, at edges first, and not by fine', () => {
    const { share, zones } = wood(sanded(80, 10, coat('a', 'chalk', 60, FIRST)));
    expect(zones.edge).toBeGreaterThan(0.02);
    expect(zones.edge).toBeGreaterThan(4 * zones.field);
    expect(share).toBeLessThan(0.1);
    expect(wood(sanded(220, 10, coat('a', 'chalk', 60, FIRST))).share).toBeLessThan(0.001);
  });

  it('can be sanded before anything is painted', () => {
    expect(wood(sanded(80, 40)).zones.edge).toBeGreaterThan(0.2);
    expect(wood(sanded(80, 40)).share).toBeGreaterThan(wood(sanded(80, 10)).share);
  });
});

describe('salt', () => {
  it('shows in its craters the coat below the one it was strewn into', () => {
    const plan = planOf([
      coat('base', 'latex', 90, FIRST, { colour: '#33443a' }),
      coat('wet', 'latex', 200, when('through-dry'), { colour: '#e8e0cc' }),
      resist('salt', 'salt', 0.25, after(60)),
      distress('scraped', 'scrape', after(NIGHT), { rounds: 1, pressure: 0.3 }),
    ]);
    const bare = planOf(plan.steps.filter(({ id }) => id !== 'salt'));
    expect(seen(plan, 'base') - seen(bare, 'base')).toBeGreaterThan(0.15);
  });
});
