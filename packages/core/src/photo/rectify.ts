import { checkRange, InputError } from '../errors';
import { type Luma, type Picture, type Quad, type Spot } from './types';

/** Sides a rectangle may have [mm], and pixels it needs across and is looked at with at most. */
const SIDE = { min: 10, max: 2000 } as const;
const LEAST_PX = 80;
const MOST_PX = 2000;
/** A channel at this is as bright as the picture can say. */
const CLIPPED = 253;

/** sRGB to linear, by byte (IEC 61966-2-1). */
const LINEAR = Float32Array.from({ length: 256 }, (_, i) => {
  const c = i / 255;
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
});

/**
 * Where places of the unit square lie in a quadrilateral seen in perspective.
 * @see Heckbert 1989, Fundamentals of Texture Mapping and Image Warping, section 2.2.3 (from memory)
 */
export function perspective([p0, p1, p2, p3]: Quad): (u: number, v: number) => Spot {
  const d1 = { x: p1.x - p2.x, y: p1.y - p2.y };
  const d2 = { x: p3.x - p2.x, y: p3.y - p2.y };
  const d3 = { x: p0.x - p1.x + p2.x - p3.x, y: p0.y - p1.y + p2.y - p3.y };
  const det = d1.x * d2.y - d2.x * d1.y;
  const g = (d3.x * d2.y - d2.x * d3.y) / det;
  const h = (d1.x * d3.y - d3.x * d1.y) / det;
  return (u, v) => {
    const w = g * u + h * v + 1;
    return {
      x: ((p1.x - p0.x + g * p1.x) * u + (p3.x - p0.x + h * p3.x) * v + p0.x) / w,
      y: ((p1.y - p0.y + g * p1.y) * u + (p3.y - p0.y + h * p3.y) * v + p0.y) / w,
    };
  };
}

const between = (a: Spot, b: Spot): number => Math.hypot(a.x - b.x, a.y - b.y);

/** Whether four corners go round once without crossing, and inside of a picture. */
function checkQuad(quad: Quad, { width, height }: Picture): void {
  const turns = quad.map((p, i) => {
    const [q, r] = [quad[(i + 1) % 4]!, quad[(i + 2) % 4]!];
    return (q.x - p.x) * (r.y - q.y) - (q.y - p.y) * (r.x - q.x);
  });
  const inside = quad.every(({ x, y }) => x >= 0 && y >= 0 && x <= width && y <= height);
  if (!inside || !turns.every((turn) => turn > 0))
    throw new InputError({
      code: 'photo.corners',
      field: 'corners',
      value: quad.map(({ x, y }) => `${Math.round(x)},${Math.round(y)}`).join(' '),
      allowed: 'inside the picture, one after the other round the board from its upper left',
    });
}

/**
 * The rectangle square on, as fine as the photograph has it.
 * @param sizeMm - its sides, across and down [mm]: 10 … 2000
 * @throws InputError where the corners cross, or the rectangle is too small in the picture
 */
export function rectified(
  picture: Picture,
  quad: Quad,
  sizeMm: { readonly width: number; readonly height: number },
): Luma {
  checkRange('width', sizeMm.width, SIDE, 'mm');
  checkRange('height', sizeMm.height, SIDE, 'mm');
  checkQuad(quad, picture);
  const across = Math.max(between(quad[0], quad[1]), between(quad[3], quad[2]));
  const down = Math.max(between(quad[0], quad[3]), between(quad[1], quad[2]));
  const pxPerMm = Math.min(
    Math.max(across / sizeMm.width, down / sizeMm.height),
    MOST_PX / Math.max(sizeMm.width, sizeMm.height),
  );
  const [columns, rows] = [Math.floor(sizeMm.width * pxPerMm), Math.floor(sizeMm.height * pxPerMm)];
  if (Math.min(columns, rows) < LEAST_PX)
    throw new InputError({
      code: 'photo.small',
      field: 'corners',
      value: `${columns} × ${rows}`,
      allowed: `at least ${LEAST_PX} pixels across: go nearer, or take a larger picture`,
    });
  const at = perspective(quad);
  const y = new Float32Array(columns * rows);
  const { width, height, data } = picture;
  let clipped = 0;
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const spot = at((column + 0.5) / columns, (row + 0.5) / rows);
      const px = Math.min(width - 1.001, Math.max(0, spot.x - 0.5));
      const py = Math.min(height - 1.001, Math.max(0, spot.y - 0.5));
      const [ix, iy] = [Math.floor(px), Math.floor(py)];
      const [ax, ay] = [px - ix, py - iy];
      const o = 4 * (iy * width + ix);
      const q = o + 4 * width;
      let sum = 0;
      for (let c = 0; c < 3; c++) {
        const value =
          (LINEAR[data[o + c]!]! * (1 - ax) + LINEAR[data[o + 4 + c]!]! * ax) * (1 - ay) +
          (LINEAR[data[q + c]!]! * (1 - ax) + LINEAR[data[q + 4 + c]!]! * ax) * ay;
        sum += value * (c === 0 ? 0.2126 : c === 1 ? 0.7152 : 0.0722);
      }
      if (data[o]! >= CLIPPED || data[o + 1]! >= CLIPPED || data[o + 2]! >= CLIPPED) clipped += 1;
      y[row * columns + column] = sum;
    }
  }
  return { columns, rows, pitch: 1 / pxPerMm, y, clipped: clipped / (columns * rows) };
}
