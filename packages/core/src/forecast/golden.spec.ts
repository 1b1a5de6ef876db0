import { type Air, dryingAir, evaporationIn, evaporationOf, scaledAir, withBurst } from '../air';
import { restraint } from '../notes';
import { evenMap, type PanelPlan, rimMap, zonePlaces, zoneShares } from '../plan';
import { pots, quantities } from '../quantity';
import { NOTE_CASES } from '../testing/cases';
import { forecastOf } from '../testing/forecasts';
import { movedSince } from '../testing/golden';
import {
  after,
  coat,
  distress,
  FIRST,
  overGlue,
  overMedium,
  planOf,
  resist,
  rewet,
  room,
  seal,
  when,
} from '../testing/plans';

/** Figures as they were, held to a thousandth; for regressions only (testing/golden.ts). */

const cases = Object.entries(NOTE_CASES);
const MAPPED: readonly (readonly [string, PanelPlan])[] = [
  ['rim of the top coat', withMap(overGlue(180, 120, 60), 'top', rimMap(0.6, 0.4, 1.8, 0.05))],
  ['rim of the medium', withMap(overMedium(130, 150), 'medium', rimMap(0.6, 0.4, 0.5, 0.05))],
  ['half a resist', withMap(waxed(), 'w', { columns: 2, rows: 2, values: [0, 1, 0.4, 0.8] })],
  ['half sanded', withMap(waxed(), 's', { columns: 2, rows: 1, values: [0.2, 2] })],
  ['all even', withMap(overMedium(80, 90), 'top', evenMap(0.6, 0.4, 1))],
];

/** Films missing in places, several maps at once, brittle paint over wax, tools at the rims only. */
const patched = (share: number): { cover: { style: 'blotchy'; share: number } } => ({
  cover: { style: 'blotchy', share },
});
const wave = (columns: number, rows: number, low: number, high: number, turn: number): object => ({
  columns,
  rows,
  values: Array.from(
    { length: columns * rows },
    (_, i) =>
      low + (high - low) * (0.5 + 0.5 * Math.sin(turn * (i % columns) + 1.7 * Math.floor(i / columns))),
  ),
});
const PARTLY: readonly (readonly [string, PanelPlan])[] = [
  [
    'medium in patches, touched up',
    planOf([
      coat('base', 'latex', 90, FIRST, { colour: '#34505c' }),
      coat('medium', 'crackle', 70, when('through-dry'), patched(0.6)),
      coat('top', 'chalk', 100, when('touch-dry'), { colour: '#d8cdb2' }),
      coat('again', 'chalk', 60, after(20_000), { ...patched(0.2), colour: '#c9b58a' }),
    ]),
  ],
  [
    'sealer and wax in patches under milk paint',
    planOf([
      coat('base', 'latex', 90, FIRST, { colour: '#34505c' }),
      coat('sealer', 'polyW', 80, when('through-dry'), patched(0.5)),
      coat('wax', 'clearWax', 12, when('through-dry'), patched(0.3)),
      coat('milk', 'milk', 70, after(43_200), { colour: '#d8cdb2' }),
      distress('s', 'scrape', after(7200), { where: 'edges', rounds: 2 }),
      distress('t', 'sponge', after(600), { where: 'field', rounds: 4 }),
    ]),
  ],
  [
    'glue mapped to nothing',
    withMap(overGlue(130, 120, 60), 'glue', { columns: 4, rows: 2, values: [0, 0, 1, 2, 0, 0.03, 1, 4] }),
  ],
  [
    'four maps at once',
    [
      ['a', wave(9, 7, 0.5, 1.5, 0.9)],
      ['w', wave(8, 5, 0, 1, 1.3)],
      ['b', wave(11, 6, 0.4, 1.8, 0.5)],
      ['s', wave(7, 9, 0, 2.5, 0.7)],
    ].reduce((plan, [id, map]) => withMap(plan, id as string, map as object), waxed()),
  ],
  [
    'milk paint over candle, dark wax wiped back',
    planOf([
      coat('base', 'latex', 90, FIRST, { colour: '#34505c' }),
      resist('w', 'candle', 0.3, when('through-dry'), 'edges'),
      coat('milk', 'milk', 70, after(60), { colour: '#d8cdb2' }),
      seal('clear', 'polyW', 60, when('through-dry')),
      seal('dark', 'darkWax', 12, when('through-dry'), { buffAfter: 300 }),
    ]),
  ],
  [
    'salt in a wet coat, glazed',
    planOf([
      coat('a', 'latex', 100, FIRST, { colour: '#34505c' }),
      coat('p', 'latex', 200, when('through-dry'), { colour: '#d8cdb2' }),
      resist('salt', 'salt', 0.25, after(60)),
      distress('s', 'scrape', after(43_200), { rounds: 1, pressure: 0.3 }),
      coat('g', 'glaze', 40, when('through-dry'), { ...patched(0.7), colour: '#5b4a33' }),
    ]),
  ],
];

function withMap(plan: PanelPlan, id: string, map: object): PanelPlan {
  return {
    ...plan,
    steps: plan.steps.map((step) => (step.id === id ? { ...step, map } : step)),
  } as PanelPlan;
}
function waxed(): PanelPlan {
  return planOf([
    coat('a', 'latex', 90, FIRST, { colour: '#34505c' }),
    resist('w', 'candle', 0.3, when('through-dry')),
    coat('b', 'latex', 90, after(60), { colour: '#d8cdb2', strokes: 'crosswise' }),
    rewet('r', when('through-dry')),
    distress('s', 'sand', after(86_400), { grit: 150, rounds: 6 }),
  ]);
}

const course = (plan: PanelPlan): unknown => {
  const { times, films, cracks, states, windows } = forecastOf(plan).course;
  return {
    times: times.map(({ step, from, until, comes }) => [step.id, from, until, comes]),
    films: films.map(
      ({ laidAt, coveredAt, solidsUm, closedBelow, solventSurface, heat, cycles, openStates, open }) => [
        [laidAt, coveredAt, solidsUm, closedBelow, solventSurface, heat, cycles],
        Object.values(openStates),
        [
          open.water0Um,
          open.water[open.count >> 1],
          open.evaporated[open.count >> 1],
          open.time[open.count - 1],
        ],
      ],
    ),
    cracks: cracks.map(
      (crack) =>
        crack && [
          Object.values(crack.law),
          Object.values(crack.pattern),
          [crack.firstAt, crack.clearAt, crack.doneAt, crack.boundary],
          Object.values(crack.input.hold ?? {}),
        ],
    ),
    states: states.map((state) => Object.values(state)),
    windows: windows.map((window) => window && [window.opensAt, window.closesAt]),
  };
};

const outcome = (plan: PanelPlan): unknown => {
  const result = forecastOf(plan);
  const { whole, zones, layers, chips, removals, appearance, crackedCoat, scene, readyAt } = result;
  return {
    whole,
    edge: zones.edge,
    corner: zones.corner,
    layers: layers.map(({ id, share, zones: in_ }) => [id, share, ...Object.values(in_)]),
    chips,
    removals,
    seen: appearance.layers,
    contrast: appearance.contrast,
    crackedCoat,
    readyAt,
    events: scene.events.map((event) => Object.values(event)),
    laid: scene.layers.map((layer) => Object.values(layer)),
    responses: scene.networks.map(({ key, layer, law, responses }) => [
      [key, layer, ...Object.values(law)],
      ...responses.flatMap(Object.values),
    ]),
    panel: [scene.widthMm, scene.heightMm, scene.seed, Object.keys(scene.maps)],
    restraint: restraint(result),
  };
};

const AIRS: readonly Air[] = [
  room(),
  room(12, 0.75, 0.05),
  room(30, 0.3, 0.8),
  room(21, 0.5, 0.1, 2000),
  room(5, 0.9, 0.3),
];
const LIQUIDS = ['water', 'spirit', 'alcohol', 'thinner', 'propellant'] as const;

describe('figures as they were', () => {
  it('of every note, with its level and its numbers', () => {
    const told = Object.fromEntries(
      cases.flatMap(([code, { is, isNot }]) =>
        [is(), isNot()].map((plan, i) => [
          `${code} ${i}`,
          forecastOf(plan).findings.map(({ code: said, level, stepId, values }) => [
            said,
            level,
            stepId,
            values,
          ]),
        ]),
      ),
    );
    expect(movedSince('notes', told)).toEqual([]);
  });

  it('of when steps are done, how films dry and what they crack into', () => {
    const told = [...cases.map(([code, { is }]) => [code, is()] as const), ...MAPPED];
    expect(
      movedSince('course', Object.fromEntries(told.map(([name, plan]) => [name, course(plan)]))),
    ).toEqual([]);
  });

  it('of what comes off and what is seen', () => {
    const told = [...cases.map(([code, { is }]) => [code, is()] as const), ...MAPPED, ...PARTLY];
    expect(
      movedSince('outcome', Object.fromEntries(told.map(([name, plan]) => [name, outcome(plan)]))),
    ).toEqual([]);
  });

  it('of a place of a mapped panel', () => {
    const places = [
      { left: 0.05, top: 0.05, width: 0.2, height: 0.1 },
      { left: 0, top: 0, width: 0.03, height: 0.03 },
      { left: 0.4, top: 0.2, width: 0.002, height: 0.002 },
    ];
    const told = Object.fromEntries(
      [...MAPPED, ...PARTLY].flatMap(([name, plan]) =>
        places.map((place, i) => {
          const { whole, layers } = forecastOf(plan, place);
          return [`${name} ${i}`, [whole, layers.map(({ share }) => share)]];
        }),
      ),
    );
    expect(movedSince('places', told)).toEqual([]);
  });

  it('of amounts and pots', () => {
    const told = Object.fromEntries(
      cases.map(([code, { is }]) => {
        const plan = is();
        const { course: run } = forecastOf(plan);
        const amounts = quantities(plan, { latex: 18, chalk: 30, milk: 44 });
        const uses = amounts.flatMap((amount) => {
          const at = run.times.find(({ step }) => step.id === amount.stepId)!.from;
          const film = run.films.find(({ step }) => step.id === amount.stepId);
          return film === undefined
            ? []
            : [
                {
                  stepId: amount.stepId,
                  partId: 'p',
                  recipe: film.medium.key,
                  medium: film.medium,
                  at,
                  volume: amount.volume,
                  dilution: film.step.dilution,
                  water: amount.water,
                  texture: amount.texture,
                  powder: amount.powder,
                },
              ];
        });
        const mixed = pots(uses, 294).map(({ medium, uses: of, ...pot }) => [
          medium.key,
          of.map(({ stepId }) => stepId),
          Object.values(pot),
        ]);
        return [code, [amounts, mixed]];
      }),
    );
    expect(movedSince('amounts', told)).toEqual([]);
  });

  it('of zones of panels of many sizes', () => {
    const sizes = [
      [0.6, 0.4],
      [0.3, 1.2],
      [0.05, 0.05],
      [2, 0.08],
      [0.02, 0.9],
    ] as const;
    const told = Object.fromEntries(
      sizes.map(([width, height]) => {
        const places = zonePlaces({ width, height });
        const spread = Object.values(places).map((of) => [
          of.length,
          of.reduce((sum, [x]) => sum + x, 0),
          of.reduce((sum, [, y]) => sum + y * y, 0),
          of[0],
          of.at(-1),
        ]);
        return [`${width} ${height}`, [zoneShares({ width, height }), spread]];
      }),
    );
    expect(movedSince('zones', told)).toEqual([]);
  });

  it('of what evaporates in many airs', () => {
    const told = Object.fromEntries(
      AIRS.map((air, i) => {
        const series = dryingAir([{ from: 0, ...air }]);
        const burst = withBurst(scaledAir(series, 1.4), {
          from: 60,
          until: 120,
          jet: { temperature: 336, convective: 35 },
        });
        return [
          `air ${i}`,
          [
            LIQUIDS.map((liquid) => evaporationOf(liquid, air, 0.4)),
            series.map((sample) => LIQUIDS.map((liquid) => evaporationIn(sample, liquid))),
            burst.map((sample) => [
              sample.from,
              sample.until,
              sample.temperature,
              evaporationIn(sample, 'water'),
            ]),
          ],
        ];
      }),
    );
    expect(movedSince('air', told)).toEqual([]);
  });
});
