/*
 * Least squares by Levenberg and Marquardt (Marquardt 1963, J. SIAM 11:431), with numeric slopes, inside ranges, and
 * where wanted with a loss that lets single readings be wrong: 5 ln(1 + r²/4), that of Student's t with four degrees of
 * freedom. Priors are residuals of their own.
 */

/** A place tried, with how far off it is. */
export interface Point {
  readonly at: readonly number[];
  readonly residuals: readonly number[];
  readonly cost: number;
}

export interface FitRules {
  /** Range of every coordinate. */
  readonly low: number;
  readonly high: number;
  /** Step of the numeric slopes. */
  readonly slope: number;
  readonly iterations: number;
  /** So many residuals, the first ones, count by the robust loss; none when left out. */
  readonly robust?: number;
}

export interface Fit extends Point {
  readonly ended: 'converged' | 'no-better' | 'max';
}

const DAMPING = { first: 0.02, least: 1e-4, worse: 5, better: 4 };
const ATTEMPTS = 4;
/** Ends when the cost falls by less than this share, and that much. */
const SETTLED = { share: 1e-3, rest: 1e-6 };

/** Solves a small symmetric positive system in place by Cholesky's square roots. */
export function solved(matrix: number[][], right: readonly number[]): number[] {
  const n = right.length;
  for (let j = 0; j < n; j++) {
    for (let i = j; i < n; i++) {
      let sum = matrix[i]![j]!;
      for (let k = 0; k < j; k++) sum -= matrix[i]![k]! * matrix[j]![k]!;
      matrix[i]![j] = i === j ? Math.sqrt(Math.max(1e-12, sum)) : sum / matrix[j]![j]!;
    }
  }
  const x = [...right];
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) x[i] = x[i]! - matrix[i]![k]! * x[k]!;
    x[i] = x[i]! / matrix[i]![i]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) x[i] = x[i]! - matrix[k]![i]! * x[k]!;
    x[i] = x[i]! / matrix[i]![i]!;
  }
  return x;
}

/** The inverse of a small symmetric positive matrix. */
export const inverse = (matrix: readonly (readonly number[])[]): number[][] =>
  matrix.map((_, k) =>
    solved(
      matrix.map((row) => [...row]),
      matrix.map((__, i) => (i === k ? 1 : 0)),
    ),
  );

const loss = (residual: number, robust: boolean): number =>
  robust ? 5 * Math.log1p(residual ** 2 / 4) : residual * residual;

/** A place with its residuals and what they cost. @param robust - so many residuals count by the robust loss */
export const pointAt = (at: readonly number[], residuals: readonly number[], robust = 0): Point => ({
  at,
  residuals,
  cost: residuals.reduce((sum, residual, r) => sum + loss(residual, r < robust), 0),
});

/**
 * Descends from a place to where the residuals are least.
 * @param residualsAt - how far off each thing is at a place
 */
export function descend(
  start: Point,
  residualsAt: (at: readonly number[]) => readonly number[],
  { low, high, slope, iterations, robust = 0 }: FitRules,
): Fit {
  const n = start.at.length;
  if (n === 0) return { ...start, ended: 'converged' };
  let here = start;
  let damping = DAMPING.first;
  for (let iteration = 0; iteration < iterations; iteration++) {
    const weights = here.residuals.map((residual, r) => (r < robust ? 5 / (4 + residual ** 2) : 1));
    const columns = here.at.map((coordinate, k) => {
      const by = coordinate + slope <= high ? slope : -slope;
      const moved = residualsAt(here.at.map((c, i) => (i === k ? c + by : c)));
      return moved.map((residual, r) => (residual - here.residuals[r]!) / by);
    });
    const times = (a: readonly number[], b: readonly number[]): number =>
      a.reduce((sum, value, r) => sum + value * b[r]! * weights[r]!, 0);
    const gradient = columns.map((column) => -times(column, here.residuals));
    const before = here.cost;
    for (let attempt = 0; attempt < ATTEMPTS; attempt++) {
      const matrix = columns.map((a, i) =>
        columns.map((b, j) => (i === j ? times(a, b) * (1 + damping) + damping : times(a, b))),
      );
      const step = solved(matrix, gradient);
      const at = here.at.map((coordinate, k) => Math.min(high, Math.max(low, coordinate + step[k]!)));
      const next = pointAt(at, residualsAt(at), robust);
      if (next.cost < here.cost) {
        here = next;
        damping = Math.max(DAMPING.least, damping / DAMPING.better);
        break;
      }
      damping *= DAMPING.worse;
    }
    if (here.cost === before) return { ...here, ended: 'no-better' };
    if (before - here.cost < SETTLED.share * before + SETTLED.rest) return { ...here, ended: 'converged' };
  }
  return { ...here, ended: 'max' };
}
