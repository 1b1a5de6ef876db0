import { type FieldInput } from './types';

/** No free surface within reach. */
export const NONE = 1e9;
const STRIDE = 8;
const SLOTS = 6;
/** Segments meet at their ends; this much overlap, as a share of a segment, keeps rays from leaking through. */
const JOINT = 1e-3;
const JOINT_END = 1 + JOINT;

/**
 * Cracks of a growing field with a uniform grid over them, so that a ray finds the nearest free surface.
 * A class because its buffers live through the whole growth.
 */
export class Segments {
  count = 0;
  rays = 0;
  /** Per segment x0, y0, ex, ey, crack, arc, unused ×2: one 32-byte record, since a ray reads all of it. */
  data = new Float32Array(STRIDE * 1024);
  birth = new Float32Array(1024);
  width = new Float32Array(1024);
  /** Pull last seen, for opening increments. */
  pull = new Float32Array(1024);
  previous = new Int32Array(1024);

  private readonly cellMm: number;
  private readonly invCell: number;
  private readonly columns: number;
  private readonly rows: number;
  private readonly filled: Uint8Array;
  private readonly slots: Int32Array;
  private readonly overflow = new Map<number, number[]>();
  private readonly w: number;
  private readonly h: number;
  private readonly openLeft: boolean;
  private readonly openRight: boolean;
  private readonly openTop: boolean;
  private readonly openBottom: boolean;
  /** Segment hit by the last ray, −1 for an edge or nothing. */
  hit = -1;

  constructor(input: FieldInput, cellMm: number) {
    this.cellMm = cellMm;
    this.w = input.widthMm;
    this.h = input.heightMm;
    this.invCell = 1 / cellMm;
    this.columns = Math.floor(this.w / cellMm) + 4;
    this.rows = Math.floor(this.h / cellMm) + 4;
    this.filled = new Uint8Array(this.columns * this.rows);
    this.slots = new Int32Array(this.columns * this.rows * SLOTS);
    this.openLeft = input.edges.left === 'free';
    this.openRight = input.edges.right === 'free';
    this.openTop = input.edges.top === 'free';
    this.openBottom = input.edges.bottom === 'free';
  }

  add(
    x0: number,
    y0: number,
    x1: number,
    y1: number,
    crack: number,
    arc: number,
    previous: number,
    birth: number,
  ): number {
    const i = this.count++;
    if (i >= this.birth.length) this.grow();
    const at = i * STRIDE;
    this.data[at] = x0;
    this.data[at + 1] = y0;
    this.data[at + 2] = x1 - x0;
    this.data[at + 3] = y1 - y0;
    this.data[at + 4] = crack;
    this.data[at + 5] = arc;
    this.birth[i] = birth;
    this.previous[i] = previous;
    this.enter(i, x0, y0, x1, y1);
    return i;
  }

  /** Distance from (x, y) along the unit vector (dx, dy) to where the panel ends [mm]. */
  toEdge(x: number, y: number, dx: number, dy: number): number {
    const tx = dx > 1e-12 ? (this.w - x) / dx : dx < -1e-12 ? -x / dx : NONE;
    const ty = dy > 1e-12 ? (this.h - y) / dy : dy < -1e-12 ? -y / dy : NONE;
    return Math.max(0, tx < ty ? tx : ty);
  }

  /**
   * Distance to the nearest free surface from (x, y) along the unit vector (dx, dy), or `NONE` within `reach`.
   * Segments of `crack` whose arc is within `exclude` of `arc` are looked through: a tip does not see its own tail.
   */
  ray(
    x: number,
    y: number,
    dx: number,
    dy: number,
    reach: number,
    crack: number,
    arc: number,
    exclude: number,
  ): number {
    this.rays++;
    const { data, filled, slots, columns } = this;
    const invG = this.invCell;
    const invX = dx > 1e-9 || dx < -1e-9 ? 1 / dx : 1e12;
    const invY = dy > 1e-9 || dy < -1e-9 ? 1 / dy : 1e12;
    const stepX = invX > 0 ? 1 : -1;
    const stepY = invY > 0 ? columns : -columns;
    let limit = reach;
    let best = NONE;
    const toX = ((invX > 0 ? this.w : 0) - x) * invX;
    if (toX < limit) {
      limit = toX;
      best = (invX > 0 ? this.openRight : this.openLeft) ? toX : NONE;
    }
    const toY = ((invY > 0 ? this.h : 0) - y) * invY;
    if (toY < limit) {
      limit = toY;
      best = (invY > 0 ? this.openBottom : this.openTop) ? toY : NONE;
    }
    let hit = -1;
    // Within the panel and its border of empty cells, since no ray goes on beyond an edge.
    const u = x * invG + 1;
    const v = y * invG + 1;
    const column = u | 0;
    const row = v | 0;
    const deltaX = this.cellMm * (invX < 0 ? -invX : invX);
    const deltaY = this.cellMm * (invY < 0 ? -invY : invY);
    let nextX = (invX > 0 ? column + 1 - u : u - column) * deltaX;
    let nextY = (invY > 0 ? row + 1 - v : v - row) * deltaY;
    let cell = row * columns + column;
    for (;;) {
      const n = filled[cell]!;
      if (n > 0) {
        const many = n > SLOTS ? this.overflow.get(cell)! : null;
        for (let k = 0; k < n; k++) {
          const i = k < SLOTS ? slots[cell * SLOTS + k]! : many![k - SLOTS]!;
          const at = i * STRIDE;
          const ex = data[at + 2]!;
          const ey = data[at + 3]!;
          // Signs first, division only for what is hit: most segments of a cell are not.
          let den = dx * ey - dy * ex;
          const rx = data[at]! - x;
          const ry = data[at + 1]! - y;
          let ahead = rx * ey - ry * ex;
          let along = rx * dy - ry * dx;
          if (den < 0) {
            den = -den;
            ahead = -ahead;
            along = -along;
          }
          if (den < 1e-14 || ahead < 0 || ahead >= limit * den) continue;
          if (along < -JOINT * den || along > JOINT_END * den) continue;
          if (data[at + 4] === crack) {
            const apart = data[at + 5]! - arc;
            if (apart < exclude && apart > -exclude) continue;
          }
          const t = ahead / den;
          limit = t;
          best = t;
          hit = i;
        }
      }
      if (nextX < nextY) {
        if (nextX >= limit) break;
        cell += stepX;
        nextX += deltaX;
      } else {
        if (nextY >= limit) break;
        cell += stepY;
        nextY += deltaY;
      }
    }
    this.hit = hit;
    return best;
  }

  private enter(i: number, x0: number, y0: number, x1: number, y1: number): void {
    const g = this.invCell;
    const c0 = Math.floor((x0 < x1 ? x0 : x1) * g) + 1;
    const c1 = Math.floor((x0 < x1 ? x1 : x0) * g) + 1;
    const r0 = Math.floor((y0 < y1 ? y0 : y1) * g) + 1;
    const r1 = Math.floor((y0 < y1 ? y1 : y0) * g) + 1;
    // Segments are shorter than a cell, so that their box holds at most four, all of them entered.
    for (let row = r0; row <= r1; row++) {
      for (let column = c0; column <= c1; column++) {
        if (column < 0 || row < 0 || column >= this.columns || row >= this.rows) continue;
        const cell = row * this.columns + column;
        const n = this.filled[cell]!;
        if (n < SLOTS) this.slots[cell * SLOTS + n] = i;
        else {
          const many = this.overflow.get(cell);
          if (many) many.push(i);
          else this.overflow.set(cell, [i]);
        }
        this.filled[cell] = n + 1;
      }
    }
  }

  private grow(): void {
    const size = this.birth.length * 2;
    this.data = copied(this.data, new Float32Array(STRIDE * size));
    this.birth = copied(this.birth, new Float32Array(size));
    this.width = copied(this.width, new Float32Array(size));
    this.pull = copied(this.pull, new Float32Array(size));
    this.previous = copied(this.previous, new Int32Array(size));
  }
}

function copied<T extends { set(from: T): void }>(from: T, to: T): T {
  to.set(from);
  return to;
}

export const SEGMENT_STRIDE = STRIDE;
