import { type Colour, ENCODED, LINEAR } from '../colour';
import { uniform } from '../numeric/hash';
import { normalQuantile } from '../numeric';
import { type Picture } from '../photo';
import { ARM, BOARD, CELL, cellBox, MARK, MARKS, MODULES, PATCH, patchesOf, PIECES } from './frame';
import { markModules } from './marks';

/*
 * A photograph of a board in its frame that nobody took: a pinhole camera aslant, a lens that bends lines, light from one
 * side, blur and noise. It stands in for a camera, and proves what photographs are read by.
 */

/** A painted cell, as it is drawn. */
export interface Painted {
  readonly columns: number;
  readonly rows: number;
  readonly rgba: Uint8ClampedArray;
}

/** How a photograph is taken. */
export interface Shot {
  /** Sides of the picture [px]. */
  readonly width: number;
  readonly height: number;
  /** How far from square on, towards where, and turned in the picture [degrees]. */
  readonly tilt: number;
  readonly azimuth: number;
  readonly roll: number;
  /** How much the lens bends lines. */
  readonly k1: number;
  /** How much lighter the lightest side is than the darkest, where it is [degrees], and how much corners lose. */
  readonly light: number;
  readonly lightFrom: number;
  readonly vignette: number;
  /** [px, standard deviation] */
  readonly blur: number;
  /** 1 as a telephone has it in a room. */
  readonly noise: number;
  /** How far pieces of the frame are off where they belong [mm, standard deviation]. */
  readonly slipMm: number;
  /** How large the frame was printed, of what was meant. */
  readonly printed: number;
  /** How much the board stands above the frame [mm]. */
  readonly thicknessMm: number;
  /** A window that shines off the middle of the board: 0 … 1. */
  readonly glare: number;
  /** Share of the picture the frame fills. */
  readonly fill: number;
  readonly seed: number;
}

/** A steady hand in a bright room. */
export const PLAIN_SHOT: Shot = {
  width: 4000,
  height: 3000,
  tilt: 8,
  azimuth: 30,
  roll: 91,
  k1: 0.012,
  light: 1.5,
  lightFrom: 40,
  vignette: 0.25,
  blur: 1,
  noise: 1,
  slipMm: 0.3,
  printed: 1,
  thicknessMm: 0,
  glare: 0,
  fill: 0.95,
  seed: 1,
};

/** Focal length of the camera as for 35 mm film [mm], and of its picture's width. */
export const SHOT_FOCAL = 25.96;
const FOCAL = 0.75;

type Three = readonly [number, number, number];
type Nine = readonly [number, number, number, number, number, number, number, number, number];

interface Pinhole {
  /** Turned from the board to the camera, row by row, and moved [mm]. */
  readonly r: Nine;
  readonly t: Three;
  readonly f: number;
}

const rad = (degrees: number): number => (degrees * Math.PI) / 180;

/** The camera's turn: tilted about an axis in the board's plane, then turned in the picture. */
function turned({ tilt, azimuth, roll }: Shot): Nine {
  const [ux, uy] = [Math.cos(rad(azimuth)), Math.sin(rad(azimuth))];
  const [c, s] = [Math.cos(rad(tilt)), Math.sin(rad(tilt))];
  const [cr, sr] = [Math.cos(rad(roll)), Math.sin(rad(roll))];
  const t: Nine = [
    c + ux * ux * (1 - c),
    ux * uy * (1 - c),
    uy * s,
    ux * uy * (1 - c),
    c + uy * uy * (1 - c),
    -ux * s,
    -uy * s,
    ux * s,
    c,
  ];
  const row = (a: number, b: number): number[] => [0, 1, 2].map((k) => a * t[k]! + b * t[3 + k]!);
  return [...row(cr, -sr), ...row(sr, cr), t[6], t[7], t[8]] as unknown as Nine;
}

/** Places a place of the board is seen at, about the picture's middle, without the lens's bend [px]. */
function seenAt({ r, t, f }: Pinhole, x: number, y: number): readonly [number, number] {
  const depth = r[6] * x + r[7] * y + t[2];
  return [(f * (r[0] * x + r[1] * y + t[0])) / depth, (f * (r[3] * x + r[4] * y + t[1])) / depth];
}

/** The camera from as near as the frame still fills so much of the picture, in its middle. */
function pinhole(shot: Shot): Pinhole {
  const { width, height, fill } = shot;
  const r = turned(shot);
  const f = FOCAL * width;
  const [mx, my] = [BOARD.width / 2, BOARD.height / 2];
  const corners = [-ARM, BOARD.width + ARM].flatMap((x) =>
    [-ARM, BOARD.height + ARM].map((y) => [x, y] as const),
  );
  let [near, far] = [150, 3000];
  let found: Pinhole = { r, t: [0, 0, far], f };
  for (let round = 0; round < 40; round++) {
    const away = (near + far) / 2;
    let [ox, oy] = [0, 0];
    let box = { left: 0, right: 0, top: 0, bottom: 0 };
    for (let k = 0; k < 6; k++) {
      found = {
        r,
        f,
        t: [-(r[0] * mx + r[1] * my) + ox, -(r[3] * mx + r[4] * my) + oy, away - (r[6] * mx + r[7] * my)],
      };
      const seen = corners.map(([x, y]) => seenAt(found, x, y));
      const [us, vs] = [seen.map(([u]) => u), seen.map(([, v]) => v)];
      box = { left: Math.min(...us), right: Math.max(...us), top: Math.min(...vs), bottom: Math.max(...vs) };
      ox -= ((box.left + box.right) / 2) * (away / f);
      oy -= ((box.top + box.bottom) / 2) * (away / f);
    }
    if (box.right - box.left > fill * width || box.bottom - box.top > fill * height) near = away;
    else far = away;
  }
  return found;
}

/** Standard normal numbers by a hash. */
const GAUSS = Float32Array.from({ length: 65536 }, (_, i) =>
  normalQuantile((((i * 40503) % 65536) + 0.5) / 65536),
);
const gaussAt = (i: number, seed: number): number => GAUSS[Math.floor(65536 * uniform(i, seed, 7))]!;

/** Undoes the lens's bend: by how much a place is drawn in, by its distance from the middle over half the diagonal. */
function unbent(k1: number): Float32Array {
  return Float32Array.from({ length: 1101 }, (_, i) => {
    const bent = i / 1000;
    let r = bent;
    for (let round = 0; round < 20; round++) r = bent / (1 + k1 * r * r);
    return bent === 0 ? 1 : r / bent;
  });
}

/** The board in its frame on a bench, as drawn: sRGB bytes, three a pixel, from so far off the board's corner. */
interface Laid {
  readonly columns: number;
  readonly rows: number;
  readonly rgb: Uint8ClampedArray;
}
/** Pixels for a millimetre of it, and how much of the bench is seen round the frame [mm]. */
const PPM = 8;
const BENCH_MM = 10;
const AROUND = ARM + BENCH_MM;

/** sRGB bytes of paper, of ink, and of the bench. */
const PAPER: Three = [238, 238, 235];
const INK: Three = [53, 53, 56];
const BENCH: Three = [139, 111, 84];

/** Lays a rectangle of a piece [mm off its corner]. */
type Lay = (left: number, top: number, width: number, height: number, colour: Three) => void;

const blend = (ink: number): Three =>
  [0, 1, 2].map((c) => {
    const light = ink * LINEAR[INK[c]!]! + (1 - ink) * LINEAR[PAPER[c]!]!;
    return ENCODED[Math.round(4096 * light)]!;
  }) as unknown as Three;

/** The marks and greys of a piece on its paper; places off its corner. */
function drawPiece(piece: number, lay: Lay): void {
  const { side } = PIECES[piece]!;
  const arm = (width: number, height: number): void =>
    lay(
      Math.min(side.x * ARM, -side.x * width),
      Math.min(side.y * ARM, -side.y * height),
      width + ARM,
      height + ARM,
      PAPER,
    );
  arm(BOARD.width / 2, 0);
  arm(0, BOARD.height / 2);
  const module = MARK / MODULES;
  for (const { id, off } of MARKS.filter((mark) => mark.piece === piece))
    markModules(id).forEach((white, k) => {
      const [x, y] = [
        off.x - MARK / 2 + (k % MODULES) * module,
        off.y - MARK / 2 + Math.floor(k / MODULES) * module,
      ];
      if (!white) lay(x, y, module, module, INK);
    });
  for (const { ink, off } of patchesOf(piece))
    lay(off.x - PATCH / 2, off.y - PATCH / 2, PATCH, PATCH, blend(ink));
}

/** Everything as it belongs. */
function laid(cells: readonly Painted[], ground: Colour): Laid {
  const [columns, rows] = [(BOARD.width + 2 * AROUND) * PPM, (BOARD.height + 2 * AROUND) * PPM];
  const rgb = new Uint8ClampedArray(3 * columns * rows);
  for (let i = 0; i < rgb.length; i++) rgb[i] = BENCH[i % 3]!;
  PIECES.forEach(({ corner }, piece) =>
    drawPiece(piece, (left, top, width, height, colour) => {
      const [x0, y0] = [
        Math.round((corner.x + left + AROUND) * PPM),
        Math.round((corner.y + top + AROUND) * PPM),
      ];
      for (let y = y0; y < y0 + Math.round(height * PPM); y++)
        for (let x = x0; x < x0 + Math.round(width * PPM); x++) rgb.set(colour, 3 * (y * columns + x));
    }),
  );
  const base = ground.map((light) => ENCODED[Math.round(4096 * Math.min(1, light))]!);
  for (let y = 0; y < BOARD.height * PPM; y++) {
    const from = (y + AROUND * PPM) * columns + AROUND * PPM;
    for (let x = 0; x < BOARD.width * PPM; x++) rgb.set(base, 3 * (from + x));
  }
  cells.forEach((cell, n) => {
    const { left, top } = cellBox(n);
    const side = CELL.side * PPM;
    for (let y = 0; y < side; y++)
      for (let x = 0; x < side; x++) {
        const o =
          4 * (Math.floor((y * cell.rows) / side) * cell.columns + Math.floor((x * cell.columns) / side));
        const at = 3 * (((top + AROUND) * PPM + y) * columns + (left + AROUND) * PPM + x);
        for (let c = 0; c < 3; c++) rgb[at + c] = cell.rgba[o + c]!;
      }
  });
  return { columns, rows, rgb };
}

/** Blurs rows, then columns, of three values a pixel in place. */
function blurred(light: Float32Array, width: number, height: number, sigma: number): void {
  const reach = Math.ceil(3 * sigma);
  const raw = Array.from({ length: 2 * reach + 1 }, (_, k) =>
    Math.exp(-((k - reach) ** 2) / (2 * sigma * sigma)),
  );
  const all = raw.reduce((sum, one) => sum + one, 0);
  const kernel = Float32Array.from(raw, (one) => one / all);
  const wide = 3 * width;
  const line = new Float32Array(wide + 6 * reach);
  for (let from = 0; from < light.length; from += wide) {
    line.set(light.subarray(from, from + wide), 3 * reach);
    for (let k = 0; k < 3 * reach; k++) {
      line[k] = light[from + (k % 3)]!;
      line[3 * reach + wide + k] = light[from + wide - 3 + (k % 3)]!;
    }
    across(line, kernel, light.subarray(from, from + wide));
  }
  const rowAt = (y: number): Float32Array => {
    const from = wide * Math.min(height - 1, Math.max(0, y));
    return light.slice(from, from + wide);
  };
  const ring = Array.from(kernel, (_, k) => rowAt(k - reach));
  for (let y = 0; y < height; y++) {
    const out = light.subarray(y * wide, (y + 1) * wide);
    out.fill(0);
    for (let k = 0; k < ring.length; k++) addScaled(out, ring[(y + k) % ring.length]!, kernel[k]!);
    ring[y % ring.length] = rowAt(y + reach + 1);
  }
}

function across(line: Float32Array, kernel: Float32Array, out: Float32Array): void {
  for (let x = 0; x < out.length; x++) {
    let sum = 0;
    for (let k = 0, at = x; k < kernel.length; k++, at += 3) sum += kernel[k]! * line[at]!;
    out[x] = sum;
  }
}

function addScaled(out: Float32Array, from: Float32Array, by: number): void {
  for (let x = 0; x < out.length; x++) out[x] = out[x]! + by * from[x]!;
}

/** From where a place of the frame is seen to where it belongs: pieces were pushed, turned, and printed small. */
function unslipped({ slipMm, printed, seed }: Shot): (x: number, y: number) => readonly [number, number] {
  const slips = PIECES.map(({ corner }, piece) => {
    const own = (k: number): number => slipMm * gaussAt(3 * piece + k, seed);
    return { corner, dx: own(0), dy: own(1), turn: rad(0.4) * own(2) };
  });
  return (x, y) => {
    const left = x < BOARD.width / 2;
    const { corner, dx, dy, turn } = slips[y < BOARD.height / 2 ? (left ? 0 : 1) : left ? 3 : 2]!;
    const [rx, ry] = [x - corner.x - dx, y - corner.y - dy];
    return [corner.x + (rx + turn * ry) / printed, corner.y + (ry - turn * rx) / printed];
  };
}

/** Samples of a pixel, a side. */
const SAMPLES = 2;

/** Light that comes to each pixel, three values, before anything else befalls it. */
function gathered({ columns, rows, rgb }: Laid, shot: Shot): Float32Array {
  const { width, height, thicknessMm } = shot;
  const { r, t, f } = pinhole(shot);
  const half = Math.hypot(width, height) / 2;
  const drawnIn = unbent(shot.k1);
  const belongs = unslipped(shot);
  const light = new Float32Array(3 * width * height);
  // The camera's place, as the board has it.
  const own = (a: number, b: number, c: number): number => a * t[0] + b * t[1] + c * t[2];
  const [ox, oy, oz] = [own(r[0], r[3], r[6]), own(r[1], r[4], r[7]), own(r[2], r[5], r[8])];
  const share = 1 / SAMPLES ** 2;
  for (let row = 0, o = 0; row < height; row++)
    for (let column = 0; column < width; column++, o += 3)
      for (let k = 0; k < SAMPLES * SAMPLES; k++) {
        const bx = column + ((k % SAMPLES) + 0.5) / SAMPLES - width / 2;
        const by = row + (((k / SAMPLES) | 0) + 0.5) / SAMPLES - height / 2;
        const inwards = drawnIn[((1000 * Math.sqrt(bx * bx + by * by)) / half) | 0]! / f;
        const u = bx * inwards;
        const v = by * inwards;
        const dx = r[0] * u + r[3] * v + r[6];
        const dy = r[1] * u + r[4] * v + r[7];
        const dz = r[2] * u + r[5] * v + r[8];
        let along = (oz - thicknessMm) / dz;
        let x = along * dx - ox;
        let y = along * dy - oy;
        if (x < 0 || y < 0 || x >= BOARD.width || y >= BOARD.height) {
          along = oz / dz;
          [x, y] = belongs(along * dx - ox, along * dy - oy);
        }
        const at = Math.floor((x + AROUND) * PPM);
        const down = Math.floor((y + AROUND) * PPM);
        const inside = at >= 0 && down >= 0 && at < columns && down < rows;
        const i = 3 * (down * columns + at);
        light[o] = light[o]! + share * LINEAR[inside ? rgb[i]! : BENCH[0]]!;
        light[o + 1] = light[o + 1]! + share * LINEAR[inside ? rgb[i + 1]! : BENCH[1]]!;
        light[o + 2] = light[o + 2]! + share * LINEAR[inside ? rgb[i + 2]! : BENCH[2]]!;
      }
  return light;
}

/**
 * Photographs a board whose cells are painted so.
 * @param ground - colour between the cells, linear
 * @returns a picture with the frame in it
 */
export function photograph(cells: readonly Painted[], ground: Colour, shot: Shot): Picture {
  const { width, height } = shot;
  const light = gathered(laid(cells, ground), shot);
  lit(light, shot);
  if (shot.blur > 0) blurred(light, width, height, shot.blur);
  return { width, height, data: developed(light, shot) };
}

/** A lamp's colour, and how bright the picture is taken. */
const LAMP: Three = [1.02, 0.97, 0.87];

function lit(light: Float32Array, { width, height, light: ratio, lightFrom, vignette, glare }: Shot): void {
  const [lx, ly] = [Math.cos(rad(lightFrom)), Math.sin(rad(lightFrom))];
  const span = (Math.abs(lx) * width + Math.abs(ly) * height) / 2;
  const half = Math.hypot(width, height) / 2;
  for (let row = 0; row < height; row++)
    for (let column = 0; column < width; column++) {
      const [x, y] = [column - width / 2, row - height / 2];
      const gradient = 1 + (1 / ratio - 1) * ((x * lx + y * ly) / span / 2 + 0.5);
      const by = gradient * (1 - (vignette * (x * x + y * y)) / (half * half));
      const shine = glare * Math.exp(-((x / (0.12 * width)) ** 2) - (y / (0.12 * height)) ** 2);
      for (let c = 0; c < 3; c++) {
        const i = 3 * (row * width + column) + c;
        light[i] = light[i]! * by * LAMP[c]! + shine;
      }
    }
}

/** Light as bytes, with the noise of so few photons. */
function developed(light: Float32Array, { width, height, noise, seed }: Shot): Uint8ClampedArray {
  const data = new Uint8ClampedArray(4 * width * height);
  for (let i = 0, o = 0; o < data.length; o += 4) {
    for (let c = 0; c < 3; c++, i++) {
      const value = light[i]!;
      const seen = value + noise * Math.sqrt(0.0005 * value + 2e-6) * gaussAt(i, seed + 1);
      data[o + c] = ENCODED[seen <= 0 ? 0 : seen >= 1 ? 4096 : (seen * 4096) | 0]!;
    }
    data[o + 3] = 255;
  }
  return data;
}
