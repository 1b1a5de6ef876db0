import { type Coat, type PanelMap, type PanelPlan, type Resist, rimMap, type Step } from '../plan';
import { after, coat, distress, FIRST, planOf, resist, room, seal, when, wipe } from './plans';
import { type FaceViewKey } from '../face';

/** A kind of surface to look at, and to measure. */
export interface LookedAt {
  readonly name: string;
  readonly plan: PanelPlan;
  readonly view: FaceViewKey;
}

const WIDTH = 0.2;
const HEIGHT = 0.14;
const DAY = 86400;

function looked(
  name: string,
  view: FaceViewKey,
  steps: readonly Step[],
  options: { substrate?: PanelPlan['panel']['substrate']; seed?: number } = {},
): LookedAt {
  const plan = planOf(steps, room(), options.substrate ?? 'scuffed', options.seed ?? 7);
  return { name, view, plan: { ...plan, panel: { ...plan.panel, width: WIDTH, height: HEIGHT } } };
}

const mapped = (step: Coat, map: PanelMap): Coat => ({ ...step, map });

/** Much at the rim, little in the middle, and none between. */
const edgesOnly = (step: Resist): Resist => ({ ...step, where: 'edges' });

/** Twelve surfaces that between them show all that the field can do. */
export const SCENES: readonly LookedAt[] = [
  looked('Hairline web', 'close', [
    coat('base', 'latex', 90, FIRST, { colour: '#3c4a3f' }),
    coat('medium', 'hide', 40, when('through-dry'), { dilution: 0.5 }),
    coat('top', 'chalk', 45, when('through-dry'), { colour: '#ddd3bb', strokes: 'dabbed', passes: 1 }),
  ]),
  looked('Medium crackle', 'arm', [
    coat('base', 'chalk', 90, FIRST, { colour: '#2f4c50' }),
    coat('medium', 'crackle', 110, when('through-dry')),
    coat('top', 'chalk', 130, when('touch-dry'), { colour: '#e2d9c3', strokes: 'crosswise' }),
  ]),
  looked('Wide islands', 'whole', [
    coat('base', 'latex', 90, FIRST, { colour: '#5b2f26' }),
    coat('glue', 'pva', 260, when('through-dry')),
    coat('top', 'latex', 230, after(60), { colour: '#c9c6ad', strokes: 'swirled' }),
  ]),
  looked('One-way strokes', 'arm', [
    coat('base', 'chalk', 90, FIRST, { colour: '#23303a' }),
    coat('medium', 'crackle', 90, when('through-dry')),
    coat('top', 'chalk', 110, when('touch-dry'), { colour: '#b9c3b6', strokes: 'one-way', passes: 2 }),
  ]),
  looked('Thick at the rim', 'whole', [
    coat('base', 'latex', 90, FIRST, { colour: '#6a4a2b' }),
    coat('glue', 'pva', 150, when('through-dry')),
    mapped(
      coat('top', 'latex', 120, after(90), { colour: '#e6dfcd', strokes: 'crosswise' }),
      rimMap(WIDTH, HEIGHT, 2.6, 0.045),
    ),
  ]),
  looked('Chippy milk paint, edges waxed', 'whole', [
    coat('base', 'latex', 90, FIRST, { colour: '#3a2d24' }),
    coat('sealer', 'polyW', 80, when('through-dry', DAY)),
    edgesOnly(resist('wax', 'candle', 0.45, after(2500))),
    coat('top', 'milk', 90, after(300), { colour: '#a9bcb6', passes: 1 }),
    distress('s', 'sponge', after(7200), { rounds: 4 }),
  ]),
  looked('Jelly peel', 'whole', [
    coat('base', 'chalk', 90, FIRST, { colour: '#7b4427' }),
    coat('varnish', 'polyW', 80, when('through-dry')),
    resist('jelly', 'jelly', 0.35, when('through-dry')),
    coat('top', 'chalk', 90, after(300), { colour: '#cfd6cf', passes: 1, dilution: 0.3 }),
    wipe('w', when('through-dry', 20000)),
  ]),
  looked('Salt craters', 'close', [
    coat('base', 'latex', 90, FIRST, { colour: '#8f6a3f' }),
    coat('top', 'latex', 200, when('through-dry'), { colour: '#5c7378' }),
    resist('salt', 'salt', 0.22, after(60)),
    distress('d', 'scrape', after(43200), { rounds: 1, pressure: 0.3 }),
  ]),
  looked('Sanded over a barrier', 'whole', [
    coat('barrier', 'enamelO', 60, FIRST, { colour: '#4b3526' }),
    coat('a', 'chalk', 80, when('through-dry', DAY), { colour: '#8d9a86' }),
    coat('b', 'chalk', 70, when('through-dry', 7200), { colour: '#e1dac7' }),
    distress('s', 'sand', after(43200), { grit: 150, rounds: 9 }),
  ]),
  looked('Wiped back wet', 'whole', [
    coat('a', 'chalk', 90, FIRST, { colour: '#2f3d46' }),
    coat('b', 'clay', 90, when('through-dry', 3600), { colour: '#8f9c86' }),
    distress('w', 'cloth', after(480), { rounds: 14 }),
    coat('c', 'clay', 80, when('through-dry', 3600), { colour: '#ddd6c4' }),
    distress('x', 'cloth', after(1800), { rounds: 18 }),
  ]),
  looked('Fissures with dark wax', 'close', [
    coat('base', 'latex', 90, FIRST, { colour: '#cdbf9f' }),
    coat('medium', 'crackle', 60, when('through-dry')),
    coat('clear', 'polyW', 60, when('touch-dry')),
    seal('wax', 'darkWax', 12, when('through-dry'), { share: 0.06 }),
  ]),
  looked(
    'Half stripped',
    'whole',
    [
      coat('a', 'mineral', 90, FIRST, { colour: '#51433a' }),
      coat('b', 'mineral', 80, when('through-dry', 3600), { colour: '#9fb0a2' }),
      distress('d', 'blade', after(7200), { rounds: 6 }),
      distress('e', 'scrape', after(60), { rounds: 4 }),
    ],
    { substrate: 'raw-softwood' },
  ),
];
