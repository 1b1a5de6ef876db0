/** A direction with its variance. */
export interface Axis {
  readonly variance: number;
  readonly direction: readonly number[];
}

const SWEEPS = 30;

/**
 * Principal axes of a symmetric matrix, by Jacobi's rotations.
 * @see Golub & Van Loan 1996, Matrix Computations, section 8.4 (from memory)
 */
export function principalAxes(matrix: readonly (readonly number[])[]): Axis[] {
  const n = matrix.length;
  const a = matrix.map((row) => [...row]);
  const v = matrix.map((_, i) => matrix.map((_, j) => (i === j ? 1 : 0)));
  const turn = (rows: number[][], p: number, q: number, c: number, s: number, columns: boolean): void => {
    for (let k = 0; k < n; k++) {
      const x = columns ? rows[k]![p]! : rows[p]![k]!;
      const y = columns ? rows[k]![q]! : rows[q]![k]!;
      if (columns) {
        rows[k]![p] = c * x - s * y;
        rows[k]![q] = s * x + c * y;
      } else {
        rows[p]![k] = c * x - s * y;
        rows[q]![k] = s * x + c * y;
      }
    }
  };
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    let off = 0;
    for (let p = 0; p < n; p++) {
      for (let q = p + 1; q < n; q++) {
        const apq = a[p]![q]!;
        off += apq * apq;
        if (Math.abs(apq) < 1e-300) continue;
        const theta = (a[q]![q]! - a[p]![p]!) / (2 * apq);
        const t = (theta < 0 ? -1 : 1) / (Math.abs(theta) + Math.sqrt(theta * theta + 1));
        const c = 1 / Math.sqrt(t * t + 1);
        turn(a, p, q, c, t * c, true);
        turn(a, p, q, c, t * c, false);
        turn(v, p, q, c, t * c, true);
      }
    }
    if (off < 1e-24) break;
  }
  return a.map((row, i) => ({ variance: Math.max(0, row[i]!), direction: v.map((line) => line[i]!) }));
}
