import { type CrackField } from '../crack';
import { mapAt, NOT_DONE, type Place } from '../plan';
import { fluteAt, type OnStand, type Scene, type SceneLayer } from '../outcome';
import { type Grid, sampled, scores, type Strand } from '../raster';
import { reachOf, rimDistance, type Rims } from './patterns';
import { tornEdge } from './texture';

/** The part of a panel to be worked out. */
export interface SceneWindow extends Grid {
  /** Share of the final opening of the cracks, 0 … 1; null before the first: then nothing after them is there yet. */
  readonly opening: number | null;
  /** Events from this one on are not there yet; the number of events for the finished panel. */
  readonly until: number;
}

/** A network's grown cracks, in the window's own coordinates [mm]. */
export interface CrackedLayer {
  /** Key of the network. */
  readonly key: number;
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
  /** How high the panel's own relief stands, in standard deviations; null where it is plain. */
  readonly carved: Float32Array | null;
  /** Dark wax or the like rubbed into a point, 0 … 1, by the layer that does. */
  readonly wax: Float32Array;
  /** How pale a point lies where salt drew the water out and nothing wetted it since, 0 … 1. */
  readonly pale: Float32Array;
  readonly waxLayer: number;
  /** Last event done. */
  readonly done: number;
}

/** Maps are read this finely [mm]. */
const MAP_STEP_MM = 1.5;

/** What was there before a layer was laid. */
interface Kept {
  readonly top: Uint8Array;
  readonly heightUm: Float32Array;
}

/** The panel's own relief on a grid. */
function carvedOf({ relief, grainUp, seed }: Scene, grid: Grid): Float32Array | null {
  if (relief === null) return null;
  const pitch = relief.pitch * 1000;
  if (relief.kind === 'carving') return scores(grid, carvingStrands(pitch), seed ^ 0xca57);
  const fine = Math.max(1, Math.floor(pitch / 12 / grid.pitchMm));
  return sampled(grid, fine, fine, (x, y) => fluteAt((grainUp ? x : y) / pitch));
}

/** Carving: leaves and scrolls as large as its pitch, with veins. */
const carvingStrands = (pitch: number): readonly Strand[] => [
  { along: 0.8 * pitch, across: 0.5 * pitch, weight: 1 },
  { along: 0.3 * pitch, across: 0.22 * pitch, weight: 0.35 },
];

/** Which flake every pixel belongs to, and each flake's own score. */
export interface Flakes {
  readonly label: Int32Array;
  readonly score: Float32Array;
}

/**
 * A panel while its scene is run: the field's rasters, written in place, and what is worked out once a run. A class
 * because every event of the scene changes the same millions of points.
 */
export class Work {
  readonly points: number;
  readonly bits: Uint32Array;
  readonly top: Uint8Array;
  readonly below: Uint8Array;
  readonly mixed: Float32Array;
  readonly heightUm: Float32Array;
  readonly lost: Float32Array;
  readonly floor: Float32Array;
  readonly crackMm: Float32Array;
  readonly born: Float32Array;
  readonly rim: Float32Array;
  readonly wax: Float32Array;
  readonly pale: Float32Array;
  /** Dry film worn off the top layer of a point [µm]. */
  readonly worn: Float32Array;
  waxLayer = 0;
  readonly relief: readonly Float32Array[];
  readonly laid: readonly (Float32Array | null)[];
  readonly carved: Float32Array | null;
  /** Whether a layer hides what is below it. */
  readonly hides: readonly boolean[];
  readonly rims: Rims;
  readonly grown: ReadonlyMap<number, CrackField>;
  /** Open share of the cracks of each network, once they have come. */
  readonly opened = new Map<number, Float32Array>();
  readonly flakes = new Map<number, Flakes>();
  private readonly kept: (Kept | undefined)[] = [];
  private readonly went = new Map<string, Uint8Array>();
  private readonly known = new Map<string, Float32Array>();
  private tornOnce: Float32Array | null = null;

  constructor(
    readonly scene: Scene,
    readonly window: SceneWindow,
    cracked: readonly CrackedLayer[],
    relief: (strokes: SceneLayer['strokes'], layer: number) => Float32Array,
  ) {
    const n = window.columns * window.rows;
    const { layers } = scene;
    this.points = n;
    this.bits = new Uint32Array(n).fill(1);
    this.top = new Uint8Array(n);
    this.below = new Uint8Array(n);
    this.mixed = new Float32Array(n);
    this.heightUm = new Float32Array(n);
    this.lost = new Float32Array(n);
    this.floor = new Float32Array(n);
    this.crackMm = new Float32Array(n);
    this.born = new Float32Array(n).fill(2);
    this.rim = new Float32Array(n);
    this.wax = new Float32Array(n);
    this.pale = new Float32Array(n);
    this.worn = new Float32Array(n);
    this.relief = layers.map((layer, k) => (k === 0 ? new Float32Array(0) : relief(layer.strokes, k)));
    this.laid = layers.map((layer) => (layer.finish === 'resist' ? null : this.mapped(layer.id)));
    this.carved = carvedOf(scene, window);
    this.hides = layers.map((layer) => layer.opacity > 0.02 && layer.finish !== 'wax');
    this.rims = rimDistance(scene, window);
    this.grown = new Map(cracked.map(({ key, field }) => [key, field]));
  }

  /** Whether layer k is in the stack of a point. */
  lies(i: number, k: number): boolean {
    return (this.bits[i]! & (1 << k)) !== 0;
  }

  /** Whether a point has the films an event needs there and none of those it needs missing, and dried as it needs. */
  stands(i: number, { holds, lacks, done, undone }: OnStand): boolean {
    for (const k of holds) if (!this.lies(i, k)) return false;
    for (const k of lacks) if (this.lies(i, k)) return false;
    for (const stepId of done) if (this.wentTo(stepId)[i] === 0) return false;
    for (const stepId of undone) if (this.wentTo(stepId)[i] === 1) return false;
    return true;
  }

  /** 1 where a step that goes by places was done, by its map and the place it is told. */
  wentTo(stepId: string, where: Place = this.scene.places[stepId] ?? 'all'): Uint8Array {
    let found = this.went.get(stepId);
    if (found === undefined) {
      const mapped = this.mapped(stepId);
      found = new Uint8Array(this.points);
      for (let i = 0; i < this.points; i++) {
        const reached = reachOf(where, this.rims, i) >= 0.5;
        found[i] = reached && (mapped === null || mapped[i]! >= NOT_DONE) ? 1 : 0;
      }
      this.went.set(stepId, found);
    }
    return found;
  }

  /** Dry thickness of a layer at a point [µm]. */
  thick(k: number, i: number): number {
    return (
      this.scene.layers[k]!.thicknessUm * (this.laid[k]?.[i] ?? 1) * Math.max(0.25, 1 + this.relief[k]![i]!)
    );
  }

  /** Keeps what is there before layer k is laid. */
  keep(k: number): void {
    this.kept[k] = { top: this.top.slice(), heightUm: this.heightUm.slice() };
  }

  /** Brings back what was under layer k at a point, for a share of the point. */
  uncover(i: number, k: number, share: number): void {
    const before = this.kept[k];
    if (before === undefined || !this.lies(i, k)) return;
    const { heightUm, lost, mixed, below, top, bits } = this;
    heightUm[i] = heightUm[i]! + share * (before.heightUm[i]! - heightUm[i]!);
    if (share > lost[i]!) lost[i] = share;
    if (share >= 0.5) {
      mixed[i] = 1 - share;
      below[i] = top[i]!;
      top[i] = before.top[i]!;
      bits[i] = bits[i]! & ((1 << k) - 1);
      this.worn[i] = 0;
    } else if (share > mixed[i]!) {
      mixed[i] = share;
      below[i] = before.top[i]!;
    }
  }

  /** A pattern of scores, worked out once a run. */
  pattern(name: string, strands: readonly Strand[], salt: number): Float32Array {
    let found = this.known.get(name);
    if (found === undefined)
      this.known.set(name, (found = scores(this.window, strands, this.scene.seed ^ salt)));
    return found;
  }

  /** How ragged a torn film is at every point. */
  torn(): Float32Array {
    const { columns, rows, pitchMm } = this.window;
    return (this.tornOnce ??= tornEdge(columns, rows, pitchMm, this.scene.seed));
  }

  /** A function of the place on the panel [mm] on this grid, read as finely as maps are. */
  sampled(of: (x: number, y: number) => number): Float32Array {
    const step = Math.max(1, Math.floor(MAP_STEP_MM / this.window.pitchMm));
    return sampled(this.window, step, step, of);
  }

  /** A step's map as a function of the place on the panel [mm]; null where it has none. */
  mapOf(stepId: string): ((x: number, y: number) => number) | null {
    const { maps, widthMm, heightMm } = this.scene;
    const map = maps[stepId];
    return map === undefined ? null : (x, y) => mapAt(map, x / widthMm, y / heightMm);
  }

  /** A step's map on this grid; null where it has none. */
  mapped(stepId: string): Float32Array | null {
    const map = this.mapOf(stepId);
    return map === null ? null : this.sampled(map);
  }

  /** The panel as it is now. */
  field(done: number): PanelField {
    const { window, bits, top, heightUm, lost, floor, crackMm, born, rim, mixed, below, relief, laid } = this;
    const { carved } = this;
    const rasters = {
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
      relief,
      laid,
      carved,
    };
    const { wax, pale, waxLayer } = this;
    return { grid: window, ...rasters, wax, pale, waxLayer, done };
  }
}
