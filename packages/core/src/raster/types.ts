/** What a picture of a panel's window is made of, per pixel, row by row. Lengths in mm. */
export interface CrackRaster {
  readonly columns: number;
  readonly rows: number;
  readonly pitchMm: number;
  /** Share of the pixel that stands open, 0 … 1. */
  readonly open: Float32Array;
  /** Opening of the widest crack through the pixel [mm], 0 where none is. */
  readonly widthMm: Float32Array;
  /** Share of the final stress at which that crack opened there; 2 where none is. */
  readonly birth: Float32Array;
}
