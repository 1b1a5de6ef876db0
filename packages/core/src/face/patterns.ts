import { type Place } from '../plan';
import { type Scene, type SceneEvent, type SceneLayer } from '../scene';
import { type Grid, levelOf, scores, type Strand } from './scores';

/** How near a point is to the panel's rim, as the zones of the closed form see it: 0 field … 1. */
export interface Rims {
  readonly edge: Float32Array;
  readonly corner: Float32Array;
}

/** Depth of the worn rim and of corners, as in the zones [mm], and over how much it fades. */
const EDGE_MM = 12;
const CORNER_MM = 25;
const FADE = 0.5;

/** Where the rims are, a little ragged: no hand follows a line. */
export function rimDistance(scene: Scene, grid: Grid): Rims {
  const n = grid.columns * grid.rows;
  const edge = new Float32Array(n);
  const corner = new Float32Array(n);
  const { widthMm, heightMm } = scene;
  const depth = Math.min(EDGE_MM, 0.2 * Math.min(widthMm, heightMm));
  const cornerDepth = Math.min(CORNER_MM, 0.25 * Math.min(widthMm, heightMm));
  const nearest = Math.min(
    grid.leftMm,
    grid.topMm,
    widthMm - grid.leftMm - grid.columns * grid.pitchMm,
    heightMm - grid.topMm - grid.rows * grid.pitchMm,
  );
  if (nearest > 3 * cornerDepth) return { edge, corner };
  const wander = scores(grid, [{ along: 22, across: 22, weight: 1 }], scene.seed ^ 0xed9e);
  for (let row = 0; row < grid.rows; row++) {
    const y = grid.topMm + (row + 0.5) * grid.pitchMm;
    const dy = Math.min(y, heightMm - y);
    for (let column = 0; column < grid.columns; column++) {
      const x = grid.leftMm + (column + 0.5) * grid.pitchMm;
      const dx = Math.min(x, widthMm - x);
      const i = row * grid.columns + column;
      const ragged = 1 + 0.3 * wander[i]!;
      const from = Math.min(dx, dy) / Math.max(0.2, ragged);
      edge[i] = fade(from, depth);
      corner[i] = Math.min(fade(dx / ragged, cornerDepth), fade(dy / ragged, cornerDepth));
    }
  }
  return { edge, corner };
}

const fade = (distance: number, depth: number): number => {
  const t = (depth * (1 + FADE) - distance) / (2 * FADE * depth);
  return t <= 0 ? 0 : t >= 1 ? 1 : t;
};

/** Whether a step done at a place reaches a point, 0 … 1. */
export function reachOf(place: Place, rims: Rims, i: number): number {
  if (place === 'all') return 1;
  const rim = Math.max(rims.edge[i]!, rims.corner[i]!);
  return place === 'edges' ? rim : 1 - rim;
}

/** What a nearly dry brush, a blotchy hand and a candle leave: size of their marks [mm]. */
const MARKS: Readonly<Record<'blotchy' | 'dry-brushed' | 'candle' | 'jelly' | 'wax', readonly Strand[]>> = {
  blotchy: [
    { along: 34, across: 26, weight: 1 },
    { along: 9, across: 5, weight: 0.5 },
    { along: 7, across: 0.9, weight: 0.35 },
  ],
  'dry-brushed': [
    { along: 46, across: 2.6, weight: 0.8 },
    { along: 20, across: 0.8, weight: 0.9 },
    { along: 60, across: 40, weight: 0.6 },
    { along: 2.4, across: 0.7, weight: 0.35 },
  ],
  candle: [
    { along: 30, across: 7, weight: 0.9 },
    { along: 5, across: 1.4, weight: 0.5 },
    { along: 1.4, across: 0.9, weight: 0.35 },
  ],
  jelly: [
    { along: 40, across: 12, weight: 1 },
    { along: 11, across: 6, weight: 0.4 },
  ],
  wax: [
    { along: 40, across: 30, weight: 1 },
    { along: 8, across: 4, weight: 0.5 },
  ],
};

/** Where a layer is laid: points whose score is above the level, fading over a width. */
export interface LayPattern {
  readonly score: Float32Array;
  readonly level: number;
  readonly width: number;
}

/** The marks a layer is laid in; null where it covers everything. */
export function layPattern(
  layer: SceneLayer,
  event: Extract<SceneEvent, { kind: 'lay' }>,
  grid: Grid,
  rims: Rims,
  seed: number,
): LayPattern | null {
  if (event.share >= 0.995 && event.where === 'all') return null;
  const jelly = layer.finish === 'resist' && layer.thicknessUm > 20;
  const marks =
    layer.finish === 'resist'
      ? MARKS[jelly ? 'jelly' : 'candle']
      : layer.finish === 'wax'
        ? MARKS.wax
        : MARKS[event.style === 'dry-brushed' ? 'dry-brushed' : 'blotchy'];
  const score = scores(grid, marks, seed);
  const level = levelOf(event.share);
  if (event.where !== 'all') {
    for (let i = 0; i < score.length; i++) if (reachOf(event.where, rims, i) < 0.5) score[i] = -99;
  }
  const width = layer.finish === 'wax' ? 1 : jelly ? 0.3 : event.style === 'dry-brushed' ? 0.12 : 0.2;
  return { score, level, width };
}
