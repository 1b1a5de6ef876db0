import { type Companion, type OldCoat, type Panel, type PanelPlan, type Step } from '../plan';
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
  wipe,
} from './plans';
import { forecastOf } from './forecasts';
import { type CoatForecast } from '../forecast';
import { type FindingCode } from '../notes';

/** A plan of which a note is said, and one just beside it of which it is not. Common practice, no source. */
export interface NoteCase {
  readonly is: () => PanelPlan;
  readonly isNot: () => PanelPlan;
}

const DAY = 86_400;
const HOUR = 3600;
const base = coat('base', 'latex', 90, FIRST);
const dry = when('through-dry');
const on = (changes: Partial<Panel>, ...steps: readonly Step[]): PanelPlan => {
  const plan = planOf(steps);
  return { ...plan, panel: { ...plan.panel, ...changes } };
};
const over = (
  coatThere: OldCoat,
  changes: Partial<Panel['history']>,
  ...steps: readonly Step[]
): PanelPlan => {
  const { history } = planOf(steps).panel;
  return on({ history: { ...history, coat: coatThere, ...changes } }, ...steps);
};
const companion = (task: Companion['task'], rest: number, start = after(HOUR)): Companion => ({
  id: 'c',
  kind: 'companion',
  task,
  hands: 600,
  rest,
  start,
});
const filmOf = (plan: PanelPlan, id: string): CoatForecast =>
  forecastOf(plan).coats.find((film) => film.coat.id === id)!;

/** Seconds from laying the glue to when its window opens and closes. */
const glue = filmOf(overGlue(140, 120, 120), 'glue');
const opens = glue.window!.opensAt - glue.laidAt;
const closes = glue.window!.closesAt! - glue.laidAt;
const glued = (wait: number): PanelPlan => overGlue(140, 120, wait);

/** Milk paint so long after a water-borne sealer. */
const sealed = (wait: number): PanelPlan =>
  planOf([base, seal('s', 'polyW', 60, dry), coat('m', 'milk', 60, after(wait))]);
/** Two films, the second so long after the first. */
const pair = (lower: string, upper: string, wait: number): PanelPlan =>
  planOf([coat('a', lower, 70, FIRST), coat('b', upper, 70, after(wait))]);
const waxed = (buffAfter: number): PanelPlan => planOf([base, seal('w', 'clearWax', 12, dry, { buffAfter })]);
const touchOfWax = filmOf(waxed(600), 'w');
const ready = touchOfWax.open.touch! - touchOfWax.laidAt;
const jelly = resist('j', 'jelly', 0.2, after(DAY));
const overSealer = [coat('a', 'polyW', 60, FIRST)] as const;
const scraped = distress('k', 'scrape', after(DAY));
const top = coat('top', 'chalk', 90, after(60));
const sanded = (medium: string, pressure: number): PanelPlan =>
  planOf([
    coat('a', medium, 90, FIRST),
    distress('s', 'sand', after(13 * DAY), { pressure, rounds: 1, grit: 240 }),
  ]);
const used = (use: Panel['use'], ...seals: readonly Step[]): PanelPlan => on({ use }, base, ...seals);
const bleached = (wait: number, ...films: readonly Step[]): PanelPlan =>
  planOf([...films, distress('x', 'bleach', after(wait), { rounds: 5 })]);
const heated = (tool: 'dryer' | 'gun', duration: number, ...before: readonly Step[]): PanelPlan =>
  planOf([...before, heat('h', tool, duration, after(60))]);
const old = { age: 'old' } as const;

export const NOTE_CASES: Readonly<Record<FindingCode, NoteCase>> = {
  'glue-still-open': { is: () => glued(opens - 5), isNot: () => glued(opens + 5) },
  'glue-grabs': { is: () => glued(opens + 5), isNot: () => glued(opens - 5) },
  'glue-closing': { is: () => glued(closes + 20), isNot: () => glued(closes - 5) },
  'glue-dried': { is: () => glued(3 * HOUR), isNot: () => glued(closes + 20) },
  'medium-wet': {
    is: () => planOf([base, coat('m', 'crackle', 110, dry), coat('t', 'chalk', 100, after(120))]),
    isNot: () => overMedium(110, 100),
  },
  'medium-ready': {
    is: () => overMedium(110, 100),
    isNot: () => planOf([base, coat('m', 'crackle', 110, dry), coat('t', 'chalk', 100, after(120))]),
  },
  'hide-not-cured': { is: () => pair('hide', 'latex', HOUR), isNot: () => pair('hide', 'latex', 10 * DAY) },
  'hide-ready': { is: () => pair('hide', 'latex', 10 * DAY), isNot: () => pair('hide', 'latex', HOUR) },
  'base-not-dry': { is: () => pair('latex', 'crackle', 60), isNot: () => pair('latex', 'crackle', 2 * DAY) },
  'damp-below': {
    is: () => planOf([base, rewet('r', after(DAY)), coat('t', 'chalk', 80, after(60))]),
    isNot: () => planOf([base, rewet('r', after(DAY)), coat('t', 'chalk', 80, when('recoat'))]),
  },
  'sealer-dry': { is: () => sealed(2 * DAY), isNot: () => sealed(20 * 60) },
  'sealer-tacky': {
    is: () => planOf([base, seal('s', 'polyW', 60, dry), coat('m', 'milk', 60, when('tacky'))]),
    isNot: () => sealed(2 * DAY),
  },
  'start-never': {
    is: () => planOf([coat('a', 'hide', 600, FIRST), coat('b', 'latex', 80, when('cured'))], room(3, 0.98)),
    isNot: () => planOf([coat('a', 'latex', 80, FIRST), coat('b', 'latex', 80, when('recoat'))]),
  },
  'section-large': {
    is: () => ({ ...glued(closes - 60), panel: { ...glued(1).panel, width: 2, height: 1.5 } }),
    isNot: () => ({ ...glued(closes - 60), panel: { ...glued(1).panel, width: 0.1, height: 0.1 } }),
  },
  overworked: {
    is: () => overMedium(110, 100, room(), { passes: 4 }),
    isNot: () => overMedium(110, 100, room(), { passes: 3 }),
  },
  'second-coat-closes': {
    is: () => planOf([...overMedium(110, 100).steps, coat('again', 'chalk', 90, after(DAY))]),
    isNot: () => planOf([...overMedium(110, 100).steps, seal('again', 'polyW', 60, after(DAY))]),
  },
  'too-thin': { is: () => overMedium(110, 20), isNot: () => overMedium(110, 60) },
  'cracks-unknown': { is: () => overMedium(110, 451), isNot: () => overMedium(110, 449) },
  'crackle-missing': { is: () => glued(6 * HOUR), isNot: () => glued(opens + 5) },
  'weak-crackle': {
    is: () => overMedium(110, 100, room(), { passes: 4 }),
    isNot: () => overMedium(110, 100, room(), { passes: 3 }),
  },
  'paint-before-paint': { is: () => pair('latex', 'chalk', DAY), isNot: () => overMedium(110, 100) },
  'crackle-everywhere': {
    is: () => overMedium(110, 100),
    isNot: () => overMedium(110, 100, room(), { cover: { style: 'blotchy', share: 0.8 } }),
  },
  'lever-glue': { is: () => glued(opens + 5), isNot: () => overMedium(110, 100) },
  'lever-top': { is: () => overMedium(110, 100), isNot: () => glued(opens + 5) },
  'contrast-low': {
    is: () =>
      planOf([
        coat('base', 'latex', 90, FIRST, { colour: '#5d6b4b' }),
        coat('m', 'crackle', 110, dry),
        coat('t', 'chalk', 100, when('touch-dry'), { colour: '#5d6b4b' }),
      ]),
    isNot: () =>
      planOf([
        coat('base', 'latex', 90, FIRST, { colour: '#5d6b4b' }),
        coat('m', 'crackle', 110, dry),
        coat('t', 'chalk', 100, when('touch-dry'), { colour: '#e3dccb' }),
      ]),
  },
  'soaks-in': {
    is: () => on({ substrate: 'raw-softwood' }, coat('m', 'milk', 60, FIRST)),
    isNot: () => on({ substrate: 'sealed' }, coat('m', 'milk', 60, FIRST)),
  },
  'flakes-badly': {
    is: () =>
      planOf([
        coat('s', 'shellac', 50, FIRST),
        coat('a', 'gesso', 300, after(DAY)),
        coat('b', 'gesso', 300, after(DAY)),
        coat('c', 'gesso', 300, after(DAY)),
        distress('k', 'scrape', after(2 * DAY), { rounds: 8, pressure: 2 }),
      ]),
    isNot: () => planOf([coat('p', 'primer', 80, FIRST), coat('a', 'latex', 90, after(DAY))]),
  },
  'poor-hold': {
    is: () => on({ substrate: 'vinyl' }, base),
    isNot: () => on({ substrate: 'vinyl' }, coat('p', 'primer', 80, FIRST)),
  },
  'never-dry': {
    is: () => planOf([coat('a', 'hide', 600, FIRST)], room(3, 0.98)),
    isNot: () => planOf([coat('a', 'hide', 100, FIRST)]),
  },
  'damp-air': { is: () => planOf([base], room(20, 0.8)), isNot: () => planOf([base], room(20, 0.79)) },
  'cold-air': { is: () => planOf([base], room(9.9)), isNot: () => planOf([base], room(10.1)) },
  blush: {
    is: () => planOf([coat('a', 'lacquer', 75, FIRST)], room(24, 0.9)),
    isNot: () => planOf([coat('a', 'lacquer', 75, FIRST)], room(24, 0.3)),
  },
  'tannin-bleeds': {
    is: () => ({
      ...over('none', { tannin: true }, base),
      panel: { ...over('none', { tannin: true }).panel, substrate: 'raw-hardwood' },
    }),
    isNot: () => over('none', { tannin: true }, base),
  },
  'wax-below': {
    is: () => on({ substrate: 'waxed' }, base),
    isNot: () => on({ substrate: 'waxed', prepared: ['dewax'] }, base),
  },
  'fresh-oil-below': {
    is: () => over('oil', { age: 'fresh' }, base),
    isNot: () => over('oil', { age: 'years' }, base),
  },
  'unknown-below': { is: () => over('unknown', {}, base), isNot: () => over('varnish', {}, base) },
  'paint-over-wax': {
    is: () => pair('clearWax', 'chalk', DAY),
    isNot: () => pair('clearWax', 'darkWax', DAY),
  },
  'clear-over-wax': { is: () => pair('clearWax', 'polyW', DAY), isNot: () => pair('chalk', 'polyW', DAY) },
  'water-over-fresh-oil': {
    is: () => pair('enamelO', 'latex', 3 * DAY - HOUR),
    isNot: () => pair('enamelO', 'latex', 3 * DAY + HOUR),
  },
  'spray-recoat': {
    is: () => pair('spray', 'spray', HOUR + 60),
    isNot: () => pair('spray', 'spray', HOUR - 60),
  },
  'milk-old': {
    is: () => planOf([coat('m', 'milk', 60, FIRST, { mixedAge: 4 * DAY })]),
    isNot: () => planOf([coat('m', 'milk', 60, FIRST, { mixedAge: 2 * HOUR })]),
  },
  'wax-thick': {
    is: () => planOf([base, seal('w', 'clearWax', 21, dry)]),
    isNot: () => planOf([base, seal('w', 'clearWax', 19, dry)]),
  },
  'lay-flat': {
    is: () => on({ flat: false, height: 0.31 }, coat('m', 'milk', 60, FIRST)),
    isNot: () => on({ flat: false, height: 0.3 }, coat('m', 'milk', 60, FIRST)),
  },
  'jelly-unsealed': {
    is: () => planOf([coat('a', 'chalk', 90, FIRST), jelly, top, wipe('w', after(HOUR))]),
    isNot: () => planOf([...overSealer, jelly, top, wipe('w', after(HOUR))]),
  },
  'jelly-judge': {
    is: () => planOf([...overSealer, jelly, top, wipe('w', after(HOUR))]),
    isNot: () => planOf([...overSealer, jelly, top]),
  },
  'jelly-left': {
    is: () => planOf([...overSealer, jelly, top]),
    isNot: () => planOf([...overSealer, jelly, top, wipe('w', after(HOUR))]),
  },
  'jelly-not-degreased': {
    is: () =>
      planOf([...overSealer, jelly, top, wipe('w', after(HOUR), false), seal('s', 'polyW', 60, after(DAY))]),
    isNot: () =>
      planOf([...overSealer, jelly, top, wipe('w', after(HOUR)), seal('s', 'polyW', 60, after(DAY))]),
  },
  'salt-loose': {
    is: () =>
      planOf([base, resist('r', 'salt', 0.2, after(2 * DAY)), top, distress('k', 'scrape', after(DAY))]),
    isNot: () =>
      planOf([
        coat('a', 'latex', 200, FIRST),
        resist('r', 'salt', 0.2, after(10)),
        top,
        distress('k', 'scrape', after(DAY)),
      ]),
  },
  'salt-left': {
    is: () => planOf([base, resist('r', 'salt', 0.2, after(30)), top]),
    isNot: () =>
      planOf([base, resist('r', 'salt', 0.2, after(30)), top, distress('k', 'scrape', after(DAY))]),
  },
  'salt-pale': {
    is: () => planOf([coat('a', 'latex', 200, FIRST), resist('r', 'salt', 0.2, after(10)), scraped]),
    isNot: () =>
      planOf([
        coat('a', 'latex', 200, FIRST),
        resist('r', 'salt', 0.2, after(10)),
        scraped,
        coat('w', 'clearWax', 12, after(DAY)),
      ]),
  },
  'wax-left': {
    is: () => planOf([base, resist('r', 'candle', 0.2, after(DAY)), top]),
    isNot: () =>
      planOf([base, resist('r', 'candle', 0.2, after(DAY)), top, distress('k', 'scrape', after(DAY))]),
  },
  'blade-hard': {
    is: () => planOf([coat('a', 'polyO', 75, FIRST), distress('k', 'blade', after(13 * DAY))]),
    isNot: () => planOf([coat('a', 'texture', 400, FIRST), distress('k', 'blade', after(2 * HOUR))]),
  },
  'cloth-in-vain': {
    is: () => planOf([coat('a', 'polyO', 75, FIRST), distress('k', 'cloth', after(10 * DAY))]),
    isNot: () => planOf([coat('a', 'chalk', 90, FIRST), distress('k', 'cloth', after(HOUR), { rounds: 20 })]),
  },
  'bleach-dried': {
    is: () => planOf([base, distress('x', 'bleach', after(DAY), { rounds: 60 })]),
    isNot: () => planOf([base, distress('x', 'bleach', after(DAY), { rounds: 5 })]),
  },
  'bare-shows': {
    is: () =>
      on(
        { substrate: 'raw-softwood' },
        coat('a', 'chalk', 40, FIRST),
        distress('s', 'sand', after(2 * DAY), { rounds: 40, pressure: 3, grit: 80 }),
      ),
    isNot: () => on({ substrate: 'raw-softwood' }, coat('a', 'chalk', 90, FIRST)),
  },
  'barrier-holds': { is: () => sanded('polyO', 0.2), isNot: () => sanded('chalk', 0.2) },
  'nothing-comes-off': {
    is: () =>
      planOf([
        coat('a', 'polyO', 75, FIRST),
        coat('b', 'latex', 200, after(3 * DAY)),
        distress('s', 'sand', after(10 * DAY), { pressure: 0.2, rounds: 1, grit: 240 }),
      ]),
    isNot: () =>
      planOf([
        coat('a', 'polyO', 75, FIRST),
        coat('b', 'chalk', 60, after(3 * DAY)),
        distress('s', 'sand', after(10 * DAY), { pressure: 3, rounds: 30, grit: 80 }),
      ]),
  },
  scorches: { is: () => heated('gun', 60, base), isNot: () => heated('dryer', 30, base) },
  'dark-wax-bare': {
    is: () => planOf([coat('a', 'chalk', 90, FIRST), seal('w', 'darkWax', 10, dry, { share: 0.1 })]),
    isNot: () =>
      planOf([
        coat('a', 'chalk', 90, FIRST),
        seal('c', 'clearWax', 12, dry),
        seal('w', 'darkWax', 10, after(DAY), { share: 0.1 }),
      ]),
  },
  'dark-wax-much': {
    is: () => planOf([base, seal('w', 'darkWax', 10, dry, { share: 0.16 })]),
    isNot: () => planOf([base, seal('w', 'darkWax', 10, dry, { share: 0.15 })]),
  },
  'wax-on-wet-dark': {
    is: () => planOf([base, seal('d', 'darkWax', 10, dry), seal('c', 'clearWax', 12, after(60))]),
    isNot: () => planOf([base, seal('d', 'darkWax', 10, dry), seal('c', 'clearWax', 12, after(3 * DAY))]),
  },
  'buff-early': { is: () => waxed(0.59 * ready), isNot: () => waxed(0.61 * ready) },
  'buff-late': { is: () => waxed(4.1 * ready), isNot: () => waxed(3.9 * ready) },
  'use-unsealed': { is: () => used('hands'), isNot: () => used('hands', seal('s', 'polyW', 60, dry)) },
  'use-wax-only': {
    is: () => used('food', seal('s', 'clearWax', 12, dry)),
    isNot: () => used('food', seal('s', 'polyW', 60, dry, { coats: 5 })),
  },
  'ground-rough': {
    is: () => planOf([coat('g', 'gesso', 130, FIRST), coat('m', 'milk', 100, dry)]),
    isNot: () =>
      planOf([
        coat('g', 'gesso', 130, FIRST),
        distress('d', 'sand', dry, { grit: 400, rounds: 2 }),
        coat('m', 'milk', 100, after(300)),
      ]),
  },
  'dust-left': {
    is: () => planOf([base, distress('d', 'sand', dry), seal('s', 'polyW', 60, after(60))]),
    isNot: () =>
      planOf([
        base,
        distress('d', 'sand', dry),
        wipe('w', after(60), false),
        seal('s', 'polyW', 60, after(60)),
      ]),
  },
  'seal-thick': {
    is: () => planOf([base, seal('s', 'polyW', 130, dry)]),
    isNot: () => planOf([base, seal('s', 'polyW', 60, dry)]),
  },
  'fabric-late': {
    is: () => planOf([base, companion('fabric', DAY)]),
    isNot: () => planOf([base, companion('fabric', DAY), coat('t', 'chalk', 90, after(HOUR))]),
  },
  'transfer-soon': {
    is: () => planOf([base, companion('transfer', 8 * HOUR - 60)]),
    isNot: () => planOf([base, companion('transfer', 8 * HOUR)]),
  },
  'wash-on-sealed': {
    is: () => planOf([companion('wash', HOUR, FIRST), { ...base, start: after(60) }]),
    isNot: () =>
      on({ substrate: 'raw-softwood' }, companion('wash', HOUR, FIRST), { ...base, start: after(60) }),
  },
  'glaze-unprotected': {
    is: () => planOf([base, companion('glaze', HOUR)]),
    isNot: () => planOf([base, companion('glaze', HOUR), seal('s', 'polyW', 60, after(DAY))]),
  },
  'heat-on-solvent': {
    is: () => heated('dryer', 30, coat('a', 'lacquer', 75, FIRST)),
    isNot: () => heated('dryer', 30, base),
  },
  'heat-on-grease': {
    is: () => heated('dryer', 30, ...overSealer, jelly),
    isNot: () => heated('dryer', 30, ...overSealer, jelly, wipe('w', after(60))),
  },
  'heat-on-bleach': {
    is: () =>
      planOf([base, distress('x', 'bleach', after(DAY), { rounds: 5 }), heat('h', 'dryer', 30, after(60))]),
    isNot: () =>
      planOf([base, distress('x', 'bleach', after(DAY), { rounds: 5 }), heat('h', 'dryer', 30, after(DAY))]),
  },
  'heat-on-old-paint': {
    is: () => over('oil-paint', old, base, heat('h', 'dryer', 30, after(60))),
    isNot: () => over('water-paint', { age: 'years' }, base, heat('h', 'dryer', 30, after(60))),
  },
  'sand-old-paint': {
    is: () => over('oil-paint', old, distress('s', 'sand', FIRST), { ...base, start: after(60) }),
    isNot: () => over('oil-paint', old, distress('s', 'cloth', FIRST), { ...base, start: after(60) }),
  },
  'bleach-on-casein': {
    is: () => bleached(DAY, coat('m', 'milk', 60, FIRST)),
    isNot: () => bleached(DAY, base),
  },
  'bleach-after-alcohol': {
    is: () => bleached(7 * DAY - HOUR, coat('a', 'shellac', 50, FIRST)),
    isNot: () => bleached(7 * DAY + HOUR, coat('a', 'shellac', 50, FIRST)),
  },
};
