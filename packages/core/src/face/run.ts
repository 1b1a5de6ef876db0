import { type CrackField } from '../crack';
import { BOND_SCATTER } from '../chip';
import { hash3 } from '../numeric/hash';
import { mapAt } from '../plan';
import { toolOf } from '../tools';
import { type Scene, type SceneEvent } from '../outcome';
import { craters, layPattern, reachOf, rimDistance } from './patterns';
import { rasterise } from '../raster';
import { blurred } from '../raster';
import { findIslands } from '../raster';
import { responseAt } from './local';
import { type Grid, levelOf, sampled, scores, soft, type Strand } from '../raster';
import { tornEdge } from './texture';
import { type CrackRaster } from '../raster';

/*
 * The panel point by point: the same events as the closed form follows in shares, laid on a raster. Painter's way:
 * before a layer is laid, what is there is kept; where the layer goes, what was kept comes back. At every point a set
 * of bits says which layers are in its stack.
 */

/** The part of a panel to be worked out. */
export interface SceneWindow extends Grid {
  /** Share of the final opening of the cracks, 0 … 1; null before the first: then nothing after them is there yet. */
  readonly opening: number | null;
  /** Events from this one on are not there yet; the number of events for the finished panel. */
  readonly until: number;
}

/** A layer's grown cracks, in the window's own coordinates [mm]. */
export interface CrackedLayer {
  readonly layer: number;
  readonly field: CrackField;
}

/** What is where; rasters row by row. */
export interface PanelField {
  readonly grid: Grid;
  /** Layers in the stack, bit k for layer k. */
  readonly bits: Uint32Array;
  /** Highest hiding layer at the point. */
  readonly top: Uint8Array;
  /** Dry film above the panel [µm], every layer's part of it worn in place. */
  readonly heightUm: Float32Array;
  /** Share of the point that has lost its surface to a crack, a chip or a tool, 0 … 1. */
  readonly lost: Float32Array;
  /** Share that is floor of an open crack. */
  readonly floor: Float32Array;
  /** Opening of the crack through the point [mm], 0 where none is or was covered again. */
  readonly crackMm: Float32Array;
  /** How far the cracks had opened when this one came, 0 … 1; 2 where none is. */
  readonly born: Float32Array;
  /** Film left at the rim of what flaked, lifted: 0 … 1. */
  readonly rim: Float32Array;
  /** Layers by how much of them is mixed into the point: the top one, and how far it gives way to the next. */
  readonly mixed: Float32Array;
  readonly below: Uint8Array;
  /** How thick each layer lies at a point against its mean: one raster a layer, shared where the brush went alike. */
  readonly relief: readonly Float32Array[];
  /** How thick each layer was laid at a point against what was told, by its map; null where it has none. */
  readonly laid: readonly (Float32Array | null)[];
  /** Dark wax or the like rubbed into a point, 0 … 1, by the layer that does. */
  readonly wax: Float32Array;
  readonly waxLayer: number;
  /** Last event done. */
  readonly done: number;
}

/** Flakes: how much of the scatter of their bond goes with the flake, with the region, and with the spot. */
const FLAKE = 0.6;
const REGION = { along: 48, across: 48, weight: 1 };
const REGION_SHARE = 0.6;
const SPOT = [
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
/** Rubbing: slow pressure of the hand, the pad, the grain of the film. */
const RUB = [
  { along: 60, across: 40, weight: 0.75 },
  { along: 14, across: 10, weight: 0.6 },
  { along: 4, across: 2.4, weight: 0.5 },
  { along: 1.3, across: 0.7, weight: 0.35 },
];
const CUT = [
  { along: 90, across: 15, weight: 0.9 },
  { along: 34, across: 6, weight: 0.55 },
  { along: 9, across: 2.2, weight: 0.3 },
  { along: 1.8, across: 1, weight: 0.22 },
];
/** Brush ridges stand proud and are rubbed first: their weight in the score, per relief. */
const RIDGES = 1.1;

/**
 * Runs a scene over a window.
 * @param cracked - grown cracks of the layers that have any; a layer without shows none
 * @param relief - how thick a brush of some strokes lays, against the mean, on this grid
 */
export function runScene(
  scene: Scene,
  window: SceneWindow,
  cracked: readonly CrackedLayer[],
  relief: (strokes: Scene['layers'][number]['strokes'], layer: number) => Float32Array,
): PanelField {
  const { columns, rows } = window;
  const n = columns * rows;
  const { layers } = scene;
  const bits = new Uint32Array(n).fill(1);
  const top = new Uint8Array(n);
  const below = new Uint8Array(n);
  const mixed = new Float32Array(n);
  const heightUm = new Float32Array(n);
  const lost = new Float32Array(n);
  const floor = new Float32Array(n);
  const crackMm = new Float32Array(n);
  const born = new Float32Array(n).fill(2);
  const rim = new Float32Array(n);
  const wax = new Float32Array(n);
  const worn = new Float32Array(n);
  let waxLayer = 0;
  const reliefs = layers.map((layer, k) => (k === 0 ? new Float32Array(0) : relief(layer.strokes, k)));
  const laid = layers.map((layer) => (layer.finish === 'resist' ? null : mapped(layer.id)));
  /** Dry thickness of a layer at a point [µm]. */
  const thick = (k: number, i: number): number =>
    layers[k]!.thicknessUm * (laid[k]?.[i] ?? 1) * Math.max(0.25, 1 + reliefs[k]![i]!);
  const kept: (Kept | undefined)[] = [];
  const rims = rimDistance(scene, window);
  const seed = scene.seed;
  const hides = layers.map((layer) => layer.opacity > 0.02 && layer.finish !== 'wax');
  const grown = new Map(cracked.map(({ layer, field }) => [layer, field]));
  const opened = new Map<number, Float32Array>();
  const flakesByNetwork = new Map<number, Flakes>();
  let tornOnce: Float32Array | null = null;
  const torn = (): Float32Array => (tornOnce ??= tornEdge(columns, rows, window.pitchMm, scene.seed));

  /** Patterns worked out once a run. */
  const known = new Map<string, Float32Array>();
  const pattern = (name: string, strands: readonly Strand[], salt: number): Float32Array => {
    let found = known.get(name);
    if (found === undefined) known.set(name, (found = scores(window, strands, seed ^ salt)));
    return found;
  };

  /** Brings back what was under layer k at a point, for a share of the point. */
  const uncover = (i: number, k: number, share: number): void => {
    const before = kept[k];
    if (before === undefined || (bits[i]! & (1 << k)) === 0) return;
    heightUm[i] = heightUm[i]! + share * (before.heightUm[i]! - heightUm[i]!);
    if (share > lost[i]!) lost[i] = share;
    if (share >= 0.5) {
      mixed[i] = 1 - share;
      below[i] = top[i]!;
      top[i] = before.top[i]!;
      bits[i] = bits[i]! & ((1 << k) - 1);
      worn[i] = 0;
    } else if (share > mixed[i]!) {
      mixed[i] = share;
      below[i] = before.top[i]!;
    }
  };

  let done = -1;
  for (const [index, event] of scene.events.entries()) {
    if (index >= window.until) break;
    done = index;
    switch (event.kind) {
      case 'lay': {
        const k = event.layer;
        const layer = layers[k]!;
        kept[k] = { top: top.slice(), heightUm: heightUm.slice() };
        const marks = layPattern(
          layer,
          event,
          window,
          rims,
          layer.finish === 'resist' ? mapped(layer.id) : null,
          seed + 131 * k,
        );
        for (let i = 0; i < n; i++) {
          const crackFloor = floor[i]!;
          // Wax stays in the valleys the brush left.
          const valley = layer.finish === 'wax' ? 0.9 * (reliefs[top[i]!]?.[i] ?? 0) : 0;
          const plain = marks === null ? 1 : soft(marks.score[i]! - valley - marks.level, marks.width);
          const into = event.intoCracks > event.share ? event.intoCracks : plain;
          const share = plain + crackFloor * (into - plain);
          if (share <= 0) continue;
          if (layer.finish === 'wax' && event.intoCracks > event.share) {
            wax[i] = Math.max(wax[i]!, share);
            waxLayer = k;
          }
          heightUm[i] = heightUm[i]! + share * thick(k, i);
          if (share < 0.5) {
            if (hides[k] && share > mixed[i]!) {
              mixed[i] = share;
              below[i] = k;
            }
            continue;
          }
          bits[i] = bits[i]! | (1 << k);
          worn[i] = 0;
          if (!hides[k]) continue;
          mixed[i] = 1 - share;
          below[i] = top[i]!;
          top[i] = k;
          lost[i] = 0;
          floor[i] = 0;
          crackMm[i] = 0;
          born[i] = 2;
          rim[i] = 0;
        }
        break;
      }
      case 'crack': {
        const field = grown.get(event.network);
        if (field === undefined || window.opening === null) break;
        const { open, widthMm, birth } = openOf(field, window, event, torn());
        opened.set(event.network, open);
        const first = firstBirth(field);
        for (let i = 0; i < n; i++) {
          const share = open[i]!;
          if (share <= 0 || (bits[i]! & (1 << event.layer)) === 0) continue;
          uncover(i, event.layer, share);
          if (share > floor[i]!) floor[i] = share;
          if (widthMm[i]! > crackMm[i]!) {
            crackMm[i] = widthMm[i]!;
            born[i] = first < 1 ? (birth[i]! - first) / (1 - first) : 0;
          }
        }
        break;
      }
      case 'chip':
        chip(event);
        break;
      case 'lift':
        liftOff(event);
        break;
      case 'rub':
        rub(event);
        break;
    }
  }
  return {
    grid: window,
    bits,
    top,
    heightUm,
    lost,
    floor,
    crackMm,
    born,
    rim,
    mixed,
    below,
    relief: reliefs,
    laid,
    wax,
    waxLayer,
    done,
  };

  /** A step's map on this grid; null where it has none. */
  function mapped(stepId: string): Float32Array | null {
    const map = scene.maps[stepId];
    if (map === undefined) return null;
    const step = Math.max(1, Math.floor(MAP_STEP_MM / window.pitchMm));
    return sampled(window, step, step, (x, y) => mapAt(map, x / scene.widthMm, y / scene.heightMm));
  }

  function chip(event: Extract<SceneEvent, { kind: 'chip' }>): void {
    const flakes = flakesOf(event.network);
    if (flakes === null) return;
    const region = pattern('region', [REGION], 0x3a1);
    const spot = pattern('spot', SPOT, 0x3a2);
    const level = levelOf(event.share);
    const drives = driveOver(event.by);
    for (let i = 0; i < n; i++) {
      const lies = (bits[i]! & (1 << event.layer)) !== 0;
      if ((!lies && floor[i]! === 0) || reachOf(event.where, rims, i) < 0.5) continue;
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
      if (margin > -FEATHER) uncover(i, event.layer, soft(margin, FEATHER));
      if (margin < FEATHER && margin > -RIM) rim[i] = Math.max(rim[i]!, (margin + RIM) / (RIM + FEATHER));
    }
  }

  /** How far the drive of a mapped film lifts or lowers the level at which flakes go, in scores. */
  function driveOver(layer: number): Float32Array | null {
    const responses = scene.networks.find((network) => network.layer === layer)?.responses ?? [];
    if (responses.length === 0) return null;
    const step = Math.max(1, Math.floor(MAP_STEP_MM / window.pitchMm));
    return sampled(
      window,
      step,
      step,
      (x, y) => Math.log(responseAt(scene, responses, (r) => r.drive, x, y)) / BOND_SCATTER,
    );
  }

  /** Flakes of a network as it stands open now, or, where its cracks are too fine to be seen, as it grew. */
  function flakesOf(network: number): Flakes | null {
    const before = flakesByNetwork.get(network);
    if (before !== undefined) return before;
    const field = grown.get(network);
    if (field === undefined) return null;
    const open = opened.get(network) ?? openOf(field, window, null, torn()).open;
    const found = scoredFlakes(open, columns, rows, window);
    flakesByNetwork.set(network, found);
    return found;
  }

  function liftOff(event: Extract<SceneEvent, { kind: 'lift' }>): void {
    const salt = event.agent === 'salt';
    const map = scene.maps[event.stepId];
    const strewn =
      map === undefined
        ? null
        : (x: number, y: number): number => mapAt(map, x / scene.widthMm, y / scene.heightMm);
    const marks = salt
      ? craters(window, event.share, event.grainUm / 1000, seed ^ 0x5a17, strewn)
      : pattern('lift', SPOT, 0x77);
    const level = salt ? 0 : levelOf(event.share);
    const ragged = salt ? pattern('lift', SPOT, 0x77) : null;
    const lifted = new Float32Array(n);
    const over = top.slice();
    for (let i = 0; i < n; i++) {
      if (reachOf(event.where, rims, i) < 0.5) continue;
      // No grain is round, and paint tears a little as it comes out.
      const margin = marks[i]! - level + (ragged === null ? 0 : 0.12 * ragged[i]!);
      const lay = (bits[i]! & (1 << event.layer)) !== 0;
      if (margin > -0.12) uncover(i, event.layer, soft(margin, 0.12));
      if (lay && (bits[i]! & (1 << event.layer)) === 0) lifted[i] = 1;
      if (margin < 0 && margin > -0.3 && (bits[i]! & (1 << event.layer)) !== 0) {
        rim[i] = Math.max(rim[i]!, (0.6 * (margin + 0.3)) / 0.3);
      }
    }
    if (!salt) feather(lifted, over);
  }

  /** What peels off tears thin at its border and lifts what stays: a ragged film inside, a raised rim outside. */
  function feather(lifted: Float32Array, over: Uint8Array): void {
    const near = blurred(lifted, window, Math.max(1, Math.round(PEEL_MM / window.pitchMm)));
    for (let i = 0; i < n; i++) {
      const there = near[i]!;
      if (lifted[i]! === 0) {
        if (there > 0.02) rim[i] = Math.max(rim[i]!, Math.min(1, 1.7 * there));
        continue;
      }
      const film = Math.min(0.48, 1.5 * (0.82 - there) * (0.7 + 0.5 * torn()[i]!));
      if (film <= mixed[i]! || over[i] === top[i]) continue;
      mixed[i] = film;
      below[i] = over[i]!;
    }
  }

  function rub(event: Extract<SceneEvent, { kind: 'rub' }>): void {
    if (!(event.medianUm > 0)) return;
    const { action } = toolOf(event.tool);
    const cuts = action === 'cut';
    // Every second rubbing goes its own way; a hand has no more than a few.
    const way = scene.events.indexOf(event) & 1;
    const strokes = pattern(`${cuts ? 'cut' : 'rub'} ${way}`, cuts ? CUT : RUB, 0x91 + 7 * way);
    const { field, edge, corner } = event.exposure;
    const worked = mapped(event.stepId);
    const wet = action === 'rub' || action === 'soften';
    for (let i = 0; i < n; i++) {
      if (reachOf(event.where, rims, i) < 0.5) continue;
      // Crack floors lie out of reach of what rubs on the surface.
      if (floor[i]! > 0.5) continue;
      const ridge = reliefs[top[i]!]?.[i] ?? 0;
      const score = (strokes[i]! + RIDGES * ridge) / Math.sqrt(1 + (RIDGES * RIDGE_SPREAD) ** 2);
      const exposure = field + rims.edge[i]! * (edge - field) + rims.corner[i]! * (corner - edge);
      let rest = event.medianUm * (worked?.[i] ?? 1) * exposure * Math.exp(event.spread * score);
      const left = below[i]!;
      if (mixed[i]! > 0 && left > top[i]!) {
        // What an earlier tool left of a layer at its border goes as the layer itself goes here.
        const cost = thick(left, i) * event.resistance[left]!;
        mixed[i] = mixed[i]! * (1 - soft(rest / cost - 1, wet ? 0.45 : 0.2));
      }
      for (let k = layers.length - 1; k >= 1 && rest > 0; k--) {
        if ((bits[i]! & (1 << k)) === 0) continue;
        const resistance = event.resistance[k]!;
        const thickness = thick(k, i);
        const uncut = Math.max(0.3 * thickness, thickness - worn[i]!);
        const cost = uncut * resistance;
        if (!(rest > cost * (wet ? 0.55 : 0.8))) {
          worn[i] = worn[i]! + Math.min(rest / resistance, uncut);
          heightUm[i] = Math.max(0, heightUm[i]! - Math.min(rest / resistance, uncut));
          break;
        }
        // Near breaking through, wet tools let one layer run into the next; dry ones leave a harder line.
        const share = soft(rest / cost - 1, wet ? 0.45 : 0.2);
        uncover(i, k, share);
        if (share < 0.5) break;
        rest -= cost;
      }
    }
  }
}

/** A peeled film tears and lifts this far at its border [mm]. */
const PEEL_MM = 0.45;
/** Maps are read this finely [mm]. */
const MAP_STEP_MM = 1.5;
/** Standard deviation of the brush's relief. */
const RIDGE_SPREAD = 0.2;

interface Kept {
  readonly top: Uint8Array;
  readonly heightUm: Float32Array;
}

function openOf(
  field: CrackField,
  window: SceneWindow,
  event: Extract<SceneEvent, { kind: 'crack' }> | null,
  torn: Float32Array,
): CrackRaster {
  const first = firstBirth(field);
  return rasterise(field, {
    columns: window.columns,
    rows: window.rows,
    pitchMm: window.pitchMm,
    load: first + (1 - first) * (window.opening ?? 0),
    fill: event?.fillLeft ?? 1,
    torn,
  });
}

/** Share of the final stress at which the first crack came. */
const firstBirth = (field: CrackField): number => (field.count === 0 ? 1 : field.birth[0]!);

/** Which flake every pixel belongs to, and each flake's own score. */
interface Flakes {
  readonly label: Int32Array;
  readonly score: Float32Array;
}

/** How far a crack's middle is from its islands, at the most [pixels]. */
const NEAR = 12;
function scoredFlakes(open: Float32Array, columns: number, rows: number, grid: Grid): Flakes {
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
