import { type CrackField } from '../crack';
import { type CrackRaster } from './types';

/** What part of a field to draw, and when. */
export interface RasterWindow {
  readonly columns: number;
  readonly rows: number;
  readonly pitchMm: number;
  /** Share of the final stress reached, 0 … 1: cracks born later are not there yet. */
  readonly load: number;
  /** Factor on all openings: what a later coat left of them. */
  readonly fill: number;
  /** How torn edges wander, per pixel (`tornEdge`); none for clean edges. */
  readonly torn?: Float32Array;
}

/** Edges wander by this share of the opening, at most by so many mm; assumed, by eye. */
const TORN_SHARE = 0.17;
const TORN_MM = 0.07;
/** A crack just born stands this much open, of its opening at the end. */
const BORN_OPEN = 0.25;

/**
 * Draws the cracks of a field as coverage: each segment a capsule, its edge smoothed over one pixel. Cracks finer
 * than a pixel keep their share of it, so that a hairline stays a hairline.
 */
export function rasterise(field: CrackField, window: RasterWindow): CrackRaster {
  const { columns, rows, pitchMm, load, torn } = window;
  const open = new Float32Array(columns * rows);
  const widthMm = new Float32Array(columns * rows);
  const bornAt = new Float32Array(columns * rows).fill(2);
  for (let i = 0; i < field.count; i++) {
    const birth = field.birth[i]!;
    if (birth > load) continue;
    const grown = birth >= 1 ? 1 : BORN_OPEN + (1 - BORN_OPEN) * ((load - birth) / (1 - birth));
    const before = field.previous[i]!;
    const w1 = field.width[i]! * grown * window.fill;
    const w0 = before >= 0 ? field.width[before]! * grown * window.fill : w1;
    if (w1 <= 0 && w0 <= 0) continue;
    capsule(field.x0[i]!, field.y0[i]!, field.x1[i]!, field.y1[i]!, 0.5 * (w0 + w1), w1, birth);
  }
  return { columns, rows, pitchMm, open, widthMm, birth: bornAt };

  function capsule(
    x0: number,
    y0: number,
    x1: number,
    y1: number,
    wStart: number,
    wEnd: number,
    birth: number,
  ): void {
    const half = 0.75 * Math.max(wStart, wEnd) + pitchMm;
    const c0 = Math.max(0, Math.floor((Math.min(x0, x1) - half) / pitchMm));
    const c1 = Math.min(columns - 1, Math.floor((Math.max(x0, x1) + half) / pitchMm));
    const r0 = Math.max(0, Math.floor((Math.min(y0, y1) - half) / pitchMm));
    const r1 = Math.min(rows - 1, Math.floor((Math.max(y0, y1) + half) / pitchMm));
    const ex = x1 - x0;
    const ey = y1 - y0;
    const length2 = ex * ex + ey * ey;
    const inv = length2 > 0 ? 1 / length2 : 0;
    for (let row = r0; row <= r1; row++) {
      const py = (row + 0.5) * pitchMm - y0;
      for (let column = c0; column <= c1; column++) {
        const px = (column + 0.5) * pitchMm - x0;
        let along = (px * ex + py * ey) * inv;
        along = along < 0 ? 0 : along > 1 ? 1 : along;
        const dx = px - along * ex;
        const dy = py - along * ey;
        const at = row * columns + column;
        let width = wStart + along * (wEnd - wStart);
        if (torn) {
          const most = Math.min(TORN_SHARE * width, TORN_MM);
          width += most * Math.min(2, Math.max(-2, torn[at]!));
        }
        const reach = 0.5 * width + 0.5 * pitchMm;
        const d2 = dx * dx + dy * dy;
        if (d2 >= reach * reach) continue;
        const inside = (reach - Math.sqrt(d2)) / pitchMm;
        const most = width < pitchMm ? width / pitchMm : 1;
        const share = inside < most ? inside : most;
        if (share > open[at]!) open[at] = share;
        if (width > widthMm[at]!) {
          widthMm[at] = width;
          bornAt[at] = birth;
        }
      }
    }
  }
}
