import { type OwnMedium } from '@zaffet/core/media';
import { type PlacedZone } from '@zaffet/core/piece';
import { type Zone } from '@zaffet/core/plan';
import { type AirFile, type WorkFile } from '../shop/types';
import { type Part, type PieceBody } from './piece.types';
import { type PlanStep } from './steps.types';

export const PLAN_FORMAT = 'zaffet-plan';
export const PLAN_VERSION = 11;

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
