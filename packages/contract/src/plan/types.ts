import { type DistressTool, toolOf } from '@zaffet/core/tools';
import { type Manner } from '@zaffet/core/colour';
import { type Strokes } from '@zaffet/core/crack';
import { type OwnMedium, type SubstrateKey } from '@zaffet/core/media';
import { type Facing, type PlacedZone } from '@zaffet/core/piece';
import {
  type CompanionTask,
  type Cover,
  type GrainWay,
  type Grit,
  type HeatTool,
  type History,
  type Place,
  type PrepStep,
  type ReliefKind,
  type ResistAgent,
  type Sheen,
  type StartState,
  type Use,
  type Zone,
} from '@zaffet/core/plan';
import { type Body } from '@zaffet/core/quantity';
import { type MinuteKey } from '@zaffet/core/schedule';
import { type Wood } from '@zaffet/core/wood';

export const PLAN_FORMAT = 'zaffet-plan';
export const PLAN_VERSION = 10;

/** When a step may begin; waits in minutes, instants in ISO 8601. */
export type StartRuleFile =
  | { readonly rule: 'state'; readonly state: StartState; readonly waitMin: number }
  | { readonly rule: 'after'; readonly waitMin: number }
  | { readonly rule: 'at'; readonly at: string };

interface StepFields {
  readonly id: string;
  readonly start: StartRuleFile;
  /** Left out for now, and kept. */
  readonly off: boolean;
  /** What to remember at it, of last time or of what somebody said; left out where it is nothing. */
  readonly note?: string;
}

/** Where on a part a step is done. */
interface PlacedFields {
  /** All over, or in zones that every part has. */
  readonly where: Place;
  /** Only in the part's places of this name; parts without such a place leave the step out. Null for all of `where`. */
  readonly only: string | null;
  /** Names of places it leaves out. */
  readonly except: readonly string[];
}

/** Tea, coffee or stain in the water. */
export interface TintFile {
  readonly name: string;
  readonly colour: string;
  /** Share of what lies below that the dry veil hides. */
  readonly strength: number;
}

/** Where on the panel a step does more and where less: a raster from the upper left, row by row, in per cent. */
export interface StepMap {
  readonly columns: number;
  readonly rows: number;
  /** Whole per cent of what the step says. */
  readonly percent: readonly number[];
}

/** What paint and seals have in common. */
interface FilmFields extends StepFields, PlacedFields {
  /** Key of a generic medium or of one of the plan's own. */
  readonly medium: string;
  /** What the painter calls the colour; empty for clear media. */
  readonly colourName: string;
  /** sRGB, `#rrggbb`; for clear media what stands for them in the Section. */
  readonly colour: string;
  readonly thicknessUm: number;
  /** Litres of water per litre; below 0 where it stood open and thickened. */
  readonly dilution: number;
  readonly passes: number;
  readonly strokes: Strokes;
  readonly cover: Cover;
}

/** A further colour of a coat, with the share of the coat it takes. */
export interface OtherColour {
  readonly name: string;
  readonly colour: string;
  readonly share: number;
}

/** One brushed coat. */
export interface CoatStep extends FilmFields {
  readonly kind: 'coat';
  /** Bonding additive, share of the full dose. */
  readonly bonding: number;
  readonly lumps: boolean;
  /** How long ago it was mixed when it goes on; null when fresh. */
  readonly mixedHours: number | null;
  readonly keptCold: boolean;
  /** How the mix ran off the brush when it was last made; null where nobody said. */
  readonly body: Body | null;
  /** Colours laid in the same coat beside its own, which takes the rest. */
  readonly others: readonly OtherColour[];
  readonly manner: Manner;
  /** Texture powder, litres loose per litre of paint. */
  readonly texture: number;
}

/** A clear coat or wax to finish with. */
export interface SealStep extends FilmFields {
  readonly kind: 'seal';
  readonly coats: number;
  /** Minutes from laying to buffing a wax; null when it is left. */
  readonly buffAfterMin: number | null;
  /** As on the tin; null for the medium's own, and for waxes. */
  readonly sheen: Sheen | null;
}

export interface ResistStep extends StepFields, PlacedFields {
  readonly kind: 'resist';
  readonly agent: ResistAgent;
  /** How thick it lies; for salt the grain. */
  readonly thicknessUm: number;
  readonly share: number;
}

export interface HeatStep extends StepFields, PlacedFields {
  readonly kind: 'heat';
  readonly tool: HeatTool;
  readonly durationS: number;
}

export interface RewetStep extends StepFields, PlacedFields {
  readonly kind: 'rewet';
  readonly amountUm: number;
  /** Null for clear water. */
  readonly tint: TintFile | null;
}

export interface DistressStep extends StepFields, PlacedFields {
  readonly kind: 'distress';
  readonly tool: DistressTool;
  readonly grit: Grit;
  /** Passes, rubs, strokes; minutes for bleach. */
  readonly rounds: number;
  readonly pressure: number;
  readonly smear: number;
  /** In the water of tools that bring some; null for clear water. */
  readonly tint: TintFile | null;
}

export interface WipeStep extends StepFields, PlacedFields {
  readonly kind: 'wipe';
  readonly degrease: boolean;
}

export interface WaitStep extends StepFields {
  readonly kind: 'wait';
  readonly durationMin: number;
}

/** Work beside the layers: upholstery, a print, a stain. */
export interface CompanionStep extends StepFields {
  readonly kind: 'companion';
  readonly task: CompanionTask;
  readonly handsMin: number;
  readonly restMin: number;
  /** The wood a reactive stain acts on; null where nobody said, and for all else. */
  readonly wood: Wood | null;
  /** A print or tissue: name of the places it lies on, what holds it, and what is on it. */
  readonly print: Print | null;
}

/** What holds a print or a tissue on the paint. */
export const PRINT_HOLDERS = ['glue', 'clear', 'wet-paint', 'own'] as const;
export type PrintHolder = (typeof PRINT_HOLDERS)[number];
export interface Print {
  /** Name of the part's places it lies on; null for all of the part. */
  readonly on: string | null;
  readonly holds: PrintHolder;
  /** A picture of it, small, as a data URL; null where there is none. */
  readonly picture: string | null;
}

export type PlanStep =
  | CoatStep
  | SealStep
  | ResistStep
  | HeatStep
  | RewetStep
  | DistressStep
  | WipeStep
  | WaitStep
  | CompanionStep;
/** Steps that may do more here and less there. */
export type MappedStep = Extract<PlanStep, PlacedFields>;
export const MAPPED_KINDS: readonly PlanStep['kind'][] = [
  'coat',
  'seal',
  'resist',
  'heat',
  'rewet',
  'distress',
  'wipe',
];
export const isMapped = (step: PlanStep): step is MappedStep => MAPPED_KINDS.includes(step.kind);
export type FilmPlanStep = CoatStep | SealStep;

export const isFilmStep = (step: PlanStep): step is FilmPlanStep =>
  step.kind === 'coat' || step.kind === 'seal';

/** Films and resists that lie on a panel when the steps that are not left out are done; salt goes again. */
export const layersOf = (steps: readonly PlanStep[]): number =>
  steps.filter(
    (step) =>
      !step.off &&
      (isFilmStep(step) || (step.kind === 'resist' && step.agent !== 'salt') || tintOf(step) !== null),
  ).length;

/** What a step's water is tinted with; null where it is clear or there is none. */
export function tintOf(step: PlanStep): TintFile | null {
  if (step.kind === 'rewet') return step.tint;
  return step.kind === 'distress' && toolOf(step.tool).leaves > 0 ? step.tint : null;
}

/** What is fixed to a part, and what is done about it. */
export const FITTING_KINDS = [
  'hardware',
  'drawer',
  'hinge',
  'glass',
  'mesh',
  'upholstery',
  'inside',
] as const;
export type FittingKind = (typeof FITTING_KINDS)[number];
export const FITTING_TREATMENTS = ['off', 'masked', 'stays'] as const;
export type FittingTreatment = (typeof FITTING_TREATMENTS)[number];
export interface Fitting {
  readonly kind: FittingKind;
  readonly treatment: FittingTreatment;
}

/** What places are called until the painter gives them a name. */
export const PLACED_ZONE_NAMES: Readonly<Record<PlacedZone, string>> = {
  pull: 'Pull',
  rail: 'Rail',
  recess: 'Recess',
  relief: 'Relief',
  spot: 'Place',
};

/** A place of a part that is worked otherwise than the rest: a rectangle, or the ellipse in it, from its upper left. */
export interface PartZone {
  readonly id: string;
  readonly kind: PlacedZone;
  /** What the painter calls it; places of one name are worked together. */
  readonly name: string;
  readonly oval: boolean;
  readonly leftMm: number;
  readonly topMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** Carving, flutes or beads of a part. */
export interface PartRelief {
  readonly kind: ReliefKind;
  readonly depthMm: number;
  readonly pitchMm: number;
}

/** One part of a piece: a panel, unfolded where it goes round corners. */
export interface Part {
  readonly id: string;
  readonly name: string;
  readonly widthMm: number;
  readonly heightMm: number;
  /** Round or oval: the ellipse in its size. */
  readonly oval: boolean;
  readonly facing: Facing;
  /** Id of what it is turned with; null for a part that lies by itself. */
  readonly body: string | null;
  readonly substrate: SubstrateKey;
  /** How what is there looks: its colour, null for what such a surface mostly has, and which way its grain runs. */
  readonly ground: { readonly colour: string | null; readonly grain: GrainWay };
  /** Null where the face is plain. */
  readonly relief: PartRelief | null;
  readonly history: History;
  /** Moisture of the wood as measured, share of its dry mass; null where nobody measured. */
  readonly moisture: number | null;
  readonly fittings: readonly Fitting[];
  /** Preparation that is done. */
  readonly prepared: readonly PrepStep[];
  readonly zones: readonly PartZone[];
  /** Id of the finish it gets. */
  readonly finish: string;
  /** Where on this part a step does more and where less, by the step's id; alike all over where it has none. */
  readonly maps: Readonly<Record<string, StepMap>>;
  /** Lying face up while it is worked on; else standing. */
  readonly flat: boolean;
  readonly use: Use;
}

/**
 * Where the air over a plan's days comes from: told by hand, out of a file, read by instruments, or foretold. What is
 * simulated stays known as such.
 */
export const AIR_ORIGINS = ['told', 'file', 'readings', 'simulated-forecast'] as const;
export type AirOrigin = (typeof AIR_ORIGINS)[number];

/** What the shop's air is like, and how it changes. */
export interface AirFile {
  readonly origin: AirOrigin;
  readonly temperatureC: number;
  readonly humidity: number;
  readonly draughtMS: number;
  readonly altitudeM: number;
  readonly later: readonly {
    readonly at: string;
    readonly temperatureC: number;
    readonly humidity: number;
  }[];
}

/** A stretch of a day, minutes from midnight by the shop's clock. */
export interface DayStretch {
  readonly opensMin: number;
  readonly closesMin: number;
}
export const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const;
export type Weekday = (typeof WEEKDAYS)[number];

/** Who works when, and how long what goes round the work takes. */
export interface WorkFile {
  /** What the shop's clocks go by: the name of a time zone, or an offset like `+02:00`. */
  readonly zone: string;
  /** Breaks lie between the stretches of a day; a day without one is free. */
  readonly week: Readonly<Record<Weekday, readonly DayStretch[]>>;
  /** Days nobody works, `2026-05-14`. */
  readonly daysOff: readonly string[];
  /** Stretches beside the week's. */
  readonly extra: readonly { readonly from: string; readonly until: string }[];
  /** People, each at one thing at a time. */
  readonly people: number;
  /** By what colour and wear are judged; null where lamps do. */
  readonly daylight: DayStretch | null;
  /** Minutes that differ from the usual ones, by what takes them. */
  readonly minutes: Readonly<Partial<Record<MinuteKey, number>>>;
}

/** What is asked of the timetable. */
export interface TimingFile {
  /** When it has to be ready; null where nobody waits. */
  readonly deadlineAt: string | null;
  /** Begin as late as the deadline allows. */
  readonly backward: boolean;
  /** Preparation that is not done yet takes its time too. */
  readonly prepares: boolean;
  /** Work that begins no earlier than it was put: what was dragged. Coats of a seal count from 0. */
  readonly pins: readonly {
    readonly partId: string;
    readonly stepId: string;
    readonly coat: number;
    readonly at: string;
  }[];
  /** What is not in the house yet; without a colour all of the medium. */
  readonly deliveries: readonly {
    readonly medium: string;
    readonly colour: string | null;
    readonly at: string;
  }[];
  /** Parts that are done before others begin, by their ids. */
  readonly order: readonly { readonly first: string; readonly then: string }[];
}

/** Something that is turned as a whole. */
export interface PieceBody {
  readonly id: string;
  readonly name: string;
}

/** Wanted figures of a place; null where nothing is wished for. */
export interface Wants {
  readonly spacingMm: number | null;
  readonly openingMm: number | null;
  /** Share that flakes or is lifted, that is worn through, on which the last colour is not seen. */
  readonly chips: number | null;
  readonly worn: number | null;
  readonly under: number | null;
}
export const WANT_KEYS = ['spacingMm', 'openingMm', 'chips', 'worn', 'under'] as const;

/** Zones of a part that a look can be wished for. */
export type LookZone = Zone | PlacedZone;

/** How it shall look. */
export interface Look extends Wants {
  /** Zones that shall look otherwise than the rest. */
  readonly zones: Readonly<Partial<Record<LookZone, Wants>>>;
  /** Share on which a layer shall be seen, by its step's id or `panel`. */
  readonly shows: Readonly<Record<string, number>>;
  readonly glossUnits: number | null;
  /** Least reading of how natural it looks, 0 … 1. */
  readonly natural: number | null;
  /** Restrained for a buyer, or as one likes it. */
  readonly degree: 'sale' | 'keep';
}

/** A stack of steps that some of the parts get, or a what-if beside one. */
export interface Finish {
  readonly id: string;
  readonly name: string;
  /** The finish this is a what-if of; null for one that is meant. */
  readonly whatIfOf: string | null;
  readonly steps: readonly PlanStep[];
  readonly look: Look;
}

/** What goes into a colour: parts by volume, of dry powders or of wet paint. */
export interface Ingredient {
  readonly name: string;
  readonly colour: string;
  readonly parts: number;
}

/** A colour of the plan's palette; bought as it is where nothing is mixed. */
export interface PaletteColour {
  readonly id: string;
  readonly name: string;
  readonly colour: string;
  readonly mix: readonly Ingredient[];
  /** Mixed as dry powders, before the water. */
  readonly dry: boolean;
}

/** A plan as it is stored, sent and filed: see docs/plan-file.md. */
export interface Plan {
  readonly format: typeof PLAN_FORMAT;
  readonly version: typeof PLAN_VERSION;
  readonly name: string;
  readonly seed: number;
  readonly startsAt: string;
  readonly piece: {
    readonly name: string;
    readonly bodies: readonly PieceBody[];
    readonly parts: readonly Part[];
  };
  /** The first is the one most parts get. */
  readonly finishes: readonly Finish[];
  readonly palette: readonly PaletteColour[];
  readonly air: AirFile;
  /** Day and night, and one person, when null. */
  readonly work: WorkFile | null;
  readonly timing: TimingFile;
  /** The painter's own media. */
  readonly media: readonly OwnMedium[];
  /** What a litre costs, by medium key; empty where nobody said. */
  readonly prices: Readonly<Record<string, number>>;
}
