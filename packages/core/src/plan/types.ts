import { type AirSeries } from '../air';
import { type Manner, type Toned } from '../colour';
import { type Strokes } from '../crack';
import { type OwnMedium, type SubstrateKey } from '../media';
import { type DistressTool, toolOf } from '../tools';
import { type Wood } from '../wood';
import { type PanelMap } from './map';
import { type PanelSize } from './outline';

/** When a step may begin. Moments and waits in seconds. */
export type StartRule =
  /** Once the coat below has reached a state, and a wait after that. */
  | { readonly rule: 'state'; readonly state: StartState; readonly wait: number }
  /** A wait after the step before it: after a coat was laid, after anything else ended. */
  | { readonly rule: 'after'; readonly wait: number }
  /** At a moment from the plan's start, though never before the step before it ended. */
  | { readonly rule: 'at'; readonly moment: number };

export const START_STATES = ['tacky', 'touch-dry', 'recoat', 'through-dry', 'cured'] as const;
export type StartState = (typeof START_STATES)[number];

/** How much of the panel a coat covers: all of it, in blotches, or dragged on with a nearly dry brush. */
export const COVERS = ['full', 'blotchy', 'dry-brushed'] as const;
export type CoverStyle = (typeof COVERS)[number];
export interface Cover {
  readonly style: CoverStyle;
  /** Share of the area covered; 1 for a full coat. */
  readonly share: number;
}

/** Where on the panel something is done: `edges` includes the corners. */
export const PLACES = ['all', 'field', 'edges', 'corners'] as const;
export type Place = (typeof PLACES)[number];

interface StepBase {
  readonly id: string;
  readonly start: StartRule;
}

/** Steps that may be done in places only, and do more here and less there. */
interface Mapped {
  /** All over when left out. */
  readonly where?: Place;
  /** Where more and where less; none where it is alike all over. */
  readonly map?: PanelMap;
}

/** What any film that is laid has, paint or seal. */
interface FilmBase extends StepBase, Mapped {
  /** Key of a generic medium or of one of the plan's own. */
  readonly medium: string;
  /** Wet film thickness [m]. */
  readonly thickness: number;
  /** Litres of water (or of its own thinner) per litre of the medium; below 0 where it stood open and thickened. */
  readonly dilution: number;
  /** Brush passes over the same place. */
  readonly passes: number;
  readonly strokes: Strokes;
  readonly cover: Cover;
  /** sRGB `#rrggbb`; null for clear media. */
  readonly colour: string | null;
}

/** One brushed coat. */
export interface Coat extends FilmBase {
  readonly kind: 'coat';
  /** Bonding additive stirred into milk paint or the like, share of the full dose. */
  readonly bonding: number;
  /** Lumps of powder left in. */
  readonly lumps: boolean;
  /** How long ago it was mixed or opened when it is laid [s]; null when fresh. */
  readonly mixedAge: number | null;
  /** Kept in a refrigerator meanwhile. */
  readonly keptCold: boolean;
  /** Further colours laid in the same coat, with their shares of it; the coat's own colour takes the rest. */
  readonly others?: readonly Toned[];
  /** How they meet; beside each other when left out. */
  readonly manner?: Manner;
  /** Texture powder stirred in, litres loose per litre of paint; none when left out. */
  readonly texture?: number;
}

/** A clear coat or wax to finish with. */
export interface Seal extends FilmBase {
  readonly kind: 'seal';
  /** How many coats of it, each at its recoat time. */
  readonly coats: number;
  /** How long after laying a wax is buffed [s]; null when it is left. */
  readonly buffAfter: number | null;
  /** Sheen of a clear coat, as on the tin; the medium's own when left out. */
  readonly sheen?: Sheen;
}

/** Sheens clear coats are sold in. */
export const SHEENS = ['matt', 'satin', 'gloss'] as const;
export type Sheen = (typeof SHEENS)[number];

export const RESIST_AGENTS = ['candle', 'jelly', 'salt'] as const;
export type ResistAgent = (typeof RESIST_AGENTS)[number];

/** Wax, jelly or salt under or in the next coat, so that it comes away there. */
export interface Resist extends StepBase, Mapped {
  readonly kind: 'resist';
  readonly agent: ResistAgent;
  /** How thick it lies [m]; for salt the grain. */
  readonly thickness: number;
  /** Share of the place that it covers. */
  readonly share: number;
  readonly where: Place;
}

export const HEAT_TOOLS = ['dryer', 'gun'] as const;
export type HeatTool = (typeof HEAT_TOOLS)[number];

/** Hot air, kept moving. */
export interface Heat extends StepBase, Mapped {
  readonly kind: 'heat';
  readonly tool: HeatTool;
  /** [s] over each place. */
  readonly duration: number;
}

/** Tea, coffee or stain in the water of a sponge or a mist: it dries to a thin veil. */
export interface Tint {
  /** sRGB `#rrggbb` */
  readonly colour: string;
  /** Share of what lies below that the dry veil hides on an even surface. */
  readonly strength: number;
}

/** Wetting dried paint again. */
export interface Rewet extends StepBase, Mapped {
  readonly kind: 'rewet';
  /** Water put on [m]. */
  readonly amount: number;
  /** Clear water when left out. */
  readonly tint?: Tint;
}

/** FEPA grits a painter uses. */
export const GRITS = [80, 100, 120, 150, 180, 220, 240, 280, 320, 360, 400] as const;
export type Grit = (typeof GRITS)[number];

/** Taking some of it off again. */
export interface Distress extends StepBase, Mapped {
  readonly kind: 'distress';
  readonly tool: DistressTool;
  /** Sanding only. */
  readonly grit: Grit;
  /** Passes of a block, rubs of a cloth, strokes of a blade; for bleach the minutes it stays. */
  readonly rounds: number;
  /** Pressure of the hand, 1 ordinary (about 5 kPa). */
  readonly pressure: number;
  readonly where: Place;
  /** Share of what came off that is smeared back. */
  readonly smear: number;
  /** In the water of tools that bring some; clear when left out. */
  readonly tint?: Tint;
}

/** Wiping jelly and what lies on it away. */
export interface Wipe extends StepBase, Mapped {
  readonly kind: 'wipe';
  /** Dry cloth first, then grease-cutting wipes. */
  readonly degrease: boolean;
}

/** Letting it be. */
export interface Wait extends StepBase {
  readonly kind: 'wait';
  /** [s] */
  readonly duration: number;
}

/** Work beside the layers, planned and timed but not simulated. */
export const COMPANION_TASKS = ['repair', 'wash', 'reactive-stain', 'fabric', 'transfer', 'glaze'] as const;
export type CompanionTask = (typeof COMPANION_TASKS)[number];

export interface Companion extends StepBase {
  readonly kind: 'companion';
  readonly task: CompanionTask;
  /** With the hands [s]. */
  readonly hands: number;
  /** What it has to rest afterwards [s]. */
  readonly rest: number;
  /** A reactive stain: the wood it acts on; no colour is told when left out. */
  readonly wood?: Wood;
}

export type Step = Coat | Seal | Resist | Heat | Rewet | Distress | Wipe | Wait | Companion;
/** A step that lays a film. */
export type FilmStep = Coat | Seal;
export const STEP_KINDS = [
  'coat',
  'seal',
  'resist',
  'heat',
  'rewet',
  'distress',
  'wipe',
  'wait',
  'companion',
] as const;
export type StepKind = Step['kind'];

/** The map of a step that has one. */
export const mapOf = (step: Step): PanelMap | undefined => ('map' in step ? step.map : undefined);

/** Where on the panel a step is done. */
export const whereOf = (step: Step): Place => ('where' in step ? (step.where ?? 'all') : 'all');

/** Steps that leave something lying on the panel; salt is gone before it is finished, with what it lay in. */
export const laysLayer = (step: Step): boolean =>
  isFilm(step) || (step.kind === 'resist' && step.agent !== 'salt') || tintOf(step) !== null;

/** What a step's water is tinted with; null where it is clear or there is none. */
export function tintOf(step: Step): Tint | null {
  if (step.kind === 'rewet') return step.tint ?? null;
  return step.kind === 'distress' && toolOf(step.tool).leaves > 0 ? (step.tint ?? null) : null;
}

export const isFilm = (step: Step): step is FilmStep => step.kind === 'coat' || step.kind === 'seal';

/** What was put on a surface before. */
export const OLD_COATS = [
  'none',
  'water-paint',
  'oil-paint',
  'varnish',
  'shellac',
  'oil',
  'wax',
  'unknown',
] as const;
export type OldCoat = (typeof OLD_COATS)[number];

/** How long it has been there: some weeks, some years, from before paint makers left lead out, or nobody knows. */
export const COAT_AGES = ['fresh', 'years', 'old', 'unknown'] as const;
export type CoatAge = (typeof COAT_AGES)[number];

/** What is known of the panel's past. */
export interface History {
  /** Handled, waxed with polish, or from a kitchen: grease is likely. */
  readonly handled: boolean;
  /** Wood that bleeds tannin: oak, mahogany, knots in pine. */
  readonly tannin: boolean;
  readonly coat: OldCoat;
  /** Of no meaning where there is no coat. */
  readonly age: CoatAge;
  /** What is on it holds, or comes off. */
  readonly condition: 'sound' | 'flaking';
}

/** Paint, varnish or something unknown that may be old enough to hold lead; common practice. */
export const mayHoldLead = ({ coat, age }: History): boolean =>
  ['water-paint', 'oil-paint', 'varnish', 'unknown'].includes(coat) && (age === 'old' || age === 'unknown');

/** What is done to a panel before the first coat, in working order. */
export const PREP_STEPS = [
  'test-old-paint',
  'take-off',
  'mask',
  'loosen-flakes',
  'degrease',
  'dewax',
  'wait-oil',
  'test-hold',
  'scuff',
  'bond',
  'dry-wood',
  'stop-tannin',
  'seal-raw-wood',
  'seal-mdf',
] as const;
export type PrepStep = (typeof PREP_STEPS)[number];

/** What the finished panel has to stand. */
export const USES = ['display', 'hands', 'wiping', 'hot-cups', 'food', 'children'] as const;
export type Use = (typeof USES)[number];

/** Which way the grain of a panel runs: along its longer side or across. */
export const GRAIN_WAYS = ['along', 'across'] as const;
export type GrainWay = (typeof GRAIN_WAYS)[number];

/** What a panel's face is worked into: ridges along the grain, or carving every way. */
export const RELIEF_KINDS = ['flutes', 'carving'] as const;
export type ReliefKind = (typeof RELIEF_KINDS)[number];
export interface Relief {
  readonly kind: ReliefKind;
  /** From the grounds of its valleys to its ridges [m]. */
  readonly depth: number;
  /** From ridge to ridge [m]. */
  readonly pitch: number;
}

export interface Panel extends PanelSize {
  readonly substrate: SubstrateKey;
  readonly history: History;
  /** Lying flat, face up, while it is worked on; else standing. */
  readonly flat: boolean;
  readonly use: Use;
  /** What has been done already; none when left out. */
  readonly prepared?: readonly PrepStep[];
  /** What is there looks so, sRGB `#rrggbb`; as the table of surfaces has it when left out. */
  readonly colour?: string;
  /** Which way the grain runs; along its longer side when left out. */
  readonly grain?: GrainWay;
  /** Carved, fluted or beaded all over; plain when left out. */
  readonly relief?: Relief;
}

/** A stretch of work between two rests [s from the plan's start]. */
export interface Stretch {
  readonly opens: number;
  readonly closes: number;
}

/** When there is somebody to work: stretches in order, apart from each other. After the last one it is not told. */
export type WorkTime = readonly Stretch[];

/** A stack of steps on one panel in some air: all the core needs for a forecast. */
export interface PanelPlan {
  readonly panel: Panel;
  /** In working order. */
  readonly steps: readonly Step[];
  readonly air: AirSeries;
  readonly seed: number;
  /** Day and night when left out. */
  readonly work?: WorkTime;
  /** A painter's own media, beside the generic ones. */
  readonly media?: readonly OwnMedium[];
  /** Share on which the panel itself is wanted to be seen; nobody wants it when left out. */
  readonly bareWanted?: number;
}
