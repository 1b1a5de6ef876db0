import { checkRange } from '../errors';
import { SECONDS_PER_HOUR } from '../units';

/*
 * A reactive stain, rusty iron in vinegar: iron turns the tannin of the wood dark. How dark follows how much tannin a
 * wood holds. Contents in per cent of dry mass are of the order told for such woods (oak some 7, pine next to none); they
 * and the colours are from memory, the order of the woods is common practice: oak and walnut nearly black, pine least.
 */

export const WOODS = ['oak', 'walnut', 'mahogany', 'cherry', 'beech', 'birch', 'pine'] as const;
export type Wood = (typeof WOODS)[number];

/** Tannin, per cent of the dry mass; from memory. */
const TANNIN: Readonly<Record<Wood, number>> = {
  oak: 7,
  walnut: 5,
  mahogany: 3,
  cherry: 2.2,
  beech: 1,
  birch: 0.7,
  pine: 0.35,
};

/** Tannin at which most of what can darken has [per cent]; assumed. */
const ENOUGH = 2.5;
/** It darkens over about this long [s]; common practice: within the hour most, overnight all. */
const DARKENS_OVER = 1.2 * SECONDS_PER_HOUR;
/** Iron tannate in wood. */
export const IRON_TANNATE = '#37332f';
/** Share of the wood's own colour that is gone when all has turned; assumed. */
const DARKEST = 0.92;

/**
 * How far a reactive stain has turned a wood towards iron tannate, 0 not at all … 1.
 * @param sits - how long it has been on the wood [s]
 * @throws InputError `wood.sits`
 */
export function stainDarkness(wood: Wood, sits: number): number {
  checkRange('wood.sits', sits, { min: 0, max: Infinity }, 's');
  const tannin = 1 - Math.exp(-TANNIN[wood] / ENOUGH);
  return DARKEST * tannin * (1 - Math.exp(-sits / DARKENS_OVER));
}
