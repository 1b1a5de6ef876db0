import { type CrackField } from './types';

/** Figures of a grown field, measured as they would be on a photo. Lengths in mm. */
export interface FieldFigures {
  /** Mean line intercept over both directions. */
  readonly spacingMm: number;
  /** Mean intercept along the strokes (horizontal test lines) and across them. */
  readonly spacingAlongMm: number;
  readonly spacingAcrossMm: number;
  /** 2 · area / crack length. */
  readonly areaSpacingMm: number;
  /** Mean opening, weighted by length. */
  readonly openingMm: number;
  /** Summed opening × length over the area, without overlap at junctions. */
  readonly openSum: number;
  readonly crackLengthMm: number;
}

/**
 * Measures a field by test lines: crack crossings per length N_L, mean intercept 1/N_L (the idea of ASTM E112).
 * @param rim - strip along the edges left out [mm], where the film is relieved
 * @returns figures; spacings are Infinity where nothing crosses
 */
export function measureField(field: CrackField, rim = 0): FieldFigures {
  const { widthMm, heightMm } = field.input;
  const left = rim;
  const right = widthMm - rim;
  const top = rim;
  const bottom = heightMm - rim;
  const inner = Math.max(0, right - left) * Math.max(0, bottom - top);
  let length = 0;
  let opened = 0;
  // A segment crosses evenly spaced lines as often as its projection says: the mean over all lines is exact.
  let projectionX = 0;
  let projectionY = 0;
  for (let i = 0; i < field.count; i++) {
    const mx = 0.5 * (field.x0[i]! + field.x1[i]!);
    const my = 0.5 * (field.y0[i]! + field.y1[i]!);
    if (mx < left || mx > right || my < top || my > bottom) continue;
    const ex = field.x1[i]! - field.x0[i]!;
    const ey = field.y1[i]! - field.y0[i]!;
    const d = Math.hypot(ex, ey);
    length += d;
    opened += d * field.width[i]!;
    projectionX += Math.abs(ex);
    projectionY += Math.abs(ey);
  }
  return {
    spacingMm: (2 * inner) / (projectionX + projectionY),
    spacingAlongMm: inner / projectionY,
    spacingAcrossMm: inner / projectionX,
    areaSpacingMm: (2 * inner) / length,
    openingMm: length > 0 ? opened / length : 0,
    openSum: opened / inner,
    crackLengthMm: length,
  };
}
