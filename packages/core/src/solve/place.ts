import { type Basis } from '../basis';
import { forecast } from '../forecast';
import { type Area, fillMap, fillRegion, isRegion, type MapZone, type Where } from '../maps';
import {
  evenMap,
  FILM_MAP_RANGE,
  firstMapped,
  isFilm,
  MAP_RANGE,
  type PanelMap,
  type PanelPlan,
  type Place,
  type Step,
  whereOf,
} from '../plan';
import { offWish, wishValues } from './solve';
import { type WishKey } from './types';

/** How a step has to be laid or worked so that a place comes to look as wished. */
export interface PlaceFit {
  readonly stepId: string;
  /** Where the step does more and where less from now on, all over the panel. */
  readonly map: PanelMap;
  /** What else changes when the step had no map: it is told by the map alone. */
  readonly changes: { readonly where?: 'all'; readonly share?: number };
  /** What the place then comes to. */
  readonly value: number;
  readonly met: boolean;
}

/** What a place of the panel gives of what can be wished for; null where there is nothing of the kind. */
export function placeValues(basis: Basis, where: Where): Record<WishKey, number | null> {
  return isRegion(where) ? wishValues(forecast(basis, where)) : wishValues(forecast(basis), where);
}

const ZONE_FILL: Readonly<Record<Area, MapZone>> = {
  panel: 'all',
  field: 'field',
  edge: 'edges',
  corner: 'corners',
};
/** Amounts tried over a map's range, then halvings between the two that the wish lies between. */
const TRIED = 6;
const HALVINGS = 7;

type MappedStep = Extract<Step, { kind: 'coat' | 'seal' | 'resist' | 'distress' }>;
const isMapped = (step: Step): step is MappedStep =>
  isFilm(step) || step.kind === 'resist' || step.kind === 'distress';

/** Steps that can bring a figure about in one place. */
function movesIt(step: MappedStep, key: WishKey): boolean {
  switch (key) {
    case 'spacing':
    case 'opening':
      return step.kind === 'coat';
    case 'worn':
      return step.kind === 'distress';
    case 'chips':
      return step.kind !== 'seal';
    case 'under':
      return step.kind !== 'seal';
  }
}

/** The map a step has, or as if it had one that says what the step says. */
function groundOf(plan: PanelPlan, step: MappedStep): { map: PanelMap; changes: PlaceFit['changes'] } {
  const { panel } = plan;
  if (step.map !== undefined) return { map: step.map, changes: {} };
  const even = (value: number): PanelMap => evenMap(panel.width, panel.height, value);
  const placed = (value: number, where: Place): PanelMap =>
    where === 'all' ? even(value) : fillMap(even(0), where, value, panel);
  if (step.kind === 'resist') {
    const changes = firstMapped(step);
    return { map: placed(step.share / changes.share!, step.where), changes };
  }
  return { map: placed(1, whereOf(step)), changes: firstMapped(step) };
}

/**
 * Lays or works one step more or less in a place until the place comes to a wished value; of all steps that can, the
 * one that comes nearest. Searched over the map's range: a few amounts, then halvings, since figures rise and fall
 * but once with an amount.
 * @param wanted - lengths in m, shares 0 … 1
 * @returns null where no step of the plan has anything to do with it
 * @throws InputError as `forecast`
 */
export function fitPlace(basis: Basis, where: Where, key: WishKey, wanted: number): PlaceFit | null {
  const { plan } = basis;
  const size = plan.panel;
  let best: (PlaceFit & { off: number }) | null = null;
  for (const step of plan.steps) {
    if (!isMapped(step) || !movesIt(step, key)) continue;
    const { map, changes } = groundOf(plan, step);
    const { min, max } = isFilm(step)
      ? FILM_MAP_RANGE
      : step.kind === 'resist'
        ? { min: 0, max: 1 }
        : MAP_RANGE;
    const tried = (amount: number): { map: PanelMap; value: number | null } => {
      const filled = isRegion(where)
        ? fillRegion(map, where, amount, size)
        : fillMap(map, ZONE_FILL[where], amount, size);
      const steps = plan.steps.map((s) => (s === step ? ({ ...s, ...changes, map: filled } as Step) : s));
      return { map: filled, value: placeValues({ ...basis, plan: { ...plan, steps } }, where)[key] };
    };
    const keep = (amount: number): number | null => {
      const { map: filled, value } = tried(amount);
      if (value === null) return null;
      const off = offWish(key, value, wanted);
      if (best === null || Math.abs(off) < Math.abs(best.off) - 1e-9)
        best = { stepId: step.id, map: filled, changes, value, met: Math.abs(off) <= 1, off };
      return off;
    };
    const amounts = Array.from({ length: TRIED }, (_, i) => min + ((max - min) * i) / (TRIED - 1));
    const offs = amounts.map(keep);
    const between = offs.findIndex((off, i) => {
      const next = offs[i + 1];
      return off !== null && next != null && off * next <= 0;
    });
    if (between < 0) continue;
    let [low, high] = [amounts[between]!, amounts[between + 1]!];
    const sign = Math.sign(offs[between]!);
    for (let i = 0; i < HALVINGS; i++) {
      const middle = 0.5 * (low + high);
      const off = keep(middle);
      if (off === null) break;
      if (Math.sign(off) === sign) low = middle;
      else high = middle;
    }
  }
  if (best === null) return null;
  const { off: _off, ...fit } = best as PlaceFit & { off: number };
  return fit;
}
