import { type Box, type Spot } from '../photo';

/*
 * A frame of paper round a sample board: four L-shaped pieces, each laid against a corner, with marks a photograph is
 * read by. Millimetres from the board's upper left corner, y down.
 */

/** The board, and a square of it that is painted, with what is left of its edge uncounted: tape leaves a ridge there. */
export const BOARD = { width: 300, height: 400 } as const;
export const CELL = { side: 80, inset: 4 } as const;
export const CELLS = 9;
const CELL_AT = [20, 110, 200] as const;

/** Where a cell lies, from 0, row by row. */
export const cellBox = (n: number): Box => ({
  left: CELL_AT[n % 3]!,
  top: CELL_AT[Math.floor(n / 3)]!,
  width: CELL.side,
  height: CELL.side,
});

/** How wide an arm is, and how far its marks' middles are off the board: its rim must not hide them from aslant. */
export const ARM = 35;
export const MIDDLE = 22;
/** Marks of 8 × 8 modules, of which the outer are black, with so much white round them; beside the middle of a side. */
export const MARK = 18;
export const MODULES = 8;
export const QUIET = MARK / MODULES;
const BESIDE = 14;

/** A corner of the board, with the piece of the frame against it. */
export interface Piece {
  readonly corner: Spot;
  /** −1 where the piece goes to the left of its corner, or up. */
  readonly side: Spot;
}
export const PIECES: readonly Piece[] = [
  { corner: { x: 0, y: 0 }, side: { x: -1, y: -1 } },
  { corner: { x: BOARD.width, y: 0 }, side: { x: 1, y: -1 } },
  { corner: { x: BOARD.width, y: BOARD.height }, side: { x: 1, y: 1 } },
  { corner: { x: 0, y: BOARD.height }, side: { x: -1, y: 1 } },
];

/** A mark on a piece: its middle, off the piece's corner. */
export interface Mark {
  readonly id: number;
  readonly piece: number;
  readonly off: Spot;
}
/** Three a piece: at its corner, and beside the middle of both sides. */
export const MARKS: readonly Mark[] = PIECES.flatMap(({ side }, piece) => {
  const [x, y] = [side.x * MIDDLE, side.y * MIDDLE];
  return [
    { x, y },
    { x: -side.x * (BOARD.width / 2 - BESIDE), y },
    { x, y: -side.y * (BOARD.height / 2 - BESIDE) },
  ].map((off, k): Mark => ({ id: 3 * piece + k, piece, off }));
});

/** Grey patches on the upright arm of each piece: sides, and shares of ink. */
export const PATCH = 10;
const INKS = [0.1, 0.25, 0.5, 0.75, 1] as const;
export const patchesOf = (piece: number): readonly { readonly ink: number; readonly off: Spot }[] => {
  const { side } = PIECES[piece]!;
  return INKS.map((ink, k) => ({ ink, off: { x: side.x * MIDDLE, y: -side.y * (28 + 14 * k) } }));
};

/** The line to be measured after printing: how long it is meant to be, and may come out. */
export const CHECK_LINE = { meant: 100, min: 90, max: 110 } as const;

/** A place on a piece as it lies, where it was printed larger or smaller than meant. @param scale - 1 where not */
export function onBoard(piece: number, off: Spot, scale: number): Spot {
  const { corner } = PIECES[piece]!;
  return { x: corner.x + scale * off.x, y: corner.y + scale * off.y };
}

/** The corners of a mark on the board: upper left, then round with the clock. */
export const markCorners = ({ piece, off }: Mark, scale: number): Spot[] =>
  [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ].map(([a, b]) => onBoard(piece, { x: off.x + (a! * MARK) / 2, y: off.y + (b! * MARK) / 2 }, scale));

/** Places of the frame that are bare paper. */
export function paperPlaces(scale: number): Spot[] {
  const out: Spot[] = [];
  PIECES.forEach(({ side }, piece) => {
    const inked = [
      ...MARKS.filter((mark) => mark.piece === piece).map(({ off }) => ({ off, half: MARK / 2 + QUIET })),
      ...patchesOf(piece).map(({ off }) => ({ off, half: PATCH / 2 + 2 })),
    ];
    const add = (off: Spot): void => {
      const clear = inked.every(
        (one) => Math.abs(off.x - one.off.x) > one.half || Math.abs(off.y - one.off.y) > one.half,
      );
      if (clear) out.push(onBoard(piece, off, scale));
    };
    for (const away of [13, 18, 22, 27, 31]) {
      for (let along = -ARM + 4; along < BOARD.width / 2 - 2; along += 4)
        add({ x: -side.x * along, y: side.y * away });
      for (let along = 4; along < BOARD.height / 2 - 2; along += 4)
        add({ x: side.x * away, y: -side.y * along });
    }
  });
  return out;
}
