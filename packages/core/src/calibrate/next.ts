import { type FactorKey, type Learned } from '../media';
import { inverse } from '../numeric/fit';
import { answersOf, keysOf, SCATTER } from './answers';
import { priorOf } from './calibrate';
import { type Cell, type Reading } from './types';

/** A cell that could be made, with what would be read off it. */
export interface Candidate {
  readonly cell: Cell;
  readonly reads: readonly Reading[];
}

/** Step of the numeric slopes [ln]. */
const SLOPE = 0.06;
/** What one reading counts, with one in a few that does not fit; assumed. */
const COUNTS = 0.7;

/** How the readings of a cell go with each factor, in their scatter. */
function slopesOf(
  cell: Cell,
  reads: readonly Reading[],
  keys: readonly FactorKey[],
  mean: readonly number[],
): number[][] {
  const at = (moved: readonly number[]): ReturnType<typeof answersOf> =>
    answersOf(cell, { keys, mean: moved, covariance: keys.map(() => keys.map(() => 0)) }, reads);
  const here = at(mean);
  const moved = keys.map((_, k) => at(mean.map((value, i) => (i === k ? value + SLOPE : value))));
  return reads.flatMap((reading) => {
    const told = here.read[reading];
    if (told === null) return [];
    return [
      moved.map(({ read }) =>
        read[reading] === null ? 0 : (read[reading]! - told) / SLOPE / SCATTER[reading],
      ),
    ];
  });
}

type Matrix = number[][];
const added = (to: Matrix, slopes: readonly (readonly number[])[]): Matrix =>
  to.map((row, i) => row.map((value, j) => slopes.reduce((sum, g) => sum + COUNTS * g[i]! * g[j]!, value)));

/** Mean variance of what is asked, in the scatter of one reading. */
function spreadOf(information: Matrix, goals: readonly (readonly number[])[]): number {
  const covariance = inverse(information);
  const one = (g: readonly number[]): number =>
    g.reduce((sum, gi, i) => sum + g.reduce((own, gj, j) => own + gi * covariance[i]![j]! * gj, 0), 0);
  return goals.reduce((sum, goal) => sum + one(goal), 0) / Math.max(1, goals.length);
}

/**
 * Which cells to make: one after the other the one that leaves least uncertain of what is asked, at what is believed now.
 * @param asked - cells of which figures are wanted, and which
 * @returns indices among the candidates, each with how uncertain what is asked is then [of one reading's scatter]
 */
export function chooseCells(
  candidates: readonly Candidate[],
  asked: readonly Candidate[],
  count: number,
  learned: Learned | null = null,
): {
  readonly chosen: readonly { readonly index: number; readonly left: number }[];
  readonly before: number;
} {
  const all = [...candidates, ...asked];
  const keys = [...new Set(all.flatMap(({ cell, reads }) => keysOf(cell, reads)))].sort();
  const mean = keys.map((key) => learned?.mean[learned.keys.indexOf(key)] ?? 0);
  const known = keys.map((a, i) =>
    keys.map((b, j) => {
      const [x, y] = [learned?.keys.indexOf(a) ?? -1, learned?.keys.indexOf(b) ?? -1];
      if (x >= 0 && y >= 0) return learned!.covariance[x]![y]!;
      return i === j ? priorOf(a) ** 2 : 0;
    }),
  );
  const goals = asked.flatMap(({ cell, reads }) => slopesOf(cell, reads, keys, mean));
  const slopes = candidates.map(({ cell, reads }) => slopesOf(cell, reads, keys, mean));
  let information = inverse(known);
  const before = Math.sqrt(spreadOf(information, goals));
  const chosen: { index: number; left: number }[] = [];
  while (chosen.length < count) {
    let best = { index: -1, left: Infinity };
    slopes.forEach((own, index) => {
      if (chosen.some((one) => one.index === index)) return;
      const left = spreadOf(added(information, own), goals);
      if (left < best.left - 1e-12) best = { index, left };
    });
    if (best.index < 0) break;
    information = added(information, slopes[best.index]!);
    chosen.push({ index: best.index, left: Math.sqrt(best.left) });
  }
  return { chosen, before };
}
