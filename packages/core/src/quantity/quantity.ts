import { isOf, type Medium, type MediumLookup, mediumLookup } from '../media';
import { POWDER_SOLIDS } from '../media';
import {
  type FilmStep,
  isFilm,
  mapAt,
  mapMean,
  type Panel,
  panelArea,
  type PanelPlan,
  reaches,
  type Resist,
  type Step,
  whereOf,
  type Zone,
  zonePlaces,
  ZONES,
  zoneShares,
} from '../plan';
import { SECONDS_PER_HOUR, SECONDS_PER_DAY } from '../units';

/** Left in the brush, the dish and on the sheet; larger on small pieces, largest with a spray; common practice. */
export const WASTE = { brush: 0.1, small: 0.15, spray: 0.3 } as const;
/** A panel under this is small work [m²]. */
const SMALL = 0.25;
/** Powder and water of milk paint 1:1 give this volume per volume of powder; assumed, weigh once. */
const POWDER_YIELD = 1.3;

/**
 * Spread rate of a film: area a litre covers.
 * m²/L = 10 · solids by volume [%]/dry film thickness [µm]; arithmetic of data sheets.
 * @param solids - share of volume
 * @param dryThickness - [m]
 * @returns [m²/L]
 * @example coverageM2PerL(0.38, 34.2e-6) // ≈ 11.1
 */
export function coverageM2PerL(solids: number, dryThickness: number): number {
  return (solids * 1e-3) / dryThickness;
}

/**
 * How long a mixed or opened medium keeps [s]. Casein goes off 4.7 times quicker per 10 K: one day at 21 °C and
 * fourteen in a refrigerator at 4 °C are common practice.
 * @param temperature - of where it stands [K]
 */
export function potLife(medium: Medium, temperature: number): number {
  const atRoom = medium.potHours * SECONDS_PER_HOUR;
  if (medium.potHours > 1000) return atRoom;
  return Math.min(14 * SECONDS_PER_DAY, atRoom * 4.7 ** ((294.15 - temperature) / 10));
}

/** What a step uses. Volumes in m³. */
export interface Quantity {
  readonly stepId: string;
  readonly medium: string;
  /** As it goes on the brush, waste included. */
  readonly volume: number;
  /** Of that, water or thinner stirred in; what went off where paint stood open is not. */
  readonly water: number;
  /** Texture powder stirred in, as it lies loose. */
  readonly texture: number;
  /** The medium itself, as it comes. */
  readonly asBought: number;
  /** Milk paint only: volume of dry powder. */
  readonly powder: number | null;
  /** [kg], of the medium as bought. */
  readonly mass: number;
  /** Spread rate of the coat as laid [m²/m³]. */
  readonly spreadRate: number;
  /** How long the mix keeps at 21 °C [s]. */
  readonly keeps: number;
  /** In the price's currency; null without a price. */
  readonly cost: number | null;
}

/**
 * How much of each medium a plan uses, step by step.
 * @param prices - per litre, by medium key
 */
export function quantities(plan: PanelPlan, prices: Readonly<Record<string, number>> = {}): Quantity[] {
  const media = mediumLookup(plan.media);
  const { panel } = plan;
  return plan.steps.flatMap((step) => of(step, panel, media, prices) ?? []);
}

function of(
  step: Step,
  panel: Panel,
  media: MediumLookup,
  prices: Readonly<Record<string, number>>,
): Quantity | null {
  if (!isFilm(step) && step.kind !== 'resist') return null;
  const film = isFilm(step);
  const area = panelArea(panel);
  const medium = media(film ? step.medium : step.agent);
  const coats = step.kind === 'seal' ? step.coats : 1;
  const share = film ? step.cover.share : step.share;
  const waste = isOf(medium, 'sprayed') ? WASTE.spray : area < SMALL ? WASTE.small : WASTE.brush;
  const laid = area * share * meanLaid(step, panel) * coats * step.thickness;
  const volume = laid * (1 + waste);
  const dilution = film ? step.dilution : 0;
  const texture = step.kind === 'coat' ? (step.texture ?? 0) : 0;
  const asBought = volume / (1 + dilution + POWDER_SOLIDS * texture);
  const price = prices[medium.key];
  return {
    stepId: step.id,
    medium: medium.key,
    volume,
    water: Math.max(0, dilution) * asBought,
    texture: texture * asBought,
    asBought,
    powder: isOf(medium, 'powder') ? asBought / POWDER_YIELD : null,
    mass: asBought * medium.densityKgL * 1000,
    spreadRate: 1 / step.thickness,
    keeps: potLife(medium, 294.15),
    cost: price === undefined ? null : asBought * 1000 * price,
  };
}

/** How much of a step there is on the mean of a panel, where it goes by places: what is used of it. */
function meanLaid(step: FilmStep | Resist, panel: Panel): number {
  const { map } = step;
  const where = whereOf(step);
  if (where === 'all' && panel.oval !== true) return map === undefined ? 1 : mapMean(map);
  const shares = zoneShares(panel);
  const places = zonePlaces(panel);
  const meanOf = (zone: Zone): number =>
    map === undefined || places[zone].length === 0
      ? 1
      : places[zone].reduce((sum, [u, v]) => sum + mapAt(map, u, v), 0) / places[zone].length;
  return ZONES.reduce((sum, zone) => sum + (reaches(where, zone) ? shares[zone] * meanOf(zone) : 0), 0);
}
