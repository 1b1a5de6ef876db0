import {
  type Colour,
  ENCODED,
  fromHex,
  type Manner,
  MIXTURES,
  sealedColour,
  stepAt,
  wetColour,
} from '../colour';
import { hash3 } from '../numeric/hash';
import { noiseValue } from '../numeric/noise';
import { normalCdf } from '../numeric/normal';
import { type Scene, type Tones } from '../outcome';
import { type PanelField } from './work';
import { blurred } from '../raster';
import { type Grid, sampled, scores, type Strand } from '../raster';

/*
 * The panel field as a picture. Colour: films over each other as thick as they lie, clear ones deepening what is below,
 * wax in what it fills. Light comes from the upper left over a relief in mm: what was lost lies deeper, rims curl, flakes
 * lift. A film is some hundredths of a millimetre thick and a pixel some tenths wide: the relief is raised for the eye.
 */

/** How the picture is lit. */
export interface PanelView {
  /** How low the light comes in, 0 flat … 1 raking. */
  readonly raking: number;
  /** Sprayed with water: colours as deep as a seal will make them. */
  readonly wet?: boolean;
}

export interface DrawnPanel {
  readonly columns: number;
  readonly rows: number;
  readonly rgba: Uint8ClampedArray<ArrayBuffer>;
}

const LIGHT_X = -0.62;
const LIGHT_Y = -0.78;
const RAISE = 4.2;
/** Rims of islands curl up by this share of the film, flakes about to go by that. */
const CURL = 0.4;
const FLAKE_LIFT = 0.9;
/** What a mirror-like film adds to the light: under the window's reflection, and on slopes that face it; by eye. */
const WINDOW = 0.16;
const FLASH = 0.8;
/** A crater salt has left is paler than its paint by this share of white, until something wets it; by eye. */
const PALE = 0.16;
/** A film of water on the paint shines so [GU]; by eye. */
const WATER_GLOSS = 35;
/** What lies in a crack is in shade. */
const CRACK_SHADE = 0.2;

type Table = readonly [Float32Array, Float32Array, Float32Array];
const TABLE_SIZE = 1023;
/** What a clear film does to every colour, channel by channel. */
function tableOf(change: (c: readonly [number, number, number]) => readonly [number, number, number]): Table {
  const tables: Table = [new Float32Array(1024), new Float32Array(1024), new Float32Array(1024)];
  for (let i = 0; i <= TABLE_SIZE; i++) {
    const changed = change([i / TABLE_SIZE, i / TABLE_SIZE, i / TABLE_SIZE]);
    for (const c of [0, 1, 2] as const) tables[c][i] = changed[c];
  }
  return tables;
}

let wetOnce: Table | null = null;
/** What water does to every colour. */
const wetTable = (): Table => (wetOnce ??= tableOf((c) => wetColour(c)));
const clamped = (c: number): number => (c < 0 ? 0 : c > 1 ? 1 : c);

/** Wood under the paint: rings cut lengthwise, pores along them; about 0, as a share of the colour. */
function grainOf(grid: Grid, { seed, grainUp }: Scene): Float32Array {
  const step = Math.max(1, Math.floor(0.35 / grid.pitchMm));
  const [down, across] = grainUp ? [step, 2 * step] : [2 * step, step];
  return sampled(grid, down, across, (atX, atY) => {
    const [x, y] = grainUp ? [atY, atX] : [atX, atY];
    const bow = 14 * noiseValue(x / 260, y / 120, seed ^ 0x61);
    const ring = noiseValue(x / 900 + 40, (y + bow) / 5.5, seed ^ 0x61);
    const pore = noiseValue(x / 16, y / 0.55, seed ^ 0x62);
    return 0.11 * ring + 0.05 * pore;
  });
}

/** Threads of a cloth and wires of a mesh lie this far apart [mm], and wires are so thick. */
const THREAD_MM = 1.3;
const MESH_MM = 9;
const WIRE_MM = 1.6;
/** How high a thread stands over its neighbours [mm], raised as films are; by eye. */
const THREAD_UP = 0.035;

/** A plain weave: every thread goes over one and under the next; −1 between threads … 1 on their backs. */
function weaveOf(grid: Grid): Float32Array | null {
  if (grid.pitchMm > THREAD_MM / 2) return null;
  return sampled(grid, 1, 1, (x, y) => {
    const [u, v] = [x / THREAD_MM, y / THREAD_MM];
    const over = (Math.floor(u) + Math.floor(v)) % 2 === 0;
    const [across, along] = over ? [u, v] : [v, u];
    const round = (t: number): number => Math.sin(Math.PI * (t - Math.floor(t)));
    return 2 * round(across) * (0.45 + 0.55 * round(along)) - 1;
  });
}

/** Where a mesh has no wire and one looks through it. */
const openMesh = (x: number, y: number): boolean => {
  // Wires run aslant, as such meshes are woven into frames.
  const from = (t: number): number => Math.abs(t / MESH_MM - Math.round(t / MESH_MM)) * MESH_MM;
  return Math.min(from((x + y) / Math.SQRT2), from((x - y) / Math.SQRT2)) > WIRE_MM / 2;
};
/** How deep an opening of a mesh seems [mm]. */
const OPEN_MM = -0.2;
/** What is seen through it: the dark of the inside, linear light. */
const INSIDE = [0.012, 0.011, 0.01] as const;

/** What light falls on: worked out once for a field, whatever the light and the mode. */
interface Surface {
  /** [mm] */
  readonly height: Float32Array;
  /** Linear light, three values a point. */
  readonly colours: Float32Array;
}
const known = new WeakMap<PanelField, Surface>();

function surfaceOf(scene: Scene, field: PanelField): Surface {
  let surface = known.get(field);
  if (surface === undefined) {
    const grain = scene.layers.some(({ finish }) => finish === 'wood') ? grainOf(field.grid, scene) : null;
    const weave = scene.layers[0]!.finish === 'cloth' ? weaveOf(field.grid) : null;
    surface = { height: heightsOf(scene, field, grain, weave), colours: coloursOf(scene, field, grain) };
    if (scene.layers[0]!.finish === 'mesh') openUp(field.grid, surface);
    known.set(field, surface);
  }
  return surface;
}

/** Cuts the openings of a mesh into what lies on its wires. */
function openUp(grid: Grid, { height, colours }: Surface): void {
  const { columns, rows, pitchMm, leftMm, topMm } = grid;
  for (let i = 0; i < columns * rows; i++) {
    const x = leftMm + ((i % columns) + 0.5) * pitchMm;
    const y = topMm + (Math.floor(i / columns) + 0.5) * pitchMm;
    if (!openMesh(x, y)) continue;
    colours.set(INSIDE, 3 * i);
    height[i] = OPEN_MM;
  }
}

function heightsOf(
  scene: Scene,
  field: PanelField,
  grain: Float32Array | null,
  weave: Float32Array | null,
): Float32Array {
  const { grid, heightUm, lost, rim, top, carved } = field;
  // A relief is as deep as it is: only films are raised for the eye.
  const carvedMm = scene.relief === null ? 0 : (0.25 * scene.relief.depth * 1000) / RAISE;
  const { layers } = scene;
  const rimPixels = Math.max(1, Math.round(0.28 / grid.pitchMm));
  const near = blurred(lost, grid, rimPixels);
  const wide = blurred(lost, grid, 3 * rimPixels);
  const height = new Float32Array(heightUm.length);
  for (let i = 0; i < height.length; i++) {
    const k = top[i]!;
    const wood = layers[k]!.finish === 'wood';
    const film = (k === 0 ? 20 : layers[k]!.thicknessUm) / 1000;
    const kept = 1 - lost[i]!;
    const curl = Math.min(1, 2.2 * wide[i]!) * CURL - Math.min(1, 2.6 * near[i]!) * 0.9;
    height[i] =
      heightUm[i]! / 1000 +
      film * kept * (curl + FLAKE_LIFT * rim[i]!) +
      (wood && grain ? 0.01 * grain[i]! : 0) +
      (carved === null ? 0 : carvedMm * carved[i]!) +
      (weave === null ? 0 : THREAD_UP * weave[i]!);
  }
  return height;
}

/** Patches and streaks in which several colours of one coat lie, by how they were laid. */
const LAID_IN: Readonly<Record<Manner, readonly Strand[]>> = {
  'side-by-side': [
    { along: 70, across: 45, weight: 1 },
    { along: 16, across: 9, weight: 0.35 },
    { along: 5, across: 2, weight: 0.15 },
  ],
  blended: [
    { along: 70, across: 34, weight: 1 },
    { along: 22, across: 7, weight: 0.4 },
  ],
  'wet-in-wet': [
    { along: 60, across: 16, weight: 1 },
    { along: 26, across: 3, weight: 0.6 },
    { along: 9, across: 1.2, weight: 0.3 },
  ],
};

/** The colour of a coat of several at every point. */
function tonesOn(grid: Grid, { tones, splits, mixed, manner }: Tones, seed: number): readonly Colour[] {
  const own = tones.map(({ colour }) => fromHex(colour));
  const mixtures = mixed.map((row) => row.map((steps) => steps.map(fromHex)));
  const patterns = splits.map((_, i) => scores(grid, LAID_IN[manner], seed ^ (0x70e5 + 977 * i)));
  const stepOf = (i: number, at: number): number => stepAt(splits[i]!, normalCdf(patterns[i]![at]!));
  /** Which of the colours after the first so many lies at a point, borders aside. */
  const chosen = (from: number, at: number): number => {
    let i = from;
    while (i < splits.length && 2 * stepOf(i, at) >= MIXTURES) i++;
    return i;
  };
  return Array.from({ length: grid.columns * grid.rows }, (_, at) => {
    for (let i = 0; i < splits.length; i++) {
      const step = stepOf(i, at);
      if (step === 0) return own[i]!;
      if (step < MIXTURES) return mixtures[i]![chosen(i + 1, at)]![step]!;
    }
    return own.at(-1)!;
  });
}

/** The colour of every point before light falls on it: films over each other, mixed at borders, wax in what it fills. */
function coloursOf(scene: Scene, field: PanelField, grain: Float32Array | null): Float32Array {
  const { bits, mixed, below, top, wax, waxLayer, pale, relief, laid } = field;
  const n = bits.length;
  const { layers } = scene;
  const own = layers.map((layer) => (layer.colour === null ? null : fromHex(layer.colour)));
  const toned = layers.map((layer, k) =>
    layer.tones === null ? null : tonesOn(field.grid, layer.tones, scene.seed + k),
  );
  const seals = layers.map((layer) =>
    layer.finish === 'clear'
      ? tableOf((c) => sealedColour(c, layer.yellowing * Math.min(1, layer.thicknessUm / 100)))
      : layer.finish === 'wax'
        ? tableOf((c) => wetColour(c))
        : null,
  );
  const highest = layers.length - 1;
  /** What a layer hides at a point, by how thick the brush left it there: 64 steps of relief −1 … 1. */
  const hiding = layers.map((layer) =>
    Float32Array.from({ length: 65 }, (_, s) => {
      const thick = layer.thicknessUm * Math.max(0.25, 1 + (s - 32) / 32);
      return 1 - Math.exp(-thick / layer.hidingUm);
    }),
  );
  const colour = new Float32Array(3);
  const other = new Float32Array(3);
  /** Colours of stacks that are the same wherever they lie: hiding paint with at most clear films over it. */
  const constant = new Map<number, Float32Array | null>();
  const constantOf = (mask: number): Float32Array | null => {
    const before = constant.get(mask);
    if (before !== undefined) return before;
    let base = highest;
    while (base > 0 && ((mask & (1 << base)) === 0 || layers[base]!.opacity < 0.995)) base--;
    let alike = layers[base]!.finish !== 'wood' && layers[base]!.tones === null && base > 0;
    for (let k = base + 1; k <= highest; k++) {
      if ((mask & (1 << k)) !== 0 && own[k] !== null && seals[k] === null) alike = false;
    }
    const found = alike ? new Float32Array(3) : null;
    if (found !== null) look(found, 0, mask, highest);
    constant.set(mask, found);
    return found;
  };

  /** The colour of the stack at a point, looking down from a layer. */
  const look = (into: Float32Array, i: number, mask: number, from: number): void => {
    let base = from;
    while (base > 0 && ((mask & (1 << base)) === 0 || layers[base]!.opacity < 0.995)) base--;
    const ground = toned[base]?.[i] ?? own[base] ?? own[0]!;
    const shade = layers[base]!.finish === 'wood' && grain !== null ? 1 + grain[i]! : 1;
    for (let c = 0; c < 3; c++) into[c] = ground[c]! * shade;
    for (let k = base + (base === 0 ? 1 : 0); k <= from; k++) {
      if ((mask & (1 << k)) === 0 || k === base) continue;
      const table = seals[k];
      if (table) {
        for (let c = 0; c < 3; c++)
          into[c] = table[c]![(Math.min(1, Math.max(0, into[c]!)) * TABLE_SIZE) | 0]!;
        continue;
      }
      const paint = toned[k]?.[i] ?? own[k];
      if (!paint) continue;
      const at = (32 * (1 + relief[k]![i]!) * (laid[k]?.[i] ?? 1)) | 0;
      const hides = hiding[k]![at < 0 ? 0 : at > 64 ? 64 : at]!;
      for (let c = 0; c < 3; c++) into[c] = into[c]! + hides * (paint[c]! - into[c]!);
    }
  };

  const waxColour = waxLayer > 0 ? own[waxLayer]! : null;
  const waxHides = waxLayer > 0 ? layers[waxLayer]!.opacity : 0;
  const colours = new Float32Array(3 * n);
  for (let i = 0; i < n; i++) {
    const alike = constantOf(bits[i]!);
    if (alike === null) look(colour, i, bits[i]!, highest);
    else colour.set(alike);
    const give = mixed[i]!;
    if (give > 0.01) {
      const b = below[i]!;
      look(other, i, b > top[i]! ? bits[i]! | (1 << b) : bits[i]!, b > top[i]! ? highest : b);
      for (let c = 0; c < 3; c++) colour[c] = colour[c]! + give * (other[c]! - colour[c]!);
    }
    if (pale[i]! > 0) {
      const light = PALE * pale[i]!;
      for (let c = 0; c < 3; c++) colour[c] = colour[c]! + light * (1 - colour[c]!);
    }
    if (waxColour && wax[i]! > 0) {
      const rubbed = wax[i]! * waxHides;
      for (let c = 0; c < 3; c++) colour[c] = colour[c]! * (1 - rubbed) + rubbed * waxColour[c]!;
    }
    for (let c = 0; c < 3; c++) colours[3 * i + c] = colour[c]!;
  }
  return colours;
}

/**
 * Paints a panel field. Colours and relief are kept with the field: another light takes no more than the shading.
 * @returns RGBA bytes, row by row
 */
export function drawPanel(scene: Scene, field: PanelField, view: PanelView): DrawnPanel {
  const { grid, bits, lost, floor } = field;
  const { columns, rows, pitchMm } = grid;
  const n = columns * rows;
  const { height, colours } = surfaceOf(scene, field);
  const rgba = new Uint8ClampedArray(n * 4);
  /** Share of the light each layer mirrors when it lies on top. */
  const sheen = view.wet === true ? WATER_GLOSS : 0;
  const mirrors = scene.layers.map((layer) => Math.max(sheen, layer.glossUnits) / 100).map((g) => g ** 1.4);
  const wetted = view.wet === true ? wetTable() : null;
  const open = scene.layers.map(({ finish }) => finish !== 'clear' && finish !== 'wax');
  const slope = (RAISE * (0.5 + view.raking)) / pitchMm;
  const shadowPixels = 1 + Math.round((0.12 + 0.25 * view.raking) / pitchMm);
  const shiftX = Math.round(LIGHT_X * shadowPixels);
  const shiftY = Math.round(LIGHT_Y * shadowPixels);
  for (let row = 0; row < rows; row++) {
    const up = Math.max(0, row - 1) * columns;
    const down = Math.min(rows - 1, row + 1) * columns;
    for (let column = 0; column < columns; column++) {
      const i = row * columns + column;
      const gx =
        0.5 *
        (height[row * columns + Math.min(columns - 1, column + 1)]! -
          height[row * columns + Math.max(0, column - 1)]!) *
        slope;
      const gy = 0.5 * (height[down + column]! - height[up + column]!) * slope;
      // Lambert's law on the raised slope, normalised to 1 on the flat.
      const facing = (1 - gx * LIGHT_X - gy * LIGHT_Y) / Math.sqrt(1 + gx * gx + gy * gy);
      const light = facing < 0.3 ? 0.3 : facing > 1.22 ? 1.22 : facing;
      // The wall on the light's side throws its shadow into what lies deeper.
      const sx = column + shiftX < 0 ? 0 : column + shiftX >= columns ? columns - 1 : column + shiftX;
      const sy = row + shiftY < 0 ? 0 : row + shiftY >= rows ? rows - 1 : row + shiftY;
      const drop = (height[sy * columns + sx]! - height[i]!) * 14;
      const wall = drop <= 0 ? 0 : drop >= 1 ? 1 : drop;
      const deep = lost[i]! * (0.3 * wall + (CRACK_SHADE + 0.1) * floor[i]!);
      const speck = ((hash3(column, row, scene.seed) & 255) / 255 - 0.5) * 0.022;
      const shine = light * (1 - deep) + speck;
      const uppermost = 31 - Math.clz32(bits[i]!);
      // A window's light lies aslant over what is glossy, and flashes on the slopes that face it.
      const off = (column / columns + row / rows - 0.62) / 0.3;
      const mirrored =
        mirrors[uppermost]! *
        (1 - lost[i]!) *
        (WINDOW * Math.exp(-off * off) + (facing > 1 ? FLASH * (facing - 1) : 0));
      for (let c = 0; c < 3; c++) {
        const own = colours[3 * i + c]!;
        const seen = wetted !== null && open[uppermost]! ? wetted[c]![(clamped(own) * TABLE_SIZE) | 0]! : own;
        const value = seen * shine + mirrored;
        const level = value <= 0 ? 0 : value >= 1 ? 4096 : (value * 4096) | 0;
        rgba[i * 4 + c] = ENCODED[level]!;
      }
      rgba[i * 4 + 3] = 255;
    }
  }
  return { columns, rows, rgba };
}
