import { type FittingKind, type Part, type PartZone, PLACED_ZONE_NAMES } from '@zaffet/contract';
import { type SubstrateKey } from '@zaffet/core/media';
import { type Facing, type PlacedZone } from '@zaffet/core/piece';
import { type Use } from '@zaffet/core/plan';
import { newPart } from './newPlan';

/** Outer size of a piece [mm]. */
export interface PieceSize {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly depthMm: number;
}

/** A part as a template has it. */
interface Drawn {
  readonly name: string;
  readonly facing: Facing;
  readonly width: number;
  readonly height: number;
  readonly use?: Use;
  readonly fittings?: readonly FittingKind[];
  readonly zones?: readonly Omit<PartZone, 'id'>[];
  /** Round or oval. */
  readonly oval?: boolean;
  /** Standing while it is worked on: what cannot well be laid down. */
  readonly stands?: boolean;
}

interface Template {
  readonly name: string;
  /** What its three sizes are called; an empty one is not asked for. */
  readonly sizes: readonly [string, string, string];
  readonly usual: PieceSize;
  readonly substrate: SubstrateKey;
  readonly parts: (width: number, height: number, depth: number) => readonly Drawn[];
}

const zone = (
  kind: PlacedZone,
  left: number,
  top: number,
  width: number,
  height: number,
): Omit<PartZone, 'id'> => ({
  kind,
  name: PLACED_ZONE_NAMES[kind],
  oval: false,
  leftMm: Math.max(0, Math.round(left)),
  topMm: Math.max(0, Math.round(top)),
  widthMm: Math.max(20, Math.round(width)),
  heightMm: Math.max(20, Math.round(height)),
});
/** A knob or handle in the middle of a front, with what a hand touches round it. */
const pullAt = (x: number, y: number, reach = 90): Omit<PartZone, 'id'> =>
  zone('pull', x - reach / 2, y - reach / 2, reach, reach);

/** A framed leaf: rails above and below, stiles beside, a sunk panel between. */
const framed = (w: number, h: number, rail: number): readonly Omit<PartZone, 'id'>[] => [
  zone('rail', 0, 0, w, rail),
  zone('rail', 0, h - rail, w, rail),
  zone('rail', 0, rail, rail, h - 2 * rail),
  zone('rail', w - rail, rail, rail, h - 2 * rail),
  zone('recess', rail, rail, w - 2 * rail, h - 2 * rail),
];

/** Square legs unfolded: four faces each, side by side. */
const legs = (count: number, thick: number, height: number): Drawn => ({
  name: count === 4 ? 'Legs, unfolded' : 'Legs',
  facing: 'loose',
  width: count * 4 * thick,
  height,
  use: 'hands',
});

const TEMPLATES = {
  chest: {
    name: 'Chest',
    sizes: ['Width', 'Height', 'Depth'],
    usual: { widthMm: 900, heightMm: 480, depthMm: 460 },
    substrate: 'scuffed',
    parts: (w, h, d) => [
      { name: 'Lid', facing: 'top', width: w, height: d, use: 'hands', fittings: ['hinge'] },
      {
        name: 'Front',
        facing: 'front',
        width: w,
        height: h,
        fittings: ['hardware'],
        zones: [pullAt(w / 2, 60, 110)],
      },
      { name: 'Back', facing: 'back', width: w, height: h },
      {
        name: 'Left side',
        facing: 'left',
        width: d,
        height: h,
        use: 'hands',
        zones: [pullAt(d / 2, 0.35 * h, 130)],
      },
      {
        name: 'Right side',
        facing: 'right',
        width: d,
        height: h,
        use: 'hands',
        zones: [pullAt(d / 2, 0.35 * h, 130)],
      },
    ],
  },
  'side-table': {
    name: 'Side table',
    sizes: ['Width', 'Height', 'Depth'],
    usual: { widthMm: 550, heightMm: 620, depthMm: 420 },
    substrate: 'scuffed',
    parts: (w, h, d) => [
      { name: 'Top', facing: 'top', width: w, height: d, use: 'hot-cups' },
      {
        name: 'Drawer front',
        facing: 'front',
        width: 0.8 * w,
        height: 120,
        use: 'hands',
        fittings: ['drawer', 'hardware'],
        zones: [pullAt(0.4 * w, 60, 80)],
      },
      { name: 'Back rail', facing: 'back', width: 0.8 * w, height: 120 },
      { name: 'Left rail', facing: 'left', width: 0.8 * d, height: 120 },
      { name: 'Right rail', facing: 'right', width: 0.8 * d, height: 120 },
      legs(4, 40, h - 20),
    ],
  },
  leaf: {
    name: 'Door or shutter leaf',
    sizes: ['Width', 'Height', ''],
    usual: { widthMm: 420, heightMm: 1100, depthMm: 30 },
    substrate: 'flat-paint',
    parts: (w, h) => [
      {
        name: 'Outer face',
        facing: 'front',
        width: w,
        height: h,
        use: 'hands',
        fittings: ['hinge', 'hardware'],
        zones: [...framed(w, h, 0.18 * w), pullAt(w - 0.09 * w, h / 2, 80)],
      },
      { name: 'Inner face', facing: 'back', width: w, height: h, zones: framed(w, h, 0.18 * w) },
    ],
  },
  frame: {
    name: 'Frame',
    sizes: ['Width', 'Height', ''],
    usual: { widthMm: 600, heightMm: 450, depthMm: 20 },
    substrate: 'raw-softwood',
    parts: (w, h) => {
      const rail = Math.max(40, 0.12 * Math.min(w, h));
      const side = (name: string, width: number): Drawn => ({
        name,
        facing: 'loose',
        width,
        height: rail,
        zones: [zone('relief', 0, 0.3 * rail, width, 0.4 * rail)],
      });
      return [side('Upper side', w), side('Lower side', w), side('Left side', h), side('Right side', h)];
    },
  },
  chair: {
    name: 'Chair',
    sizes: ['Width', 'Height', 'Depth'],
    usual: { widthMm: 430, heightMm: 880, depthMm: 420 },
    substrate: 'scuffed',
    parts: (w, h, d) => [
      { name: 'Seat', facing: 'top', width: w, height: d, use: 'hands' },
      {
        name: 'Back rest, front',
        facing: 'front',
        width: w,
        height: 0.45 * h,
        use: 'hands',
        zones: [zone('rail', 0, 0, w, 80)],
      },
      { name: 'Back rest, behind', facing: 'back', width: w, height: 0.45 * h, use: 'hands' },
      legs(4, 38, 0.48 * h),
      { name: 'Stretchers, unfolded', facing: 'loose', width: 4 * d, height: 4 * 22, stands: true },
    ],
  },
  tray: {
    name: 'Tray',
    sizes: ['Width', 'Rim', 'Depth'],
    usual: { widthMm: 450, heightMm: 55, depthMm: 320 },
    substrate: 'raw-softwood',
    parts: (w, h, d) => [
      { name: 'Ground', facing: 'inside', width: w, height: d, use: 'hot-cups' },
      { name: 'Long rims, in and out', facing: 'loose', width: w, height: 4 * h, use: 'hands' },
      {
        name: 'Short rims, in and out',
        facing: 'loose',
        width: d,
        height: 4 * h,
        use: 'hands',
        zones: [pullAt(d / 2, 2 * h, 1.6 * h)],
      },
    ],
  },
  sign: {
    name: 'Sign board',
    sizes: ['Width', 'Height', ''],
    usual: { widthMm: 900, heightMm: 240, depthMm: 20 },
    substrate: 'raw-softwood',
    parts: (w, h) => [{ name: 'Face', facing: 'front', width: w, height: h }],
  },
  bracket: {
    name: 'Bracket',
    sizes: ['Width', 'Height', 'Depth'],
    usual: { widthMm: 40, heightMm: 260, depthMm: 220 },
    substrate: 'raw-softwood',
    parts: (w, h, d) => [
      { name: 'Left cheek', facing: 'left', width: d, height: h },
      { name: 'Right cheek', facing: 'right', width: d, height: h },
      {
        name: 'Front edge',
        facing: 'front',
        width: w,
        height: Math.hypot(h, d),
        zones: [zone('relief', 0, 0, w, Math.hypot(h, d))],
      },
    ],
  },
  shelf: {
    name: 'Shelf',
    sizes: ['Length', 'Thickness', 'Depth'],
    usual: { widthMm: 800, heightMm: 30, depthMm: 220 },
    substrate: 'raw-softwood',
    parts: (w, h, d) => [
      { name: 'Upper face', facing: 'top', width: w, height: d, use: 'wiping' },
      { name: 'Under side', facing: 'bottom', width: w, height: d },
      { name: 'Front edge', facing: 'front', width: w, height: h, use: 'hands' },
    ],
  },
  drawers: {
    name: 'Chest of drawers',
    sizes: ['Width', 'Height', 'Depth'],
    usual: { widthMm: 900, heightMm: 850, depthMm: 450 },
    substrate: 'scuffed',
    parts: (w, h, d) => [
      { name: 'Top', facing: 'top', width: w, height: d, use: 'hot-cups' },
      { name: 'Left side', facing: 'left', width: d, height: h },
      { name: 'Right side', facing: 'right', width: d, height: h },
      ...[1, 2, 3].map((number): Drawn => ({
        name: `Drawer front ${number}`,
        facing: number === 1 ? 'front' : 'loose',
        width: w - 50,
        height: (h - 120) / 3,
        use: 'hands',
        fittings: ['drawer', 'hardware'],
        zones: [pullAt(0.25 * w, (h - 120) / 6, 80), pullAt(0.75 * w - 50, (h - 120) / 6, 80)],
      })),
      { name: 'Base rail', facing: 'loose', width: w, height: 90, use: 'hands' },
    ],
  },
  cabinet: {
    name: 'Cabinet with two leaves',
    sizes: ['Width', 'Height', 'Depth'],
    usual: { widthMm: 1000, heightMm: 1300, depthMm: 420 },
    substrate: 'scuffed',
    parts: (w, h, d) => [
      { name: 'Top', facing: 'top', width: w, height: d },
      { name: 'Left side', facing: 'left', width: d, height: h },
      { name: 'Right side', facing: 'right', width: d, height: h },
      ...(['Left leaf', 'Right leaf'] as const).map((name): Drawn => ({
        name,
        facing: name === 'Left leaf' ? 'front' : 'loose',
        width: w / 2 - 30,
        height: h - 120,
        use: 'hands',
        fittings: ['hinge', 'hardware'],
        zones: [
          ...framed(w / 2 - 30, h - 120, 70),
          pullAt(name === 'Left leaf' ? w / 2 - 65 : 35, h / 2, 70),
        ],
      })),
      { name: 'Base rail', facing: 'loose', width: w, height: 90 },
    ],
  },
  'framed-leaf': {
    name: 'Framed leaf, panel apart',
    sizes: ['Width', 'Height', 'Frame'],
    usual: { widthMm: 450, heightMm: 1100, depthMm: 80 },
    substrate: 'flat-paint',
    parts: (w, h, rail) => [
      { name: 'Sunk panel', facing: 'front', width: w - 2 * rail, height: h - 2 * rail },
      { name: 'Rails, upper and lower', facing: 'loose', width: w, height: 2 * rail, use: 'hands' },
      {
        name: 'Stiles, left and right',
        facing: 'loose',
        width: 2 * rail,
        height: h - 2 * rail,
        use: 'hands',
        fittings: ['hinge', 'hardware'],
      },
    ],
  },
  mirror: {
    name: 'Mirror frame',
    sizes: ['Width', 'Height', 'Moulding'],
    usual: { widthMm: 600, heightMm: 800, depthMm: 70 },
    substrate: 'raw-softwood',
    parts: (w, h, rail) =>
      (
        [
          ['Upper side', w],
          ['Lower side', w],
          ['Left side', h],
          ['Right side', h],
        ] as const
      ).map(([name, width]): Drawn => ({ name, facing: 'loose', width, height: rail, fittings: ['glass'] })),
  },
  'round-table': {
    name: 'Round table',
    sizes: ['Across', 'Height', ''],
    usual: { widthMm: 900, heightMm: 740, depthMm: 30 },
    substrate: 'scuffed',
    parts: (w, h) => [
      { name: 'Round top', facing: 'top', width: w, height: w, oval: true, use: 'hot-cups' },
      // As long as it is round.
      {
        name: 'Edge, unrolled',
        facing: 'loose',
        width: Math.min(3000, Math.PI * w),
        height: 40,
        use: 'hands',
      },
      legs(4, 50, h - 40),
    ],
  },
  bench: {
    name: 'Bench',
    sizes: ['Length', 'Height', 'Depth'],
    usual: { widthMm: 1200, heightMm: 450, depthMm: 350 },
    substrate: 'scuffed',
    parts: (w, h, d) => [
      { name: 'Seat', facing: 'top', width: w, height: d, use: 'hands' },
      { name: 'Front rail', facing: 'front', width: w, height: 100 },
      { name: 'Left cheek', facing: 'left', width: d, height: h - 30 },
      { name: 'Right cheek', facing: 'right', width: d, height: h - 30 },
    ],
  },
} as const satisfies Record<string, Template>;

export type PieceKey = keyof typeof TEMPLATES;
export const PIECE_KEYS = Object.keys(TEMPLATES) as PieceKey[];
/** Templates of pieces, by what they are called and how large they mostly are. */
export const PIECES: Readonly<Record<PieceKey, Template>> = TEMPLATES;

/** The smallest side a part may have [mm]. */
const SMALLEST = 20;

/** A place no larger than its part. */
function clipped(
  place: Omit<PartZone, 'id'>,
  { widthMm, heightMm }: { readonly widthMm: number; readonly heightMm: number },
): Omit<PartZone, 'id'> {
  const leftMm = Math.min(place.leftMm, widthMm - SMALLEST);
  const topMm = Math.min(place.topMm, heightMm - SMALLEST);
  return {
    ...place,
    leftMm,
    topMm,
    widthMm: Math.min(place.widthMm, widthMm - leftMm),
    heightMm: Math.min(place.heightMm, heightMm - topMm),
  };
}

/** The parts of a piece of some size, all with one finish. */
export function pieceParts(
  key: PieceKey,
  { widthMm, heightMm, depthMm }: PieceSize,
  finish: string,
  nextId: () => string,
): Part[] {
  const template = PIECES[key];
  const side = (mm: number): number => Math.min(3000, Math.max(SMALLEST, Math.round(mm)));
  return template.parts(widthMm, heightMm, depthMm).map((drawn) => {
    const size = { widthMm: side(drawn.width), heightMm: side(drawn.height) };
    const part = newPart(nextId(), drawn.name, size, finish, drawn.facing);
    return {
      ...part,
      substrate: template.substrate,
      history: {
        ...part.history,
        ...(template.substrate === 'raw-softwood' ? { coat: 'none' as const, handled: false } : {}),
        ...(template.substrate === 'flat-paint' ? { coat: 'water-paint' as const } : {}),
      },
      oval: drawn.oval === true,
      use: drawn.use ?? 'display',
      flat: drawn.stands !== true,
      fittings: (drawn.fittings ?? []).map((kind) => ({
        kind,
        treatment: kind === 'hinge' ? ('masked' as const) : ('off' as const),
      })),
      zones: (drawn.zones ?? []).map((z) => ({ ...clipped(z, size), id: nextId() })),
    };
  });
}
