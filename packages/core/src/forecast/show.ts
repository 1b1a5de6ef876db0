import { chipShare, MIN_FLAKE_UM } from '../chip';
import { opacityOf } from '../colour';
import { valueAt } from '../film';
import { type MediumLookup } from '../media';
import { type Distress, isFilm, type PanelPlan, type Resist, type Step } from '../plan';
import {
  abrade,
  abrasion,
  bladeEffort,
  createStack,
  EXPOSURE,
  layInto,
  lift,
  LIFTING,
  openCracks,
  reaches,
  RESIST_LIFT,
  type StackState,
  visibleShares,
  type Zone,
  ZONES,
  zoneShares,
} from '../wear';
import { bleachWetFor, type Factors, type FilmRun, type Run } from './run';
import { type ChipForecast, type CoatCracks, type LayerShare, type RemovalForecast } from './types';

/** What is seen, and what came off on the way there. */
export interface Shown {
  readonly layers: readonly LayerShare[];
  /** Opacity of each layer, the panel's first. */
  readonly opacity: Float64Array;
  readonly chips: readonly ChipForecast[];
  readonly removals: readonly RemovalForecast[];
  readonly chippedShare: number;
  readonly wornShare: number;
  /** Share on which nothing but clear films lies over the panel. */
  readonly bareShare: number;
}

/** Share of what comes off when jelly is wiped, or salt scraped. */
const WIPED = 1;
/** Dark wax rubbed on and wiped back stays in this share of open cracks; assumed. */
const WAX_IN_CRACKS = 0.85;

/**
 * Follows the stack through all steps, zone by zone: coats cover, cracks open, flakes and resists let go, tools rub
 * through, and the next coat covers it again.
 */
export function showThrough(
  plan: PanelPlan,
  run: Run,
  cracks: readonly (CoatCracks | null)[],
  media: MediumLookup,
  factors: Factors,
): Shown {
  const { films } = run;
  // Layer numbers: 0 the panel, then films and resists in the order of the steps.
  const laid = plan.steps.filter((step) => isFilm(step) || (step.kind === 'resist' && step.agent !== 'salt'));
  const layerOf = new Map(laid.map((step, i) => [step.id, i + 1]));
  const filmOf = new Map(films.map((film) => [film.step.id, film]));
  const chips = chipsOf(cracks);
  const opacity = new Float64Array(laid.length + 1).fill(1);
  laid.forEach((step, i) => {
    const film = filmOf.get(step.id);
    opacity[i + 1] = film ? opacityOf(film.solidsUm, film.medium.hidingUm) : 0;
  });

  const removals = new Map<string, RemovalForecast>();
  const shares = zoneShares(plan.panel.width, plan.panel.height);
  const perZone = new Map<Zone, Float64Array>();
  let chippedShare = 0;
  let wornShare = 0;
  let bareShare = 0;
  const hiding = opacity.map((o) => (o > 0.02 ? 1 : 0));
  // Where no tool and no place tells the zones apart one stands for all.
  const alike = plan.steps.every(
    (step) => step.kind !== 'distress' && (step.kind !== 'resist' || step.where === 'all'),
  );
  for (const zone of alike ? ZONES.slice(0, 1) : ZONES) {
    const area = alike ? 1 : shares[zone];
    const state = createStack(laid.length);
    const thickness = new Float64Array(laid.length + 1);
    let chipped = 0;
    let worn = 0;
    const done = new Set<number>();
    const settle = (lifting: number): void => {
      films.forEach((film, i) => {
        const layer = layerOf.get(film.step.id)!;
        if (thickness[layer] === 0) return;
        const crack = cracks[i];
        if (crack && !done.has(i)) {
          done.add(i);
          openCracks(state, layer, crack.pattern.openArea);
        }
      });
      for (const chip of chips) {
        if (thickness[layerOf.get(films[chip.film]!.step.id)!] === 0) continue;
        const layer = layerOf.get(films[chip.film]!.step.id)!;
        const already = gone.get(chip.film) ?? 0;
        const share = chipShare(chip.driveRatio, chip.crackedShare, lifting);
        if (share > already) {
          chipped += lift(state, layer, (share - already) / (1 - already));
          gone.set(chip.film, share);
        }
      }
    };
    const gone = new Map<number, number>();

    for (const step of plan.steps) {
      const layer = layerOf.get(step.id);
      if (step.kind === 'coat' || step.kind === 'seal') {
        const film = filmOf.get(step.id)!;
        // What cracked or flaked before is there for this coat to run into, or, clear, to lie over.
        if (step.kind === 'seal' || film.medium.kind === 'glaze') settle(1);
        const wax = film.medium.kind === 'wax' && step.cover.share < 1;
        layInto(
          state,
          layer!,
          step.cover.share,
          wax ? Math.max(step.cover.share, WAX_IN_CRACKS) : step.cover.share,
        );
        thickness[layer!] = film.solidsUm;
      } else if (step.kind === 'resist') {
        if (layer === undefined) continue;
        if (reaches(step.where, zone)) layInto(state, layer, step.share);
        thickness[layer] = step.thickness * 1e6;
      } else if (step.kind === 'wipe') {
        settle(1);
        chipped += liftResists(step, zone, state, ['jelly'], WIPED);
      } else if (step.kind === 'distress') {
        settle(reaches(step.where, zone) ? LIFTING[step.tool] : 1);
        if (!reaches(step.where, zone)) continue;
        chipped += liftResists(step, zone, state, ['candle', 'salt'], RESIST_LIFT[step.tool]);
        const off = rub(state, step, zone, thickness);
        worn += off.share;
        const before = removals.get(step.id);
        removals.set(step.id, {
          stepId: step.id,
          share: (before?.share ?? 0) + area * off.share,
          depth: zone === 'field' || before === undefined ? off.depth : before.depth,
          effort: off.effort,
        });
      }
    }
    settle(1);
    chippedShare += area * chipped;
    wornShare += area * worn;
    bareShare += area * visibleShares(state, hiding)[0]!;
    perZone.set(zone, visibleShares(state, opacity));
  }

  const layers = ['panel', ...laid.map((step) => step.id)].map((id, i): LayerShare => {
    const zones = { field: 0, edge: 0, corner: 0 };
    let share = 0;
    for (const zone of ZONES) {
      zones[zone] = perZone.get(alike ? 'field' : zone)![i]!;
      share += shares[zone] * zones[zone];
    }
    return { id, share, zones };
  });
  return {
    layers,
    opacity,
    chips,
    removals: plan.steps.flatMap((step) => removals.get(step.id) ?? []),
    chippedShare: Math.min(1, chippedShare),
    wornShare: Math.min(1, wornShare),
    bareShare,
  };

  /** Resists laid before a step come off with all that lies on them; salt takes the coat it was strewn into. */
  function liftResists(
    until: Step,
    zone: Zone,
    state: StackState,
    agents: readonly string[],
    share: number,
  ): number {
    let off = 0;
    for (const step of plan.steps.slice(0, plan.steps.indexOf(until))) {
      if (step.kind !== 'resist' || !agents.includes(step.agent) || !reaches(step.where, zone)) continue;
      const lifts = media(step.agent).lifts * share;
      if (step.agent !== 'salt') {
        off += lift(state, layerOf.get(step.id)!, lifts);
        continue;
      }
      const bed = saltBed(run, step);
      if (bed !== null) off += lift(state, layerOf.get(bed.step.id)!, step.share * lifts);
    }
    return off;
  }

  function rub(
    state: StackState,
    step: Distress,
    zone: Zone,
    thickness: Float64Array,
  ): { share: number; depth: number; effort: number | null } {
    const at = run.times.find((times) => times.step.id === step.id)!.from;
    const there = films.filter((film) => thickness[layerOf.get(film.step.id)!]! > 0);
    const top = there.at(-1);
    if (top === undefined) return { share: 0, depth: 0, effort: null };
    const age = (film: FilmRun): number => at - (film.openStates.touch ?? Infinity);
    const off = abrasion(
      step,
      top.medium,
      age(top),
      step.tool === 'bleach' ? bleachWetFor(run, step, media) : 0,
    );
    const resistance = new Float64Array(laid.length + 1).fill(1);
    for (const film of there) {
      resistance[layerOf.get(film.step.id)!] = off.resistance(film.medium, age(film));
    }
    const median = off.medianUm * (factors.wear ?? 1) * EXPOSURE[step.tool][zone];
    const cuts = step.tool === 'blade' || step.tool === 'scrape';
    return {
      share: abrade(state, median, off.spread, thickness, resistance),
      depth: off.medianUm * (factors.wear ?? 1) * 1e-6,
      effort: cuts ? bladeEffort(top.medium, age(top)) : null,
    };
  }
}

/** The coat that salt was strewn into while it was wet and deep enough to take it; null when it lies loose on top. */
export function saltBed(run: Run, salt: Resist): FilmRun | null {
  const at = run.times.find((times) => times.step.id === salt.id)!.from;
  const bed = run.films.findLast((film) => film.laidAt <= at);
  if (bed === undefined) return null;
  const wet = bed.openStates.tacky === null || at <= bed.openStates.tacky;
  const depthUm = bed.open.solidsUm + valueAt(bed.open, bed.open.water, at - bed.laidAt);
  return wet && depthUm >= (salt.thickness * 1e6) / GRAIN_NEEDS ? bed : null;
}

/** A grain bites where the wet film is at least this part of it deep; common practice. */
const GRAIN_NEEDS = 4;

interface Chips extends ChipForecast {
  readonly crackedShare: number;
}

/** Flaking, boundary by boundary: of films that pull on the same boundary the last one tells. */
function chipsOf(cracks: readonly (CoatCracks | null)[]): Chips[] {
  const byBoundary = new Map<number, Chips>();
  cracks.forEach((crack) => {
    if (!crack) return;
    const { law, pattern, boundary } = crack;
    byBoundary.set(boundary, {
      film: boundary,
      share: chipShare(law.driveRatio, pattern.crackedShare),
      size: Math.max(MIN_FLAKE_UM, pattern.spacingUm) * 1e-6,
      driveRatio: law.driveRatio,
      crackedShare: pattern.crackedShare,
    });
  });
  return [...byBoundary.values()];
}
