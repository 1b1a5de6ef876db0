import { normalCdf } from '../numeric/normal';

/*
 * A drying film that cannot slide stores energy; where a boundary below needs less to part than the film can give,
 * the islands between the cracks let go. Drive over bond is worked out with the crack law (`CrackLaw.driveRatio`);
 * here stands what the boundary needs, and what share goes.
 */

/** What decides how well a coat holds on what lies below it. */
export interface Boundary {
  /** Bond of the coat's medium to a scuffed base [J/m²]. */
  readonly bond: number;
  /** Factor of what lies below, 1 scuffed; porous more, sealed, glossy, waxed less. */
  readonly baseBond: number;
  /** Bonding additive, share of the full dose. */
  readonly bonding: number;
  /** Film-formed share of the layer below when the coat went on; 1 on a dry one. */
  readonly closed: number;
  /** Times the coat was wetted again and dried. */
  readonly cycles: number;
  readonly lumps: boolean;
}

/** Full dose of bonding additive makes the bond this much stronger again. */
const ADDITIVE = 5;
/** A sealer still wet grows into the coat; over by this film-formed share. */
const INTERDIFFUSION = 8;
const INTERDIFFUSION_ENDS = 0.08;
/** A tacky sealer is soft and parts easily: what remains of its hold at once, rising to all when dry. */
const SOFT_HOLD = 0.15;
/** Each wetting and drying takes this from the logarithm of the bond. */
const CYCLE_LOSS = 0.4;
/** Lumps of powder leave the coat hollow below. */
const LUMPY = 0.72;
/** Scatter of drive over bond from place to place, of the logarithm. */
export const BOND_SCATTER = 0.8;
/** No flake is counted smaller than this [µm]: below it the film goes as dust. */
export const MIN_FLAKE_UM = 1000;

/**
 * Energy a boundary needs to part [J/m²]. Two things change as a sealer dries: growing together ends soon after its
 * skin, softness ends when it is dry; so chips are easiest on a tacky one. All constants assumed.
 */
export function boundaryBond(boundary: Boundary): number {
  const { bond, baseBond, bonding, closed, cycles, lumps } = boundary;
  const grown = 1 + INTERDIFFUSION * Math.exp(-closed / INTERDIFFUSION_ENDS);
  const soft = SOFT_HOLD + (1 - SOFT_HOLD) * closed ** 4;
  return (
    bond *
    baseBond *
    (1 + ADDITIVE * bonding) *
    grown *
    soft *
    Math.exp(-CYCLE_LOSS * cycles) *
    (lumps ? LUMPY : 1)
  );
}

/**
 * Share of a film that lets go at its weakest boundary.
 * @param driveRatio - drive over bond, from the crack law
 * @param crackedShare - share of the film that has cracked: only islands can go
 * @param lifting - how much a tool helps, 1 none
 */
export function chipShare(driveRatio: number, crackedShare: number, lifting = 1): number {
  const drive = driveRatio * lifting;
  return drive <= 0 ? 0 : crackedShare * normalCdf(Math.log(drive) / BOND_SCATTER);
}
