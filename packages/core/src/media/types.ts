import { type Carrier } from '../air';

/** Where a value comes from. */
export type Provenance = 'published' | 'common-practice' | 'assumed' | 'fitted';

/** What a medium is for, which decides what may be laid over it and when. */
export const MEDIUM_KINDS = [
  'paint',
  'primer',
  'ground',
  'crackle-medium',
  'wet-glue',
  'cured-glue',
  'clear',
  'glaze',
  'wax',
  'resist',
  'agent',
] as const;
export type MediumKind = (typeof MEDIUM_KINDS)[number];

/**
 * What a medium is, as far as rules go by it: what it is made of, how it comes, what it does to others. A painter's own
 * medium is what the one it starts from is, so no rule ever goes by a key.
 */
export const TRAITS = [
  /** Bound with casein, which bleach destroys. */
  'casein',
  /** Bound with a hide's glue, which bleach destroys. */
  'protein-glue',
  /** Goes off when it is mixed and kept warm. */
  'spoils',
  /** Bought as a powder and mixed with water, which it takes up in a while. */
  'powder',
  /** Its dust holds quartz or other minerals that harm lungs. */
  'mineral-dust',
  /** Dries rough, and is smoothed before anything goes over it. */
  'dries-rough',
  /** Gives off a solvent that burns, for hours after it is laid. */
  'solvent',
  /** Comes out of a can under pressure. */
  'sprayed',
  /** Colours wood on purpose, tannin and all. */
  'stains',
  /** A wax that darkens what it meets. */
  'dark',
  /** A wax that keeps a dark one out of what lies below. */
  'keeps-dark-out',
  /** Stands a hot cup. */
  'heat-resistant',
] as const;
export type Trait = (typeof TRAITS)[number];

/**
 * A generic medium. Values that are not SI carry their unit in the name; fractions are 0 … 1.
 * `PARAMETERS` says for every field what it means, its unit, its range and where it comes from.
 * "Water" stands for the carrier, whatever it is.
 */
export interface Medium {
  readonly key: string;
  /** Key of the generic medium it is, or starts from. */
  readonly like: string;
  readonly name: string;
  readonly kind: MediumKind;
  readonly carrier: Carrier;
  readonly traits: readonly Trait[];
  /** What stands for it in drawings, sRGB `#rrggbb`; null for paints, which bring their own colour. */
  readonly tint: string | null;
  readonly volumeSolids: number;
  readonly wetFilmUm: number;
  readonly densityKgL: number;
  readonly gelWater: number;
  readonly diffusivityUm2S: number;
  readonly diffusivityExponent: number;
  readonly touchWater: number;
  readonly recoatWater: number;
  readonly throughWater: number;
  readonly boundWater: number;
  readonly skinUm: number;
  readonly cureDays: number;
  readonly oxidationHours: number;
  readonly oxidationTouch: number;
  readonly oxidationRecoat: number;
  readonly hardensUpToUm: number;
  readonly fractureLengthUm: number;
  /** Factor on its free strain; 1 as its kind. */
  readonly strainFactor: number;
  readonly breakStrain: number;
  readonly relaxationTime: number;
  readonly resolubility: number;
  readonly slipRate: number;
  readonly slipHalfWater: number;
  readonly slipSetWater: number;
  readonly slipFades: number;
  readonly suctionUm: number;
  readonly suctionCapacity: number;
  readonly passesWet: number;
  readonly passesDry: number;
  readonly closedFromStart: number;
  readonly energyJM2Um: number;
  readonly bondJM2: number;
  readonly baseBond: number;
  readonly hardness: number;
  readonly clothStart: number;
  readonly clothEnd: number;
  readonly clothHours: number;
  readonly hidingUm: number;
  readonly glossUnits: number;
  readonly yellowing: number;
  readonly lifts: number;
  readonly potHours: number;
}

export type MediumParameter = Exclude<
  keyof Medium,
  'key' | 'like' | 'name' | 'kind' | 'carrier' | 'traits' | 'tint'
>;

/** Whether a medium is one of several things. */
export const isOf = ({ traits }: Pick<Medium, 'traits'>, ...wanted: readonly Trait[]): boolean =>
  wanted.some((trait) => traits.includes(trait));

/** What one field of the table means, for the screen, the documents and the door. */
export interface ParameterInfo {
  readonly label: string;
  readonly unit: string;
  readonly min: number;
  readonly max: number;
  readonly provenance: Provenance;
}

/** A painter's own medium: a generic one under another name, with some values changed. */
export interface OwnMedium {
  readonly key: string;
  readonly name: string;
  /** The generic medium it starts from. */
  readonly like: string;
  readonly changes: Readonly<Partial<Record<MediumParameter, number>>>;
}

/** A surface under the first coat. */
export interface Substrate {
  readonly key: string;
  readonly name: string;
  /** Sorptivity: water taken up goes with the square root of time [µm/√s]. */
  readonly suctionUm: number;
  /** How much water the surface layer can hold [µm]. */
  readonly capacityUm: number;
  /** How much it keys a film, 0 closed … 1 open-pored. */
  readonly porosity: number;
  /** Factor on the bond of a film laid on it; 1 a scuffed sound surface. */
  readonly baseBond: number;
  /** How it looks, sRGB `#rrggbb`. */
  readonly colour: string;
  /** Bare wood or board, which looks raw and pale where everything above has gone. */
  readonly bare: boolean;
  /** Hardness against sanding, as for media. */
  readonly hardness: number;
  /** What lies on wood here already, that a coarse grit goes through; null where it is the wood or no wood. */
  readonly finish: OldFinish | null;
}

/** An old film over wood. */
export interface OldFinish {
  /** Generic medium it is most like. */
  readonly like: string;
  /** Dry film [µm]. */
  readonly dryUm: number;
  /** The wood below, sRGB `#rrggbb`. */
  readonly wood: string;
}
