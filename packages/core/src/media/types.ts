/** Where a value comes from. */
export type Provenance = 'published' | 'common-practice' | 'assumed' | 'fitted';

/** What a medium is for, which decides what may be laid over it and when. */
export type MediumKind = 'paint' | 'primer' | 'crackle-medium' | 'wet-glue' | 'cured-glue';

/**
 * A generic medium. Values that are not SI carry their unit in the name; fractions are 0 … 1.
 * `PARAMETERS` says for every field what it means, its unit, its range and where it comes from.
 */
export interface Medium {
  readonly key: string;
  readonly name: string;
  readonly kind: MediumKind;
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
  readonly fractureLengthUm: number;
  readonly breakStrain: number;
  readonly relaxationTime: number;
  readonly resolubility: number;
  readonly slipRate: number;
  readonly slipHalfWater: number;
  readonly slipSetWater: number;
  readonly suctionUm: number;
  readonly suctionCapacity: number;
  readonly passesWet: number;
  readonly passesDry: number;
  readonly closedFromStart: number;
}

export type MediumParameter = Exclude<keyof Medium, 'key' | 'name' | 'kind'>;

/** What one field of the table means, for the screen, the documents and the door. */
export interface ParameterInfo {
  readonly label: string;
  readonly unit: string;
  readonly min: number;
  readonly max: number;
  readonly provenance: Provenance;
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
}
