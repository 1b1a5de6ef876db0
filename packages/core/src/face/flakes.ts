import { BOND_SCATTER } from '../chip';
import { hash3 } from '../numeric/hash';
import { type SceneEvent } from '../outcome';
import { findIslands, type Grid, levelOf, soft } from '../raster';
import { openOf } from './cracking';
import { responseAt } from './local';
import { reachOf } from './patterns';
import { type Flakes, type Work } from './work';

/** Flakes: how much of the scatter of their bond goes with the flake, with the region, and with the spot. */
const FLAKE = 0.6;
const REGION = { along: 48, across: 48, weight: 1 };
const REGION_SHARE = 0.6;
/** The spot is the finest part of the scatter. */
export const SPOT = [
  { along: 11, across: 9, weight: 0.5 },
  { along: 3.1, across: 2.6, weight: 0.75 },
  { along: 1.1, across: 0.9, weight: 0.45 },
];
const PLACE_SPREAD = Math.sqrt(1 - FLAKE ** 2);
const SPOT_SHARE = Math.sqrt(1 - FLAKE ** 2 - REGION_SHARE ** 2);
/** An island larger than this is no flake [mm²]; its score. */
const LARGEST_FLAKE = 1600;
const NO_FLAKE = -99;
/** Width of the feathered rim of a flake, in scores. */
const FEATHER = 0.16;
const RIM = 0.3;

/** Flakes let go, the worst bonded first. */
export function chip(work: Work, event: Extract<SceneEvent, { kind: 'chip' }>): void {
  const { rims, floor, mixed, rim } = work;
  const flakes = flakesOf(work, event.network);
  if (flakes === null) return;
  const region = work.pattern('region', [REGION], 0x3a1);
  const spot = work.pattern('spot', SPOT, 0x3a2);
  const level = levelOf(event.share);
  const drives = driveOver(work, event.by);
  for (let i = 0; i < work.points; i++) {
    const lies = work.lies(i, event.layer);
    if ((!lies && floor[i]! === 0) || reachOf(event.where, rims, i) < 0.5) continue;
    if (lies && !work.stands(i, event.on)) continue;
    // What hardly cracked has no flakes to go one by one: it goes by region and spot alone.
    const flake = flakes.score[flakes.label[i]!]!;
    const place = REGION_SHARE * region[i]! + SPOT_SHARE * spot[i]!;
    const margin =
      (flake === NO_FLAKE ? place / PLACE_SPREAD : FLAKE * flake + place) - level + (drives?.[i] ?? 0);
    if (!lies) {
      // A crack between two flakes that are gone is no crack any more.
      const kept = 1 - soft(margin, FEATHER);
      floor[i] = floor[i]! * kept;
      mixed[i] = mixed[i]! * kept;
      continue;
    }
    if (margin > -FEATHER) work.uncover(i, event.layer, soft(margin, FEATHER));
    if (margin < FEATHER && margin > -RIM) rim[i] = Math.max(rim[i]!, (margin + RIM) / (RIM + FEATHER));
  }
}

/** How far the drive of a mapped film lifts or lowers the level at which flakes go, in scores. */
function driveOver(work: Work, layer: number): Float32Array | null {
  const responses = work.scene.networks.find((network) => network.layer === layer)?.responses ?? [];
  if (responses.length === 0) return null;
  return work.sampled(
    (x, y) => Math.log(responseAt(work.scene, responses, (r) => r.drive, x, y)) / BOND_SCATTER,
  );
}

/** Flakes of a network as it stands open now, or, where its cracks are too fine to be seen, as it grew. */
function flakesOf(work: Work, network: number): Flakes | null {
  const before = work.flakes.get(network);
  if (before !== undefined) return before;
  const field = work.grown.get(network);
  if (field === undefined) return null;
  const open = work.opened.get(network) ?? openOf(work, field, null).open;
  const found = scoredFlakes(open, work.window);
  work.flakes.set(network, found);
  return found;
}

/** How far a crack's middle is from its islands, at the most [pixels]. */
const NEAR = 12;
function scoredFlakes(open: Float32Array, grid: Grid): Flakes {
  const { columns, rows } = grid;
  const n = columns * rows;
  const { label, areaMm2, xMm, yMm } = findIslands(open, grid);
  // Keyed by where on the panel the island lies, not by its number: another crop counts otherwise.
  const score = Float32Array.from(areaMm2, (area, id) => {
    const x = Math.round(grid.leftMm + xMm[id]!);
    const y = Math.round(grid.topMm + yMm[id]!);
    return area > LARGEST_FLAKE ? NO_FLAKE : normalOf(hash3(x, y, 0x1f1));
  });
  // Crack pixels go with the nearest island, so that the floor between two lost flakes is lost too.
  const found = label.slice();
  for (let at = 0; at < n; at++) {
    if (found[at]! >= 0) continue;
    const column = at % columns;
    for (let far = 1; far <= NEAR && label[at]! < 0; far++) {
      if (at - far * columns >= 0) label[at] = found[at - far * columns]!;
      if (label[at]! < 0 && at + far * columns < n) label[at] = found[at + far * columns]!;
      if (label[at]! < 0 && column >= far) label[at] = found[at - far]!;
      if (label[at]! < 0 && column + far < columns) label[at] = found[at + far]!;
    }
    if (label[at]! < 0) label[at] = 0;
  }
  return { label, score: score.length === 0 ? new Float32Array(1) : score };
}

/** A standard normal value from a hash: the sum of twelve uniform parts, close enough for scores. */
function normalOf(hash: number): number {
  let sum = 0;
  for (let k = 0; k < 12; k++) sum += hash3(hash, k, 0x77aa) / 4294967296;
  return sum - 6;
}
