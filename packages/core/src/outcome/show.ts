import { chipShare, flakeUm } from '../chip';
import { opacityOf } from '../colour';
import { NO_FILM, NOT_DONE, reaches, type Zone, ZONES } from '../plan';
import { abrade, createStack, layInto, lift, openCracks, visibleShares } from '../wear';
import { isGround, type OnStand, type Reach, type Scene, type SceneLayer } from './history';
import { type LocalCracks, type Patch } from './places';
import { type Efforts, networkLayer, showsCracks } from './scene';
import { type Stand } from './stands';
import { type ChipForecast, type LayerShare, type RemovalForecast } from './types';

/** What one zone, or the whole panel, has come to. */
export interface ShownZone {
  /** Of the panel's area. */
  readonly area: number;
  /** How much of each layer is seen, the panel's first; adds up to 1. */
  readonly seen: readonly number[];
  /** Shares of the zone. */
  readonly chippedShare: number;
  readonly wornShare: number;
  /** Share on which nothing but clear films lies over the panel. */
  readonly bareShare: number;
}

/** What is seen, and what came off on the way there. */
export interface Shown {
  readonly whole: ShownZone;
  readonly zones: Readonly<Record<Zone, ShownZone>>;
  readonly layers: readonly LayerShare[];
  /** Opacity of each layer, the panel's first. */
  readonly opacity: Float64Array;
  readonly chips: readonly ChipForecast[];
  readonly removals: readonly RemovalForecast[];
}

/** Opacity from which a film is no longer clear. */
const HIDES = 0.02;

/**
 * Follows the shares of the area through a scene, patch by patch, in closed form.
 * @param cracksAt - what the film of a layer cracks into on a patch
 */
export function showThrough(
  scene: Scene,
  patches: readonly Patch[],
  stands: readonly Stand[],
  local: readonly (readonly LocalCracks[])[],
  cracksAt: (layer: number, patch: number) => LocalCracks,
  efforts: Efforts,
): Shown {
  const { layers, events } = scene;
  const count = layers.length - 1;
  const opacity = Float64Array.from(layers, (layer) => layer.opacity);
  const hiding = opacity.map((o) => (o > HIDES ? 1 : 0));
  const removals = new Map<string, RemovalForecast>();
  const parts = patches.map((patch, index): ShownZone => {
    const { zone, area, factors } = patch;
    let chippedShare = 0;
    let wornShare = 0;
    const state = createStack(count);
    const thickness = Float64Array.from(
      layers,
      ({ id, thicknessUm }) => thicknessUm * (factors.get(id) ?? 1),
    );
    const gone = new Map<number, number>();
    const opened = new Map<number, number>();
    const { holds, lacks } = stands[patch.stand]!;
    const isThere = ({ on }: { readonly on: OnStand }): boolean =>
      on.holds.every((k) => holds.includes(layers[k]!.id)) &&
      on.lacks.every((k) => lacks.includes(layers[k]!.id)) &&
      on.done.every((id) => holds.includes(id)) &&
      on.undone.every((id) => lacks.includes(id));
    /** Whether a tool or a cloth comes to this patch. */
    const comes = ({ stepId, where }: Reach): boolean =>
      reaches(where, zone) && (factors.get(stepId) ?? 1) >= NOT_DONE;
    for (const event of events) {
      if (event.kind !== 'crack' && !reaches(event.where, zone)) continue;
      if ('on' in event && !isThere(event)) continue;
      switch (event.kind) {
        case 'lay': {
          const { id, finish } = layers[event.layer]!;
          const factor = factors.get(id) ?? 1;
          const here = finish === 'resist' ? Math.min(1, factor) : factor < NO_FILM ? 0 : 1;
          // Of a film told apart a patch has all or nothing, and what it leaves in cracks elsewhere.
          const share = holds.includes(id) ? 1 : lacks.includes(id) ? 0 : event.share * here;
          const stray = (event.intoCracks - event.share) / Math.max(1e-9, 1 - event.share);
          const intoCracks = holds.includes(id)
            ? 1
            : lacks.includes(id)
              ? stray * here
              : event.intoCracks * here;
          const hollow = finish === 'wax' || hiding[event.layer] === 0;
          layInto(state, event.layer, share, intoCracks, hollow);
          break;
        }
        case 'crack': {
          // Films that crack together do so in the same places: a lower one no further than later coats left it open.
          const own = cracksAt(event.layer, index);
          const sets = event.network === 0 ? own : cracksAt(networkLayer(event.network), index);
          if (!showsCracks(sets.pattern)) break;
          const open = sets.pattern.openArea * Math.min(1, own.law.fillLeft / sets.law.fillLeft);
          const already = opened.get(event.network) ?? 0;
          if (open <= already) break;
          openCracks(state, event.layer, (open - already) / (1 - already));
          opened.set(event.network, open);
          break;
        }
        case 'chip': {
          const { law, pattern } = cracksAt(event.by, index);
          const share = chipShare(law.driveRatio, pattern.crackedShare, event.lifting);
          const already = gone.get(event.layer) ?? 0;
          if (share <= already) break;
          chippedShare += lift(state, event.layer, (share - already) / (1 - already));
          gone.set(event.layer, share);
          break;
        }
        case 'lift': {
          if (event.by !== null && !comes(event.by)) break;
          // Salt takes what it lies in; wax and jelly take what lies on them, and are mapped as they were laid.
          const strewn = event.agent === 'salt' ? Math.min(1, factors.get(event.stepId) ?? 1) : 1;
          chippedShare += lift(state, event.layer, 1 - (1 - event.share) ** strewn);
          break;
        }
        case 'rub': {
          const { spread, relief, carving } = event;
          // What ridges are given valleys are spared.
          const spared = Math.exp(-0.5 * (relief ** 2 + carving ** 2));
          const median = event.medianUm * spared * event.exposure[zone] * (factors.get(event.stepId) ?? 1);
          const over = Math.hypot(spread, relief, carving);
          const share = abrade(state, median, over, thickness, Float64Array.from(event.resistance));
          wornShare += share;
          const before = removals.get(event.stepId)?.share ?? 0;
          removals.set(event.stepId, {
            stepId: event.stepId,
            share: before + area * share,
            depth: event.medianUm * 1e-6,
            effort: efforts.get(event.stepId) ?? null,
          });
        }
      }
    }
    const hides = factors.size === 0 ? opacity : opacity.map((_, k) => opacityThere(layers[k]!, factors));
    return {
      area,
      seen: [...visibleShares(state, hides)],
      chippedShare: Math.min(1, chippedShare),
      wornShare: Math.min(1, wornShare),
      bareShare: visibleShares(state, hiding).reduce(
        (sum, share, k) => (isGround(layers[k]!) ? sum + share : sum),
        0,
      ),
    };
  });
  const whole = joined(parts, 1);
  const zones = Object.fromEntries(
    ZONES.map((zone) => {
      const own = parts.filter((_, i) => patches[i]!.zone === zone);
      return [
        zone,
        own.length === 0
          ? whole
          : joined(
              own,
              own.reduce((sum, part) => sum + part.area, 0),
            ),
      ];
    }),
  ) as Record<Zone, ShownZone>;
  return {
    whole,
    zones,
    layers: layers.map(({ id }, k): LayerShare => ({
      id,
      share: whole.seen[k]!,
      zones: { field: zones.field.seen[k]!, edge: zones.edge.seen[k]!, corner: zones.corner.seen[k]! },
    })),
    opacity,
    chips: chipsOf(patches, local),
    removals: [...removals.values()],
  };
}

/** What a layer hides where it lies thicker or thinner. */
function opacityThere(layer: SceneLayer, factors: ReadonlyMap<string, number>): number {
  const factor = factors.get(layer.id);
  return factor === undefined || layer.finish === 'resist'
    ? layer.opacity
    : opacityOf(layer.thicknessUm * factor, layer.hidingUm);
}

/** Several parts as one: means by area. */
function joined(parts: readonly ShownZone[], area: number): ShownZone {
  const mean = (of: (part: ShownZone) => number): number =>
    parts.reduce((sum, part) => sum + part.area * of(part), 0) / area;
  return {
    area,
    seen: parts[0]!.seen.map((_, k) => mean((part) => part.seen[k]!)),
    chippedShare: mean((part) => part.chippedShare),
    wornShare: mean((part) => part.wornShare),
    bareShare: mean((part) => part.bareShare),
  };
}

/** Flaking, boundary by boundary, as a share of the panel: of films that pull on the same boundary the last one tells. */
function chipsOf(patches: readonly Patch[], local: readonly (readonly LocalCracks[])[]): ChipForecast[] {
  const byBoundary = new Map<number, ChipForecast & { readonly weight: number }>();
  patches.forEach(({ area }, k) => {
    const last = new Map<number, number>();
    local.forEach((there, i) => {
      if (there.length > 0 && there[k]!.cover > 0) last.set(there[k]!.boundary, i);
    });
    for (const [boundary, by] of last) {
      const { law, pattern, cover } = local[by]![k]!;
      const goes = area * cover * chipShare(law.driveRatio, pattern.crackedShare);
      const size = flakeUm(pattern.spacingUm) * 1e-6;
      const before = byBoundary.get(boundary);
      const weight = goes + 1e-9 * area;
      const all = weight + (before?.weight ?? 0);
      const mean = (mine: number, theirs: number | undefined): number =>
        (weight * mine + (before?.weight ?? 0) * (theirs ?? 0)) / all;
      byBoundary.set(boundary, {
        film: boundary,
        by,
        share: goes + (before?.share ?? 0),
        size: mean(size, before?.size),
        driveRatio: Math.max(law.driveRatio, before?.driveRatio ?? 0),
        weight: all,
      });
    }
  });
  return [...byBoundary.values()].map(({ weight: _, ...chip }) => chip);
}
