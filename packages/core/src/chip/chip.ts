import { normalCdf, normalQuantile } from '../numeric/normal';

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
const INTERDIFFUSION_ENDS = 0.1;
/** A tacky sealer is soft and parts easily: what remains of its hold at once, rising to all when dry. */
const SOFT_HOLD = 0.15;
/** Power of the film-formed share with which it hardens: it stays soft until it is nearly touch-dry. */
const HARDENS = 10;
/** Each wetting and drying takes this from the logarithm of the bond. */
const CYCLE_LOSS = 0.4;
/** Lumps of powder leave the coat hollow below. */
const LUMPY = 0.72;
/** Scatter of drive over bond from place to place, of the logarithm; assumed. */
export const BOND_SCATTER = 0.65;
/** No flake is counted smaller than this [µm]: below it the film goes as dust. */
export const MIN_FLAKE_UM = 1000;
/** A flake is one island or several: so much larger than the mean of them; common practice, from memory. */
const ISLANDS = 1.3;

/** Size of flakes between cracks so far apart [µm]. */
export const flakeUm = (spacingUm: number): number => Math.max(MIN_FLAKE_UM, ISLANDS * spacingUm);

/**
 * Energy a boundary needs to part [J/m²]. Two things change as a sealer dries: growing together ends soon after its
 * skin, softness ends when it is dry; so chips are easiest on a tacky one. All constants assumed.
 */
export function boundaryBond(boundary: Boundary): number {
  const { bond, baseBond, bonding, closed, cycles, lumps } = boundary;
  const grown = 1 + INTERDIFFUSION * Math.exp(-closed / INTERDIFFUSION_ENDS);
  const soft = SOFT_HOLD + (1 - SOFT_HOLD) * closed ** HARDENS;
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
 * The one bond that lets as much of a film go as several that hold a like part of it each: a layer below is never as
 * dry in one place as in another.
 * @param drive - energy the film can give [J/m²]
 */
export function jointBond(bonds: readonly number[], drive: number): number {
  if (!(drive > 0) || bonds.length === 1) return Math.min(...bonds);
  const goes = bonds.reduce((sum, bond) => sum + normalCdf(Math.log(drive / bond) / BOND_SCATTER), 0);
  const share = Math.min(1 - 1e-12, Math.max(1e-12, goes / bonds.length));
  return drive / Math.exp(BOND_SCATTER * normalQuantile(share));
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
