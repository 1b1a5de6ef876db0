import { type Picture, type Quad, type Spot } from './types';

/**
 * From places on a board to pixels: a homography and one radial term. With `(u, v, w) = h · (x, y, 1)`, `p = (u, v)/w` and
 * `r = |p|`, the pixel is `middle + half · (1 + k1 r²) · p`.
 */
export interface Lens {
  /** Nine numbers, row by row [1/mm … 1]. */
  readonly h: readonly number[];
  readonly k1: number;
  /** Middle of the picture, and half its diagonal [px]. */
  readonly middle: Spot;
  readonly half: number;
}

/** Middle and half diagonal of a picture [px]. */
export const middleOf = ({
  width,
  height,
}: Pick<Picture, 'width' | 'height'>): Pick<Lens, 'middle' | 'half'> => ({
  middle: { x: width / 2, y: height / 2 },
  half: Math.hypot(width, height) / 2,
});

/** The pixel of a place on a board [mm]. */
export function toPixel({ h, k1, middle, half }: Lens, x: number, y: number): Spot {
  const w = h[6]! * x + h[7]! * y + h[8]!;
  const u = (h[0]! * x + h[1]! * y + h[2]!) / w;
  const v = (h[3]! * x + h[4]! * y + h[5]!) / w;
  const by = half * (1 + k1 * (u * u + v * v));
  return { x: middle.x + u * by, y: middle.y + v * by };
}

/** Pixels for a millimetre about a place, along x and along y. */
export function scaleAt(lens: Lens, x: number, y: number): [number, number] {
  const [a, b] = [toPixel(lens, x - 0.5, y), toPixel(lens, x + 0.5, y)];
  const [c, d] = [toPixel(lens, x, y - 0.5), toPixel(lens, x, y + 0.5)];
  return [Math.hypot(b.x - a.x, b.y - a.y), Math.hypot(d.x - c.x, d.y - c.y)];
}

/**
 * The lens that puts a rectangle of so many millimetres on four corners.
 * @see Heckbert 1989, Fundamentals of Texture Mapping and Image Warping, section 2.2.3 (from memory)
 */
export function lensOfQuad(
  [p0, p1, p2, p3]: Quad,
  size: { readonly width: number; readonly height: number },
  picture: Pick<Picture, 'width' | 'height'>,
): Lens {
  const d1 = { x: p1.x - p2.x, y: p1.y - p2.y };
  const d2 = { x: p3.x - p2.x, y: p3.y - p2.y };
  const d3 = { x: p0.x - p1.x + p2.x - p3.x, y: p0.y - p1.y + p2.y - p3.y };
  const det = d1.x * d2.y - d2.x * d1.y;
  const g = (d3.x * d2.y - d2.x * d3.y) / det;
  const k = (d1.x * d3.y - d3.x * d1.y) / det;
  const { middle, half } = middleOf(picture);
  const row = (a: number, b: number, c: number, shift: number): number[] => [
    (a - shift * g) / half / size.width,
    (b - shift * k) / half / size.height,
    (c - shift) / half,
  ];
  return {
    h: [
      ...row(p1.x - p0.x + g * p1.x, p3.x - p0.x + k * p3.x, p0.x, middle.x),
      ...row(p1.y - p0.y + g * p1.y, p3.y - p0.y + k * p3.y, p0.y, middle.y),
      g / size.width,
      k / size.height,
      1,
    ],
    k1: 0,
    middle,
    half,
  };
}
