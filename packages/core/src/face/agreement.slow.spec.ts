import { type CrackField, Growth } from '../crack';
import { forecastOf } from '../testing/forecasts';
import { type Coat, evenMap, type PanelMap, type PanelPlan, rimMap, type Step } from '../plan';
import { type Scene } from '../outcome';
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
  room,
  seal,
  when,
  wipe,
} from '../testing/plans';
import { patternInput } from './local';
import { measurePanel, type PanelShares } from '../measure';
import { runScene } from './run';
import { type PanelField } from './work';
import { brushRelief } from './texture';
import { type FaceView } from './view';

const GRID = { columns: 300, rows: 240, pitchMm: 0.5 };

/** Grows and runs a scene on a window of 150 × 120 mm, in the middle of the panel or over all of it. */
function onPanel(scene: Scene, seed = scene.seed): { field: PanelField; shares: PanelShares } {
  const widthMm = GRID.columns * GRID.pitchMm;
  const heightMm = GRID.rows * GRID.pitchMm;
  const leftMm = Math.max(0, 0.5 * (scene.widthMm - widthMm));
  const topMm = Math.max(0, 0.5 * (scene.heightMm - heightMm));
  const view: FaceView = {
    widthMm,
    heightMm,
    leftMm,
    topMm,
    edges: { left: 'pinned', right: 'pinned', top: 'pinned', bottom: 'pinned' },
    reduced: false,
  };
  const cracked = scene.networks.map((network) => {
    const growth = new Growth(
      patternInput({ ...scene, seed: seed + network.layer }, network, view, 'coarse'),
    );
    while (growth.step());
    return { key: network.key, field: growth.result() };
  });
  const field = runScene(
    { ...scene, seed },
    {
      ...GRID,
      leftMm,
      topMm,
      opening: 1,
      until: scene.events.length,
    },
    cracked,
    (strokes, layer) => brushRelief(GRID.columns, GRID.rows, GRID.pitchMm, strokes, seed + layer),
  );
  return { field, shares: measurePanel(scene, field) };
}

/** Shares of some seeds, averaged. */
function meanShares(scene: Scene, seeds: readonly number[]): number[] {
  const all = seeds.map((seed) => onPanel(scene, seed).shares.layers);
  return all[0]!.map((_, k) => all.reduce((sum, shares) => sum + shares[k]!, 0) / all.length);
}

const SEEDS = [3, 17, 29, 51];

const PLANS: readonly [string, PanelPlan][] = [
  ['crackle over medium', overMedium(150, 170)],
  ['crackle over glue', overGlue(180, 150, 120)],
  [
    'milk paint on a tacky sealer',
    planOf([
      coat('base', 'latex', 90, FIRST),
      coat('sealer', 'polyW', 80, when('through-dry', 86400)),
      coat('top', 'milk', 75, after(720)),
    ]),
  ],
  [
    'brittle ground, scraped',
    planOf([
      coat('base', 'latex', 100, FIRST),
      coat('g1', 'gesso', 110, when('through-dry'), { dilution: 0.4 }),
      coat('g2', 'gesso', 110, when('recoat'), { dilution: 0.4 }),
      coat('g3', 'gesso', 110, when('recoat'), { dilution: 0.4 }),
      distress('s', 'scrape', when('through-dry'), { rounds: 2 }),
    ]),
  ],
  [
    'wax under two coats, scraped',
    planOf([
      coat('a', 'latex', 90, FIRST),
      resist('w', 'candle', 0.3, when('through-dry')),
      coat('b', 'latex', 90, after(60)),
      coat('c', 'latex', 90, when('through-dry')),
      distress('s', 'scrape', when('through-dry'), { rounds: 1, pressure: 0.3 }),
    ]),
  ],
  [
    'jelly, wiped',
    planOf([
      coat('a', 'latex', 90, FIRST),
      coat('v', 'polyW', 80, when('through-dry')),
      resist('j', 'jelly', 0.35, when('through-dry')),
      coat('c', 'latex', 90, after(60)),
      wipe('w', when('through-dry', 20000)),
    ]),
  ],
  [
    'salt craters',
    planOf([
      coat('a', 'latex', 90, FIRST),
      coat('b', 'latex', 200, when('through-dry')),
      resist('s', 'salt', 0.25, after(60)),
      distress('d', 'scrape', after(43200), { rounds: 1, pressure: 0.3 }),
    ]),
  ],
  [
    'sanded through two coats',
    planOf(
      [
        coat('a', 'chalk', 90, FIRST),
        coat('b', 'chalk', 80, when('through-dry', 3600)),
        distress('s', 'sand', after(43200), { grit: 150, rounds: 12 }),
      ],
      room(),
      'scuffed',
    ),
  ],
  [
    'wiped back in two colours',
    planOf(
      [
        coat('a', 'chalk', 90, FIRST),
        coat('b', 'clay', 90, when('through-dry', 3600)),
        distress('s', 'cloth', when('touch-dry', 600), { rounds: 22 }),
      ],
      room(),
      'scuffed',
    ),
  ],
  [
    'dry-brushed over blotches, waxed dark',
    planOf([
      coat('a', 'latex', 90, FIRST),
      coat('b', 'latex', 80, when('through-dry'), { cover: { style: 'blotchy', share: 0.5 } }),
      coat('c', 'latex', 60, when('through-dry'), { cover: { style: 'dry-brushed', share: 0.4 } }),
      seal('d', 'darkWax', 12, when('through-dry'), { share: 0.12 }),
    ]),
  ],
  [
    'scratched with a point',
    planOf([
      coat('a', 'latex', 90, FIRST),
      coat('b', 'chalk', 80, when('recoat')),
      distress('s', 'scratch', after(43200), { rounds: 6 }),
    ]),
  ],
  [
    'tea in the water of a sponge, over a crackle',
    planOf([
      ...overMedium(150, 170).steps,
      distress('s', 'sponge', after(86400), { rounds: 1, tint: { colour: '#6b4423', strength: 0.3 } }),
    ]),
  ],
  [
    'a carved face, sanded',
    {
      ...planOf([
        coat('a', 'latex', 90, FIRST),
        coat('b', 'chalk', 90, when('through-dry')),
        distress('s', 'sand', after(43200), { grit: 120, rounds: 10 }),
      ]),
      panel: { ...planOf([]).panel, relief: { kind: 'carving', depth: 2e-3, pitch: 9e-3 } },
    },
  ],
  [
    'flutes, sanded',
    {
      ...planOf([
        coat('a', 'latex', 90, FIRST),
        coat('b', 'chalk', 90, when('through-dry')),
        distress('s', 'sand', after(43200), { grit: 120, rounds: 10 }),
      ]),
      panel: { ...planOf([]).panel, relief: { kind: 'flutes', depth: 2e-3, pitch: 9e-3 } },
    },
  ],
  [
    'dark wax wiped back off carving',
    {
      ...planOf([coat('a', 'chalk', 110, FIRST), seal('w', 'darkWax', 12, after(43200), { buffAfter: 300 })]),
      panel: { ...planOf([]).panel, relief: { kind: 'carving', depth: 2e-3, pitch: 9e-3 } },
    },
  ],
  [
    'paint and old varnish, sanded with a coarse grit',
    planOf(
      [coat('a', 'chalk', 60, FIRST), distress('s', 'sand', after(43200), { grit: 80, rounds: 40 })],
      room(),
      'gloss',
    ),
  ],
];

/** Plans that go by places, on a panel that is seen whole. */
const small = (plan: PanelPlan, oval = false): PanelPlan => ({
  ...plan,
  panel: { ...plan.panel, width: 0.15, height: 0.12, oval },
});
const forced = (step: Step): PanelPlan =>
  small(
    planOf([
      coat('a', 'mineral', 90, FIRST),
      coat('m', 'milk', 90, when('through-dry', 3600), { passes: 1, lumps: true }),
      step,
      distress('d', 'fingers', after(3600)),
    ]),
  );
const IN_PLACES: readonly [string, PanelPlan][] = [
  [
    'a coat on edges alone',
    small(
      planOf([coat('a', 'latex', 90, FIRST), { ...coat('b', 'latex', 90, when('recoat')), where: 'edges' }]),
    ),
  ],
  ['hot air on edges alone', forced({ ...heat('h', 'gun', 60, when('touch-dry')), where: 'edges' })],
  [
    'wax scraped off the field alone',
    small(
      planOf([
        coat('a', 'latex', 90, FIRST),
        resist('w', 'candle', 0.5, when('through-dry')),
        coat('b', 'latex', 90, after(60)),
        distress('s', 'scrape', when('through-dry'), { rounds: 1, pressure: 0.3, where: 'field' }),
      ]),
    ),
  ],
  [
    'an oval panel, sanded',
    small(
      planOf([
        coat('a', 'chalk', 90, FIRST),
        coat('b', 'chalk', 80, when('through-dry', 3600)),
        distress('s', 'sand', after(43200), { grit: 150, rounds: 12 }),
      ]),
      true,
    ),
  ],
];

describe('one list of events, two speeds', () => {
  for (const [name, plan] of IN_PLACES) {
    it(`shows as much of every layer on the whole as in closed form: ${name}`, () => {
      const result = forecastOf(plan);
      const measured = meanShares(result.scene, SEEDS);
      expect(measured.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 6);
      result.layers.forEach((layer, k) => {
        expect(Math.abs(measured[k]! - layer.share))
          .withContext(`${layer.id}: face ${measured[k]!.toFixed(3)}, closed ${layer.share.toFixed(3)}`)
          .toBeLessThan(0.075);
      });
    });
  }

  for (const [name, plan] of PLANS) {
    it(`shows as much of every layer point by point as in closed form: ${name}`, () => {
      const result = forecastOf(plan);
      const measured = meanShares(result.scene, SEEDS);
      expect(measured.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 6);
      // Four windows of a hand's size scatter by some points themselves; wear follows the brush besides.
      result.layers.forEach((layer, k) => {
        expect(Math.abs(measured[k]! - layer.zones.field))
          .withContext(
            `${layer.id}: field ${measured[k]!.toFixed(3)}, closed ${layer.zones.field.toFixed(3)}`,
          )
          .toBeLessThan(0.075);
      });
    });
  }

  it('is the same twice, and another with another seed', () => {
    const { scene } = forecastOf(PLANS[2]![1]);
    expect(onPanel(scene).field.top).toEqual(onPanel(scene).field.top);
    expect(onPanel(scene, 5).field.top).not.toEqual(onPanel(scene, 6).field.top);
  });

  it('lets flakes go smoothly: more drive, more gone, from few to most over at least a factor of three', () => {
    const { scene } = forecastOf(PLANS[2]![1]);
    const gone = (share: number): number => {
      const events = scene.events.map((event) => (event.kind === 'chip' ? { ...event, share } : event));
      return 1 - onPanel({ ...scene, events }).shares.layers[3]!;
    };
    const shares = [0.1, 0.3, 0.5, 0.7, 0.9].map(gone);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
    expect(shares[4]! - shares[0]!).toBeGreaterThan(0.5);
  });

  it('leaves flakes a lifted rim of measurable width, and none where nothing flakes', () => {
    expect(onPanel(forecastOf(PLANS[2]![1]).scene).shares.rim).toBeGreaterThan(0.02);
    expect(onPanel(forecastOf(overMedium(150, 170)).scene).shares.rim).toBe(0);
  });

  it('takes edges harder than the field, in a ragged line', () => {
    const plan = PLANS[7]![1];
    const small: PanelPlan = { ...plan, panel: { ...plan.panel, width: 0.15, height: 0.12 } };
    const { scene } = forecastOf(small);
    const { field } = onPanel(scene);
    const paint = scene.layers.length - 1;
    let rim = 0;
    let middle = 0;
    let rims = 0;
    let middles = 0;
    const reach: number[] = [];
    for (let row = 0; row < GRID.rows; row++) {
      for (let column = 0; column < GRID.columns; column++) {
        const from = Math.min(column, row, GRID.columns - 1 - column, GRID.rows - 1 - row) * GRID.pitchMm;
        const through = field.top[row * GRID.columns + column]! < paint ? 1 : 0;
        if (from < 8) {
          rim += through;
          rims++;
        } else if (from > 30) {
          middle += through;
          middles++;
        }
      }
    }
    for (let column = 40; column < GRID.columns - 40; column += 4) {
      let row = 0;
      while (row < GRID.rows / 2 && field.top[row * GRID.columns + column]! < paint) row++;
      reach.push(row);
    }
    expect(rim / rims).toBeGreaterThan(1.4 * (middle / middles));
    expect(new Set(reach).size).toBeGreaterThan(6);
  });

  it('never goes below a layer the tool does nothing to', () => {
    const { scene } = forecastOf(PLANS[7]![1]);
    const hard = scene.layers.length - 2;
    const resistance = scene.layers.map((_, k) => (k === hard ? Infinity : 1));
    const events = scene.events.map((event) =>
      event.kind === 'rub' ? { ...event, medianUm: 500, resistance } : event,
    );
    const { field } = onPanel({ ...scene, events });
    expect(field.top.every((layer) => layer >= hard)).toBeTrue();
  });
});

/** Spacing of the cracks of a strip along the rim, or of what lies within it, by line intercept [mm]. */
function spacingWithin(field: CrackField, inside: (fromRim: number) => boolean, areaMm2: number): number {
  const { widthMm, heightMm } = field.input;
  let projected = 0;
  for (let i = 0; i < field.count; i++) {
    const x = 0.5 * (field.x0[i]! + field.x1[i]!);
    const y = 0.5 * (field.y0[i]! + field.y1[i]!);
    if (!inside(Math.min(x, y, widthMm - x, heightMm - y))) continue;
    projected += Math.abs(field.x1[i]! - field.x0[i]!) + Math.abs(field.y1[i]! - field.y0[i]!);
  }
  return (2 * areaMm2) / projected;
}

describe('maps, point by point', () => {
  const panel = (plan: PanelPlan): PanelPlan => ({
    ...plan,
    panel: { ...plan.panel, width: 0.15, height: 0.12 },
  });
  const even = evenMap(0.15, 0.12);
  /** Nothing on the left third, all of it on the right two. */
  const right: PanelMap = {
    ...even,
    values: even.values.map((_, i) => (i % even.columns < even.columns / 3 ? 0 : 1)),
  };
  const seenBetween = (scene: Scene, from: number, to: number, layer: number): number => {
    const { field } = onPanel(scene);
    let seen = 0;
    let all = 0;
    for (let i = 0; i < field.top.length; i++) {
      const x = ((i % GRID.columns) + 0.5) / GRID.columns;
      if (x < from || x > to) continue;
      all++;
      if (field.top[i] === layer) seen++;
    }
    return seen / all;
  };

  it('has the spacing of the closed form where a film lies thick and where it lies thin', () => {
    const plan = overMedium(110, 110, room(), { strokes: 'dabbed' });
    const top = plan.steps[2] as Coat;
    const mapped = {
      ...plan,
      steps: [...plan.steps.slice(0, 2), { ...top, map: rimMap(0.6, 0.4, 2.2, 0.12) }],
    };
    const { scene, zones } = forecastOf(mapped);
    const view = { widthMm: 600, heightMm: 400, leftMm: 0, topMm: 0, reduced: false } as const;
    const pinned = { left: 'pinned', right: 'pinned', top: 'pinned', bottom: 'pinned' } as const;
    const field = grow(patternInput(scene, scene.networks[0]!, { ...view, edges: pinned }, 'full'));
    const rim = spacingWithin(field, (from) => from < 12, 600 * 400 - 576 * 376);
    const middle = spacingWithin(field, (from) => from > 130, 340 * 140);
    expect(rim / (zones.edge.crack!.spacing * 1000)).toBeGreaterThan(0.8);
    expect(rim / (zones.edge.crack!.spacing * 1000)).toBeLessThan(1.25);
    expect(rim).toBeGreaterThan(1.35 * middle);
  });

  it('lets a resist and a tool do what they do only where they were', () => {
    const waxed = forecastOf(
      panel(
        planOf([
          coat('a', 'latex', 90, FIRST),
          { ...resist('w', 'candle', 0.7, when('through-dry')), map: right },
          coat('b', 'latex', 90, after(60)),
          distress('s', 'scrape', when('through-dry'), { rounds: 1, pressure: 0.3 }),
        ]),
      ),
    );
    const base = waxed.scene.layers.findIndex(({ id }) => id === 'a');
    expect(seenBetween(waxed.scene, 0, 0.28, base)).toBeLessThan(0.02);
    expect(seenBetween(waxed.scene, 0.4, 1, base)).toBeGreaterThan(0.4);
    const sand = distress('s', 'sand', after(43200), { grit: 150, rounds: 25 });
    const sanded = forecastOf(
      panel(
        planOf([
          coat('a', 'chalk', 90, FIRST),
          coat('b', 'chalk', 60, when('through-dry', 3600)),
          { ...sand, map: right },
        ]),
      ),
    );
    const paint = sanded.scene.layers.length - 1;
    expect(seenBetween(sanded.scene, 0, 0.28, paint)).toBeGreaterThan(0.99);
    expect(seenBetween(sanded.scene, 0.4, 1, paint)).toBeLessThan(0.8);
  });
});
