import { type CrackField, type FieldInput, Growth } from '../crack';

/** A film in physical terms [mm, N, MPa] and what lies below it. */
export interface Film {
  /** Thickness [mm]. */
  readonly h: number;
  /** Plane modulus [MPa]. */
  readonly modulus: number;
  readonly strain: number;
  /** Strength [MPa]. */
  readonly strength: number;
  /** Toughness [N/mm]. */
  readonly toughness: number;
  /** Shear stiffness of the layer below [N/mm³]; Infinity for a rigid bond. */
  readonly stiffness: number;
  /** Shear it can bear before it slides [MPa]; Infinity when it never slides. */
  readonly yield: number;
}

/** A medium crackle: 8 mm islands over a yielding layer. */
export const FILM: Film = {
  h: 0.15,
  modulus: 20,
  strain: 0.12,
  strength: 1.1,
  toughness: 0.04,
  stiffness: 0.12,
  yield: Infinity,
};

const Z = 1.976;

/** The field's input of a film: pull length and slip number by their definitions. */
export function inputOf(film: Film, changes: Partial<FieldInput> = {}): FieldInput {
  const pull = Math.sqrt((Z * film.h) ** 2 + (film.modulus * film.h) / film.stiffness);
  const stress = film.modulus * film.strain;
  return {
    widthMm: 100,
    heightMm: 100,
    edges: { left: 'pinned', right: 'pinned', top: 'pinned', bottom: 'pinned' },
    seed: 3,
    pullLengthMm: pull,
    slipNumber: film.yield === Infinity ? 0 : (stress * film.h) / (film.yield * pull),
    strengthRatio: film.strength / stress,
    strain: film.strain,
    fractureLengthMm: film.toughness / film.modulus,
    strokes: 'dabbed',
    strokeContrast: 0,
    scatter: 1,
    quality: 'full',
    ...changes,
  };
}

export function grow(input: FieldInput): CrackField {
  const growth = new Growth(input);
  while (growth.step());
  return growth.result();
}

/** Share of a field's crack length that lies within a distance of another's cracks. */
export function overlap(a: CrackField, b: CrackField, within: number): number {
  const cell = within;
  const grid = new Map<number, number[]>();
  const key = (x: number, y: number): number => Math.floor(x / cell) * 65536 + Math.floor(y / cell);
  for (let i = 0; i < b.count; i++) {
    const n = Math.ceil(Math.hypot(b.x1[i]! - b.x0[i]!, b.y1[i]! - b.y0[i]!) / (0.25 * cell)) + 1;
    for (let k = 0; k <= n; k++) {
      const x = b.x0[i]! + ((b.x1[i]! - b.x0[i]!) * k) / n;
      const y = b.y0[i]! + ((b.y1[i]! - b.y0[i]!) * k) / n;
      const at = key(x, y);
      const list = grid.get(at);
      if (list) list.push(x, y);
      else grid.set(at, [x, y]);
    }
  }
  let near = 0;
  let total = 0;
  for (let i = 0; i < a.count; i++) {
    const x = 0.5 * (a.x0[i]! + a.x1[i]!);
    const y = 0.5 * (a.y0[i]! + a.y1[i]!);
    const length = Math.hypot(a.x1[i]! - a.x0[i]!, a.y1[i]! - a.y0[i]!);
    total += length;
    let found = false;
    for (let dx = -1; dx <= 1 && !found; dx++) {
      for (let dy = -1; dy <= 1 && !found; dy++) {
        const list = grid.get(key(x + dx * cell, y + dy * cell)) ?? [];
        for (let k = 0; k < list.length && !found; k += 2)
          found = Math.hypot(list[k]! - x, list[k + 1]! - y) <= within;
      }
    }
    if (found) near += length;
  }
  return near / total;
}

/** Fixed field whose fingerprint must be the same in every engine. */
export const FINGERPRINT_INPUT: FieldInput = inputOf(FILM, {
  widthMm: 60,
  heightMm: 40,
  seed: 11,
  strokes: 'crosswise',
  strokeContrast: 0.3,
});

/** Its fingerprint: the core's suite and the browser's both expect it. */
export const FINGERPRINT = 959764259;
