import { type CrackLaw, type CrackPattern, crackPattern } from '../crack';
import { type Basis } from '../basis';
import { type Course, cracksOfRun, type Factors, type FilmCracks } from '../course';
import { type Region } from '../maps';
import { answerAt } from '../numeric/answer';
import {
  type FilmStep,
  fromRim,
  isFilm,
  mapAt,
  mapExtent,
  mapOf,
  NO_FILM,
  NOT_DONE,
  type Panel,
  type PanelMap,
  PLAN_RANGES,
  reaches,
  type Step,
  whereOf,
  type Zone,
  zonePlaces,
  ZONES,
  zoneShares,
} from '../plan';
import { type LawResponse } from './history';
import { driesOtherwise, runThen, type Stand } from './stands';

/*
 * Where on the panel what differs. A panel is divided into patches on which everything is alike: its zones, and
 * within each zone, where steps are mapped, classes of like values. The closed form goes through them one by one.
 *
 * What a film laid thicker in one place does there is worked out by laying all of it so thick: the same drying, the
 * same law, at the moments the plan has for the mean film. Between the few thicknesses tried the law's numbers are
 * interpolated in their logarithms; of several mapped films the effects multiply.
 */

/** A part of the panel on which everything is alike. */
export interface Patch {
  readonly zone: Zone;
  /** Share of the panel's area. */
  readonly area: number;
  /** How much of each step that goes by places is done here, by the step's id. */
  readonly factors: ReadonlyMap<string, number>;
  /** Index of the stand: which of the steps told apart were done here. */
  readonly stand: number;
}

/** Classes of a map's values within a zone, by how many maps there are. */
const CLASSES = [1, 8, 4, 3];
const FEWEST_CLASSES = 2;
/** Most classes of a zone: three maps of three classes each are told apart whole. */
const MOST_CLASSES = 27;

type PlacesOfZones = Readonly<Record<Zone, readonly (readonly [number, number])[]>>;

/** The places of a panel that lie in a region, and what share of it each zone takes; its middle where none does. */
function placesIn(
  panel: Panel,
  region: Region | undefined,
): { places: PlacesOfZones; shares: Readonly<Record<Zone, number>> } {
  const places = zonePlaces(panel);
  const shares = zoneShares(panel);
  if (region === undefined) return { places, shares };
  const inside = (at: readonly [number, number]): boolean =>
    fromRim(region, at[0] * panel.width - region.left, at[1] * panel.height - region.top) >= 0;
  const within = (zone: Zone): readonly (readonly [number, number])[] => places[zone].filter(inside);
  const found = { field: within('field'), edge: within('edge'), corner: within('corner') };
  const weight = (zone: Zone): number =>
    shares[zone] === 0 ? 0 : (shares[zone] * found[zone].length) / places[zone].length;
  const sum = ZONES.reduce((all, zone) => all + weight(zone), 0);
  if (sum === 0) {
    const middle = [
      (region.left + region.width / 2) / panel.width,
      (region.top + region.height / 2) / panel.height,
    ] as const;
    return { places: { field: [middle], edge: [], corner: [] }, shares: { field: 1, edge: 0, corner: 0 } };
  }
  return {
    places: found,
    shares: {
      field: weight('field') / sum,
      edge: weight('edge') / sum,
      corner: weight('corner') / sum,
    },
  };
}

/**
 * Divides a panel, or a region of it, into patches; their areas add up to 1.
 * @param told - steps told apart: each patch either has one or has it not
 * @param alike - nothing tells the zones apart: without maps one patch then stands for all of it
 */
export function patchesOf(
  panel: Panel,
  steps: readonly Step[],
  told: readonly Step[],
  alike: boolean,
  region?: Region,
): Patch[] {
  return placed(panel, steps, alike, region).flatMap((patch) => partsOf(patch, told));
}

type Placed = Omit<Patch, 'stand'>;

/** A step that goes by places, and how much of it is done at a place. */
interface InPlaces {
  readonly id: string;
  readonly amountAt: (zone: Zone, u: number, v: number) => number;
}

/** Steps whose place tells what lies or dries there; of resists and tools it tells how far they reach. */
const hasPlace = (step: Step): boolean => isFilm(step) || driesOtherwise(step);

function placed(panel: Panel, steps: readonly Step[], alike: boolean, region?: Region): Placed[] {
  const mapped = steps.flatMap((step): InPlaces[] => {
    const map = mapOf(step);
    const zoned = hasPlace(step) && whereOf(step) !== 'all';
    if (map === undefined && !zoned) return [];
    return [
      {
        id: step.id,
        amountAt: (zone, u, v) =>
          zoned && !reaches(whereOf(step), zone) ? 0 : map === undefined ? 1 : mapAt(map, u, v),
      },
    ];
  });
  const nothing = new Map<string, number>();
  if (mapped.length === 0 && alike) return [{ zone: 'field', area: 1, factors: nothing }];
  const { places, shares } = placesIn(panel, region);
  const zones = ZONES.filter((zone) => shares[zone] > 0);
  if (mapped.length === 0) return zones.map((zone) => ({ zone, area: shares[zone], factors: nothing }));
  return zones.flatMap((zone) =>
    classesOf(zone, places[zone], mapped).map(({ share, factors }) => ({
      zone,
      area: shares[zone] * share,
      factors,
    })),
  );
}

/** Share of a patch on which a step told apart is done. */
function doneOn(step: Step, { factors }: Placed): number {
  const factor = factors.get(step.id) ?? 1;
  if (!isFilm(step)) return factor < NOT_DONE ? 0 : 1;
  return factor < NO_FILM ? 0 : step.cover.share;
}

/** Parts a patch where steps told apart were done and where not: by chance, each on its own. */
function partsOf(patch: Placed, told: readonly Step[]): Patch[] {
  return told.reduce<Patch[]>(
    (parts, step, k) => {
      const lies = doneOn(step, patch);
      return parts.flatMap((part) => [
        ...(lies > 0 ? [{ ...part, area: part.area * lies }] : []),
        ...(lies < 1 ? [{ ...part, area: part.area * (1 - lies), stand: part.stand | (1 << k) }] : []),
      ]);
    },
    [{ ...patch, stand: 0 }],
  );
}

function classesOf(
  zone: Zone,
  places: readonly (readonly [number, number])[],
  mapped: readonly InPlaces[],
): { share: number; factors: Map<string, number> }[] {
  const classes = CLASSES[mapped.length] ?? FEWEST_CLASSES;
  const values = mapped.map(({ amountAt }) => places.map(([u, v]) => amountAt(zone, u, v)));
  const keys = new Array<string>(places.length).fill('');
  for (const of of values) {
    // Of equal width, not of equal number: a small spot that is worked hard is a class of its own.
    const low = Math.min(...of);
    const per = classes / Math.max(1e-9, Math.max(...of) - low);
    of.forEach((value, i) => {
      keys[i] += `${Math.min(classes - 1, Math.floor((value - low) * per))} `;
    });
  }
  const groups = new Map<string, number[]>();
  keys.forEach((key, i) => {
    const group = groups.get(key);
    if (group) group.push(i);
    else groups.set(key, [i]);
  });
  const mean = (group: readonly number[], m: number): number =>
    group.reduce((sum, i) => sum + values[m]![i]!, 0) / group.length;
  return joined([...groups.values()], (group) => mapped.map((_, m) => mean(group, m))).map((group) => ({
    share: group.length / places.length,
    factors: new Map(mapped.map(({ id }, m) => [id, mean(group, m)])),
  }));
}

/** Of many maps hardly two places are alike: the rarer classes then count with the commoner one that is most like them. */
function joined(
  groups: readonly (readonly number[])[],
  meansOf: (group: readonly number[]) => readonly number[],
): readonly (readonly number[])[] {
  if (groups.length <= MOST_CLASSES) return groups;
  const bySize = [...groups].sort((a, b) => b.length - a.length);
  const kept = bySize.slice(0, MOST_CLASSES).map((group) => ({ means: meansOf(group), places: [...group] }));
  for (const group of bySize.slice(MOST_CLASSES)) {
    const means = meansOf(group);
    const far = (other: readonly number[]): number =>
      other.reduce((sum, value, m) => sum + (value - means[m]!) ** 2, 0);
    kept.reduce((a, b) => (far(b.means) < far(a.means) ? b : a)).places.push(...group);
  }
  return kept.map(({ places }) => places);
}

/** How a film's law answers to each mapped film, by film. */
export interface FilmResponse extends LawResponse {
  /** How the moment of the first crack answers, as a ratio of the time since the coat was laid. */
  readonly first: readonly number[];
}

/** The thinnest film tried, as a ratio. */
const THINNEST = 0.12;

/** Thicknesses tried beside the mean, as ratios: the map's ends, and one between where an end is far. */
function nodesOf(map: PanelMap): number[] {
  const { min, max } = mapExtent(map);
  const low = Math.max(THINNEST, Math.min(1, min));
  const high = Math.max(1, max);
  const nodes = [1];
  if (low < 0.97) nodes.unshift(low);
  if (low < 0.65) nodes.splice(1, 0, Math.sqrt(low));
  if (high > 1.55) nodes.push(Math.sqrt(high));
  if (high > 1.03) nodes.push(high);
  return nodes;
}

/** A film that does not crack at all at a thickness answers as if its strain fell to this share. */
const NO_STRAIN = 0.05;

/** Lays the mapped films thinner and thicker all over, and tells how every film's cracks answer. */
export function responsesOf(basis: Basis, course: Course, factors: Factors): FilmResponse[][] {
  const { cracks: base } = course;
  const responses: FilmResponse[][] = base.map(() => []);
  for (const step of course.plan.steps) {
    const map = mapOf(step);
    if (map === undefined || !isFilm(step)) continue;
    const nodes = nodesOf(map);
    const tried = nodes.map((node) =>
      node === 1 ? base : cracksLaid(basis, course, step.id, node, factors),
    );
    base.forEach((crack, film) => {
      if (!crack) return;
      const ratio = (of: (law: CrackLaw) => number, without: number): number[] =>
        tried.map((cracks) => {
          const there = cracks[film];
          return there ? Math.max(1e-6, of(there.law)) / Math.max(1e-6, of(crack.law)) : without;
        });
      const laidAt = course.films[film]!.laidAt;
      responses[film]!.push({
        stepId: step.id,
        nodes,
        thickness: ratio((law) => law.thicknessUm, 1),
        pull: ratio((law) => law.pullLengthUm, 1),
        strain: ratio((law) => law.strain, NO_STRAIN),
        drive: ratio((law) => law.driveRatio, NO_STRAIN),
        mobility: ratio((law) => law.mobilityAtGel, 1),
        fill: ratio((law) => law.fillLeft, 1),
        first: tried.map((cracks) => {
          const there = cracks[film]?.firstAt;
          return there == null || crack.firstAt === null
            ? 1
            : Math.max(1, there - laidAt) / Math.max(1, crack.firstAt - laidAt);
        }),
      });
    });
  }
  return responses;
}

function cracksLaid(
  basis: Basis,
  course: Course,
  stepId: string,
  node: number,
  factors: Factors,
): (FilmCracks | null)[] {
  const { min, max } = PLAN_RANGES.thickness;
  const steps = course.plan.steps.map((step): Step => {
    if (step.id !== stepId || !isFilm(step)) return step;
    return { ...step, thickness: Math.min(max, Math.max(min, step.thickness * node)) };
  });
  return cracksOfRun(runThen(basis, course, steps, factors), factors);
}

/** Share of a patch on which a film lies. */
export function coverThere(step: FilmStep, patch: Patch, stands: readonly Stand[]): number {
  const { holds, lacks } = stands[patch.stand]!;
  if (lacks.includes(step.id) || (patch.factors.get(step.id) ?? 1) < NO_FILM) return 0;
  return holds.includes(step.id) ? 1 : step.cover.share;
}

/** What a film cracks into on one patch. */
export interface LocalCracks {
  readonly law: CrackLaw;
  readonly pattern: CrackPattern;
  /** First crack after the coat's laying, against that of the mean film. */
  readonly firstRatio: number;
  /** Index of the lowest film above the weakest boundary. */
  readonly boundary: number;
  /** Share of the patch on which the film lies. */
  readonly cover: number;
}

/** A film that does not crack. */
const WHOLE: CrackPattern = { crackedShare: 0, spacingUm: 0, openingUm: 0, openArea: 0, strength: 0 };

/** The cracks of a film on a patch; of one that is missing or does not crack there, none. */
export function cracksThere(
  crack: FilmCracks | null,
  like: FilmCracks,
  responses: readonly FilmResponse[],
  patch: Patch,
  cover: number,
): LocalCracks {
  if (crack === null || cover === 0) {
    const { law, boundary } = like;
    return { law: { ...law, driveRatio: 0 }, pattern: WHOLE, firstRatio: 1, boundary, cover };
  }
  const { law, pattern, boundary } = crack;
  const answering = responses.filter(({ stepId }) => (patch.factors.get(stepId) ?? 0) >= NO_FILM);
  if (answering.length === 0) return { law, pattern, firstRatio: 1, boundary, cover };
  const times = (of: (response: FilmResponse) => readonly number[]): number =>
    answering.reduce(
      (all, response) => all * answerAt(response.nodes, of(response), patch.factors.get(response.stepId)!),
      1,
    );
  const strain = times((r) => r.strain);
  const local: CrackLaw = {
    ...law,
    thicknessUm: law.thicknessUm * times((r) => r.thickness),
    pullLengthUm: law.pullLengthUm * times((r) => r.pull),
    strain: law.strain * strain,
    strengthRatio: law.strengthRatio / strain,
    driveRatio: law.driveRatio * times((r) => r.drive),
    mobilityAtGel: Math.min(1, law.mobilityAtGel * times((r) => r.mobility)),
    fillLeft: Math.min(1, law.fillLeft * times((r) => r.fill)),
  };
  return { law: local, pattern: crackPattern(local), firstRatio: times((r) => r.first), boundary, cover };
}
