import { type DistressTool, type Place } from '../plan';

/** Parts of a panel that wear differently. */
export const ZONES = ['field', 'edge', 'corner'] as const;
export type Zone = (typeof ZONES)[number];

/** How far in from the rim an edge reaches, and a corner along both rims [m]; assumed, by eye. */
const EDGE = 0.012;
const CORNER = 0.025;

/** Share of a panel's area that each zone takes; they add up to 1. */
export function zoneShares(width: number, height: number): Record<Zone, number> {
  const area = width * height;
  const edge = Math.min(EDGE, 0.2 * Math.min(width, height));
  const corner = Math.min(CORNER, 0.25 * Math.min(width, height));
  const corners = (4 * corner * corner) / area;
  const inner = ((width - 2 * edge) * (height - 2 * edge)) / area;
  // Of a corner's square, what lies within the inner rectangle belongs to the corner all the same.
  const overlap = corner > edge ? (4 * (corner - edge) ** 2) / area : 0;
  const field = inner - overlap;
  return { field, edge: 1 - field - corners, corner: corners };
}

/** How much harder a tool works at rims, where the pressure of pad or hand gathers; assumed. */
export const EXPOSURE: Readonly<Record<DistressTool, Readonly<Record<Zone, number>>>> = {
  sand: { field: 1, edge: 2.4, corner: 3.2 },
  cloth: { field: 1, edge: 1.5, corner: 1.8 },
  sponge: { field: 1, edge: 1.7, corner: 2 },
  scrape: { field: 1, edge: 2, corner: 2.2 },
  blade: { field: 1, edge: 3, corner: 4 },
  tap: { field: 1, edge: 1, corner: 1 },
  bleach: { field: 1, edge: 1, corner: 1 },
};

/** True where a step that is done at a place reaches a zone. */
export function reaches(place: Place, zone: Zone): boolean {
  return place === 'all' || (place === 'field') === (zone === 'field');
}
