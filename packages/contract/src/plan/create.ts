import {
  type DistressTool,
  medium,
  type MediumKey,
  type ResistAgent,
  type StartState,
  type StepKind,
} from '@zaffet/core';
import {
  type CoatStep,
  type Plan,
  PLAN_FORMAT,
  PLAN_VERSION,
  type PlanStep,
  type SealStep,
  type StartRuleFile,
} from './types';

/** The ways a new plan can start: one for each main school. */
export const SCHOOLS = {
  'dried-medium': 'Crackle over dried medium',
  'wet-glue': 'Crackle over wet white glue',
  'hide-glue': 'Crackle over cured hide glue',
  fissures: 'Fine fissures with dark wax',
  'chippy-milk': 'Chippy milk paint',
  'brittle-ground': 'Brittle chalk ground',
  'wax-resist': 'Wax under paint, scraped',
  'jelly-resist': 'Jelly under paint, wiped',
  'wet-distress': 'Wiped back while re-soluble',
  'dry-brushed': 'Layers brushed on nearly dry',
} as const;
export type School = keyof typeof SCHOOLS;

const FULL = { style: 'full', share: 1 } as const;
/** What stands for clear media in the Section. */
export const CLEAR_COLOURS: Readonly<Partial<Record<string, string>>> = {
  crackle: '#e6ddc4',
  pva: '#e9e4d4',
  hide: '#d9b98a',
  polyW: '#dfe3e0',
  polyO: '#dcc795',
  shellac: '#cf9a55',
  lacquer: '#dcdfe0',
  clearWax: '#e3d9b8',
  whiteWax: '#f1eee6',
  darkWax: '#3f2f20',
  stain: '#7a4a28',
  glaze: '#6a5236',
  bleach: '#eef0ee',
};

/** A new coat of a medium at the thickness one brushed coat of it has. */
export function newCoat(
  id: string,
  key: MediumKey,
  colour: string,
  colourName: string,
  start: StartRuleFile,
): CoatStep {
  return {
    id,
    kind: 'coat',
    medium: key,
    colour,
    colourName,
    thicknessUm: medium(key).wetFilmUm,
    dilution: 0,
    passes: 2,
    strokes: 'one-way',
    cover: FULL,
    map: null,
    bonding: 0,
    lumps: false,
    mixedHours: null,
    keptCold: false,
    start,
  };
}

export function newSeal(id: string, key: MediumKey, start: StartRuleFile): SealStep {
  const wax = medium(key).kind === 'wax';
  return {
    id,
    kind: 'seal',
    medium: key,
    colour: CLEAR_COLOURS[key] ?? '#dfe3e0',
    colourName: '',
    thicknessUm: medium(key).wetFilmUm,
    dilution: 0,
    passes: 1,
    strokes: 'one-way',
    cover: key === 'darkWax' ? { style: 'blotchy', share: 0.12 } : FULL,
    map: null,
    coats: wax ? 1 : 2,
    buffAfterMin: wax ? 25 : null,
    start,
  };
}

const when = (state: StartState, waitMin = 0): StartRuleFile => ({ rule: 'state', state, waitMin });
const after = (waitMin: number): StartRuleFile => ({ rule: 'after', waitMin });

export function newResist(id: string, agent: ResistAgent, start: StartRuleFile): PlanStep {
  return {
    id,
    kind: 'resist',
    agent,
    thicknessUm: medium(agent).wetFilmUm,
    share: 0.2,
    where: agent === 'candle' ? 'edges' : 'all',
    map: null,
    start,
  };
}

/** How a tool is usually used. */
const TOOL_ROUNDS: Readonly<Record<DistressTool, number>> = {
  sand: 8,
  cloth: 15,
  sponge: 8,
  scrape: 3,
  blade: 4,
  tap: 10,
  bleach: 5,
};

export function newDistress(id: string, tool: DistressTool, start: StartRuleFile): PlanStep {
  return {
    id,
    kind: 'distress',
    tool,
    grit: 220,
    rounds: TOOL_ROUNDS[tool],
    pressure: 1,
    where: 'all',
    smear: 0,
    map: null,
    start,
  };
}

/** A new step of any kind, as it is mostly done; starts when the coat below allows it. */
export function newStep(kind: Exclude<StepKind, 'coat'>, id: string): PlanStep {
  switch (kind) {
    case 'seal':
      return newSeal(id, 'polyW', when('through-dry'));
    case 'resist':
      return newResist(id, 'candle', when('through-dry'));
    case 'heat':
      return { id, kind, tool: 'dryer', durationS: 60, start: when('touch-dry') };
    case 'rewet':
      return { id, kind, amountUm: 30, start: when('through-dry') };
    case 'distress':
      return newDistress(id, 'sand', when('through-dry', 60));
    case 'wipe':
      return { id, kind, degrease: true, start: when('through-dry', 240) };
    case 'wait':
      return { id, kind, durationMin: 60, start: after(0) };
  }
}

/** Steps of each school, the first of them at the plan's start. */
const STEPS: Readonly<Record<School, (id: () => string, first: StartRuleFile) => PlanStep[]>> = {
  'dried-medium': (id, first) => [
    newCoat(id(), 'chalk', '#5d6b4b', 'Kelp', first),
    newCoat(id(), 'crackle', '#e6ddc4', '', when('recoat')),
    newCoat(id(), 'chalk', '#e3dccb', 'Sailcloth', when('touch-dry')),
  ],
  'wet-glue': (id, first) => [
    newCoat(id(), 'latex', '#5d6b4b', 'Kelp', first),
    newCoat(id(), 'pva', '#e6ddc4', '', when('recoat')),
    newCoat(id(), 'latex', '#e3dccb', 'Sailcloth', after(2)),
  ],
  'hide-glue': (id, first) => [
    newCoat(id(), 'latex', '#6d3f33', 'Keel red', first),
    newCoat(id(), 'hide', '#d9b98a', '', when('through-dry')),
    { ...newCoat(id(), 'chalk', '#d9d3c0', 'Gull', when('through-dry')), thicknessUm: 70, passes: 1 },
  ],
  fissures: (id, first) => [
    newCoat(id(), 'latex', '#c9bfa4', 'Old sail', first),
    { ...newCoat(id(), 'crackle', '#e6ddc4', '', when('through-dry')), thicknessUm: 60 },
    { ...newCoat(id(), 'polyW', '#dfe3e0', '', when('touch-dry')), thicknessUm: 60 },
    newSeal(id(), 'darkWax', when('through-dry')),
  ],
  'chippy-milk': (id, first) => [
    newCoat(id(), 'latex', '#4a3b30', 'Tar', first),
    newCoat(id(), 'polyW', '#dfe3e0', '', when('through-dry', 60)),
    { ...newCoat(id(), 'milk', '#b9c4c1', 'Fog', after(32)), thicknessUm: 65, passes: 1 },
    {
      ...newCoat(id(), 'milk', '#c9d1cc', 'Fog, loose', when('recoat')),
      thicknessUm: 45,
      passes: 1,
      cover: { style: 'blotchy', share: 0.6 },
    },
    newDistress(id(), 'sponge', when('through-dry', 30)),
    newSeal(id(), 'clearWax', when('through-dry', 720)),
  ],
  'brittle-ground': (id, first) => [
    newCoat(id(), 'latex', '#6b5a3e', 'Rope', first),
    ...[when('through-dry'), when('recoat'), when('recoat')].map((start): PlanStep => ({
      ...newCoat(id(), 'gesso', '#e8e4d8', 'Ground', start),
      dilution: 0.5,
      strokes: 'crosswise',
    })),
    newCoat(id(), 'milk', '#8aa19a', 'Shoal', when('through-dry')),
    newDistress(id(), 'scrape', after(30)),
    newDistress(id(), 'sponge', after(5)),
    newSeal(id(), 'clearWax', when('through-dry', 720)),
  ],
  'wax-resist': (id, first) => [
    newCoat(id(), 'chalk', '#34505c', 'Deep water', first),
    { ...newResist(id(), 'candle', when('through-dry')), where: 'all' } as PlanStep,
    newCoat(id(), 'chalk', '#d8cdb2', 'Sand bar', after(5)),
    newDistress(id(), 'scrape', when('through-dry', 30)),
    newDistress(id(), 'sand', after(5)),
    newSeal(id(), 'polyW', when('through-dry', 60)),
  ],
  'jelly-resist': (id, first) => [
    newCoat(id(), 'chalk', '#7a4d33', 'Rust', first),
    newCoat(id(), 'polyW', '#dfe3e0', '', when('through-dry')),
    newResist(id(), 'jelly', when('through-dry')),
    { ...newCoat(id(), 'chalk', '#cfd6d0', 'Spray', after(5)), dilution: 0.5, passes: 1 },
    { id: id(), kind: 'wipe', degrease: true, start: when('through-dry', 240) },
    newSeal(id(), 'polyW', after(60)),
  ],
  'wet-distress': (id, first) => [
    newCoat(id(), 'chalk', '#2f3d46', 'Night', first),
    newCoat(id(), 'clay', '#8f9c86', 'Samphire', when('through-dry')),
    newDistress(id(), 'cloth', after(8)),
    newCoat(id(), 'clay', '#ddd6c4', 'Shell', when('through-dry')),
    newDistress(id(), 'cloth', after(30)),
    newSeal(id(), 'polyW', when('through-dry', 120)),
  ],
  'dry-brushed': (id, first) => [
    newCoat(id(), 'chalk', '#3b3a34', 'Tarred rope', first),
    {
      ...newCoat(id(), 'chalk', '#7f8a76', 'Lichen', when('through-dry')),
      thicknessUm: 60,
      cover: { style: 'blotchy', share: 0.5 },
    },
    {
      ...newCoat(id(), 'chalk', '#d9d1bc', 'Salt', when('through-dry')),
      thicknessUm: 40,
      cover: { style: 'dry-brushed', share: 0.45 },
    },
    {
      ...newCoat(id(), 'chalk', '#a9b7b4', 'Mist', when('through-dry', 600)),
      thicknessUm: 40,
      cover: { style: 'dry-brushed', share: 0.35 },
    },
    newSeal(id(), 'clearWax', when('through-dry', 60)),
  ],
};

/** A new plan of a school: what lies below, what makes it crack, chip or come off, what goes over it. */
export function newPlan(
  school: School,
  name: string,
  seed: number,
  startsAt: string,
  nextId: () => string,
): Plan {
  return {
    format: PLAN_FORMAT,
    version: PLAN_VERSION,
    name,
    seed,
    startsAt,
    piece: {
      name,
      parts: [
        {
          id: nextId(),
          name: 'Panel',
          widthMm: 600,
          heightMm: 400,
          substrate: 'scuffed',
          history: { handled: true, tannin: false, oldPaint: 'known', condition: 'sound' },
          flat: true,
          use: 'display',
        },
      ],
    },
    look: { spacingMm: null, openingMm: null },
    steps: STEPS[school](nextId, { rule: 'at', at: startsAt }),
    air: { temperatureC: 21, humidity: 0.5, draughtMS: 0.1, altitudeM: 0, later: [] },
    media: [],
    prices: {},
  };
}
