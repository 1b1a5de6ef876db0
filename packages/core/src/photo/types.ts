/*
 * Cracks measured from a photograph of a rectangle of known size: told by its corners, or by a printed frame round it.
 * What cannot be read well enough is not told: a wrong number is worse than none.
 */

/** A picture as a browser decodes it: four bytes a pixel, row by row from the upper left. */
export interface Picture {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray | Uint8Array;
}

/** A place in a picture [px], or on a board [mm], from the upper left. */
export interface Spot {
  readonly x: number;
  readonly y: number;
}
/** Corners of the rectangle in the picture: upper left, upper right, lower right, lower left. */
export type Quad = readonly [Spot, Spot, Spot, Spot];

/** A rectangle on a board [mm]. */
export interface Box {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** Luminance of the rectangle, square on, against white paper or the brightest a picture holds. */
export interface Luma {
  readonly columns: number;
  readonly rows: number;
  /** [mm] of a pixel. */
  readonly pitch: number;
  /** Linear. */
  readonly y: Float32Array;
  /** Share of pixels at the top of the scale. */
  readonly clipped: number;
}

/** Colours of the rectangle, linear, three values a pixel. */
export interface Tinted {
  readonly columns: number;
  readonly rows: number;
  readonly pitch: number;
  readonly rgb: Float32Array;
}

/** What is known of a picture besides itself. */
export interface Known {
  /** Standard deviation of its blur [px]. */
  readonly blur: number;
  /** Relative scatter of lightly smoothed luminance at the paint's level; null where nothing in the picture tells. */
  readonly noise: number | null;
  /** Share by which sharp edges overshoot: what a camera's own sharpening does. */
  readonly overshoot: number;
  /** Looked at on each side and not counted: lines run along a border, and tape leaves an edge there [px]. */
  readonly rim: readonly [number, number];
  /** Luminance of the top coat against paper, as planned; null where there is no paper, or no plan. */
  readonly paint: number | null;
  /** Whether cracks are the darker ones, and how far off paint their floors are [share], as other cells have it. */
  readonly dark: boolean | null;
  readonly contrast: number | null;
}

/** A correction by hand: a stroke [mm on the rectangle] that wipes out what was taken for crack, or draws one. */
export interface Correction {
  readonly kind: 'erase' | 'draw';
  readonly widthMm: number;
  readonly points: readonly Spot[];
}

/** How far a figure can be trusted, or why there is none. */
export type Trust =
  'measured' | 'about' | 'too-thin' | 'too-fine' | 'too-faint' | 'glare' | 'blurred' | 'too-few' | 'chipped';

/** Within what share a figure holds, or points of an area. */
export const HOLDS = {
  measured: { spacing: 0.04, opening: 0.06, area: 0.01 },
  about: { spacing: 0.12, opening: 0.12, area: 0.03 },
} as const;

export interface PhotoReading {
  /** Mean line intercept of the islands [mm]; null where it is not told. */
  readonly spacingMm: number | null;
  /** The same along and across the rectangle's upper side [mm]. */
  readonly alongMm: number | null;
  readonly acrossMm: number | null;
  /** Other places of the same paint lie within this share of it, 19 in 20. */
  readonly spacingWithin: number;
  /** Mean opening [mm], and what a tenth is narrower and wider than; null where they are not told. */
  readonly openingMm: number | null;
  readonly narrowMm: number | null;
  readonly wideMm: number | null;
  /** Share of the area that stands open; null where it is not told. */
  readonly openArea: number | null;
  /** Share that is gone in places wider than any crack. */
  readonly chipped: number;
  readonly trust: { readonly spacing: Trust; readonly opening: Trust; readonly area: Trust };
  /** Opening in pixels of the photograph, as far as it could be read. */
  readonly openingPx: number;
  /** Pixels of the photograph for a millimetre. */
  readonly pxPerMm: number;
  /** What was taken for crack, 1 a pixel, to be looked at over the picture. */
  readonly cracks: { readonly columns: number; readonly rows: number; readonly mask: Uint8Array };
}
