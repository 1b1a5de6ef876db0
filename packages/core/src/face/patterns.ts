import { uniform } from '../numeric/hash';
import { fromRim, type Place } from '../plan';
import { type Scene, type SceneEvent, type SceneLayer } from '../outcome';
import { type Grid, levelOf, scores, type Strand } from '../raster';

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
  const { widthMm, heightMm, oval } = scene;
  const size = { width: widthMm, height: heightMm, oval };
  const depth = Math.min(EDGE_MM, 0.2 * Math.min(widthMm, heightMm));
  const cornerDepth = Math.min(CORNER_MM, 0.25 * Math.min(widthMm, heightMm));
  const nearest = Math.min(
    grid.leftMm,
    grid.topMm,
    widthMm - grid.leftMm - grid.columns * grid.pitchMm,
    heightMm - grid.topMm - grid.rows * grid.pitchMm,
  );
  if (!oval && nearest > 3 * cornerDepth) return { edge, corner };
  const wander = scores(grid, [{ along: 22, across: 22, weight: 1 }], scene.seed ^ 0xed9e);
  for (let row = 0; row < grid.rows; row++) {
    const y = grid.topMm + (row + 0.5) * grid.pitchMm;
    const dy = Math.min(y, heightMm - y);
    for (let column = 0; column < grid.columns; column++) {
      const x = grid.leftMm + (column + 0.5) * grid.pitchMm;
      const dx = Math.min(x, widthMm - x);
      const i = row * grid.columns + column;
      const ragged = 1 + 0.3 * wander[i]!;
      edge[i] = fade(fromRim(size, x, y) / Math.max(0.2, ragged), depth);
      if (oval) continue;
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
  if (place === 'corners') return rims.corner[i]!;
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
    { along: 11, across: 5, weight: 0.42 },
    { along: 3.4, across: 1.5, weight: 0.22 },
    { along: 1.1, across: 0.7, weight: 0.1 },
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

/**
 * The marks a layer is laid in; null where it covers everything.
 * @param cover - how much of its share it covers at each point, 0 … 1; null where all of it
 */
export function layPattern(
  layer: SceneLayer,
  event: Extract<SceneEvent, { kind: 'lay' }>,
  grid: Grid,
  cover: Float32Array | null,
  seed: number,
): LayPattern | null {
  if (event.share >= 0.995 && cover === null) return null;
  const marks =
    layer.finish === 'resist'
      ? MARKS[isJelly(layer) ? 'jelly' : 'candle']
      : layer.finish === 'wax'
        ? MARKS.wax
        : MARKS[event.style === 'dry-brushed' ? 'dry-brushed' : 'blotchy'];
  const score = scores(grid, marks, seed);
  let level = levelOf(event.share);
  if (cover !== null) {
    // Where less was put, only the strongest marks remain: the level rises from point to point.
    const levels = Float32Array.from({ length: 101 }, (_, c) =>
      Math.min(99, Math.max(-99, levelOf((event.share * c) / 100))),
    );
    const full = Math.min(99, Math.max(-99, level));
    level = full;
    for (let i = 0; i < score.length; i++) {
      score[i] = score[i]! + full - levels[Math.round(100 * Math.min(1, Math.max(0, cover[i]!)))]!;
    }
  }
  return { score, level, width: markWidth(layer, event) };
}

const isJelly = ({ agent }: SceneLayer): boolean => agent === 'jelly';

/** How softly the marks of a layer end, in scores. */
function markWidth(layer: SceneLayer, event: Extract<SceneEvent, { kind: 'lay' }>): number {
  if (layer.finish === 'wax') return 1;
  if (isJelly(layer)) return 0.3;
  return event.style === 'dry-brushed' ? 0.12 : 0.2;
}

/** A crater is this much wider than its grain: the paint draws up round it; common practice [mm]. */
const CRATER_MM = 0.5;
/** Craters differ: least and most of the mean radius. */
const LEAST = 0.65;
const MOST = 1.4;
const MEAN_SQUARE = (LEAST * LEAST + LEAST * MOST + MOST * MOST) / 3;

/**
 * Craters of strewn grains, by chance and overlapping: a share 1 − exp(−n π d²/4) of the area lies in them (Poisson).
 * @param strewn - chance that a grain that would lie at a place was strewn there; null where all were
 * @returns how deep inside a crater a point lies: 1 at its middle, 0 at its rim, below outside
 */
export function craters(
  grid: Grid,
  share: number,
  grainMm: number,
  seed: number,
  strewn: ((xMm: number, yMm: number) => number) | null,
): Float32Array {
  const radius = 0.5 * (grainMm + CRATER_MM);
  const perArea = -Math.log(1 - Math.min(0.95, share)) / (Math.PI * radius * radius * MEAN_SQUARE);
  // One cell holds a grain with this chance; cells are so small that few would hold two.
  const cell = Math.min(2 * radius, Math.sqrt(0.6 / perArea));
  const chance = perArea * cell * cell;
  const inside = new Float32Array(grid.columns * grid.rows).fill(-1);
  const reach = MOST * radius;
  const x0 = Math.floor((grid.leftMm - reach) / cell);
  const x1 = Math.ceil((grid.leftMm + grid.columns * grid.pitchMm + reach) / cell);
  const y0 = Math.floor((grid.topMm - reach) / cell);
  const y1 = Math.ceil((grid.topMm + grid.rows * grid.pitchMm + reach) / cell);
  for (let j = y0; j < y1; j++) {
    for (let i = x0; i < x1; i++) {
      const at = i * 65537 + j;
      // As many grains as chance gives: none, one, now and then two.
      let left = uniform(at, seed, 1);
      let none = Math.exp(-chance);
      for (let k = 0; k < 3 && left > none; k++) {
        stamp((i + uniform(at, seed, 5 + 3 * k)) * cell, (j + uniform(at, seed, 6 + 3 * k)) * cell, at, k);
        left -= none;
        none *= chance / (k + 1);
      }
    }
  }
  return inside;

  function stamp(x: number, y: number, at: number, k: number): void {
    if (strewn !== null && uniform(at, seed, 20 + k) > strewn(x, y)) return;
    const r = radius * (LEAST + (MOST - LEAST) * uniform(at, seed, 7 + 3 * k));
    const c0 = Math.max(0, Math.floor((x - r - grid.leftMm) / grid.pitchMm));
    const c1 = Math.min(grid.columns - 1, Math.ceil((x + r - grid.leftMm) / grid.pitchMm));
    const r0 = Math.max(0, Math.floor((y - r - grid.topMm) / grid.pitchMm));
    const r1 = Math.min(grid.rows - 1, Math.ceil((y + r - grid.topMm) / grid.pitchMm));
    for (let row = r0; row <= r1; row++) {
      const dy = grid.topMm + (row + 0.5) * grid.pitchMm - y;
      for (let column = c0; column <= c1; column++) {
        const dx = grid.leftMm + (column + 0.5) * grid.pitchMm - x;
        const deep = 1 - Math.sqrt(dx * dx + dy * dy) / r;
        const index = row * grid.columns + column;
        if (deep > inside[index]!) inside[index] = deep;
      }
    }
  }
}
