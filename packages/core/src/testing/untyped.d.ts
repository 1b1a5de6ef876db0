declare module 'psychrolib' {
  const psychrolib: {
    SI: number;
    SetUnitSystem(system: number): void;
    GetSatVapPres(t: number): number;
    GetTDewPointFromRelHum(t: number, rh: number): number;
    GetTWetBulbFromRelHum(t: number, rh: number, pressure: number): number;
  };
  export default psychrolib;
}
declare module 'odex' {
  export class Solver {
    constructor(n: number);
    absoluteTolerance: number;
    relativeTolerance: number;
    maxStepSize: number;
    solve(f: (x: number, y: number[]) => number[], x0: number, y0: number[], xEnd: number): { y: number[] };
  }
}
