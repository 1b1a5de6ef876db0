/*
 * Cracks measured from a photograph of a rectangle of known size, whose corners are told. What cannot be read well enough
 * is not told: a wrong number is worse than none.
 */

/** A picture as a browser decodes it: four bytes a pixel, row by row from the upper left. */
export interface Picture {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray | Uint8Array;
}

/** A place in a picture [px]. */
export interface Spot {
  readonly x: number;
  readonly y: number;
}
/** Corners of the rectangle in the picture: upper left, upper right, lower right, lower left. */
export type Quad = readonly [Spot, Spot, Spot, Spot];

/** Luminance of the rectangle, square on, against the brightest a picture holds. */
export interface Luma {
  readonly columns: number;
  readonly rows: number;
  /** [mm] of a pixel. */
  readonly pitch: number;
  /** Linear, 0 … 1. */
  readonly y: Float32Array;
  /** Share of pixels at the top of the scale. */
  readonly clipped: number;
}

/** How far a figure can be trusted: within 12 % or 3 points, or not at all, with why. */
export type Trust = 'about' | 'too-thin' | 'too-fine' | 'too-faint' | 'glare' | 'too-few';

export interface PhotoReading {
  /** Mean line intercept of the islands [mm]; null where it is not told. */
  readonly spacingMm: number | null;
  /** 8 in 10 of other places of the same paint lie within this share of it. */
  readonly spacingWithin: number;
  /** Mean opening [mm]; null where it is not told. */
  readonly openingMm: number | null;
  /** Share of the area that stands open; null where it is not told. */
  readonly openArea: number | null;
  readonly trust: { readonly spacing: Trust; readonly opening: Trust };
  /** Opening in pixels of the photograph, as far as it could be read. */
  readonly openingPx: number;
  /** Pixels of the photograph for a millimetre. */
  readonly pxPerMm: number;
  /** What was taken for crack, 1 a pixel, to be looked at over the picture. */
  readonly cracks: { readonly columns: number; readonly rows: number; readonly mask: Uint8Array };
}
