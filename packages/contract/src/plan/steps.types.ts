import { type Manner } from '@zaffet/core/colour';
import { type Strokes } from '@zaffet/core/crack';
import {
  type CompanionTask,
  type Cover,
  type Grit,
  type HeatTool,
  type Place,
  type ResistAgent,
  type Sheen,
  type StartState,
} from '@zaffet/core/plan';
import { type Body } from '@zaffet/core/quantity';
import { type DistressTool, toolOf } from '@zaffet/core/tools';
import { type Wood } from '@zaffet/core/wood';

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
