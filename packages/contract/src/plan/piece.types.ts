import { type SubstrateKey } from '@zaffet/core/media';
import { type Facing, type PlacedZone } from '@zaffet/core/piece';
import { type GrainWay, type History, type PrepStep, type ReliefKind, type Use } from '@zaffet/core/plan';
import { type StepMap } from './steps.types';

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
  /** Preparation that the painter found this part does not need. */
  readonly unneeded: readonly PrepStep[];
  readonly zones: readonly PartZone[];
  /** Id of the finish it gets. */
  readonly finish: string;
  /** Where on this part a step does more and where less, by the step's id; alike all over where it has none. */
  readonly maps: Readonly<Record<string, StepMap>>;
  /** Lying face up while it is worked on; else standing. */
  readonly flat: boolean;
  readonly use: Use;
}

/** Something that is turned as a whole. */
export interface PieceBody {
  readonly id: string;
  readonly name: string;
}
