/*
 * What takes paint off again, a row each: a new tool is a row here, its words, and its line in the model's document.
 */

/** How a tool takes off: by grain, by wet rubbing, by an edge, by softening, or by no more than what is loose. */
export type ToolAction = 'sand' | 'rub' | 'cut' | 'soften' | 'lift';

export interface Tool {
  readonly action: ToolAction;
  /**
   * Depth a round takes [µm]: of what still dissolves, per rub; of a film that cuts easily, per stroke; of what has
   * softened, in all; assumed.
   */
  readonly perRoundUm: number;
  /** How much it helps loose islands off, against nothing done; assumed. */
  readonly lifting: number;
  /** Share of a resist that it brings off, of what can come; assumed. */
  readonly resistLift: number;
  /** How much harder it works at rims, where the pressure of pad or hand gathers; assumed. */
  readonly exposure: { readonly field: number; readonly edge: number; readonly corner: number };
  /** Pace of a working hand [m²/min] a round; assumed. */
  readonly pace: number;
  /** Rounds it mostly takes: passes, rubs, strokes; minutes for what softens. */
  readonly usualRounds: number;
  /** Counts as wetting the paint again. */
  readonly wets: boolean;
  /** Water it leaves on the work, which must be gone before the next coat [m]; common practice. */
  readonly leaves: number;
  /** Goes deep in single lines and leaves what is between. */
  readonly lines?: boolean;
}

const EVEN = { field: 1, edge: 1, corner: 1 };

const TABLE = {
  sand: {
    action: 'sand',
    perRoundUm: 45,
    lifting: 1.2,
    resistLift: 0.6,
    exposure: { field: 1, edge: 2.4, corner: 3.2 },
    pace: 0.25,
    usualRounds: 8,
    wets: false,
    leaves: 0,
  },
  cloth: {
    action: 'rub',
    perRoundUm: 0.9,
    lifting: 1.15,
    resistLift: 0.35,
    exposure: { field: 1, edge: 1.5, corner: 1.8 },
    pace: 1,
    usualRounds: 15,
    wets: false,
    leaves: 10e-6,
  },
  sponge: {
    action: 'rub',
    perRoundUm: 1.5,
    lifting: 1.5,
    resistLift: 0.7,
    exposure: { field: 1, edge: 1.7, corner: 2 },
    pace: 1,
    usualRounds: 8,
    wets: true,
    leaves: 30e-6,
  },
  scrape: {
    action: 'cut',
    perRoundUm: 2.5,
    lifting: 1.8,
    resistLift: 1,
    exposure: { field: 1, edge: 2, corner: 2.2 },
    pace: 0.5,
    usualRounds: 3,
    wets: false,
    leaves: 0,
  },
  blade: {
    action: 'cut',
    perRoundUm: 6,
    lifting: 2,
    resistLift: 1,
    exposure: { field: 1, edge: 3, corner: 4 },
    pace: 0.5,
    usualRounds: 4,
    wets: false,
    leaves: 0,
  },
  tap: {
    action: 'lift',
    perRoundUm: 0,
    lifting: 1.6,
    resistLift: 0.4,
    exposure: EVEN,
    pace: 0.3,
    usualRounds: 10,
    wets: false,
    leaves: 0,
  },
  fingers: {
    action: 'lift',
    perRoundUm: 0,
    lifting: 1.35,
    resistLift: 0.25,
    exposure: EVEN,
    pace: 0.4,
    usualRounds: 2,
    wets: false,
    leaves: 0,
  },
  sander: {
    action: 'sand',
    perRoundUm: 80,
    lifting: 1.4,
    resistLift: 0.7,
    exposure: { field: 1, edge: 2, corner: 2.4 },
    pace: 0.5,
    usualRounds: 4,
    wets: false,
    leaves: 0,
  },
  knife: {
    action: 'cut',
    perRoundUm: 3.5,
    lifting: 2.2,
    resistLift: 1,
    exposure: { field: 1, edge: 1.6, corner: 1.8 },
    pace: 0.3,
    usualRounds: 3,
    wets: false,
    leaves: 0,
  },
  brush: {
    action: 'lift',
    perRoundUm: 0,
    lifting: 1.45,
    resistLift: 0.3,
    exposure: EVEN,
    pace: 0.8,
    usualRounds: 4,
    wets: false,
    leaves: 0,
  },
  towel: {
    action: 'rub',
    perRoundUm: 0.6,
    lifting: 1.1,
    resistLift: 0.3,
    exposure: { field: 1, edge: 1.4, corner: 1.6 },
    pace: 1.2,
    usualRounds: 6,
    wets: false,
    leaves: 0,
  },
  press: {
    action: 'rub',
    perRoundUm: 2.2,
    lifting: 1.7,
    resistLift: 0.7,
    exposure: { field: 1, edge: 1.1, corner: 1.2 },
    pace: 0.3,
    usualRounds: 4,
    wets: true,
    leaves: 25e-6,
  },
  scratch: {
    action: 'cut',
    perRoundUm: 1.2,
    lifting: 1.15,
    resistLift: 0.2,
    exposure: EVEN,
    pace: 0.4,
    usualRounds: 4,
    wets: false,
    leaves: 0,
    lines: true,
  },
  bleach: {
    action: 'soften',
    perRoundUm: 60,
    lifting: 1,
    resistLift: 0.2,
    exposure: EVEN,
    pace: 0.3,
    usualRounds: 5,
    wets: false,
    leaves: 50e-6,
  },
} as const satisfies Record<string, Tool>;

export type DistressTool = keyof typeof TABLE;
export const DISTRESS_TOOLS = Object.keys(TABLE) as DistressTool[];
export const toolOf = (key: DistressTool): Tool => TABLE[key];
