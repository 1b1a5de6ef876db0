/** The part of odex 2.0 that the checks use; its own sources do not compile under strict settings. */
export declare class Solver {
  constructor(equations: number);
  absoluteTolerance: number;
  relativeTolerance: number;
  solve(
    derivative: (x: number, y: number[]) => number[],
    from: number,
    start: number[],
    to: number,
  ): { y: number[] };
}
