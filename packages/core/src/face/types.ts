/** What a picture of a panel's window is made of, per pixel, row by row. Lengths in mm. */
export interface CrackRaster {
  readonly columns: number;
  readonly rows: number;
  readonly pitchMm: number;
  /** Share of the pixel that stands open, 0 … 1. */
  readonly open: Float32Array;
  /** Opening of the widest crack through the pixel [mm], 0 where none is. */
  readonly widthMm: Float32Array;
}

/** A colour in sRGB, channels 0 … 255. */
export type Rgb = readonly [number, number, number];

/** How the face is lit and coloured. */
export interface Finish {
  /** The cracked top coat. */
  readonly top: Rgb;
  /** What shows in the cracks. */
  readonly below: Rgb;
  /** Dry thickness of the top coat [mm]. */
  readonly thicknessMm: number;
  readonly strokes: 'one-way' | 'crosswise' | 'swirled' | 'dabbed';
  readonly seed: number;
  /** How low the light comes in, 0 flat … 1 raking. */
  readonly raking: number;
}
