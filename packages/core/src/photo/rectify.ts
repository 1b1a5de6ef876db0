import { ENCODED, LINEAR } from '../colour';
import { checkRange, InputError } from '../errors';
import { type Lens, lensOfQuad, scaleAt, toPixel } from './lens';
import { CLIPPED, type Light, LUMINANCE, whiteAt } from './light';
import { type Box, type Luma, type Picture, type Quad, type Tinted } from './types';

/** Sides a rectangle may have [mm], and pixels it needs across and is looked at with at most. */
const SIDE = { min: 10, max: 2000 } as const;
const LEAST_PX = 80;
const MOST_PX = 2000;

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

/** Pixels for a millimetre at the corners of a box: the least and the most. */
export function scaleOver(lens: Lens, { left, top, width, height }: Box): { least: number; most: number } {
  const scales = [left, left + width].flatMap((x) => [top, top + height].flatMap((y) => scaleAt(lens, x, y)));
  return { least: Math.min(...scales), most: Math.max(...scales) };
}

/** Places between which a row of pixels is taken for straight, and light for even [px]. */
const STRIDE = 16;

/**
 * A box of a board square on: linear colour against white paper, or against the brightest where there is none.
 * @param pitch - of the raster [mm]
 * @returns three values a pixel, and the share of pixels at the top of the scale
 */
function sampled(
  picture: Picture,
  lens: Lens,
  light: Light | null,
  box: Box,
  pitch: number,
): Tinted & { readonly clipped: number } {
  const [columns, rows] = [Math.floor(box.width / pitch), Math.floor(box.height / pitch)];
  const rgb = new Float32Array(3 * columns * rows);
  const knots = Math.ceil(columns / STRIDE) + 1;
  const [us, vs] = [new Float64Array(knots), new Float64Array(knots)];
  const gains = [new Float64Array(knots), new Float64Array(knots), new Float64Array(knots)] as const;
  let clipped = 0;
  for (let row = 0; row < rows; row++) {
    const y = box.top + (row + 0.5) * pitch;
    for (let k = 0; k < knots; k++) {
      const x = box.left + (k * STRIDE + 0.5) * pitch;
      const spot = toPixel(lens, x, y);
      us[k] = spot.x - 0.5;
      vs[k] = spot.y - 0.5;
      const white = light === null ? [1, 1, 1] : whiteAt(light, x, y);
      for (let c = 0; c < 3; c++) gains[c]![k] = 1 / white[c]!;
    }
    clipped += sampleRow(picture, us, vs, gains, rgb.subarray(3 * row * columns, 3 * (row + 1) * columns));
  }
  return { columns, rows, pitch, rgb, clipped: clipped / (columns * rows) };
}

/** One row of it, between its knots. @returns how many pixels are at the top of the scale */
function sampleRow(
  { width, height, data }: Picture,
  us: Float64Array,
  vs: Float64Array,
  [reds, greens, blues]: readonly [Float64Array, Float64Array, Float64Array],
  out: Float32Array,
): number {
  let clipped = 0;
  for (let at = 0, column = 0; at < out.length; at += 3, column++) {
    const k = column >> 4;
    const f = (column & 15) / STRIDE;
    let u = us[k]! + f * (us[k + 1]! - us[k]!);
    let v = vs[k]! + f * (vs[k + 1]! - vs[k]!);
    if (u < 0) u = 0;
    else if (u > width - 1.001) u = width - 1.001;
    if (v < 0) v = 0;
    else if (v > height - 1.001) v = height - 1.001;
    const ix = u | 0;
    const iy = v | 0;
    const ax = u - ix;
    const ay = v - iy;
    const o = 4 * (iy * width + ix);
    const q = o + 4 * width;
    const a = (1 - ax) * (1 - ay);
    const b = ax * (1 - ay);
    const c = (1 - ax) * ay;
    const d = ax * ay;
    if (data[o]! >= CLIPPED || data[o + 1]! >= CLIPPED || data[o + 2]! >= CLIPPED) clipped += 1;
    const red =
      LINEAR[data[o]!]! * a + LINEAR[data[o + 4]!]! * b + LINEAR[data[q]!]! * c + LINEAR[data[q + 4]!]! * d;
    const green =
      LINEAR[data[o + 1]!]! * a +
      LINEAR[data[o + 5]!]! * b +
      LINEAR[data[q + 1]!]! * c +
      LINEAR[data[q + 5]!]! * d;
    const blue =
      LINEAR[data[o + 2]!]! * a +
      LINEAR[data[o + 6]!]! * b +
      LINEAR[data[q + 2]!]! * c +
      LINEAR[data[q + 6]!]! * d;
    out[at] = red * (reds[k]! + f * (reds[k + 1]! - reds[k]!));
    out[at + 1] = green * (greens[k]! + f * (greens[k + 1]! - greens[k]!));
    out[at + 2] = blue * (blues[k]! + f * (blues[k + 1]! - blues[k]!));
  }
  return clipped;
}

/** Luminance of colours. */
function luminanceOf(rgb: Float32Array): Float32Array {
  const [red, green, blue] = LUMINANCE;
  const y = new Float32Array(rgb.length / 3);
  for (let i = 0, o = 0; i < y.length; i++, o += 3)
    y[i] = red * rgb[o]! + green * rgb[o + 1]! + blue * rgb[o + 2]!;
  return y;
}

/** Colours as a picture. */
export function squareOn({ columns, rows, rgb }: Tinted): Picture {
  const data = new Uint8ClampedArray(4 * columns * rows).fill(255);
  for (let i = 0, o = 0; i < rgb.length; i += 3, o += 4)
    for (let c = 0; c < 3; c++) {
      const value = rgb[i + c]!;
      data[o + c] = ENCODED[value <= 0 ? 0 : value >= 1 ? 4096 : (value * 4096) | 0]!;
    }
  return { width: columns, height: rows, data };
}

/** A box of a board square on, as fine as the photograph has it anywhere in it. */
export function rectifiedBox(
  picture: Picture,
  lens: Lens,
  light: Light | null,
  box: Box,
): {
  readonly luma: Luma;
  readonly tinted: Tinted;
  readonly scale: { readonly least: number; readonly most: number };
} {
  const scale = scaleOver(lens, box);
  const pxPerMm = Math.min(scale.most, MOST_PX / Math.max(box.width, box.height));
  const { columns, rows, pitch, rgb, clipped } = sampled(picture, lens, light, box, 1 / pxPerMm);
  return {
    luma: { columns, rows, pitch, y: luminanceOf(rgb), clipped },
    tinted: { columns, rows, pitch, rgb },
    scale,
  };
}

/**
 * The rectangle between four corners square on, as fine as the photograph has it.
 * @param sizeMm - its sides, across and down [mm]: 10 … 2000
 * @throws InputError where the corners cross, or the rectangle is too small in the picture
 */
export function rectified(
  picture: Picture,
  quad: Quad,
  sizeMm: { readonly width: number; readonly height: number },
): { readonly luma: Luma; readonly tinted: Tinted } {
  checkRange('width', sizeMm.width, SIDE, 'mm');
  checkRange('height', sizeMm.height, SIDE, 'mm');
  checkQuad(quad, picture);
  const box = { left: 0, top: 0, ...sizeMm };
  const lens = lensOfQuad(quad, sizeMm, picture);
  const { most } = scaleOver(lens, box);
  const [columns, rows] = [Math.floor(sizeMm.width * most), Math.floor(sizeMm.height * most)];
  if (Math.min(columns, rows) < LEAST_PX)
    throw new InputError({
      code: 'photo.small',
      field: 'corners',
      value: `${columns} × ${rows}`,
      allowed: `at least ${LEAST_PX} pixels across: go nearer, or take a larger picture`,
    });
  return rectifiedBox(picture, lens, null, box);
}
