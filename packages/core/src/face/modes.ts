import { fromRim } from '../plan';
import { type Scene } from '../outcome';
import { drawPanel, type DrawnPanel, type PanelView } from './draw';
import { type PanelField } from './work';

/** What a picture of the panel shows: its looks, or one thing about it at a time. */
export const FACE_MODES = ['colour', 'wet', 'top', 'thickness', 'width', 'time'] as const;
export type FaceMode = (typeof FACE_MODES)[number];

/** What a measured mode's colours run from and to: thickness µm, width mm, time share of the opening 0 … 1. */
export interface ModeScale {
  readonly low: number;
  readonly high: number;
}

export interface ModePicture extends DrawnPanel {
  /** null where colours stand for names, or for themselves. */
  readonly scale: ModeScale | null;
}

type Rgb = readonly [number, number, number];

/** Colours that layers are told apart by, the panel's first; of like lightness steps, for eyes that see no red or green too. */
export const LAYER_COLOURS = [
  '#c8a468',
  '#2b4f63',
  '#d9d2b4',
  '#a4532f',
  '#7fb0a4',
  '#4c3a57',
  '#e0b23f',
  '#6f8f47',
  '#c48aa0',
  '#3e7d8c',
  '#8c8c88',
  '#5b2f22',
] as const;

/** From little to much: pale clay to deep slate, evenly darker. */
const RAMP: readonly Rgb[] = [
  [241, 234, 214],
  [214, 196, 150],
  [176, 152, 110],
  [118, 112, 104],
  [66, 78, 92],
  [26, 40, 56],
];
/** Where nothing is to be told. */
const NOTHING: Rgb = [222, 221, 217];

export const RAMP_STOPS: readonly string[] = RAMP.map(([r, g, b]) => `rgb(${r} ${g} ${b})`);

const fromHex = (hex: string): Rgb => {
  const value = Number.parseInt(hex.slice(1), 16);
  return [value >> 16, (value >> 8) & 255, value & 255];
};

const RAMP_TABLE = Uint8ClampedArray.from({ length: 256 * 3 }, (_, i) => {
  const at = (Math.floor(i / 3) / 255) * (RAMP.length - 1);
  const k = Math.min(RAMP.length - 2, Math.floor(at));
  const c = i % 3;
  return RAMP[k]![c]! + (at - k) * (RAMP[k + 1]![c]! - RAMP[k]![c]!);
});

/** The value that all but one in two hundred points stay below: single spots do not stretch the scale. */
function highOf(values: Float32Array): number {
  const bins = new Uint32Array(512);
  let most = 0;
  for (const value of values) if (value > most) most = value;
  if (most <= 0) return 0;
  let counted = 0;
  for (const value of values) {
    if (value <= 0) continue;
    bins[Math.min(511, Math.floor((value / most) * 512))]!++;
    counted++;
  }
  let above = 0;
  let k = 511;
  while (k > 0 && above + bins[k]! < 0.005 * counted) above += bins[k--]!;
  return ((k + 1) / 512) * most;
}

/** Draws a panel field in a mode; round an oval panel nothing is drawn. */
export function drawMode(scene: Scene, field: PanelField, mode: FaceMode, view: PanelView): ModePicture {
  const picture = wholeMode(scene, field, mode, view);
  if (scene.oval) cutOut(scene, field, picture.rgba);
  return picture;
}

/** Takes out what lies outside the panel, softly over a pixel. */
function cutOut({ widthMm, heightMm, oval }: Scene, { grid }: PanelField, rgba: Uint8ClampedArray): void {
  const { columns, rows, pitchMm, leftMm, topMm } = grid;
  const size = { width: widthMm, height: heightMm, oval };
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const inside = fromRim(size, leftMm + (column + 0.5) * pitchMm, topMm + (row + 0.5) * pitchMm);
      rgba[4 * (row * columns + column) + 3] = 255 * (0.5 + inside / pitchMm);
    }
  }
}

function wholeMode(scene: Scene, field: PanelField, mode: FaceMode, view: PanelView): ModePicture {
  switch (mode) {
    case 'colour':
    case 'wet':
      return { ...drawPanel(scene, field, { ...view, wet: mode === 'wet' }), scale: null };
    case 'top': {
      const colours = scene.layers.map((_, k) => fromHex(LAYER_COLOURS[k % LAYER_COLOURS.length]!));
      return { ...painted(field, (i) => colours[field.top[i]!]!), scale: null };
    }
    case 'thickness':
      return ramped(field, field.heightUm, () => true);
    case 'width':
      return ramped(field, field.crackMm, (i) => field.crackMm[i]! > 0);
    case 'time':
      return ramped(field, field.born, (i) => field.born[i]! <= 1, { low: 0, high: 1 });
  }
}

function ramped(
  field: PanelField,
  values: Float32Array,
  told: (i: number) => boolean,
  scale: ModeScale = { low: 0, high: highOf(values) },
): ModePicture {
  const { low, high } = scale;
  const per = high > low ? 255 / (high - low) : 0;
  const colour: [number, number, number] = [0, 0, 0];
  const picture = painted(field, (i) => {
    if (!told(i)) return NOTHING;
    const at = Math.min(255, Math.max(0, Math.round((values[i]! - low) * per))) * 3;
    for (let c = 0; c < 3; c++) colour[c] = RAMP_TABLE[at + c]!;
    return colour;
  });
  return { ...picture, scale };
}

function painted(field: PanelField, colourAt: (i: number) => Rgb): DrawnPanel {
  const { columns, rows } = field.grid;
  const rgba = new Uint8ClampedArray(columns * rows * 4);
  for (let i = 0; i < columns * rows; i++) {
    const [r, g, b] = colourAt(i);
    rgba[i * 4] = r;
    rgba[i * 4 + 1] = g;
    rgba[i * 4 + 2] = b;
    rgba[i * 4 + 3] = 255;
  }
  return { columns, rows, rgba };
}
