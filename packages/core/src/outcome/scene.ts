import { chipShare } from '../chip';
import { type CrackPattern, lawWhereItCracks } from '../crack';
import { valueAt } from '../film';
import { type Course, type Factors, type FilmRun, leaves, waxManner } from '../course';
import { isClear, type Learned } from '../media';
import {
  type Distress,
  groundOf,
  isFilm,
  laysLayer,
  mapOf,
  type Place,
  type Relief,
  type Resist,
  type Step,
  tintOf,
  whereOf,
} from '../plan';
import { toolOf } from '../tools';
import { carvingFor, groundsKeep } from './carving';
import { type OnStand, type Scene, type SceneEvent } from './history';
import { groundLayers, layerOfStep } from './layers';
import { type FilmResponse, type LocalCracks, type Patch } from './places';
import { rubbed } from './rub';
import { driesOtherwise, type Stand } from './stands';

/** Wax that was worked in stays in this share of open cracks; assumed. */
const WAX_IN_CRACKS = 0.85;
/**
 * Of a wax with pigment that is rubbed in and buffed so much is seen on the plain surface, in brush marks and as a
 * tint; of one that is wiped back after minutes less, of one that is left all; common practice, the numbers assumed.
 */
const PIGMENT = { left: 1, buffed: 0.3, wiped: 0.12 } as const;

/** Where a wax stays: on the plain surface and in open cracks, as shares; null for what is no wax. */
function waxed(
  film: FilmRun,
  share: number,
  relief: Relief | undefined,
): { onSurface: number; intoCracks: number } | null {
  if (film.medium.kind !== 'wax') return null;
  const stays = PIGMENT[waxManner(film)];
  // What is wiped off the ridges stays in the grounds between them.
  const onSurface = isClear(film.medium) ? share : share * (stays + (1 - stays) * groundsKeep(relief));
  return { onSurface, intoCracks: Math.max(share, WAX_IN_CRACKS) };
}
/** Of what brittle paint would pull off wax that was rubbed on, so much goes before anything touches it; assumed. */
const BY_ITSELF = 0.3;
/** A grain bites where the wet film is at least this part of it deep; common practice. */
const GRAIN_NEEDS = 4;
/** Cracks that take less of the area, or run in less of the film, are neither seen nor grown. */
const CRACKS_SEEN = 0.002;
const CRACKS_RUN = 0.08;

/** Jelly that soaks into what it lies on resists so much less; assumed. */
const SOAKED_AWAY = 0.55;

/** Whether jelly lies on something that drinks: raw wood, or paint that nothing sealed. */
export function jellySoaks({ films, plan }: Pick<Course, 'films' | 'plan'>, step: Resist): boolean {
  const top = films.findLast((film) => film.stepIndex < plan.steps.indexOf(step));
  if (top === undefined) return groundOf(plan.panel).suctionUm > 0;
  return top.medium.kind !== 'clear' && top.medium.hardness < 68;
}

/** Whether cracks of a pattern are there to be seen. */
export const showsCracks = (pattern: CrackPattern): boolean =>
  pattern.openArea >= CRACKS_SEEN && pattern.crackedShare >= CRACKS_RUN;

/** The coat that salt was strewn into while it was wet and deep enough to take it; null when it lies loose on top. */
export function saltBed(run: Pick<Course, 'films' | 'times'>, salt: Resist): FilmRun | null {
  const at = run.times.find((times) => times.step.id === salt.id)!.from;
  const bed = run.films.findLast((film) => film.laidAt <= at);
  if (bed === undefined) return null;
  const wet = bed.openStates.tacky === null || at <= bed.openStates.tacky;
  const depthUm = bed.open.solidsUm + valueAt(bed.open, bed.open.water, at - bed.laidAt);
  return wet && depthUm >= (salt.thickness * 1e6) / GRAIN_NEEDS ? bed : null;
}

/** A layer that covers everything. */
const ALL_OVER = { kind: 'lay', style: 'full', share: 1, intoCracks: 1, where: 'all' } as const;

/** Craters salt has left stay pale until something wets them: a coat, wax, a mist; common practice. */
export const staysPale = (steps: readonly Step[], scraped: Step): boolean =>
  !steps.slice(steps.indexOf(scraped) + 1).some((step) => isFilm(step) || leaves(step) > 0);

/** Most layers a panel has, and one more: tells networks of one layer on several stands apart. */
const LAYERS = 32;
const networkKey = (layer: number, stand: number): number => layer + LAYERS * stand;
/** The layer that sets a network. */
export const networkLayer = (key: number): number => key % LAYERS;

/** A stand as far as its films are there. */
interface StandNow {
  readonly index: number;
  readonly on: OnStand;
  readonly cracks: Stand['cracks'];
  /** Patches that are alike by now. */
  readonly within: number[];
}

/** Blade and scraper: effort of each cutting step, by its id. */
export type Efforts = ReadonlyMap<string, number>;

/**
 * What happens to the panel, in order: coats cover, cracks open, flakes and resists let go, tools rub through, and
 * the next coat covers it again.
 */
export function sceneOf(
  course: Course,
  stands: readonly Stand[],
  patches: readonly Patch[],
  local: readonly (readonly LocalCracks[])[],
  responses: readonly (readonly FilmResponse[])[],
  learned: Learned | null,
  factors: Factors,
): { readonly scene: Scene; readonly efforts: Efforts } {
  const { films, cracks, plan, media } = course;
  const begins = new Map(course.times.map(({ step, from }) => [step.id, from]));
  const laid = plan.steps.filter(laysLayer);
  const ground = groundLayers(plan);
  const layerOf = new Map(laid.map((step, i) => [step.id, ground.length + i]));
  const filmOf = new Map(films.map((film) => [film.step.id, film]));
  const events: SceneEvent[] = [];
  const efforts = new Map<string, number>();
  const there = new Set<number>();
  /** Hot air and wetting that have been. */
  const been = new Set<string>();
  const opened = new Set<number>();
  /** Resists that something has lifted off. */
  const lifted = new Set<string>();
  /** Most help any tool has given each boundary so far, by place. */
  const helped = new Map<string, number>();

  /** The stands as far as films lie by now: where one told apart is still to come all are alike yet. */
  const standsNow = (): StandNow[] => {
    const layersOf = (ids: readonly string[]): number[] =>
      ids.flatMap((id) => layerOf.get(id) ?? []).filter((layer) => there.has(layer));
    const wentOver = (ids: readonly string[]): string[] => ids.filter((id) => been.has(id));
    const found = new Map<string, StandNow>();
    stands.forEach(({ holds, lacks, cracks }, index) => {
      const on = {
        holds: layersOf(holds),
        lacks: layersOf(lacks),
        done: wentOver(holds),
        undone: wentOver(lacks),
      };
      const key = [...on.holds, ...on.done].join();
      // What is to come is not there yet: of those alike the last stand lacks most.
      const within = found.get(key)?.within ?? [];
      patches.forEach(({ stand }, k) => stand === index && within.push(k));
      found.set(key, { index, cracks, on, within });
    });
    return [...found.values()].filter(({ within }) => within.length > 0);
  };

  const settle = (at: number, lifting: number, where: Place): void => {
    const now = standsNow();
    const fresh = films.flatMap((film, i) =>
      there.has(layerOf.get(film.step.id)!) && !opened.has(i) ? [i] : [],
    );
    for (const i of fresh) opened.add(i);
    const helping = new Map(helped);
    for (const stand of now) {
      openIn(stand, fresh, at);
      flakeIn(stand, at, lifting, where, helping);
    }
    for (const [key, help] of helping) helped.set(key, help);
  };

  /** Films above one boundary crack together: the last that really cracks, and lies on most of it, sets the pattern. */
  const networkOf = ({ cracks, within, index }: StandNow, boundary: number): number => {
    const runs = (i: number): boolean =>
      local[i]!.length > 0 && within.some((k) => local[i]![k]!.pattern.crackedShare >= CRACKS_RUN);
    const sets = (least: number): number =>
      cracks.findLastIndex(
        (crack, i) => crack?.boundary === boundary && films[i]!.step.cover.share >= least && runs(i),
      );
    const last = sets(0.5) >= 0 ? sets(0.5) : sets(0);
    return last < 0 ? 0 : networkKey(layerOf.get(films[last]!.step.id)!, index);
  };

  function openIn(stand: StandNow, fresh: readonly number[], at: number): void {
    for (const i of fresh) {
      const crack = stand.cracks[i];
      if (!crack || !stand.within.some((k) => showsCracks(local[i]![k]!.pattern))) continue;
      events.push({
        kind: 'crack',
        on: stand.on,
        at: crack.firstAt ?? at,
        layer: layerOf.get(films[i]!.step.id)!,
        network: networkOf(stand, crack.boundary),
        runs: crack.pattern.crackedShare,
        fillLeft: crack.law.fillLeft,
      });
    }
  }

  function flakeIn(
    stand: StandNow,
    at: number,
    lifting: number,
    where: Place,
    helping: Map<string, number>,
  ): void {
    // Films that pull on the same boundary: the last one tells.
    const byBoundary = new Map<number, number>();
    stand.cracks.forEach((crack, i) => {
      if (crack && there.has(layerOf.get(films[i]!.step.id)!)) byBoundary.set(crack.boundary, i);
    });
    for (const [boundary, i] of byBoundary) {
      const { law, pattern } = stand.cracks[i]!;
      const layer = layerOf.get(films[boundary]!.step.id)!;
      for (const [help, place] of lifting > 1 && where !== 'all'
        ? ([
            [1, 'all'],
            [lifting, where],
          ] as const)
        : ([[lifting, where]] as const)) {
        const key = `${boundary} ${i} ${place}`;
        if ((helped.get(key) ?? 0) >= help) continue;
        helping.set(key, help);
        const goes = (there: Pick<LocalCracks, 'law' | 'pattern'>): number =>
          chipShare(there.law.driveRatio, there.pattern.crackedShare, help);
        if (stand.within.every((k) => goes(local[i]![k]!) < 1e-6)) continue;
        events.push({
          kind: 'chip',
          on: stand.on,
          at,
          layer,
          network: networkOf(stand, boundary),
          by: layerOf.get(films[i]!.step.id)!,
          lifting: help,
          share: goes({ law, pattern }),
          where: place,
        });
      }
    }
  }

  ground.forEach((_, layer) => {
    if (layer > 0) events.push({ ...ALL_OVER, at: 0, dryAt: 0, layer });
  });
  for (const step of plan.steps) {
    const layer = layerOf.get(step.id);
    const at = begins.get(step.id)!;
    if (isFilm(step)) {
      const film = filmOf.get(step.id)!;
      // What cracked or flaked before is there for this coat to run into, or, clear, to lie over.
      if (step.kind === 'seal' || film.medium.kind === 'glaze') settle(at, 1, 'all');
      const { share, style } = step.cover;
      const wax = waxed(film, share, plan.panel.relief);
      events.push({
        kind: 'lay',
        at: film.laidAt,
        dryAt: film.openStates.touch,
        layer: layer!,
        style,
        share: wax?.onSurface ?? share,
        intoCracks: wax?.intoCracks ?? share,
        where: whereOf(step),
      });
      there.add(layer!);
    } else if (step.kind === 'resist' && layer !== undefined) {
      events.push({
        kind: 'lay',
        at,
        dryAt: at,
        layer,
        style: 'blotchy',
        share: step.share,
        intoCracks: step.share,
        where: step.where,
      });
      there.add(layer);
    } else if (driesOtherwise(step)) {
      been.add(step.id);
      veil(step, at);
    } else if (step.kind === 'wipe') {
      settle(at, 1, 'all');
      liftResists(step, ['jelly'], 1);
    } else if (step.kind === 'distress') {
      const { lifting, resistLift } = toolOf(step.tool);
      settle(at, lifting, step.where);
      liftResists(step, ['candle', 'salt'], resistLift);
      const off = rub(step);
      if (off !== null) events.push(off);
      veil(step, at);
    }
  }
  const end = course.times.at(-1)?.until ?? 0;
  settle(end, 1, 'all');
  resistsByThemselves(end);
  return {
    scene: {
      widthMm: plan.panel.width * 1000,
      heightMm: plan.panel.height * 1000,
      oval: plan.panel.oval === true,
      layers: [...ground, ...laid.map((step) => layerOfStep(step, filmOf.get(step.id)))],
      events,
      networks: networksOf(),
      maps: Object.fromEntries(
        plan.steps.flatMap((step) => {
          const map = mapOf(step);
          return map === undefined ? [] : [[step.id, map]];
        }),
      ),
      places: Object.fromEntries(
        plan.steps.flatMap((step) =>
          driesOtherwise(step) && whereOf(step) !== 'all' ? [[step.id, whereOf(step)]] : [],
        ),
      ),
      relief: plan.panel.relief ?? null,
      grainUp: plan.panel.width < plan.panel.height !== (plan.panel.grain === 'across'),
      seed: plan.seed,
    },
    efforts,
  };

  /** Tinted water dries over all that is wetted, floors of open cracks too. */
  function veil(step: Step, at: number): void {
    if (tintOf(step) === null) return;
    const layer = layerOf.get(step.id)!;
    const where = whereOf(step);
    events.push({ kind: 'lay', at, dryAt: at, layer, style: 'full', share: 1, intoCracks: 1, where });
    there.add(layer);
  }

  /** The patterns that are to be seen, or that bound flakes. */
  function networksOf(): Scene['networks'] {
    const named = new Set(events.flatMap((event) => ('network' in event ? [event.network] : [])));
    return films.flatMap((film, i) => {
      const layer = layerOf.get(film.step.id)!;
      return stands.flatMap(({ cracks }, index) => {
        const key = networkKey(layer, index);
        const law = cracks[i]?.law;
        if (!named.has(key) || !law) return [];
        return [{ key, layer, law: lawWhereItCracks(law), responses: responses[i] ?? [] }];
      });
    });
  }

  /** Resists laid before a step come off with all that lies on them; salt takes the coat it was strewn into. */
  function liftResists(until: Step, agents: readonly string[], share: number): void {
    for (const step of plan.steps.slice(0, plan.steps.indexOf(until))) {
      if (step.kind !== 'resist' || !agents.includes(step.agent)) continue;
      const bed = step.agent === 'salt' ? saltBed(course, step) : null;
      if (step.agent === 'salt' && bed === null) continue;
      const soaked = step.agent === 'jelly' && jellySoaks(course, step) ? SOAKED_AWAY : 1;
      const lifts = media(step.agent).lifts * share * soaked;
      lifted.add(step.id);
      events.push({
        kind: 'lift',
        at: begins.get(until.id)!,
        stepId: step.id,
        layer: layerOf.get(bed === null ? step.id : bed.step.id)!,
        share: bed === null ? lifts : lifts * step.share,
        agent: step.agent,
        where: step.where,
        by: { stepId: until.id, where: whereOf(until) },
        grainUm: step.thickness * 1e6,
        pale: step.agent === 'salt' && staysPale(plan.steps, until),
      });
    }
  }

  /** Brittle paint over wax chips somewhat by itself, before any tool. */
  function resistsByThemselves(at: number): void {
    for (const step of plan.steps) {
      const layer = layerOf.get(step.id);
      if (step.kind !== 'resist' || step.agent !== 'candle' || layer === undefined || lifted.has(step.id))
        continue;
      const above = films.filter((film) => film.stepIndex > plan.steps.indexOf(step));
      const first = above[0];
      const top = above.at(-1);
      if (first === undefined || top === undefined) continue;
      const energy = above.reduce((sum, film) => sum + film.medium.energyJM2Um * film.solidsUm, 0);
      const bond = first.medium.bondJM2 * media(step.agent).baseBond;
      const cracked = Math.max(
        ...above.map((film) => cracks[films.indexOf(film)]?.pattern.crackedShare ?? 0),
      );
      const share = BY_ITSELF * media(step.agent).lifts * chipShare(energy / bond, cracked);
      if (share < 0.005) continue;
      const grainUm = step.thickness * 1e6;
      events.push({
        kind: 'lift',
        at,
        stepId: step.id,
        layer,
        share,
        agent: 'candle',
        where: step.where,
        by: null,
        grainUm,
        pale: false,
      });
    }
  }

  function rub(step: Distress): SceneEvent | null {
    const off = rubbed(course, step, learned, factors);
    if (off === null) return null;
    const { medianUm, spread, relief, roughUm, effort } = off;
    const resistance = [...ground, ...laid].map(() => 1);
    if (off.old !== null && ground.length > 1) resistance[1] = off.old;
    off.lying.forEach((film, i) => (resistance[layerOf.get(film.step.id)!] = off.resistance[i]!));
    if (effort !== null) efforts.set(step.id, effort);
    const { action, exposure } = toolOf(step.tool);
    return {
      kind: 'rub',
      at: begins.get(step.id)!,
      stepId: step.id,
      tool: step.tool,
      medianUm,
      spread,
      relief,
      roughUm,
      carving: carvingFor(action, plan.panel.relief),
      exposure,
      resistance,
      where: step.where,
    };
  }
}
