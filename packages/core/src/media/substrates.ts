import { InputError } from '../errors';
import { type Substrate } from './types';

/** Surfaces under the first coat. Suction and capacity are assumed, to be fitted from boards. */
const TABLE = {
  'raw-softwood': { name: 'Raw softwood', suctionUm: 1.1, capacityUm: 60, porosity: 1 },
  'raw-hardwood': { name: 'Raw hardwood', suctionUm: 0.8, capacityUm: 45, porosity: 0.9 },
  'mdf-face': { name: 'MDF, face', suctionUm: 0.7, capacityUm: 60, porosity: 0.8 },
  'mdf-edge': { name: 'MDF, cut edge', suctionUm: 2.2, capacityUm: 120, porosity: 0.8 },
  'chalky-paint': { name: 'Old chalky paint', suctionUm: 0.7, capacityUm: 14, porosity: 0.5 },
  'flat-paint': { name: 'Old flat paint', suctionUm: 0.1, capacityUm: 5, porosity: 0.1 },
  primed: { name: 'Primed', suctionUm: 0.15, capacityUm: 8, porosity: 0.2 },
  sealed: { name: 'Sealed or clear-coated', suctionUm: 0, capacityUm: 1, porosity: 0 },
  scuffed: { name: 'Old varnish, scuffed', suctionUm: 0, capacityUm: 1, porosity: 0 },
  gloss: { name: 'Old gloss, not scuffed', suctionUm: 0, capacityUm: 1, porosity: 0 },
  waxed: { name: 'Waxed or oiled', suctionUm: 0, capacityUm: 1, porosity: 0 },
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
