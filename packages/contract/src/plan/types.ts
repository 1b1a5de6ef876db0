import {
  type Cover,
  type DistressTool,
  type Grit,
  type HeatTool,
  type History,
  type OwnMedium,
  type Place,
  type ResistAgent,
  type StartState,
  type Strokes,
  type SubstrateKey,
  type Use,
} from '@zaffet/core';

export const PLAN_FORMAT = 'zaffet-plan';
export const PLAN_VERSION = 3;

/** When a step may begin; waits in minutes, instants in ISO 8601. */
export type StartRuleFile =
  | { readonly rule: 'state'; readonly state: StartState; readonly waitMin: number }
  | { readonly rule: 'after'; readonly waitMin: number }
  | { readonly rule: 'at'; readonly at: string };

interface StepFields {
  readonly id: string;
  readonly start: StartRuleFile;
}

/** Where on the panel a step does more and where less: a raster from the upper left, row by row, in per cent. */
export interface StepMap {
  readonly columns: number;
  readonly rows: number;
  /** Whole per cent of what the step says. */
  readonly percent: readonly number[];
}

/** Steps that may do more here and less there. */
interface Mapped {
  /** null where it is alike all over. */
  readonly map: StepMap | null;
}

/** What paint and seals have in common. */
interface FilmFields extends StepFields, Mapped {
  /** Key of a generic medium or of one of the plan's own. */
  readonly medium: string;
  /** What the painter calls the colour; empty for clear media. */
  readonly colourName: string;
  /** sRGB, `#rrggbb`; for clear media what stands for them in the Section. */
  readonly colour: string;
  readonly thicknessUm: number;
  /** Litres of water per litre. */
  readonly dilution: number;
  readonly passes: number;
  readonly strokes: Strokes;
  readonly cover: Cover;
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
}

/** A clear coat or wax to finish with. */
export interface SealStep extends FilmFields {
  readonly kind: 'seal';
  readonly coats: number;
  /** Minutes from laying to buffing a wax; null when it is left. */
  readonly buffAfterMin: number | null;
}

export interface ResistStep extends StepFields, Mapped {
  readonly kind: 'resist';
  readonly agent: ResistAgent;
  /** How thick it lies; for salt the grain. */
  readonly thicknessUm: number;
  readonly share: number;
  readonly where: Place;
}

export interface HeatStep extends StepFields {
  readonly kind: 'heat';
  readonly tool: HeatTool;
  readonly durationS: number;
}

export interface RewetStep extends StepFields {
  readonly kind: 'rewet';
  readonly amountUm: number;
}

export interface DistressStep extends StepFields, Mapped {
  readonly kind: 'distress';
  readonly tool: DistressTool;
  readonly grit: Grit;
  /** Passes, rubs, strokes; minutes for bleach. */
  readonly rounds: number;
  readonly pressure: number;
  readonly where: Place;
  readonly smear: number;
}

export interface WipeStep extends StepFields {
  readonly kind: 'wipe';
  readonly degrease: boolean;
}

export interface WaitStep extends StepFields {
  readonly kind: 'wait';
  readonly durationMin: number;
}

export type PlanStep =
  CoatStep | SealStep | ResistStep | HeatStep | RewetStep | DistressStep | WipeStep | WaitStep;
/** Steps that may have a map. */
export type MappedStep = CoatStep | SealStep | ResistStep | DistressStep;
export const isMapped = (step: PlanStep): step is MappedStep => 'map' in step;
export type FilmPlanStep = CoatStep | SealStep;

export const isFilmStep = (step: PlanStep): step is FilmPlanStep =>
  step.kind === 'coat' || step.kind === 'seal';

/** One part of a piece; a plain panel for now. */
export interface Part {
  readonly id: string;
  readonly name: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly substrate: SubstrateKey;
  readonly history: History;
  /** Lying face up while it is worked on; else standing. */
  readonly flat: boolean;
  readonly use: Use;
}

/** What the shop's air is like, and how it changes. */
export interface AirFile {
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

/** Wanted figures; null where nothing is wished for. */
export interface Look {
  readonly spacingMm: number | null;
  readonly openingMm: number | null;
}

/** A plan as it is stored, sent and filed: see docs/plan-file.md. */
export interface Plan {
  readonly format: typeof PLAN_FORMAT;
  readonly version: typeof PLAN_VERSION;
  readonly name: string;
  readonly seed: number;
  readonly startsAt: string;
  readonly piece: { readonly name: string; readonly parts: readonly [Part] };
  readonly look: Look;
  readonly steps: readonly PlanStep[];
  readonly air: AirFile;
  /** The painter's own media. */
  readonly media: readonly OwnMedium[];
  /** What a litre costs, by medium key; empty where nobody said. */
  readonly prices: Readonly<Record<string, number>>;
}
