/** One end of a crack as it grows. Lengths in mm; changed in place. */
export interface Tip {
  x: number;
  y: number;
  /** Heading, a unit vector. */
  hx: number;
  hy: number;
  readonly crack: number;
  readonly sign: number;
  /** Length from the nucleus. */
  arc: number;
  /** Segment it last laid, −1 for none. */
  last: number;
  state: 'running' | 'arrested' | 'done';
  /** Stress share at which an arrested tip goes on. */
  requiredLoad: number;
  /** Stress per direction as last seen, refreshed in thirds. */
  readonly seen: Float64Array;
  phase: number;
  energyLeft: number;
  energyRight: number;
}

/** A tip at a nucleus with the normal (nx, ny), one of two that run apart. @param sign - which way */
export function newTip(
  crack: number,
  sign: number,
  x: number,
  y: number,
  nx: number,
  ny: number,
  energyLeft: number,
  energyRight: number,
  directions: number,
): Tip {
  return {
    x,
    y,
    hx: -ny * sign,
    hy: nx * sign,
    crack,
    sign,
    arc: 0,
    last: -1,
    state: 'running',
    requiredLoad: 0,
    seen: new Float64Array(directions),
    phase: -1,
    energyLeft,
    energyRight,
  };
}
