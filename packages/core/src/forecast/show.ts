import { MIN_FLAKE_UM, chipShare } from '../chip';
import { type Scene } from '../scene';
import {
  abrade,
  createStack,
  layInto,
  lift,
  openCracks,
  reaches,
  visibleShares,
  type Zone,
  ZONES,
  zoneShares,
} from '../wear';
import { type Efforts } from './scene';
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

/** Opacity from which a film is no longer clear. */
const HIDES = 0.02;

/**
 * Follows the shares of the area through a scene, zone by zone, in closed form.
 */
export function showThrough(
  scene: Scene,
  panel: { readonly width: number; readonly height: number },
  cracks: readonly (CoatCracks | null)[],
  efforts: Efforts,
): Shown {
  const { layers, events } = scene;
  const count = layers.length - 1;
  const opacity = Float64Array.from(layers, (layer) => layer.opacity);
  const hiding = opacity.map((o) => (o > HIDES ? 1 : 0));
  const shares = zoneShares(panel.width, panel.height);
  const removals = new Map<string, RemovalForecast>();
  const perZone = new Map<Zone, Float64Array>();
  let chippedShare = 0;
  let wornShare = 0;
  let bareShare = 0;
  // Where no tool and no place tells the zones apart one stands for all.
  const alike = events.every(
    (event) => event.kind !== 'rub' && (event.kind === 'crack' || event.where === 'all'),
  );
  for (const zone of alike ? ZONES.slice(0, 1) : ZONES) {
    const area = alike ? 1 : shares[zone];
    const state = createStack(count);
    const thickness = Float64Array.from(layers, (layer) => layer.thicknessUm);
    const gone = new Map<number, number>();
    for (const event of events) {
      if (event.kind !== 'crack' && !reaches(event.where, zone)) continue;
      switch (event.kind) {
        case 'lay':
          layInto(state, event.layer, event.share, event.intoCracks);
          break;
        case 'crack':
          openCracks(state, event.layer, event.openArea);
          break;
        case 'chip': {
          const already = gone.get(event.layer) ?? 0;
          if (event.share <= already) break;
          chippedShare += area * lift(state, event.layer, (event.share - already) / (1 - already));
          gone.set(event.layer, event.share);
          break;
        }
        case 'lift':
          chippedShare += area * lift(state, event.layer, event.share);
          break;
        case 'rub': {
          const median = event.medianUm * event.exposure[zone];
          const share = abrade(state, median, event.spread, thickness, Float64Array.from(event.resistance));
          wornShare += area * share;
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
    bareShare += area * visibleShares(state, hiding)[0]!;
    perZone.set(zone, visibleShares(state, opacity));
  }
  return {
    layers: layers.map(({ id }, i): LayerShare => {
      const zones = { field: 0, edge: 0, corner: 0 };
      let share = 0;
      for (const zone of ZONES) {
        zones[zone] = perZone.get(alike ? 'field' : zone)![i]!;
        share += shares[zone] * zones[zone];
      }
      return { id, share, zones };
    }),
    opacity,
    chips: chipsOf(cracks),
    removals: [...removals.values()],
    chippedShare: Math.min(1, chippedShare),
    wornShare: Math.min(1, wornShare),
    bareShare,
  };
}

/** Flaking, boundary by boundary: of films that pull on the same boundary the last one tells. */
function chipsOf(cracks: readonly (CoatCracks | null)[]): ChipForecast[] {
  const byBoundary = new Map<number, ChipForecast>();
  for (const crack of cracks) {
    if (!crack) continue;
    const { law, pattern, boundary } = crack;
    byBoundary.set(boundary, {
      film: boundary,
      share: chipShare(law.driveRatio, pattern.crackedShare),
      size: Math.max(MIN_FLAKE_UM, pattern.spacingUm) * 1e-6,
      driveRatio: law.driveRatio,
    });
  }
  return [...byBoundary.values()];
}
