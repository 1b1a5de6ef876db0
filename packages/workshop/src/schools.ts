import {
  after,
  newCoat,
  newDistress,
  newHeat,
  newResist,
  newRewet,
  newSeal,
  newWipe,
  smoothing,
  when,
} from './create';
import { type PlanStep, type StartRuleFile } from '@zaffet/contract';

/** The ways a finish can start: one for each main school, cracks first, then chips, resists, layers. */
export const SCHOOLS = {
  'dried-medium': 'Crackle over dried medium',
  'wet-glue': 'Crackle over wet white glue',
  'hide-glue': 'Crackle over cured hide glue',
  fissures: 'Fine fissures with dark wax',
  'warm-air': 'Thickened paint and warm air',
  'chippy-milk': 'Chippy milk paint',
  'forced-chips': 'Chips forced with water and heat',
  'lacquer-layers': 'Colours between lacquers',
  'brittle-ground': 'Brittle chalk ground',
  'wax-resist': 'Wax under paint, scraped',
  'jelly-resist': 'Jelly under paint, wiped',
  'salt-resist': 'Salt craters',
  'thick-base': 'Thick base and blade',
  softened: 'Softened with bleach',
  'wet-distress': 'Wiped back while re-soluble',
  'dry-brushed': 'Layers brushed on nearly dry',
  barrier: 'Sanded over a barrier',
} as const;
export type School = keyof typeof SCHOOLS;
export const SCHOOL_KEYS = Object.keys(SCHOOLS) as School[];

/** The dust of sanding goes before a seal would keep it. */
const dustOff = (id: string): PlanStep => newWipe(id, after(1), false);

/** Steps of each school, the first of them at the plan's start. */
export const SCHOOL_STEPS: Readonly<Record<School, (id: () => string, first: StartRuleFile) => PlanStep[]>> =
  {
    'dried-medium': (id, first) => [
      newCoat(id(), 'chalk', '#55634a', 'Kelp', first),
      newCoat(id(), 'crackle', '#e6ddc4', '', when('recoat')),
      newCoat(id(), 'chalk', '#e3dccb', 'Sailcloth', when('touch-dry')),
    ],
    'wet-glue': (id, first) => [
      newCoat(id(), 'latex', '#55634a', 'Kelp', first),
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
      { ...newCoat(id(), 'milk', '#b9c4c1', 'Fog', after(45)), thicknessUm: 65, passes: 1 },
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
      newCoat(id(), 'latex', '#6b5a3e', 'Old rope', first),
      ...[when('through-dry'), when('recoat'), when('recoat')].map((start): PlanStep => ({
        ...newCoat(id(), 'gesso', '#e8e4d8', 'Ground', start),
        thicknessUm: 130,
        dilution: 0.5,
        strokes: 'crosswise',
      })),
      smoothing(id()),
      newCoat(id(), 'milk', '#8aa19a', 'Shallows', after(5)),
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
      dustOff(id()),
      newSeal(id(), 'polyW', when('through-dry', 60)),
    ],
    'jelly-resist': (id, first) => [
      newCoat(id(), 'chalk', '#7a4d33', 'Rust', first),
      newCoat(id(), 'polyW', '#dfe3e0', '', when('through-dry')),
      newResist(id(), 'jelly', when('through-dry')),
      { ...newCoat(id(), 'chalk', '#cfd6d0', 'Spray', after(5)), dilution: 0.5, passes: 1 },
      newWipe(id(), when('through-dry', 240)),
      newSeal(id(), 'polyW', after(60)),
    ],
    'wet-distress': (id, first) => [
      newCoat(id(), 'chalk', '#2f3d46', 'Night', first),
      newCoat(id(), 'clay', '#8f9c86', 'Samphire', when('through-dry')),
      { ...newDistress(id(), 'cloth', after(8)), rounds: 3 } as PlanStep,
      newCoat(id(), 'clay', '#ddd6c4', 'Shell', when('through-dry')),
      { ...newDistress(id(), 'cloth', after(30)), rounds: 8 } as PlanStep,
      newSeal(id(), 'polyW', when('through-dry', 120)),
    ],
    'forced-chips': (id, first) => [
      newCoat(id(), 'mineral', '#4d4336', 'Bollard', first),
      { ...newCoat(id(), 'milk', '#c8cdbd', 'Foam', when('through-dry', 60)), passes: 1, lumps: true },
      newRewet(id(), when('through-dry', 720)),
      newHeat(id(), 'gun', 15, after(2)),
      { ...newDistress(id(), 'sand', after(20)), grit: 320, rounds: 12 } as PlanStep,
      dustOff(id()),
      newSeal(id(), 'polyW', after(30)),
    ],
    'lacquer-layers': (id, first) => [
      newCoat(id(), 'latex', '#33302b', 'Coal', first),
      newCoat(id(), 'lacquer', '#dcdfe0', '', when('through-dry', 60)),
      {
        ...newCoat(id(), 'chalk', '#7d9088', 'Weed', when('through-dry', 60)),
        cover: { style: 'blotchy', share: 0.6 },
      },
      {
        ...newCoat(id(), 'chalk', '#c08a55', 'Lantern', when('touch-dry')),
        cover: { style: 'blotchy', share: 0.5 },
      },
      newCoat(id(), 'lacquer', '#dcdfe0', '', when('touch-dry')),
      {
        ...newCoat(id(), 'milk', '#dcd9c9', 'Sandbank', after(9)),
        thicknessUm: 110,
        passes: 1,
        cover: { style: 'blotchy', share: 0.8 },
      },
      newDistress(id(), 'sponge', when('through-dry', 30)),
      { ...newDistress(id(), 'sand', when('through-dry', 60)), rounds: 4 } as PlanStep,
      dustOff(id()),
      newSeal(id(), 'polyW', when('through-dry', 720)),
    ],
    'salt-resist': (id, first) => [
      newCoat(id(), 'latex', '#8f6a3f', 'Copper nail', first),
      { ...newCoat(id(), 'latex', '#5c7378', 'Squall', when('through-dry')), thicknessUm: 200 },
      newResist(id(), 'salt', after(1)),
      {
        ...newCoat(id(), 'chalk', '#a8b3a6', 'Fog bank', after(720)),
        strokes: 'dabbed',
        thicknessUm: 50,
        cover: { style: 'dry-brushed', share: 0.4 },
      },
      { ...newDistress(id(), 'scrape', when('through-dry', 60)), rounds: 1, pressure: 0.4 } as PlanStep,
      { ...newDistress(id(), 'sand', after(5)), rounds: 3 } as PlanStep,
      dustOff(id()),
      newSeal(id(), 'clearWax', after(10)),
    ],
    'thick-base': (id, first) => [
      { ...newCoat(id(), 'texture', '#8c8571', 'Mortar', first), cover: { style: 'blotchy', share: 0.45 } },
      {
        ...newCoat(id(), 'mineral', '#c4bda6', 'Lime bloom', when('recoat', 600)),
        cover: { style: 'blotchy', share: 0.8 },
      },
      {
        ...newCoat(id(), 'mineral', '#b3aa92', 'Lime bloom, darker', when('recoat')),
        cover: { style: 'blotchy', share: 0.7 },
      },
      { ...newDistress(id(), 'blade', after(120)), where: 'edges' } as PlanStep,
      newDistress(id(), 'sand', after(10)),
      dustOff(id()),
      newSeal(id(), 'clearWax', when('through-dry', 720)),
    ],
    softened: (id, first) => [
      newCoat(id(), 'enamelW', '#5a4a3a', 'Driftwood', first),
      newCoat(id(), 'latex', '#8fa39b', 'Backwater', when('through-dry', 60)),
      { ...newDistress(id(), 'bleach', when('through-dry', 60)), smear: 0.3 } as PlanStep,
      newDistress(id(), 'scrape', after(1)),
      newCoat(id(), 'latex', '#d6d0bd', 'Ebb', when('through-dry', 240)),
      { ...newDistress(id(), 'bleach', when('through-dry', 60)), smear: 0.2 } as PlanStep,
      newDistress(id(), 'scrape', after(1)),
      newSeal(id(), 'polyW', when('through-dry', 720)),
    ],
    barrier: (id, first) => [
      newCoat(id(), 'enamelO', '#5b3d26', 'Spar brown', first),
      newCoat(id(), 'chalk', '#8d9a86', 'Marram', when('through-dry', 600)),
      newCoat(id(), 'chalk', '#e1dac7', 'Gannet', when('through-dry', 60)),
      { ...newDistress(id(), 'sand', when('through-dry', 240)), grit: 150 } as PlanStep,
      dustOff(id()),
      newSeal(id(), 'polyW', after(30)),
    ],
    'warm-air': (id, first) => [
      newCoat(id(), 'latex', '#6b4c39', 'Bark', first),
      {
        ...newCoat(id(), 'chalk', '#d5cdb8', 'Oatmeal', when('through-dry')),
        thicknessUm: 450,
        strokes: 'crosswise',
      },
      newHeat(id(), 'dryer', 400, when('tacky')),
      newSeal(id(), 'whiteWax', when('through-dry', 720)),
      newSeal(id(), 'darkWax', when('through-dry', 720)),
      { ...newDistress(id(), 'sand', when('through-dry', 60)), grit: 320, rounds: 3 } as PlanStep,
      dustOff(id()),
      newSeal(id(), 'clearWax', after(10)),
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
