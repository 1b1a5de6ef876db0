import { mapAt, NO_FILM, NOT_DONE } from './map';
import { fromRim, panelArea, type PanelSize } from './outline';
import { isFilm, mapOf, type Place, type Step, whereOf } from './types';

/** Parts of a panel that wear differently. */
export const ZONES = ['field', 'edge', 'corner'] as const;
export type Zone = (typeof ZONES)[number];

/** How far in from the rim an edge reaches, and a corner along both rims [m]; assumed, by eye. */
const EDGE = 0.012;
const CORNER = 0.025;

/** How far in an edge and a corner reach on a panel [m]; what is oval has no corners. */
export const zoneDepths = ({ width, height, oval }: PanelSize): { edge: number; corner: number } => ({
  edge: Math.min(EDGE, 0.2 * Math.min(width, height)),
  corner: oval === true ? 0 : Math.min(CORNER, 0.25 * Math.min(width, height)),
});

/** Share of a panel's area that each zone takes; they add up to 1. */
export function zoneShares(size: PanelSize): Record<Zone, number> {
  const { width, height, oval } = size;
  const area = panelArea(size);
  const { edge, corner } = zoneDepths(size);
  const inner = panelArea({ ...size, width: width - 2 * edge, height: height - 2 * edge }) / area;
  if (oval === true) return { field: inner, edge: 1 - inner, corner: 0 };
  const corners = (4 * corner * corner) / area;
  // Of a corner's square, what lies within the inner rectangle belongs to the corner all the same.
  const overlap = corner > edge ? (4 * (corner - edge) ** 2) / area : 0;
  const field = inner - overlap;
  return { field, edge: 1 - field - corners, corner: corners };
}

type Places = Record<Zone, [number, number][]>;
/** How deep in a rim or a corner its places lie, as shares of its depth. */
const DEPTHS = [0.17, 0.5, 0.83] as const;

/** Places of each zone, evenly spread: shares of the panel's width and height. */
export function zonePlaces(size: PanelSize): Record<Zone, readonly (readonly [number, number])[]> {
  const { width, height } = size;
  const { edge, corner } = zoneDepths(size);
  const places: Places = { field: [], edge: [], corner: [] };
  // Finer towards the rims, where zones are narrow: every place stands for as much of its own zone.
  const across = Math.round(Math.sqrt((FIELD_PLACES * width) / height));
  const down = Math.max(2, Math.round(FIELD_PLACES / Math.max(2, across)));
  for (let j = 0; j < down; j++) {
    for (let i = 0; i < across; i++) {
      const x = edge + ((i + 0.5) / across) * (width - 2 * edge);
      const y = edge + ((j + 0.5) / down) * (height - 2 * edge);
      const inCorner = Math.min(x, width - x) < corner && Math.min(y, height - y) < corner;
      if (!inCorner && fromRim(size, x, y) >= edge) places.field.push([x / width, y / height]);
    }
  }
  if (size.oval === true) roundRim(places, size, edge);
  else squareRim(places, size, edge, corner);
  return places;
}

function roundRim(places: Places, { width, height }: PanelSize, edge: number): void {
  for (let i = 0; i < EDGE_PLACES; i++) {
    const turn = ((i + 0.5) / EDGE_PLACES) * 2 * Math.PI;
    const depth = edge * DEPTHS[i % 3]!;
    places.edge.push([
      0.5 + Math.cos(turn) * (0.5 - depth / width),
      0.5 + Math.sin(turn) * (0.5 - depth / height),
    ]);
  }
}

function squareRim(places: Places, { width, height }: PanelSize, edge: number, corner: number): void {
  const put = (zone: Zone, x: number, y: number): void => {
    places[zone].push([x / width, y / height]);
  };
  const perimeter = 2 * (width + height - 4 * corner);
  for (let i = 0; i < EDGE_PLACES; i++) {
    const depth = edge * DEPTHS[i % 3]!;
    let along = ((i + 0.5) / EDGE_PLACES) * perimeter;
    for (const [length, place] of [
      [width - 2 * corner, (t: number) => [corner + t, depth]],
      [height - 2 * corner, (t: number) => [width - depth, corner + t]],
      [width - 2 * corner, (t: number) => [width - corner - t, height - depth]],
      [height - 2 * corner, (t: number) => [depth, height - corner - t]],
    ] as const) {
      if (along < length) {
        const [x, y] = place(along);
        put('edge', x!, y!);
        break;
      }
      along -= length;
    }
  }
  for (const part of DEPTHS) {
    for (const other of DEPTHS) {
      for (const right of [false, true]) {
        for (const bottom of [false, true]) {
          const x = part * corner;
          const y = other * corner;
          put('corner', right ? width - x : x, bottom ? height - y : y);
        }
      }
    }
  }
}

const FIELD_PLACES = 420;
const EDGE_PLACES = 120;

/** True where a step that is done at a place reaches a zone. */
export function reaches(place: Place, zone: Zone): boolean {
  if (place === 'corners') return zone === 'corner';
  return place === 'all' || (place === 'field') === (zone === 'field');
}

/** Where a resist or a tool is told to do less than this nothing is done. */
const HARDLY = 0.05;

/** From what a map says on the step is done at all: a film lies, a tool works, hot air goes over it. */
function doneFrom(step: Step): number {
  if (isFilm(step)) return NO_FILM;
  return step.kind === 'resist' || step.kind === 'distress' ? HARDLY : NOT_DONE;
}

/** Areas found before: a run asks for every step of every plan it tries. */
const worked = new WeakMap<Step, { readonly size: PanelSize; readonly area: number }>();

/** Area a step goes over [m²]: all of the panel, or the places it is done in. */
export function workedArea(step: Step, size: PanelSize): number {
  const before = worked.get(step);
  if (before?.size === size) return before.area;
  const area = areaOf(step, size);
  worked.set(step, { size, area });
  return area;
}

function areaOf(step: Step, size: PanelSize): number {
  const map = mapOf(step);
  const where = whereOf(step);
  const whole = panelArea(size);
  if (map === undefined && where === 'all') return whole;
  const least = doneFrom(step);
  const shares = zoneShares(size);
  const places = zonePlaces(size);
  return ZONES.reduce((sum, zone) => {
    if (shares[zone] === 0 || !reaches(where, zone)) return sum;
    const of = places[zone];
    const done = map === undefined ? of.length : of.filter(([u, v]) => mapAt(map, u, v) >= least).length;
    return sum + (whole * shares[zone] * done) / of.length;
  }, 0);
}
