import { type Colour } from '../colour';
import { InputError } from '../errors';
import {
  areApart,
  coloursIn,
  type Correction,
  halved,
  type Known,
  layersIn,
  type LayersSeen,
  type Lens,
  type Look,
  lookAt,
  type Luma,
  LUMINANCE,
  medianOf,
  type PhotoReading,
  type Picture,
  readingOf,
  rectifiedBox,
  squareOn,
  type Tinted,
} from '../photo';
import { raised } from './camera';
import { CELL, cellBox, CELLS, CHECK_LINE } from './frame';
import { type FrameSeen, frameIn } from './seen';

/** What is asked of a photograph of a board in its frame. */
export interface BoardAsk {
  /** How many cells are painted, row by row: 1 … 9. */
  readonly cells: number;
  /** How much thicker the board is than the frame it lies in [mm]: 0 … 50. */
  readonly thicknessMm: number;
  /** Focal length of the camera as for 35 mm film [mm]; null where the picture does not say. */
  readonly focal35: number | null;
  /** What the check line of the printed frame measured [mm]. */
  readonly checkLineMm: number;
  /** Planned colours of the layers by cell, from the ground up, linear, as shares of white; empty where not known. */
  readonly layers: readonly (readonly Colour[])[];
}

/** What is to be said of the photograph as a whole. */
export type BoardNote =
  'few-marks' | 'frame-slipped' | 'not-flat' | 'shadow' | 'sharpened' | 'no-focal-length';

/** A cell as it was read. */
export interface CellReading extends PhotoReading {
  /** Layers that are seen; null where their colours are not planned, are too much alike, or it glares. */
  readonly layers: (LayersSeen & { readonly colours: readonly Colour[] }) | null;
  /** The cell square on, in even light. */
  readonly seen: Picture;
}

export interface BoardReading {
  readonly cells: readonly CellReading[];
  readonly notes: readonly BoardNote[];
  /** Marks that were read, of twelve. */
  readonly marks: number;
  /** Blur of the photograph [px, standard deviation]. */
  readonly blur: number;
  /** How far the frame's corners are off the fit [px]. */
  readonly residual: number;
  /** Most a piece of the frame was off [mm]. */
  readonly slipMm: number;
}

/** A frame that is off by more than this is told: pieces [mm], corners [px], paper [ln], and sharp edges. */
const OFF = { slipMm: 1.5, residualPx: 0.6, paper: 0.02, overshoot: 0.04 } as const;
/** Usual for a telephone's camera [mm as for 35 mm film]; common practice. */
const USUAL_FOCAL = 26;
/** Looked at round the window of a cell, else lines would run along its border [mm]. */
const PAD = 3;
/** What white office paper reflects, of all light; common practice. */
const PAPER = 0.86;
/** Pixels deep inside of cracks from which on a cell's contrast speaks for others, and how far it may be off theirs. */
const WIDE = { core: 3000, off: 0.02, chipped: 0.2 } as const;

/** A cell square on, with what is known of it. */
export interface Crop {
  readonly luma: Luma;
  readonly tinted: Tinted;
  readonly known: Known;
  readonly corrections: readonly Correction[];
}

function check(ask: BoardAsk): void {
  const wrong = (field: string, value: number, allowed: string): never => {
    throw new InputError({ code: 'photo.frame', field, value: String(value), allowed });
  };
  if (!(ask.checkLineMm >= CHECK_LINE.min && ask.checkLineMm <= CHECK_LINE.max))
    wrong(
      'check line',
      ask.checkLineMm,
      `${CHECK_LINE.min} to ${CHECK_LINE.max} mm: print the frame at its own size`,
    );
  if (!(ask.thicknessMm >= 0 && ask.thicknessMm <= 50)) wrong('thickness', ask.thicknessMm, '0 to 50 mm');
  if (!(Number.isInteger(ask.cells) && ask.cells >= 1 && ask.cells <= CELLS))
    wrong('cells', ask.cells, `1 to ${CELLS}`);
}

/** Reflectance of a planned colour against paper. */
const againstPaper = (colour: Colour): Colour => [colour[0] / PAPER, colour[1] / PAPER, colour[2] / PAPER];
const luminanceOf = (colour: Colour): number => LUMINANCE.reduce((sum, by, c) => sum + by * colour[c]!, 0);

/** A cell of the photograph. */
function cropOf(picture: Picture, seen: FrameSeen, lens: Lens, ask: BoardAsk, n: number): Crop {
  const { left, top } = cellBox(n);
  const side = CELL.side - 2 * CELL.inset + 2 * PAD;
  const from = CELL.inset - PAD;
  const { luma, tinted, scale } = rectifiedBox(picture, lens, seen.light, {
    left: left + from,
    top: top + from,
    width: side,
    height: side,
  });
  const uppermost = ask.layers[n]?.at(-1);
  const paint = uppermost === undefined ? null : luminanceOf(againstPaper(uppermost));
  const rim = Math.round(PAD / luma.pitch);
  return {
    luma,
    tinted,
    corrections: [],
    known: {
      // The raster is as fine as the photograph is at its finest; elsewhere its blur is drawn wider.
      blur: seen.blur.sigma * Math.sqrt(scale.most / scale.least),
      // Noise of light goes with its root: paint that is darker than paper has relatively more.
      noise: seen.noise / Math.sqrt(Math.max(0.02, paint ?? 0.3)),
      overshoot: seen.blur.overshoot,
      rim: [rim, rim],
      paint,
      dark: null,
      contrast: null,
    },
  };
}

/**
 * The same paint over the same coat: cells without a wide crack borrow the contrast of those that have one, and a cell
 * that took light for dark is looked at again.
 */
function together(crops: readonly Crop[], looks: readonly Look[]): { look: Look; known: Known }[] {
  const signed = ({ contrast, dark }: Look): number => (dark ? contrast : -contrast);
  const wide = looks.filter(({ contrastFrom, chipped }) => contrastFrom === 'core' && chipped < WIDE.chipped);
  const best = wide.filter(({ core }) => core > WIDE.core);
  const speak = best.length > 0 ? best : wide;
  const shared = speak.length > 0 ? medianOf(speak.map(signed)) : null;
  const vote = looks.reduce((sum, look) => {
    const weight = look.limit > 0 ? (look.sums.length * look.contrast) / look.limit : 0;
    return sum + (look.dark ? weight : -weight);
  }, 0);
  const dark = (shared ?? vote) >= 0;
  const contrast = shared === null ? null : Math.abs(shared);
  return looks.map((look, n) => {
    const { luma, known, corrections } = crops[n]!;
    const given: Known = { ...known, dark, contrast };
    if (look.dark !== dark && look.sums.length > 0)
      return { look: lookAt(luma, given, corrections), known: given };
    const near = contrast !== null && Math.abs(look.contrast / contrast - 1) < WIDE.off;
    const speaks = look.contrastFrom === 'core' && (look.core > WIDE.core || near);
    if (contrast === null || speaks) return { look, known };
    return { look: { ...look, contrast, contrastFrom: 'given' }, known: given };
  });
}

/** Layers of cells that are planned alike, by the colours all of them have. */
function layersOf(crops: readonly Crop[], ask: BoardAsk): readonly CellReading['layers'][] {
  const halves = crops.map(({ tinted }) => halved(tinted));
  const plannedOf = (n: number): readonly Colour[] => (ask.layers[n] ?? []).map(againstPaper);
  const colours = new Map<string, readonly Colour[]>();
  return halves.map((half, n) => {
    const planned = plannedOf(n);
    if (planned.length < 2 || !areApart(planned)) return null;
    const key = JSON.stringify(planned);
    const alike = halves.filter((_, k) => JSON.stringify(plannedOf(k)) === key);
    const own = colours.get(key) ?? coloursIn(alike, planned);
    colours.set(key, own);
    return { ...layersIn(half, own), colours: own };
  });
}

/** A photograph of a board as it was looked at: kept to be put right by hand, cell by cell. */
export interface LookedAt {
  readonly ask: BoardAsk;
  readonly seen: FrameSeen;
  readonly crops: readonly Crop[];
  readonly looks: readonly Look[];
}

/**
 * Looks at a photograph of a sample board in its printed frame.
 * @param told - called after each cell with how many are done
 * @throws InputError where the frame cannot be read, or what is asked is out of range
 */
export function lookAtBoard(
  picture: Picture,
  ask: BoardAsk,
  told: (done: number) => void = () => undefined,
): LookedAt {
  check(ask);
  const seen = frameIn(picture, ask.checkLineMm / CHECK_LINE.meant);
  const lens = raised(seen.camera.lens, ask.focal35 ?? USUAL_FOCAL, ask.thicknessMm);
  const crops: Crop[] = [];
  const looks: Look[] = [];
  for (let n = 0; n < ask.cells; n++) {
    const crop = cropOf(picture, seen, lens, ask, n);
    crops.push(crop);
    looks.push(lookAt(crop.luma, crop.known));
    told(n + 1);
  }
  return { ask, seen, crops, looks };
}

/** The same with a cell put right by hand: all its corrections, later ones over earlier ones. */
export function putRight(board: LookedAt, n: number, corrections: readonly Correction[]): LookedAt {
  const crop: Crop = { ...board.crops[n]!, corrections };
  return {
    ...board,
    crops: board.crops.with(n, crop),
    looks: board.looks.with(n, lookAt(crop.luma, crop.known, corrections)),
  };
}

/** What a board that was looked at tells. */
export function boardReading({ ask, seen, crops, looks }: LookedAt): BoardReading {
  const { camera, blur } = seen;
  const layers = layersOf(crops, ask);
  const slipMm = Math.max(...camera.slips.map(({ dx, dy }) => Math.hypot(dx, dy)));
  const notes: readonly (readonly [boolean, BoardNote])[] = [
    [seen.marks < 9, 'few-marks'],
    [slipMm > OFF.slipMm, 'frame-slipped'],
    [camera.residual > OFF.residualPx, 'not-flat'],
    [seen.light.off > OFF.paper, 'shadow'],
    [blur.overshoot > OFF.overshoot, 'sharpened'],
    [ask.thicknessMm > 0 && ask.focal35 === null, 'no-focal-length'],
  ];
  return {
    cells: together(crops, looks).map(({ look, known }, n) => {
      const reading = readingOf(look, known);
      const { tinted } = crops[n]!;
      return {
        ...reading,
        layers: reading.trust.area === 'glare' ? null : layers[n]!,
        seen: squareOn(tinted),
      };
    }),
    notes: notes.flatMap(([is, note]) => (is ? [note] : [])),
    marks: seen.marks,
    blur: blur.sigma,
    residual: camera.residual,
    slipMm,
  };
}

/** Reads a sample board in its printed frame from a photograph: `boardReading` of `lookAtBoard`. */
export const readBoard = (
  picture: Picture,
  ask: BoardAsk,
  told: (done: number) => void = () => undefined,
): BoardReading => boardReading(lookAtBoard(picture, ask, told));
