import { InputError } from '../errors';
import { type Medium, type MediumKind, type MediumParameter, type ParameterInfo } from './types';

/**
 * Every parameter of a medium: meaning, unit, range, provenance. Column by column the values are either common
 * practice (what tins of that kind say) or assumed and to be fitted from a painter's own boards.
 */
export const PARAMETERS: Readonly<Record<MediumParameter, ParameterInfo>> = {
  volumeSolids: { label: 'Solids by volume', unit: '', min: 0.05, max: 1, provenance: 'common-practice' },
  wetFilmUm: { label: 'Wet film of one brushed coat', unit: 'µm', min: 5, max: 600, provenance: 'common-practice' },
  densityKgL: { label: 'Density', unit: 'kg/L', min: 0.7, max: 2, provenance: 'common-practice' },
  gelWater: { label: 'Water share at which it stops flowing', unit: '', min: 0.1, max: 0.8, provenance: 'assumed' },
  diffusivityUm2S: { label: 'Diffusivity of water in the dry film', unit: 'µm²/s', min: 1e-5, max: 5, provenance: 'assumed' },
  diffusivityExponent: { label: 'Rise of diffusivity with water', unit: '', min: 1, max: 40, provenance: 'assumed' },
  touchWater: { label: 'Water per solids when touch-dry', unit: '', min: 0.01, max: 0.5, provenance: 'assumed' },
  recoatWater: { label: 'Water per solids when it takes a coat', unit: '', min: 0.01, max: 0.5, provenance: 'assumed' },
  throughWater: { label: 'Water per solids when through-dry', unit: '', min: 0.01, max: 0.5, provenance: 'assumed' },
  boundWater: { label: 'Water it holds in damp air', unit: '', min: 0, max: 0.2, provenance: 'assumed' },
  skinUm: { label: 'Skin that takes no brush', unit: 'µm', min: 1, max: 50, provenance: 'assumed' },
  cureDays: { label: 'Curing time constant', unit: 'd', min: 0.5, max: 60, provenance: 'common-practice' },
  fractureLengthUm: { label: 'Toughness over stiffness', unit: 'µm', min: 0.1, max: 20, provenance: 'assumed' },
  breakStrain: { label: 'Strain to break', unit: '', min: 0.005, max: 0.3, provenance: 'assumed' },
  relaxationTime: { label: 'Stress relaxation time', unit: 's', min: 100, max: 1e5, provenance: 'assumed' },
  resolubility: { label: 'Dissolves again under wet paint', unit: '', min: 0, max: 1, provenance: 'assumed' },
  slipRate: { label: 'Slip rate under a coat', unit: '1/s', min: 0, max: 200, provenance: 'assumed' },
  slipHalfWater: { label: 'Water per solids at half slip', unit: '', min: 0.05, max: 5, provenance: 'assumed' },
  slipSetWater: { label: 'Water per solids lost until it sets', unit: '', min: 0.01, max: Infinity, provenance: 'assumed' },
  suctionUm: { label: 'Suction of the dry film', unit: 'µm/√s', min: 0, max: 20, provenance: 'assumed' },
  suctionCapacity: { label: 'Water it can take up per solids', unit: '', min: 0, max: 10, provenance: 'assumed' },
  passesWet: { label: 'Brush passes that half mix it, wet', unit: '', min: 0.2, max: 100, provenance: 'assumed' },
  passesDry: { label: 'Brush passes that half mix it, dry', unit: '', min: 0.2, max: 100, provenance: 'assumed' },
  closedFromStart: { label: 'Film-formed share at the skin', unit: '', min: 0, max: 1, provenance: 'assumed' },
};

const NO_SLIP = { slipRate: 0, slipHalfWater: 0.85, slipSetWater: Infinity, passesWet: 100, passesDry: 100, closedFromStart: 0.35 };

/** The one table of media: generic kinds, no maker's product. Provenance by column in `PARAMETERS`. */
const TABLE = {
  chalk: {
    name: 'Chalk-type paint', kind: 'paint', volumeSolids: 0.38, wetFilmUm: 90, densityKgL: 1.45, gelWater: 0.42,
    diffusivityUm2S: 0.07, diffusivityExponent: 20, touchWater: 0.13, recoatWater: 0.06, throughWater: 0.03,
    boundWater: 0.006, skinUm: 8, cureDays: 10, fractureLengthUm: 2.2, breakStrain: 0.042, relaxationTime: 9000,
    resolubility: 0.15, suctionUm: 0.45, suctionCapacity: 0.35, ...NO_SLIP,
  },
  clay: {
    name: 'Clay-based paint', kind: 'paint', volumeSolids: 0.36, wetFilmUm: 90, densityKgL: 1.45, gelWater: 0.42,
    diffusivityUm2S: 0.07, diffusivityExponent: 20, touchWater: 0.13, recoatWater: 0.06, throughWater: 0.03,
    boundWater: 0.006, skinUm: 8, cureDays: 14, fractureLengthUm: 2.3, breakStrain: 0.043, relaxationTime: 8000,
    resolubility: 0.25, suctionUm: 0.45, suctionCapacity: 0.35, ...NO_SLIP,
  },
  latex: {
    name: 'Flat acrylic wall paint', kind: 'paint', volumeSolids: 0.36, wetFilmUm: 100, densityKgL: 1.35,
    gelWater: 0.37, diffusivityUm2S: 0.05, diffusivityExponent: 18, touchWater: 0.15, recoatWater: 0.05,
    throughWater: 0.03, boundWater: 0.006, skinUm: 8, cureDays: 10, fractureLengthUm: 1, breakStrain: 0.062,
    relaxationTime: 13000, resolubility: 0, suctionUm: 0, suctionCapacity: 0, ...NO_SLIP,
  },
  craft: {
    name: 'Craft acrylic', kind: 'paint', volumeSolids: 0.34, wetFilmUm: 60, densityKgL: 1.25, gelWater: 0.38,
    diffusivityUm2S: 0.03, diffusivityExponent: 18, touchWater: 0.15, recoatWater: 0.05, throughWater: 0.03,
    boundWater: 0.006, skinUm: 8, cureDays: 7, fractureLengthUm: 1.1, breakStrain: 0.062, relaxationTime: 13000,
    resolubility: 0, suctionUm: 0, suctionCapacity: 0, ...NO_SLIP,
  },
  primer: {
    name: 'Water-borne bonding primer', kind: 'primer', volumeSolids: 0.38, wetFilmUm: 100, densityKgL: 1.35,
    gelWater: 0.36, diffusivityUm2S: 0.05, diffusivityExponent: 22, touchWater: 0.15, recoatWater: 0.05,
    throughWater: 0.04, boundWater: 0.006, skinUm: 8, cureDays: 7, fractureLengthUm: 3, breakStrain: 0.06,
    relaxationTime: 5000, resolubility: 0, suctionUm: 0, suctionCapacity: 0, ...NO_SLIP,
  },
  crackle: {
    name: 'Crackle medium', kind: 'crackle-medium', volumeSolids: 0.32, wetFilmUm: 70, densityKgL: 1.1,
    gelWater: 0.45, diffusivityUm2S: 0.08, diffusivityExponent: 16, touchWater: 0.22, recoatWater: 0.18,
    throughWater: 0.15, boundWater: 0.045, skinUm: 6, cureDays: 7, fractureLengthUm: 2.5, breakStrain: 0.05,
    relaxationTime: 7200, resolubility: 0.85, slipRate: 13, slipHalfWater: 0.85, slipSetWater: Infinity,
    suctionUm: 0.36, suctionCapacity: 2.5, passesWet: 1.5, passesDry: 4.4, closedFromStart: 0.35,
  },
  pva: {
    name: 'White glue', kind: 'wet-glue', volumeSolids: 0.42, wetFilmUm: 110, densityKgL: 1.06, gelWater: 0.4,
    diffusivityUm2S: 0.06, diffusivityExponent: 15, touchWater: 0.15, recoatWater: 0.08, throughWater: 0.06,
    boundWater: 0.01, skinUm: 13, cureDays: 7, fractureLengthUm: 4.5, breakStrain: 0.06, relaxationTime: 7200,
    resolubility: 0.005, slipRate: 60, slipHalfWater: 0.85, slipSetWater: 0.12, suctionUm: 0.03,
    suctionCapacity: 0.3, passesWet: 4, passesDry: 8, closedFromStart: 0.35,
  },
  hide: {
    name: 'Liquid hide glue', kind: 'cured-glue', volumeSolids: 0.38, wetFilmUm: 90, densityKgL: 1.15, gelWater: 0.6,
    diffusivityUm2S: 0.01, diffusivityExponent: 9, touchWater: 0.3, recoatWater: 0.18, throughWater: 0.15,
    boundWater: 0.06, skinUm: 10, cureDays: 7, fractureLengthUm: 1.5, breakStrain: 0.03, relaxationTime: 7200,
    resolubility: 0.95, slipRate: 13, slipHalfWater: 0.4, slipSetWater: Infinity, suctionUm: 6, suctionCapacity: 3,
    passesWet: 0.8, passesDry: 4.5, closedFromStart: 0.35,
  },
} as const satisfies Record<string, Omit<Medium, 'key' | 'kind'> & { kind: MediumKind }>;

export type MediumKey = keyof typeof TABLE;

export const MEDIUM_KEYS = Object.keys(TABLE) as MediumKey[];

const MEDIA = Object.fromEntries(MEDIUM_KEYS.map((key) => [key, { key, ...TABLE[key] }])) as Readonly<
  Record<MediumKey, Medium>
>;

/**
 * The medium of a key.
 * @throws InputError `coat.medium` with the known keys
 */
export function medium(key: string): Medium {
  const found = (MEDIA as Readonly<Record<string, Medium | undefined>>)[key];
  if (found === undefined) {
    throw new InputError({ code: 'coat.medium', field: 'coat.medium', value: key, allowed: `one of ${MEDIUM_KEYS.join(', ')}` });
  }
  return found;
}
