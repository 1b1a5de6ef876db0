import { type Manner } from '@zaffet/core/colour';
import { type WaxManner } from '@zaffet/core/course';
import { type DistressTool, toolOf } from '@zaffet/core/tools';
import {
  isMapped,
  type MappedStep,
  type PlanStep,
  type PrintHolder,
  type StartRuleFile,
} from '@zaffet/contract';
import { type Strokes } from '@zaffet/core/crack';
import {
  medium,
  MEDIUM_KEYS,
  type MediumKind,
  type OwnMedium,
  type Provenance,
  substrate,
  type SubstrateKey,
} from '@zaffet/core/media';
import {
  type CompanionTask,
  type CoverStyle,
  type HeatTool,
  type Place,
  type ResistAgent,
  type Sheen,
  type StartState,
  type StepKind,
} from '@zaffet/core/plan';
import { type Body } from '@zaffet/core/quantity';
import { type Wood } from '@zaffet/core/wood';
import { duration } from './format';

/** Name of a medium, generic or one of the plan's own. */
export function mediumName(key: string, own: readonly OwnMedium[] = []): string {
  const mine = own.find((entry) => entry.key === key);
  if (mine !== undefined) return mine.name;
  return (MEDIUM_KEYS as readonly string[]).includes(key) ? medium(key).name : key;
}
/** What was there before the first coat, by the layer's id. */
export const groundName = (layerId: string, key: SubstrateKey): string =>
  layerId === 'wood' ? 'Wood below it' : substrateName(key);
export const substrateName = (key: SubstrateKey): string => substrate(key).name;

/** The generic kind a medium belongs to. */
function kindOf(key: string, own: readonly OwnMedium[]): MediumKind {
  return medium(own.find((entry) => entry.key === key)?.like ?? key).kind;
}

export const STEP_NAMES: Readonly<Record<StepKind, string>> = {
  coat: 'Coat',
  seal: 'Seal',
  resist: 'Resist',
  heat: 'Hot air',
  rewet: 'Wet again',
  distress: 'Distress',
  wipe: 'Wipe off',
  wait: 'Wait',
  companion: 'Work beside it',
};

/** Work beside the layers, with what it is and how it goes. */
export const TASK_WORDS: Readonly<Record<CompanionTask, { name: string; how: string }>> = {
  repair: { name: 'Repair', how: 'Glue what is loose, fill, sand smooth, wipe off the dust.' },
  wash: {
    name: 'Wash or stain',
    how: 'Four parts water, one part milk paint, on bare wood; wipe back what stands.',
  },
  'reactive-stain': {
    name: 'Reactive stain',
    how: 'It darkens as it sits, pine the least; try it on the underside.',
  },
  fabric: {
    name: 'Paint the upholstery',
    how: 'Press tape in along the braid, wet the cloth, runny paint, random strokes; a day or more to dry.',
  },
  transfer: {
    name: 'Tissue or print',
    how: 'Torn, not cut edges; print mirrored; mist it; a night before anything is cut.',
  },
  glaze: {
    name: 'Dark or metallic glaze',
    how: 'Tones everything down: preview it on a board, then brush on and wipe back at once.',
  },
};

export const WOOD_NAMES: Readonly<Record<Wood, string>> = {
  oak: 'Oak',
  walnut: 'Walnut',
  mahogany: 'Mahogany',
  cherry: 'Cherry',
  beech: 'Beech',
  birch: 'Birch',
  pine: 'Pine',
};

/** What holds a print or a tissue. */
export const PRINT_HOLDER_NAMES: Readonly<Record<PrintHolder, string>> = {
  glue: 'glue brushed on',
  clear: 'clear coat, wet',
  'wet-paint': 'the paint, still wet',
  own: 'a film of its own',
};

export const RESIST_NAMES: Readonly<Record<ResistAgent, string>> = {
  candle: 'Candle wax',
  jelly: 'Petroleum jelly',
  salt: 'Texture salt',
};

export const HEAT_NAMES: Readonly<Record<HeatTool, string>> = { dryer: 'Hairdryer', gun: 'Heat gun' };

export const TOOL_NAMES: Readonly<Record<DistressTool, string>> = {
  sand: 'Sandpaper',
  cloth: 'Damp cloth',
  sponge: 'Wet sponge',
  scrape: 'Scraper',
  blade: 'Blade',
  tap: 'Tapping',
  fingers: 'Fingers',
  sander: 'Finishing sander',
  knife: 'Palette knife',
  brush: 'Stiff brush',
  towel: 'Paper towel',
  press: 'Sponge pressed and turned',
  scratch: 'Nail or wire brush',
  bleach: 'Thick bleach',
};

/** What `rounds` counts for each tool. */
export const ROUND_NAMES: Readonly<Record<DistressTool, string>> = {
  sand: 'Passes',
  cloth: 'Rubs',
  sponge: 'Rubs',
  scrape: 'Strokes',
  blade: 'Strokes',
  tap: 'Taps over a place',
  fingers: 'Times over a place',
  sander: 'Passes',
  knife: 'Strokes',
  brush: 'Strokes',
  towel: 'Rubs',
  press: 'Presses over a place',
  scratch: 'Strokes',
  bleach: 'Minutes left on',
};

export const PLACE_NAMES: Readonly<Record<Place, string>> = {
  all: 'All over',
  field: 'Field only',
  edges: 'Edges and corners',
  corners: 'Corners only',
};

/** Where a step is done, in a sentence: "edges and corners", "only Pull", "all over without Rail". */
export function placeWords({ where, only, except }: Pick<MappedStep, 'where' | 'only' | 'except'>): string {
  const goes = only === null ? PLACE_NAMES[where].toLowerCase() : `only ${only}`;
  return except.length === 0 ? goes : `${goes} without ${except.join(', ')}`;
}

/** The same, and nothing where it goes everywhere, as most steps do. */
export const placedWords = (step: PlanStep): readonly string[] => {
  if (!isMapped(step)) return [];
  const goesOn = step.where === 'all' && step.only === null && step.except.length === 0;
  return goesOn ? [] : [placeWords(step)];
};

export const COVER_NAMES: Readonly<Record<CoverStyle, string>> = {
  full: 'Full',
  blotchy: 'Blotchy',
  'dry-brushed': 'Dry-brushed',
};

export const MANNER_NAMES: Readonly<Record<Manner, string>> = {
  'side-by-side': 'Side by side',
  blended: 'Barely blended',
  'wet-in-wet': 'Wet in wet',
};

export const SHEEN_NAMES: Readonly<Record<Sheen, string>> = { matt: 'matt', satin: 'satin', gloss: 'gloss' };

/** What becomes of a wax with pigment, by how it was worked. */
export const WAX_MANNERS: Readonly<Record<WaxManner, string>> = {
  left: 'Left as laid it covers everything.',
  buffed: 'Buffed: it stays in cracks and brush marks, and darkens the rest by about a third.',
  wiped: 'Wiped back while soft: it stays in cracks and brush marks, with a tint on the rest.',
};

export const BODY_NAMES: Readonly<Record<Body, string>> = {
  water: 'Like water',
  drips: 'Just drips off',
  shake: 'Like a thin shake',
  cream: 'Like thick cream',
  paste: 'Stands in peaks',
};

export const PROVENANCE_NAMES: Readonly<Record<Provenance, string>> = {
  published: 'published',
  'common-practice': 'common practice',
  assumed: 'assumed',
  fitted: 'fitted from your boards',
};

/** What a step does, in a word or two, for lists. */
export function stepTitle(step: PlanStep, own: readonly OwnMedium[] = []): string {
  switch (step.kind) {
    case 'coat':
    case 'seal':
      return step.colourName || mediumName(step.medium, own);
    case 'resist':
      return RESIST_NAMES[step.agent];
    case 'heat':
      return HEAT_NAMES[step.tool];
    case 'distress':
      return toolOf(step.tool).action === 'sand' ? `Sand, ${step.grit} grit` : TOOL_NAMES[step.tool];
    case 'companion':
      return TASK_WORDS[step.task].name;
    case 'rewet':
    case 'wipe':
    case 'wait':
      return STEP_NAMES[step.kind];
  }
}

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth'];

/** What a layer or step is called in a sentence: glue, medium, top coat, base coat, second ground, sandpaper. */
export function layerWord(
  steps: readonly PlanStep[],
  stepId: string,
  own: readonly OwnMedium[] = [],
): string {
  if (stepId === 'panel' || stepId === 'wood') return stepId;
  const step = steps.find((s) => s.id === stepId);
  if (step === undefined) return 'coat';
  const word = wordOf(steps, step, own);
  const alike = steps.filter((s) => wordOf(steps, s, own) === word);
  return alike.length === 1 ? word : `${ORDINALS[alike.indexOf(step)] ?? 'another'} ${word}`;
}

/** The word alone, which several steps may share. */
function wordOf(steps: readonly PlanStep[], step: PlanStep, own: readonly OwnMedium[]): string {
  if (step.kind !== 'coat') return stepTitle(step, own).toLowerCase();
  const kind = kindOf(step.medium, own);
  if (kind === 'crackle-medium') return 'medium';
  if (kind === 'wet-glue' || kind === 'cured-glue') return 'glue';
  if (kind === 'primer') return 'primer';
  if (kind === 'ground') return 'ground';
  if (kind === 'clear') return 'clear coat';
  if (kind !== 'paint') return mediumName(step.medium, own).toLowerCase();
  const paints = steps.filter((s) => s.kind === 'coat' && kindOf(s.medium, own) === 'paint');
  const i = paints.indexOf(step);
  if (i === paints.length - 1) return paints.length === 1 ? 'coat' : 'top coat';
  return i === 0 ? 'base coat' : `coat ${i + 1}`;
}

export const STROKE_NAMES: Readonly<Record<Strokes, string>> = {
  'one-way': 'One way',
  crosswise: 'Crosswise',
  swirled: 'Swirled',
  dabbed: 'Dabbed',
};

export const START_STATE_NAMES: Readonly<Record<StartState, string>> = {
  tacky: 'has set',
  'touch-dry': 'is touch-dry',
  recoat: 'takes a coat',
  'through-dry': 'is dry through',
  cured: 'has cured',
};

/** When a step begins, after its own moment was told. */
export function startWords(start: StartRuleFile): string {
  switch (start.rule) {
    case 'at':
      return 'by the clock';
    case 'after':
      return start.waitMin === 0 ? 'right after' : `${duration(start.waitMin * 60)} after the step before`;
    case 'state': {
      const wait = start.waitMin === 0 ? '' : ` and ${duration(start.waitMin * 60)} more`;
      return `when what is below ${START_STATE_NAMES[start.state]}${wait}`;
    }
  }
}
