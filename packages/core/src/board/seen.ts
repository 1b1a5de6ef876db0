import { LINEAR } from '../colour';
import { InputError } from '../errors';
import {
  CLIPPED,
  type Lens,
  type Light,
  lightFrom,
  LUMINANCE,
  medianOf,
  type Paper,
  type Picture,
  toPixel,
} from '../photo';
import { type Camera, cameraOf } from './camera';
import { MARKS, paperPlaces } from './frame';
import { blurOf, findMarks, noEdges, refined } from './marks';

/** Marks a picture is read from, of at least two pieces. */
const LEAST_MARKS = 4;
/** Pixels round a place of paper that are looked at, and its share of clipped ones that spoils it. */
const PAPER_REACH = 4;
const PAPER_CLIPPED = 0.2;
/** Mean linear light about a place, with its noise; null where the picture ends, or is clipped. */
function paperAt(
  picture: Picture,
  lens: Lens,
  x: number,
  y: number,
): (Paper & { readonly noise: number }) | null {
  const { width, height, data } = picture;
  const spot = toPixel(lens, x, y);
  const [ix, iy] = [Math.round(spot.x - 0.5), Math.round(spot.y - 0.5)];
  const reach = PAPER_REACH;
  if (ix < reach || iy < reach || ix >= width - reach || iy >= height - reach) return null;
  const side = 2 * reach + 1;
  const rgb: [number, number, number] = [0, 0, 0];
  const luminance = new Float64Array(side * side);
  let clipped = 0;
  for (let k = 0; k < luminance.length; k++) {
    const o = 4 * ((iy + Math.floor(k / side) - reach) * width + ix + (k % side) - reach);
    if (Math.max(data[o]!, data[o + 1]!, data[o + 2]!) >= CLIPPED) clipped += 1;
    for (let c = 0; c < 3; c++) {
      const value = LINEAR[data[o + c]!]!;
      rgb[c] = rgb[c]! + value / luminance.length;
      luminance[k] = luminance[k]! + LUMINANCE[c]! * value;
    }
  }
  if (clipped > PAPER_CLIPPED * luminance.length || Math.min(...rgb) < 0.01) return null;
  const mean = luminance.reduce((sum, one) => sum + one, 0) / luminance.length;
  // As lightly smoothed as a cell is before cracks are looked for in it.
  let off = 0;
  for (let j = 1; j < side - 1; j++)
    for (let i = 1; i < side - 1; i++) {
      let smooth = 0;
      for (let v = -1; v <= 1; v++)
        for (let u = -1; u <= 1; u++)
          smooth += (luminance[(j + v) * side + i + u]! * (2 - Math.abs(u)) * (2 - Math.abs(v))) / 16;
      off += (smooth - mean) ** 2;
    }
  return { x, y, rgb, noise: Math.sqrt(off / (side - 2) ** 2) / mean };
}

/** Where the frame lies in a picture, how sharp it is, and how light falls on it. */
export interface FrameSeen {
  readonly camera: Camera;
  readonly marks: number;
  readonly blur: { readonly sigma: number; readonly overshoot: number };
  readonly light: Light;
  /** Relative scatter of paper. */
  readonly noise: number;
}

/** @throws InputError where too few marks can be read, or too little paper */
export function frameIn(picture: Picture, scale: number): FrameSeen {
  const edges = noEdges();
  const found = findMarks(picture).flatMap((mark) => {
    const read = refined(picture, mark, edges);
    return read === null ? [] : [read];
  });
  const pieces = new Set(found.map(({ id }) => MARKS[id]!.piece));
  if (found.length < LEAST_MARKS || pieces.size < 2)
    throw new InputError({
      code: 'photo.frame',
      field: 'marks of the frame',
      value: `${found.length} of ${MARKS.length}`,
      allowed: `${LEAST_MARKS} at least, of two pieces: photograph all of the frame, flat and sharp, or set four corners by hand`,
    });
  const camera = cameraOf(found, picture, scale);
  const paper = paperPlaces(scale).flatMap(({ x, y }) => {
    const at = paperAt(picture, camera.lens, x, y);
    return at === null ? [] : [at];
  });
  const light = lightFrom(paper);
  if (light === null)
    throw new InputError({
      code: 'photo.frame',
      field: 'paper of the frame',
      value: 'too bright, or out of the picture',
      allowed: 'white paper that is not blown out: less light, or all of the frame in the picture',
    });
  return {
    camera,
    marks: found.length,
    blur: blurOf(edges),
    light,
    noise: medianOf(paper.map(({ noise }) => noise)),
  };
}
