import { descend, pointAt, solved } from '../numeric/fit';
import { type Lens, middleOf, type Picture, type Spot } from '../photo';
import { MARKS, markCorners, PIECES } from './frame';
import { type FoundMark } from './marks';

/*
 * From the frame's millimetres to the photograph's pixels: a homography, one radial term, and how far each piece of the
 * frame was pushed or turned from where it belongs.
 */

/** Millimetres that are brought to order one. */
const UNIT = 200;
/** Pieces are pushed by so much [mm], turned by so much [rad], and corners read to so much [px]: standard deviations. */
const PUSHED = 0.8;
const TURNED = (0.4 * Math.PI) / 180;
const READ = 0.15;
/** Marks from which on a lens that bends straight lines can be told. */
const BENDS_FROM = 4;

export interface Slip {
  readonly dx: number;
  readonly dy: number;
  readonly turn: number;
}

export interface Camera {
  readonly lens: Lens;
  /** By piece, how far it was off [mm], [rad]. */
  readonly slips: readonly Slip[];
  /** How far corners are off the fit [px, root mean square]. */
  readonly residual: number;
}

/** The homography of pairs of places, least squares; both sides of order one. */
function homography(from: readonly Spot[], to: readonly Spot[]): number[] {
  const matrix = Array.from({ length: 8 }, () => new Array<number>(8).fill(0));
  const right = new Array<number>(8).fill(0);
  from.forEach(({ x, y }, i) => {
    const { x: u, y: v } = to[i]!;
    const rows: [number[], number][] = [
      [[x, y, 1, 0, 0, 0, -u * x, -u * y], u],
      [[0, 0, 0, x, y, 1, -v * x, -v * y], v],
    ];
    for (const [row, value] of rows)
      for (let r = 0; r < 8; r++) {
        right[r] = right[r]! + row[r]! * value;
        for (let c = 0; c < 8; c++) matrix[r]![c] = matrix[r]![c]! + row[r]! * row[c]!;
      }
  });
  return solved(matrix, right);
}

/**
 * The camera that sees marks where they were found, of at least two pieces.
 * @param scale - of the print, 1 where it came out as meant
 */
export function cameraOf(
  found: readonly FoundMark[],
  picture: Pick<Picture, 'width' | 'height'>,
  scale: number,
): Camera {
  const { middle, half } = middleOf(picture);
  const seen = found.map(({ id, corners }) => {
    const mark = MARKS[id]!;
    return { piece: mark.piece, places: markCorners(mark, scale), corners };
  });
  const from = seen.flatMap(({ places }) => places.map(({ x, y }) => ({ x: x / UNIT, y: y / UNIT })));
  const to = seen.flatMap(({ corners }) =>
    corners.map(({ x, y }) => ({ x: (x - middle.x) / half, y: (y - middle.y) / half })),
  );
  const bends = seen.length >= BENDS_FROM;
  const slipsAt = bends ? 9 : 8;
  const slipOf = (at: readonly number[], piece: number): Slip => ({
    dx: at[slipsAt + 3 * piece]! * PUSHED,
    dy: at[slipsAt + 3 * piece + 1]! * PUSHED,
    turn: at[slipsAt + 3 * piece + 2]! * TURNED,
  });
  const residualsAt = (at: readonly number[]): number[] => {
    const k1 = bends ? at[8]! : 0;
    const out: number[] = [];
    for (const { piece, places, corners } of seen) {
      const { corner } = PIECES[piece]!;
      const slip = slipOf(at, piece);
      for (let c = 0; c < 4; c++) {
        const [rx, ry] = [places[c]!.x - corner.x, places[c]!.y - corner.y];
        const x = (places[c]!.x - slip.turn * ry + slip.dx) / UNIT;
        const y = (places[c]!.y + slip.turn * rx + slip.dy) / UNIT;
        const w = at[6]! * x + at[7]! * y + 1;
        const u = (at[0]! * x + at[1]! * y + at[2]!) / w;
        const v = (at[3]! * x + at[4]! * y + at[5]!) / w;
        const by = half * (1 + k1 * (u * u + v * v));
        out.push((middle.x + u * by - corners[c]!.x) / READ, (middle.y + v * by - corners[c]!.y) / READ);
      }
    }
    // Pieces lie where they belong unless the picture says otherwise.
    out.push(...at.slice(slipsAt));
    return out;
  };
  const start = [
    ...homography(from, to),
    ...(bends ? [0] : []),
    ...new Array<number>(3 * PIECES.length).fill(0),
  ];
  const fit = descend(pointAt(start, residualsAt(start)), residualsAt, {
    low: -100,
    high: 100,
    slope: 1e-6,
    iterations: 30,
  });
  const { at } = fit;
  const read = fit.residuals.slice(0, 2 * from.length);
  return {
    lens: {
      h: [
        at[0]! / UNIT,
        at[1]! / UNIT,
        at[2]!,
        at[3]! / UNIT,
        at[4]! / UNIT,
        at[5]!,
        at[6]! / UNIT,
        at[7]! / UNIT,
        1,
      ],
      k1: bends ? at[8]! : 0,
      middle,
      half,
    },
    slips: PIECES.map((_, piece) => slipOf(at, piece)),
    residual: READ * Math.sqrt(read.reduce((sum, one) => sum + one * one, 0) / from.length),
  };
}

/** Half the diagonal of a picture taken with the film size focal lengths are told for [mm]. */
const HALF_FILM = Math.hypot(36, 24) / 2;

/**
 * The lens for a plane so far above the frame's, towards the camera: a board is as thick as it is, and lies nearer.
 * @param focal35 - focal length as for 35 mm film [mm]
 */
export function raised(lens: Lens, focal35: number, mm: number): Lens {
  if (mm === 0) return lens;
  const f = focal35 / HALF_FILM;
  const { h } = lens;
  const a = [h[0]! / f, h[3]! / f, h[6]!];
  const b = [h[1]! / f, h[4]! / f, h[7]!];
  const t = [h[2]! / f, h[5]! / f, h[8]!];
  const size = 1 / Math.sqrt(Math.hypot(...a) * Math.hypot(...b));
  const normal = [
    a[1]! * b[2]! - a[2]! * b[1]!,
    a[2]! * b[0]! - a[0]! * b[2]!,
    a[0]! * b[1]! - a[1]! * b[0]!,
  ].map((value) => value * size * size);
  const away = normal.reduce((sum, value, i) => sum + value * t[i]!, 0) > 0 ? 1 : -1;
  const moved = t.map((value, i) => value * size - away * mm * normal[i]!);
  const w = moved[2]!;
  const row = (i: number, by: number): number[] => [
    (h[3 * i]! * size) / w,
    (h[3 * i + 1]! * size) / w,
    (by * moved[i]!) / w,
  ];
  return { ...lens, h: [...row(0, f), ...row(1, f), (h[6]! * size) / w, (h[7]! * size) / w, 1] };
}
