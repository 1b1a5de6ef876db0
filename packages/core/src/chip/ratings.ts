/*
 * Published classes for how much comes off; quoted from memory.
 *   ISO 4628-5 (flaking): quantity 0 … 5 at 0, 0.1, 0.3, 1, 3 and 15 % of the area; size 1 … 5 at up to 1, 3, 10, 30 mm
 *   and more.
 *   ISO 2409 (cross-cut): class 0 … 5, up to 0, 5, 15, 35, 65 % and more.  ASTM D3359 B: 5B … 0B at the same shares.
 */

const FLAKING = [0.001, 0.003, 0.01, 0.03, 0.15] as const;
const FLAKE_SIZES = [0.001, 0.003, 0.01, 0.03] as const;
const CROSS_CUT = [0, 0.05, 0.15, 0.35, 0.65] as const;

/** ISO 4628-5 quantity class 0 … 5 of a flaked share, the nearest class by geometric mean. */
export function flakingClass(share: number): number {
  if (share < FLAKING[0] / Math.sqrt(10)) return 0;
  const between = FLAKING.slice(1).map((limit, i) => Math.sqrt(limit * (FLAKING[i] ?? limit)));
  return 1 + between.filter((limit) => share >= limit).length;
}

/** ISO 4628-5 size class S1 … S5 of a flake [m]. */
export function flakeSizeClass(size: number): number {
  return 1 + FLAKE_SIZES.filter((limit) => size > limit).length;
}

/** ISO 2409 cross-cut class 0 … 5 of a detached share. */
export function adhesionClass(share: number): number {
  return CROSS_CUT.filter((limit) => share > limit).length;
}

/** ASTM D3359 method B grade of a detached share: 5B nothing … 0B more than 65 %. */
export function adhesionGrade(share: number): string {
  return `${5 - adhesionClass(share)}B`;
}
