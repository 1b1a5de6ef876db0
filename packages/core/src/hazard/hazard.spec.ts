import { type OldCoat, type Panel, type PanelPlan, type Step } from '../plan';
import {
  after,
  coat,
  distress,
  FIRST,
  heat,
  planOf,
  resist,
  rewet,
  room,
  seal,
  when,
} from '../testing/plans';
import { HAZARD_CODES, type HazardCode, hazards, LATER_HAZARDS } from './hazard';

const codes = (plan: PanelPlan): HazardCode[] => hazards(plan).map((hazard) => hazard.code);

// Common practice, no source.
describe('hazards', () => {
  it('follow from the steps and name them', () => {
    const plan = planOf([
      coat('a', 'chalk', 80, FIRST),
      coat('l', 'lacquer', 75, when('through-dry')),
      heat('h', 'gun', 30, after(60)),
      distress('s', 'sand', after(60)),
      distress('b', 'bleach', after(60)),
      distress('k', 'blade', after(60)),
      seal('o', 'polyO', 75, after(60)),
    ]);
    const found = hazards(plan);
    const steps = (code: HazardCode): readonly string[] =>
      found.find((hazard) => hazard.code === code)?.stepIds ?? [];
    expect(steps('hot-air')).toEqual(['h']);
    expect(steps('heat-and-solvent')).toEqual(['h']);
    expect(steps('flammable-vapour')).toEqual(['l', 'o']);
    expect(steps('dust')).toEqual(['s']);
    expect(steps('bleach-mixing')).toEqual(['b']);
    expect(steps('blade')).toEqual(['k']);
    expect(steps('oily-rags')).toEqual(['o']);
    expect(found.map((hazard) => HAZARD_CODES.indexOf(hazard.code))).toEqual(
      [...found.map((hazard) => HAZARD_CODES.indexOf(hazard.code))].sort((a, b) => a - b),
    );
  });

  it('follow from the piece: old paint, raw wood, food, damp, weight', () => {
    const plan = planOf(
      [coat('a', 'chalk', 80, FIRST), distress('s', 'sand', after(9000))],
      room(18, 0.9),
      'raw-softwood',
    );
    const risky: PanelPlan = {
      ...plan,
      panel: {
        ...plan.panel,
        width: 2,
        height: 1,
        use: 'children',
        history: { handled: true, tannin: false, coat: 'unknown', age: 'unknown', condition: 'flaking' },
      },
    };
    expect(codes(risky)).toEqual(
      jasmine.arrayContaining([
        'old-paint',
        'splinters',
        'food-and-children',
        'mould',
        'lifting',
      ] as HazardCode[]),
    );
    expect(codes(planOf([coat('a', 'latex', 80, FIRST)]))).toEqual(['cups']);
    // Nothing that hurts while the work goes on is left for later.
    expect(
      LATER_HAZARDS.some((code) => /dust|air|vapour|blade|bleach|paint|rags|lifting/.test(code)),
    ).toBeFalse();
  });
});

/** Plans that carry a hazard, and plans just beside them that do not. Common practice, no source. */
interface Case {
  readonly has: readonly PanelPlan[];
  readonly hasNot: readonly PanelPlan[];
}

const paint = coat('a', 'latex', 80, FIRST);
const later = after(90_000);
const of = (...steps: readonly Step[]): PanelPlan => planOf([paint, ...steps]);
const laid = (medium: string): PanelPlan => planOf([coat('a', medium, 60, FIRST)]);
const onPanel = (changes: Partial<Panel>, ...steps: readonly Step[]): PanelPlan => {
  const plan = planOf([paint, ...steps]);
  return { ...plan, panel: { ...plan.panel, ...changes } };
};
const over = (old: OldCoat, ...steps: readonly Step[]): PanelPlan => {
  const { history } = planOf([paint]).panel;
  return onPanel({ history: { ...history, coat: old } }, ...steps);
};
const sand = distress('s', 'sand', later);
const scrape = distress('k', 'scrape', later);
const blade = distress('k', 'blade', later);
const bleach = distress('b', 'bleach', later);
const gun = heat('h', 'gun', 30, later);
/** Solvents that evaporate in the shop, and media that hold none. */
const SOLVENTS = ['lacquer', 'spray', 'shellac', 'polyO', 'enamelO'];
const WATERY = ['latex', 'chalk', 'milk', 'polyW', 'pva'];

const CASES: Readonly<Record<HazardCode, Case>> = {
  'old-paint': {
    has: (['water-paint', 'oil-paint', 'varnish', 'shellac', 'unknown'] as const).flatMap((old) =>
      [sand, scrape, blade, gun].map((step) => over(old, step)),
    ),
    hasNot: [
      ...(['none', 'oil', 'wax'] as const).map((old) => over(old, sand)),
      over('oil-paint', distress('c', 'cloth', later)),
      over('oil-paint', bleach),
    ],
  },
  dust: {
    has: [of(sand)],
    hasNot: [of(scrape), of(blade), of(distress('c', 'cloth', later)), of(distress('c', 'sponge', later))],
  },
  silica: {
    has: ['gesso', 'mineral', 'texture'].map(laid),
    hasNot: ['chalk', 'clay', 'milk', 'latex', 'primer'].map(laid),
  },
  'hot-air': { has: [of(gun), of(heat('h', 'dryer', 30, later))], hasNot: [of(sand), of(rewet('w', later))] },
  'heat-and-solvent': {
    has: SOLVENTS.flatMap((medium) => [
      planOf([coat('a', medium, 60, FIRST), gun]),
      // Fumes of what is laid afterwards meet an element that is still hot.
      planOf([paint, gun, coat('b', medium, 60, later)]),
    ]),
    hasNot: [...SOLVENTS.map(laid), ...WATERY.map((medium) => planOf([coat('a', medium, 60, FIRST), gun]))],
  },
  'spray-mist': { has: ['spray', 'lacquer'].map(laid), hasNot: ['polyO', 'shellac', 'latex'].map(laid) },
  'flammable-vapour': {
    has: [...SOLVENTS, 'clearWax', 'darkWax'].map(laid),
    hasNot: [...WATERY.map(laid), planOf([paint, resist('r', 'candle', 0.3, later)])],
  },
  'oily-rags': {
    has: ['polyO', 'enamelO', 'clearWax', 'darkWax'].map(laid),
    hasNot: ['spray', 'shellac', 'lacquer', 'latex'].map(laid),
  },
  bleach: { has: [of(bleach)], hasNot: [of(sand), of(distress('c', 'sponge', later))] },
  'bleach-mixing': { has: [of(bleach)], hasNot: [of(sand), of(distress('c', 'cloth', later))] },
  blade: { has: [of(blade), of(scrape)], hasNot: [of(sand), of(distress('t', 'tap', later))] },
  splinters: {
    has: (['raw-softwood', 'raw-hardwood', 'plywood'] as const).map((substrate) => onPanel({ substrate })),
    hasNot: (['mdf-face', 'sealed', 'primed', 'metal'] as const).map((substrate) => onPanel({ substrate })),
  },
  'casein-keeping': { has: ['milk', 'gesso'].map(laid), hasNot: ['chalk', 'hide', 'pva', 'clay'].map(laid) },
  cups: { has: WATERY.map(laid), hasNot: ['polyO', 'shellac', 'clearWax', 'spray'].map(laid) },
  'food-and-children': {
    has: (['food', 'children'] as const).map((use) => onPanel({ use })),
    hasNot: (['display', 'hands', 'wiping', 'hot-cups'] as const).map((use) => onPanel({ use })),
  },
  mould: {
    has: [planOf([paint], room(18, 0.86)), { ...planOf([paint]), air: damp(0.5, 0.9) }],
    hasNot: [planOf([paint], room(18, 0.85)), { ...planOf([paint]), air: damp(0.5, 0.8) }],
  },
  'mdf-dust': {
    has: (['mdf-face', 'mdf-edge'] as const).map((substrate) => onPanel({ substrate }, sand)),
    hasNot: [onPanel({ substrate: 'mdf-face' }), onPanel({ substrate: 'plywood' }, sand)],
  },
  lifting: {
    has: [onPanel({ width: 1, height: 0.81 })],
    hasNot: [onPanel({ width: 1, height: 0.8 })],
  },
};

function damp(...humidities: readonly number[]): PanelPlan['air'] {
  return humidities.map((humidity, i) => ({ from: i * 3600, ...room(20, humidity) }));
}

describe('every hazard', () => {
  it('has cases on both sides', () => {
    expect(Object.keys(CASES).sort()).toEqual([...HAZARD_CODES].sort());
    for (const { has, hasNot } of Object.values(CASES)) {
      expect(has.length).toBeGreaterThan(0);
      expect(hasNot.length).toBeGreaterThan(0);
    }
  });

  for (const code of HAZARD_CODES) {
    it(`is found where it is: ${code}`, () => {
      CASES[code].has.forEach((plan, i) => expect(codes(plan)).withContext(`case ${i}`).toContain(code));
    });
    it(`is not told where it is not: ${code}`, () => {
      CASES[code].hasNot.forEach((plan, i) =>
        expect(codes(plan)).withContext(`case ${i}`).not.toContain(code),
      );
    });
  }

  it('stands at one step where it is of the piece: the first, or the last', () => {
    const at = (plan: PanelPlan, code: HazardCode): readonly string[] | undefined =>
      hazards(plan).find((hazard) => hazard.code === code)?.stepIds;
    expect(at(onPanel({ substrate: 'raw-softwood' }, sand), 'splinters')).toEqual(['a']);
    expect(at(onPanel({ width: 2, height: 1 }, sand), 'lifting')).toEqual(['a']);
    expect(at(onPanel({ use: 'food' }, sand), 'food-and-children')).toEqual(['s']);
  });
});
