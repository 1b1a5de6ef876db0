/** Energy release of a channelling crack in a film on a like substrate: G = Z σ² h/E. Hutchinson & Suo 1992, Adv. Appl. Mech. 29 (quoted from memory). */
export const CHANNEL_Z = 1.976;
/** A crack needs this many times its running toughness to start from a flaw; ours, shared with the field. */
export const NUCLEATION = 3;
/**
 * Mean over largest fragment where strength spaces the cracks, falling with the strength ratio: flaws tell more the
 * closer the film is to not breaking at all. Measured on the field, q 0.3 … 0.8 (field.spec.ts).
 */
export const meanOfLargestByStrength = (strengthRatio: number): number => 0.78 - 0.34 * strengthRatio;
/** The same where toughness spaces them, by 3λ/(ε² ℓ); measured on the field, 0.05 … 0.6. */
export const meanOfLargestByToughness = (toughnessRatio: number): number => 0.53 * toughnessRatio ** -0.11;
/** Mean line intercept over 2 · area / crack length of an isotropic network; stereology. */
export const INTERCEPT_OF_AREA = Math.PI / 4;
/** Share of the elastic opening that stays, after dead ends and finite fragments, by half spacing over ℓ; measured on the field. */
export const openingShare = (halfSpacing: number): number => 0.66 + 0.14 * halfSpacing;
/** Overlap at junctions: open area over opening × crack length; measured on the field. */
export const JUNCTION_SHARE = 0.95;
/** Bond of a coat that does not slip at all, as a share of the free strain; assumed. */
export const BONDED_STRAIN = 0.75;
/** A porous ground keys the coat and takes up to this share of its strain; assumed. */
export const POROUS_HOLD = 0.45;
/** Mobility at which half the strain is free to gather; assumed. */
export const HALF_BOND_MOBILITY = 0.03;
/** Activation energy of the layer's flow [J/mol]: cold medium is stiffer; assumed. */
export const FLOW_ACTIVATION = 70000;
/** Liquid paint over a re-soluble layer joins the slip zone, per this thickness [µm]; assumed. */
export const LIQUID_SLIP_UM = 43;
/** Share of the strain a young skin carries; assumed. */
export const SKIN_STRAIN = 0.54;
/** The skin must hold this share of the solids before it can tear the coat; assumed. */
export const TEARING_SKIN = 0.12;
/** Scatter of the log strength over the film and of the log strain of film breaks; assumed. */
export const TOUGHNESS_SCATTER = 0.25;
export const STRENGTH_SCATTER = 0.15;
/** Islands cannot be told from an uncracked film beyond this strength ratio. */
export const MAX_STRENGTH_RATIO = 0.97;
/** Opening that a person sees clearly at arm's length [µm]; assumed. */
export const CLEAR_OPENING_UM = 60;
/** Half-width of the relaxation's fall with humidity: halves for 25 points of relative humidity more; assumed. */
export const RELAXATION_HALVING_HUMIDITY = 0.25;
/** Hot air adds this share to the strain, each wetting and drying that share; assumed. */
export const HEAT_STRAIN = 0.42;
export const CYCLE_STRAIN = 0.12;
/** Compliance of a boundary that has begun to part [µm]: what comes loose slips, and its islands grow; assumed. */
export const PARTING = 8e6;
/**
 * Cracks come early; what relaxes after they have come closes them without spacing them wider. Power of what relaxation
 * leaves that the spacing does not feel; assumed.
 */
export const AFTER_CRACKING = 0.5;
/** The first crack starts at the worst flaw of a film: toughness against that of ordinary ones; assumed. */
export const FIRST_FLAW = 0.65;
/** Of a layer that flows freely, so much [µm of its solids] leaves a coat half of what holds it; assumed. */
export const FLOATS_ON_UM = 80;
/** Of a film this thick [µm] hot air leaves the lower half wet, and doubles what it does; up to so much more; assumed. */
export const SKINS_OVER_UM = 90;
export const MOST_SKINNED = 1.6;
