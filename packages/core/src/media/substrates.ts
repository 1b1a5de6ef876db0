import { InputError } from '../errors';
import { type Substrate } from './types';

/** Surfaces under the first coat. All values are assumed, to be fitted from boards. */
const TABLE = {
  'raw-softwood': {
    name: 'Raw softwood',
    suctionUm: 1.1,
    capacityUm: 60,
    porosity: 1,
    baseBond: 6,
    colour: '#d9b77f',
    bare: true,
    hardness: 25,
    finish: null,
  },
  'raw-hardwood': {
    name: 'Raw hardwood',
    suctionUm: 0.8,
    capacityUm: 45,
    porosity: 0.9,
    baseBond: 6,
    colour: '#a9794a',
    bare: true,
    hardness: 40,
    finish: null,
  },
  plywood: {
    name: 'Plywood',
    suctionUm: 0.9,
    capacityUm: 50,
    porosity: 0.9,
    baseBond: 5.5,
    colour: '#d3b488',
    bare: true,
    hardness: 28,
    finish: null,
  },
  'mdf-face': {
    name: 'MDF, face',
    suctionUm: 0.7,
    capacityUm: 60,
    porosity: 0.8,
    baseBond: 5,
    colour: '#b89a6e',
    bare: true,
    hardness: 30,
    finish: null,
  },
  'mdf-edge': {
    name: 'MDF, cut edge',
    suctionUm: 2.2,
    capacityUm: 120,
    porosity: 1,
    baseBond: 6,
    colour: '#a98a60',
    bare: true,
    hardness: 25,
    finish: null,
  },
  'chalky-paint': {
    name: 'Old chalky paint',
    suctionUm: 0.7,
    capacityUm: 14,
    porosity: 0.5,
    baseBond: 3,
    colour: '#d4d3c4',
    bare: false,
    hardness: 35,
    finish: { like: 'chalk', dryUm: 90, wood: '#c9a571' },
  },
  'flat-paint': {
    name: 'Old flat paint',
    suctionUm: 0.1,
    capacityUm: 5,
    porosity: 0.1,
    baseBond: 1.3,
    colour: '#b6beb5',
    bare: false,
    hardness: 45,
    finish: { like: 'latex', dryUm: 90, wood: '#c9a571' },
  },
  primed: {
    name: 'Primed',
    suctionUm: 0.15,
    capacityUm: 8,
    porosity: 0.2,
    baseBond: 2,
    colour: '#e4e4e0',
    bare: false,
    hardness: 45,
    finish: { like: 'primer', dryUm: 45, wood: '#d0ab74' },
  },
  sealed: {
    name: 'Sealed or clear-coated',
    suctionUm: 0,
    capacityUm: 1,
    porosity: 0,
    baseBond: 0.62,
    colour: '#c49c62',
    bare: false,
    hardness: 90,
    finish: { like: 'polyO', dryUm: 60, wood: '#cba468' },
  },
  scuffed: {
    name: 'Old varnish, scuffed',
    suctionUm: 0,
    capacityUm: 1,
    porosity: 0,
    baseBond: 1,
    colour: '#a87340',
    bare: false,
    hardness: 85,
    finish: { like: 'polyO', dryUm: 70, wood: '#b98a55' },
  },
  gloss: {
    name: 'Old gloss, not scuffed',
    suctionUm: 0,
    capacityUm: 1,
    porosity: 0,
    baseBond: 0.45,
    colour: '#8b4f2b',
    bare: false,
    hardness: 90,
    finish: { like: 'polyO', dryUm: 90, wood: '#b08050' },
  },
  waxed: {
    name: 'Waxed or oiled',
    suctionUm: 0,
    capacityUm: 1,
    porosity: 0,
    baseBond: 0.12,
    colour: '#7d5a34',
    bare: false,
    hardness: 40,
    finish: null,
  },
  vinyl: {
    name: 'Vinyl or fibreglass',
    suctionUm: 0,
    capacityUm: 1,
    porosity: 0,
    baseBond: 0.3,
    colour: '#d8d6cf',
    bare: false,
    hardness: 70,
    finish: null,
  },
  metal: {
    name: 'Metal',
    suctionUm: 0,
    capacityUm: 1,
    porosity: 0,
    baseBond: 0.5,
    colour: '#8d9297',
    bare: false,
    hardness: 200,
    finish: null,
  },
  fabric: {
    name: 'Upholstery fabric',
    suctionUm: 1.6,
    capacityUm: 300,
    porosity: 1,
    baseBond: 8,
    colour: '#a39a8c',
    bare: false,
    hardness: 10,
    finish: null,
  },
} as const satisfies Record<string, Omit<Substrate, 'key'>>;

export type SubstrateKey = keyof typeof TABLE;

export const SUBSTRATE_KEYS = Object.keys(TABLE) as SubstrateKey[];

/**
 * The substrate of a key.
 * @throws InputError `panel.substrate` with the known keys
 */
export function substrate(key: string): Substrate {
  const found = (TABLE as Readonly<Record<string, Omit<Substrate, 'key'> | undefined>>)[key];
  if (found === undefined) {
    throw new InputError({
      code: 'panel.substrate',
      field: 'panel.substrate',
      value: key,
      allowed: `one of ${SUBSTRATE_KEYS.join(', ')}`,
    });
  }
  return { key, ...found };
}
