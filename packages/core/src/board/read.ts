import { type Colour } from '../colour';
import { InputError } from '../errors';
import {
  areApart,
  CLIPPED,
  coloursIn,
  type Correction,
  halved,
  type Known,
  layersIn,
  type LayersSeen,
  type Lens,
  type Light,
  lightFrom,
  LINEAR,
  type Look,
  lookAt,
  type Luma,
  LUMINANCE,
  type Paper,
  type PhotoReading,
  type Picture,
  readingOf,
  rectifiedBox,
  type Tinted,
  toPixel,
} from '../photo';
import { type Camera, cameraOf, raised } from './camera';
import { CELL, cellBox, CELLS, CHECK_LINE, MARKS, paperPlaces } from './frame';
import { blurOf, findMarks, noEdges, refined } from './marks';

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
  /** What somebody put right by hand, by cell. */
  readonly corrections?: readonly (readonly Correction[])[];
}

/** What is to be said of the photograph as a whole. */
export type BoardNote =
  'few-marks' | 'frame-slipped' | 'not-flat' | 'shadow' | 'sharpened' | 'no-focal-length';

/** A cell as it was read. */
export interface CellReading extends PhotoReading {
  /** Layers that are seen; null where their colours are not planned, are too much alike, or it glares. */
  readonly layers: (LayersSeen & { readonly colours: readonly Colour[] }) | null;
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

/** Marks a picture is read from, of at least two pieces. */
const LEAST_MARKS = 4;
/** A frame that is off by more than this is told: pieces [mm], corners [px], paper [ln], and sharp edges. */
const OFF = { slipMm: 1.5, residualPx: 0.6, paper: 0.02, overshoot: 0.04 } as const;
/** Usual for a telephone's camera [mm as for 35 mm film]; common practice. */
const USUAL_FOCAL = 26;
/** Looked at round the window of a cell, else lines would run along its border [mm]. */
const PAD = 3;
/** What white office paper reflects, of all light; common practice. */
const PAPER = 0.86;
/** Pixels round a place of paper that are looked at, and its share of clipped ones that spoils it. */
const PAPER_REACH = 4;
const PAPER_CLIPPED = 0.2;
/** Pixels deep inside of cracks from which on a cell's contrast speaks for others, and how far it may be off theirs. */
const WIDE = { core: 3000, off: 0.02, chipped: 0.2 } as const;

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

const median = (values: readonly number[]): number => values.toSorted((a, b) => a - b)[values.length >> 1]!;

/** A cell square on, with what is known of it. */
interface Crop {
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
  if (!(ask.cells >= 1 && ask.cells <= CELLS)) wrong('cells', ask.cells, `1 to ${CELLS}`);
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
    noise: median(paper.map(({ noise }) => noise)),
  };
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
    corrections: ask.corrections?.[n] ?? [],
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
  const shared = speak.length > 0 ? median(speak.map(signed)) : null;
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

/**
 * Reads a sample board in its printed frame from a photograph.
 * @param told - called after each cell with how many are done
 * @throws InputError where the frame cannot be read, or what is asked is out of range
 */
export function readBoard(
  picture: Picture,
  ask: BoardAsk,
  told: (done: number) => void = () => undefined,
): BoardReading {
  check(ask);
  const scale = ask.checkLineMm / CHECK_LINE.meant;
  const seen = frameIn(picture, scale);
  const { camera, blur } = seen;
  const lens = raised(camera.lens, ask.focal35 ?? USUAL_FOCAL, ask.thicknessMm);
  const crops: Crop[] = [];
  const looks: Look[] = [];
  for (let n = 0; n < ask.cells; n++) {
    const crop = cropOf(picture, seen, lens, ask, n);
    crops.push(crop);
    looks.push(lookAt(crop.luma, crop.known, crop.corrections));
    told(n + 1);
  }
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
      return { ...reading, layers: reading.trust.area === 'glare' ? null : layers[n]! };
    }),
    notes: notes.flatMap(([is, note]) => (is ? [note] : [])),
    marks: seen.marks,
    blur: blur.sigma,
    residual: camera.residual,
    slipMm,
  };
}
