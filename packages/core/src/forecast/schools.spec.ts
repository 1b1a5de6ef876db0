import { type PanelPlan, type Step } from '../plan';
import { type SubstrateKey } from '../media';
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
import { forecastOf } from '../testing/forecasts';
import { figureValues } from '../readout';
import { type LayerShare } from '../outcome';
import { type Forecast } from './types';

/*
 * What practitioners of the other schools see: chips, resists, wear, layers and seals, as plans. Common practice, no
 * source. A row is a value with its tolerance, or two plans whose figure must differ by a factor.
 */

const NIGHT = 12 * 3600;
const HOUR = 3600;
const minutes = (n: number): number => n * 60;

const of = (plan: PanelPlan): Forecast => forecastOf(plan);
/** Share that flakes at the boundary below a film. */
const chips = (plan: PanelPlan): number => Math.max(0, ...of(plan).chips.map((chip) => chip.share));
const gone = (plan: PanelPlan): number => of(plan).whole.chippedShare;
const worn = (plan: PanelPlan): number => of(plan).whole.wornShare;
const layer = (plan: PanelPlan, id: string): LayerShare => of(plan).layers.find((l) => l.id === id)!;
const seen = (plan: PanelPlan, id: string): number => layer(plan, id).share;
const cracked = (plan: PanelPlan, id: string): number =>
  of(plan).coats.find((c) => c.coat.id === id)!.crack?.crackedShare ?? 0;
const spacing = (plan: PanelPlan): number => (figureValues(of(plan)).spacing ?? 0) * 1000;
const touched = (medium: string, um: number, air = room()): number => {
  const { open, laidAt } = of(planOf([coat('a', medium, um, FIRST)], air)).coats[0]!;
  return ((open.touch ?? Infinity) - laidAt) / 60;
};
const recoated = (plan: PanelPlan, i: number): number => {
  const { open, laidAt } = of(plan).coats[i]!;
  return ((open.recoat ?? Infinity) - laidAt) / 60;
};

/** Milk paint, coat over coat, then what else is done. */
const milk = (
  substrate: SubstrateKey,
  coats: number,
  steps: readonly Step[] = [],
  options: CoatOptions = {},
  um = 70,
): PanelPlan =>
  planOf(
    [
      ...Array.from({ length: coats }, (_, i) =>
        coat(`m${i}`, 'milk', um, i === 0 ? FIRST : when('recoat'), options),
      ),
      ...steps,
    ],
    room(),
    substrate,
  );
/** Milk paint over a clear coat of some age. */
const onSealer = (age: number, options: CoatOptions = {}): PanelPlan =>
  planOf([
    coat('base', 'latex', 90, FIRST),
    coat('sealer', 'polyW', 80, when('through-dry', 86400)),
    coat('top', 'milk', 70, after(age), options),
  ]);
/** Brittle ground of some coats under milk paint. */
const ground = (coats: number, steps: readonly Step[] = []): PanelPlan =>
  planOf([
    coat('base', 'latex', 100, FIRST),
    ...Array.from({ length: coats }, (_, i) =>
      coat(`g${i}`, 'gesso', 110, i === 0 ? when('through-dry') : when('recoat'), { dilution: 0.5 }),
    ),
    coat('milk', 'milk', 60, when('through-dry')),
    ...steps,
  ]);
/** Two re-soluble coats, the upper wiped back after a time. */
const wiped = (medium: string, wait: number, tool: 'cloth' | 'sponge' = 'cloth', rounds = 20): PanelPlan =>
  planOf(
    [
      coat('a', medium, 80, FIRST),
      coat('b', medium, 80, when('through-dry', HOUR)),
      distress('wipe', tool, when('touch-dry', wait), { rounds }),
    ],
    room(),
    'scuffed',
  );
const cut = (wait: number, tool: 'blade' | 'sand' = 'blade'): PanelPlan =>
  planOf(
    [
      coat('base', 'texture', 300, FIRST),
      coat('top', 'mineral', 90, after(NIGHT)),
      distress('cut', tool, after(wait), { rounds: 5 }),
    ],
    room(),
    'primed',
  );
/** Sanding with or without a barrier of lacquer below two coats. */
const sanded = (barrier: boolean, grit: 80 | 150 | 220 | 400, rounds = 10): PanelPlan =>
  planOf(
    [
      coat('wood', 'chalk', 70, FIRST),
      ...(barrier ? [coat('stop', 'lacquer', 75, when('through-dry', 36000))] : []),
      coat('b', 'chalk', 60, when('through-dry', 36000)),
      distress('sand', 'sand', after(NIGHT), { grit, rounds }),
    ],
    room(),
    'raw-softwood',
  );
const waxed = (
  share: number,
  steps: readonly Step[] = [distress('s', 'scrape', when('through-dry'), { rounds: 1, pressure: 0.3 })],
): PanelPlan =>
  planOf([
    coat('a', 'latex', 90, FIRST),
    coat('b', 'latex', 80, when('through-dry')),
    resist('wax', 'candle', share, when('through-dry')),
    coat('c', 'latex', 90, after(60)),
    coat('d', 'latex', 90, when('through-dry')),
    ...steps,
  ]);
const jellied = (share: number, wait = 8 * HOUR): PanelPlan =>
  planOf([
    coat('a', 'latex', 100, FIRST),
    coat('v', 'polyW', 80, when('through-dry')),
    resist('j', 'jelly', share, when('through-dry')),
    coat('c', 'latex', 80, after(60), { dilution: 0.4 }),
    wipe('w', when('through-dry', wait)),
  ]);
const salted = (wait: number, um = 200): PanelPlan =>
  planOf([
    coat('a', 'latex', 100, FIRST),
    coat('p', 'latex', um, when('through-dry')),
    resist('salt', 'salt', 0.25, after(wait)),
    distress('s', 'scrape', after(NIGHT), { rounds: 1, pressure: 0.3 }),
  ]);
const fissures = (clear: boolean): PanelPlan =>
  planOf([
    coat('base', 'latex', 90, FIRST),
    coat('medium', 'crackle', 60, when('through-dry')),
    ...(clear ? [coat('clear', 'polyW', 60, when('touch-dry'))] : []),
    seal('wax', 'darkWax', 12, when('through-dry'), { share: 0.05 }),
  ]);
const bleached = (rounds: number, wait: number, medium = 'latex'): PanelPlan =>
  planOf(
    [coat('a', medium, 80, FIRST), distress('b', 'bleach', when('through-dry', wait), { rounds })],
    room(),
    'scuffed',
  );
const sheen = (buffAfter: number | null): number =>
  of(planOf([coat('a', 'chalk', 80, FIRST), seal('w', 'clearWax', 12, when('through-dry'), { buffAfter })]))
    .whole.gloss;

interface Fact {
  readonly fact: string;
  readonly value: () => number;
  readonly from: number;
  readonly to: number;
}
const FACTS: readonly Fact[] = [
  // Drying of other kinds (sections 2 and 4 of common practice).
  {
    fact: 'milk paint takes its next coat after 10 to 30 min',
    value: () => recoated(milk('sealed', 1, [], {}, 60), 0),
    from: 10,
    to: 31,
  },
  {
    fact: 'and sooner on raw wood',
    value: () => recoated(milk('raw-softwood', 1, [], {}, 60), 0),
    from: 6,
    to: 18,
  },
  {
    fact: 'chalk ground mixed 2:1 takes its next coat after an hour, min',
    value: () => recoated(ground(1), 1),
    from: 45,
    to: 75,
  },
  {
    fact: 'oil clear coat is touch-dry after 4 to 6 h',
    value: () => touched('polyO', 75) / 60,
    from: 4,
    to: 6,
  },
  {
    fact: 'oil clear coat takes its next coat after a day, h',
    value: () => recoated(planOf([coat('a', 'polyO', 75, FIRST)]), 0) / 60,
    from: 18,
    to: 28,
  },
  { fact: 'shellac is touch-dry in 10 to 20 min', value: () => touched('shellac', 60), from: 8, to: 20 },
  { fact: 'lacquer is touch-dry in 5 to 15 min', value: () => touched('lacquer', 75), from: 5, to: 15 },
  { fact: 'spray enamel is touch-dry in 5 to 15 min', value: () => touched('spray', 50), from: 4, to: 15 },
  {
    fact: 'paste wax can be buffed after 20 to 30 min',
    value: () => touched('clearWax', 12),
    from: 15,
    to: 32,
  },
  {
    fact: 'a texture-thickened coat needs the night, h',
    value: () => recoated(planOf([coat('a', 'texture', 500, FIRST)]), 0) / 60,
    from: 8,
    to: 24,
  },
  {
    fact: 'bleach laid thick stays wet for half an hour or so, min',
    value: () => touched('bleach', 60),
    from: 20,
    to: 50,
  },
  { fact: 'jelly dries never', value: () => (touched('jelly', 40) === Infinity ? 1 : 0), from: 1, to: 1 },
  {
    fact: 'wax left too thick stays tacky for good',
    value: () => (touched('clearWax', 60) === Infinity ? 1 : 0),
    from: 1,
    to: 1,
  },
  // Milk paint that chips, and that does not.
  {
    fact: 'milk paint on raw wood does not chip',
    value: () => chips(milk('raw-softwood', 2)),
    from: 0,
    to: 0.005,
  },
  {
    fact: 'nor on bare MDF',
    value: () => Math.max(chips(milk('mdf-face', 2)), chips(milk('mdf-edge', 2))),
    from: 0,
    to: 0.005,
  },
  {
    fact: 'on a sealed base two coats chip in places',
    value: () => chips(milk('sealed', 2)),
    from: 0.05,
    to: 0.3,
  },
  {
    fact: 'a full dose of bonding additive stops the chips',
    value: () => chips(milk('sealed', 2, [], { bonding: 1 })),
    from: 0,
    to: 0.005,
  },
  {
    fact: 'over a slightly tacky sealer it chips well',
    value: () => chips(onSealer(minutes(15))),
    from: 0.15,
    to: 0.5,
  },
  {
    fact: 'over a fully dry sealer a single coat hardly chips',
    value: () => chips(onSealer(NIGHT)),
    from: 0,
    to: 0.08,
  },
  {
    fact: 'wetting and hot air force chips even on raw wood',
    value: () =>
      chips(
        milk('raw-softwood', 2, [
          rewet('r', when('recoat')),
          rewet('s', after(600)),
          rewet('t', after(600)),
          heat('h', 'gun', 60, after(10)),
        ]),
      ),
    from: 0.02,
    to: 0.4,
  },
  // Brittle ground.
  { fact: 'one coat of ground is texture: hardly a flake', value: () => chips(ground(1)), from: 0, to: 0.1 },
  { fact: 'three coats crack all over', value: () => cracked(ground(3), 'g2'), from: 0.9, to: 1 },
  {
    fact: 'and flake: share scraped off',
    value: () => gone(ground(3, [distress('s', 'scrape', after(1800), { rounds: 3 })])),
    from: 0.2,
    to: 0.9,
  },
  {
    fact: 'in pieces of some millimetres',
    value: () => Math.max(...of(ground(3)).chips.map((chip) => chip.size)) * 1000,
    from: 1,
    to: 15,
  },
  // Resists.
  {
    fact: 'wax comes off down to the layer it lies on: that layer shows',
    value: () => seen(waxed(0.25), 'b'),
    from: 0.2,
    to: 0.3,
  },
  { fact: 'and no deeper one', value: () => seen(waxed(0.25), 'a'), from: 0, to: 0.02 },
  {
    fact: 'wax may stay under many coats until it is scraped',
    value: () => seen(waxed(0.25, []), 'b'),
    from: 0,
    to: 0.06,
  },
  {
    fact: 'jelly wiped off shows the colour below where it lay',
    value: () => seen(jellied(0.3), 'a') - seen(jellied(0), 'a'),
    from: 0.15,
    to: 0.32,
  },
  {
    fact: 'salt craters show the base',
    value: () => seen(salted(60), 'a') - seen(salted(2 * HOUR), 'a'),
    from: 0.15,
    to: 0.28,
  },
  {
    fact: 'salt strewn late lies loose and does nothing',
    value: () => gone(salted(2 * HOUR)),
    from: 0,
    to: 0.01,
  },
  {
    fact: 'fine fissures in a clear coat stand a few millimetres apart',
    value: () => spacing(fissures(true)),
    from: 1,
    to: 6,
  },
  {
    fact: 'and dark wax makes them seen: share of the panel',
    value: () => seen(fissures(true), 'wax'),
    from: 0.05,
    to: 0.2,
  },
  // Taking off.
  {
    fact: 'a damp cloth does nothing to acrylic the next day',
    value: () => worn(wiped('latex', NIGHT)),
    from: 0,
    to: 0.001,
  },
  {
    fact: 'sanding over lacquer stops at it: raw wood shows nowhere',
    value: () => of(sanded(true, 220)).whole.bareShare,
    from: 0,
    to: 0.004,
  },
  {
    fact: 'coarse grit goes through it',
    value: () => of(sanded(true, 80, 20)).whole.bareShare,
    from: 0.03,
    to: 1,
  },
  {
    fact: 'bleach that has dried does no more: 60 min against 35',
    value: () => worn(bleached(60, HOUR)) / worn(bleached(38, HOUR)),
    from: 0.98,
    to: 1.02,
  },
  // Partial coats and finish.
  {
    fact: 'dry-brushed coats let every colour through',
    value: () => {
      const plan = planOf([
        coat('a', 'latex', 90, FIRST),
        coat('b', 'latex', 80, when('through-dry'), { cover: { style: 'blotchy', share: 0.5 } }),
        coat('c', 'latex', 60, when('through-dry'), { cover: { style: 'dry-brushed', share: 0.45 } }),
        coat('d', 'latex', 60, after(NIGHT), { cover: { style: 'dry-brushed', share: 0.4 } }),
      ]);
      return Math.min(...['a', 'b', 'c', 'd'].map((id) => seen(plan, id)));
    },
    from: 0.08,
    to: 0.4,
  },
  { fact: 'wax buffed after half an hour is satin, GU', value: () => sheen(minutes(25)), from: 18, to: 30 },
  { fact: 'left overnight unbuffed it is matte, GU', value: () => sheen(null), from: 2, to: 9 },
  {
    fact: 'lacquer on part-wet paint crackles',
    value: () => cracked(planOf([coat('a', 'milk', 70, FIRST), coat('l', 'lacquer', 75, after(300))]), 'l'),
    from: 0.6,
    to: 1,
  },
  {
    fact: 'thick paint with hot air cracks in places',
    value: () =>
      cracked(
        planOf([
          coat('a', 'latex', 90, FIRST),
          coat('b', 'chalk', 400, when('through-dry')),
          heat('h', 'dryer', 120, when('tacky')),
        ]),
        'b',
      ),
    from: 0.1,
    to: 0.9,
  },
  {
    fact: 'ordinary coats of paint over each other do not crack',
    value: () =>
      Math.max(
        ...['chalk', 'clay', 'mineral', 'latex', 'craft', 'enamelW'].flatMap((k) => [
          cracked(
            planOf([coat('a', k, 90, FIRST), coat('b', k, 90, when('through-dry'))], room(), 'scuffed'),
            'b',
          ),
        ]),
      ),
    from: 0,
    to: 0.06,
  },
];

interface Direction {
  readonly fact: string;
  readonly figure: (plan: PanelPlan) => number;
  readonly less: PanelPlan;
  readonly more: PanelPlan;
}
const WET = [rewet('r', when('recoat')), rewet('s', after(600))];
const DIRECTIONS: readonly Direction[] = [
  {
    fact: 'a second coat of milk paint chips more',
    figure: chips,
    less: milk('sealed', 1),
    more: milk('sealed', 2),
  },
  {
    fact: 'thicker milk paint chips more',
    figure: chips,
    less: milk('sealed', 1, [], {}, 60),
    more: milk('sealed', 1, [], {}, 110),
  },
  {
    fact: 'lumps left in chip more',
    figure: chips,
    less: milk('sealed', 2),
    more: milk('sealed', 2, [], { lumps: true }),
  },
  {
    fact: 'a little bonding additive chips less',
    figure: chips,
    less: milk('sealed', 2, [], { bonding: 0.25 }),
    more: milk('sealed', 2),
  },
  {
    fact: 'gloss chips more than a scuffed base',
    figure: chips,
    less: milk('scuffed', 2),
    more: milk('gloss', 2),
  },
  {
    fact: 'hot air forces chips',
    figure: chips,
    less: milk('sealed', 2),
    more: milk('sealed', 2, [heat('h', 'dryer', 60, when('touch-dry'))]),
  },
  {
    fact: 'wetting again forces chips',
    figure: chips,
    less: milk('sealed', 2),
    more: milk('sealed', 2, WET),
  },
  {
    fact: 'a tacky sealer chips more than a wet one',
    figure: chips,
    less: onSealer(120),
    more: onSealer(minutes(15)),
  },
  {
    fact: 'a tacky sealer chips more than a dry one',
    figure: chips,
    less: onSealer(NIGHT),
    more: onSealer(minutes(15)),
  },
  {
    fact: 'over clay on a finished piece milk paint chips, over clay on raw wood not',
    figure: chips,
    less: planOf(
      [
        coat('clay', 'clay', 60, FIRST),
        coat('m', 'milk', 70, when('through-dry')),
        coat('n', 'milk', 70, when('recoat')),
        heat('h', 'dryer', 60, when('touch-dry')),
      ],
      room(),
      'raw-softwood',
    ),
    more: planOf(
      [
        coat('clay', 'clay', 60, FIRST),
        coat('m', 'milk', 70, when('through-dry')),
        coat('n', 'milk', 70, when('recoat')),
        heat('h', 'dryer', 60, when('touch-dry')),
      ],
      room(),
      'gloss',
    ),
  },
  {
    fact: 'plenty of water when distressing brings more off than a damp cloth',
    figure: gone,
    less: milk('sealed', 2, [distress('d', 'cloth', when('through-dry', HOUR), { rounds: 4 })]),
    more: milk('sealed', 2, [distress('d', 'sponge', when('through-dry', HOUR), { rounds: 4 })]),
  },
  { fact: 'three coats of ground flake more than two', figure: chips, less: ground(2), more: ground(3) },
  { fact: 'two flake more than one', figure: chips, less: ground(1), more: ground(2) },
  {
    fact: 'more wax shows more of the layer it lies on',
    figure: (p) => seen(p, 'b'),
    less: waxed(0.1),
    more: waxed(0.3),
  },
  {
    fact: 'a scraper brings more wax off than a cloth',
    figure: (p) => seen(p, 'b'),
    less: waxed(0.3, [distress('s', 'cloth', when('through-dry', HOUR), { rounds: 1 })]),
    more: waxed(0.3),
  },
  { fact: 'more jelly shows more', figure: (p) => seen(p, 'a'), less: jellied(0.1), more: jellied(0.4) },
  {
    fact: 'wiping soon after painting takes more than next day',
    figure: worn,
    less: wiped('chalk', NIGHT),
    more: wiped('chalk', 300),
  },
  {
    fact: 'clay wipes easier than chalk',
    figure: worn,
    less: wiped('chalk', HOUR),
    more: wiped('clay', HOUR),
  },
  {
    fact: 'more rubs take more',
    figure: worn,
    less: wiped('chalk', HOUR, 'cloth', 8),
    more: wiped('chalk', HOUR, 'cloth', 24),
  },
  {
    fact: 'two hours after painting a blade takes more than after a night',
    figure: worn,
    less: cut(NIGHT),
    more: cut(2 * HOUR),
  },
  { fact: 'coarser grit takes more', figure: worn, less: sanded(false, 220), more: sanded(false, 150) },
  {
    fact: 'without a barrier sanding shows the wood',
    figure: (p) => layer(p, 'panel').zones.edge,
    less: sanded(true, 150),
    more: sanded(false, 150),
  },
  {
    fact: 'edges wear more than the field',
    figure: (p) => layer(p, 'panel').zones[p.seed === 1 ? 'field' : 'edge'],
    less: { ...sanded(false, 150), seed: 1 },
    more: sanded(false, 150),
  },
  { fact: 'bleach left longer takes more', figure: worn, less: bleached(1, HOUR), more: bleached(5, HOUR) },
  {
    fact: 'smearing it back leaves more',
    figure: (p) => 1 - worn(p),
    less: bleached(5, HOUR),
    more: planOf(
      [
        coat('a', 'latex', 80, FIRST),
        distress('b', 'bleach', when('through-dry', HOUR), { rounds: 5, smear: 0.6 }),
      ],
      room(),
      'scuffed',
    ),
  },
  {
    fact: 'without a clear coat over the medium dark wax finds no fissures',
    figure: (p) => seen(p, 'wax'),
    less: fissures(false),
    more: fissures(true),
  },
  {
    fact: 'a buff next day still brings some sheen',
    figure: (p) => of(p).whole.gloss,
    less: planOf([coat('a', 'chalk', 80, FIRST), seal('w', 'clearWax', 12, when('through-dry'))]),
    more: planOf([
      coat('a', 'chalk', 80, FIRST),
      seal('w', 'clearWax', 12, when('through-dry'), { buffAfter: 20 * HOUR }),
    ]),
  },
  {
    fact: 'hot air cracks thick paint more',
    figure: (p) => cracked(p, 'b'),
    less: planOf([coat('a', 'latex', 90, FIRST), coat('b', 'chalk', 400, when('through-dry'))]),
    more: planOf([
      coat('a', 'latex', 90, FIRST),
      coat('b', 'chalk', 400, when('through-dry')),
      heat('h', 'dryer', 120, when('tacky')),
    ]),
  },
  {
    fact: 'patina paste cracks where the paint around it does not',
    figure: (p) => cracked(p, 'b'),
    less: planOf([coat('a', 'latex', 90, FIRST), coat('b', 'chalk', 90, when('through-dry'))]),
    more: planOf([coat('a', 'latex', 90, FIRST), coat('b', 'patina', 300, when('through-dry'))]),
  },
  {
    fact: 'a patchy top coat shows more of the base',
    figure: (p) => seen(p, 'base'),
    less: overMedium(70, 60),
    more: overMedium(70, 60, room(), { cover: { style: 'blotchy', share: 0.7 } }),
  },
  {
    fact: 'thicker glue shows more of the base',
    figure: (p) => seen(p, 'base'),
    less: overGlue(60, 90, 120, room(), { passes: 4 }),
    more: overGlue(60, 90, 120, room(), { passes: 1 }),
  },
  {
    fact: 'damp air dries oil no quicker but water-borne clear coat much slower, min',
    figure: (p) => (of(p).coats[0]!.open.touch ?? Infinity) / 60,
    less: planOf([coat('a', 'polyW', 80, FIRST)]),
    more: planOf([coat('a', 'polyW', 80, FIRST)], room(15, 0.8)),
  },
];

describe('facts of the other schools', () => {
  for (const { fact, value, from, to } of FACTS) {
    it(`${fact} [${from} … ${to}]`, () => {
      expect(value()).toBeGreaterThanOrEqual(from);
      expect(value()).toBeLessThanOrEqual(to);
    });
  }
  for (const { fact, figure, less, more } of DIRECTIONS) {
    it(fact, () => {
      expect(figure(more)).toBeGreaterThan(1.03 * figure(less) + 1e-4);
    });
  }
});
