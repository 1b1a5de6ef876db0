export const BOARD_QUESTIONS = [
  'how-thick',
  'when',
  'both',
  'thinned',
  'passes',
  'chips',
  'work',
  'colours',
  'seals',
  'school',
] as const;
/**
 * What a board is to tell: how thick films give the look that is wanted, when to lay the coat that cracks, or both; what
 * becomes of it where the film below goes on full, half and half, or between, or where the brush goes over one place again
 * and again; what of it chips, over what it lies on and without that; how much the tool takes that shows most, or how much hot air does;
 * what it looks like in other colours, or under each seal, to be carried into the room; which way of working comes nearest to the look.
 */
export type BoardQuestion = (typeof BOARD_QUESTIONS)[number];
export const BOARD_SIZES = [3, 5, 9] as const;
export type BoardSize = (typeof BOARD_SIZES)[number];

/** A cell and what separates it from its neighbour [mm]: enough to see a few cracks of 20 mm. */
export const CELL_MM = 80;

/** A smaller share that has chipped, or shows, nobody sees. */
export const SEEN = 0.005;
