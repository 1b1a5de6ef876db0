/** Where a film ends: `free` at a rim, which relieves it like a crack; `pinned` where it goes on or wraps round. */
export type Edge = 'free' | 'pinned';

/** How the brush went: sets direction and regularity of the cracks. */
export const STROKES = ['one-way', 'crosswise', 'swirled', 'dabbed'] as const;
export type Strokes = (typeof STROKES)[number];

/**
 * How a film's law differs from place to place, as ratios against the mean film: a raster over the window, row by
 * row, read in between the middles of its cells.
 */
export interface LocalLaw {
  readonly columns: number;
  readonly rows: number;
  /** Of the pull length. */
  readonly pull: readonly number[];
  /** Of the free strain, and with it of the stress. */
  readonly strain: readonly number[];
}

/** One film on one panel, ready to crack. Lengths in mm; made from a `CrackLaw` by `fieldInput`. */
export interface FieldInput {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly edges: { readonly left: Edge; readonly right: Edge; readonly top: Edge; readonly bottom: Edge };
  readonly seed: number;
  /** Pull length ℓ. */
  readonly pullLengthMm: number;
  /** Slip number P = s0 h/(τ ℓ); 0 where the layer below holds without friction limit. */
  readonly slipNumber: number;
  /** Strength over final stress q; the film breaks only below 1. */
  readonly strengthRatio: number;
  /** Final free strain ε. */
  readonly strain: number;
  /** Toughness over stiffness λ. */
  readonly fractureLengthMm: number;
  readonly strokes: Strokes;
  /** How much weaker the film is across the strokes, 0 none … 0.7. */
  readonly strokeContrast: number;
  /** How uneven film, flaws and hand are: 1 as painted, 0 ideally even, for checks against exact solutions. */
  readonly scatter: number;
  /** `coarse` halves the resolution and the number of flaws, for a picture that follows the hand. */
  readonly quality: 'full' | 'coarse';
  /** Where the film lies thicker or thinner; none where it is alike all over. */
  readonly local?: LocalLaw;
}

/**
 * Cracks as line segments in the order they grew; arrays are trimmed to `count`. Lengths in mm.
 * `birth` is the share of the final stress at which a segment opened, rising within the arrays' growth.
 */
export interface CrackField {
  readonly input: FieldInput;
  readonly count: number;
  readonly x0: Float32Array;
  readonly y0: Float32Array;
  readonly x1: Float32Array;
  readonly y1: Float32Array;
  readonly width: Float32Array;
  readonly birth: Float32Array;
  /** Index of the segment this one continues, −1 at a nucleus. */
  readonly previous: Int32Array;
  /** Which crack a segment belongs to. */
  readonly crack: Int32Array;
  readonly crackCount: number;
  /** How the tips ended, for tests and for the eye. */
  readonly joinedTips: number;
  readonly freeTips: number;
  /** Angles at which tips met other cracks [rad], 0 … π/2. */
  readonly junctionAngles: Float32Array;
  /** Rays cast, the unit of cost. */
  readonly rays: number;
  readonly fingerprint: number;
}
