import { type PanelPlan } from '../plan';
import { type CoatForecast, type Finding } from './types';

/** More brush passes than this over one place spoil a crackle; common practice. */
export const MAX_PASSES = 3;
/** Below these a crackle reads as weak, or as missing. */
const WEAK = 0.45;
const MISSING = 0.12;
/** Surface cooler than the dew point plus this gets wet by itself; paint-day rule, common practice. */
const DAMP = 0.8;
/** A top coat thinner than this when dry gives hairlines at best [m]; common practice. */
const THIN_TOP = 12e-6;

/** What the plan says about itself, most urgent first. */
export function findings(
  coats: readonly CoatForecast[],
  crackedCoat: number | null,
  plan: PanelPlan,
): Finding[] {
  const found: Finding[] = [];
  coats.forEach((coat, i) => {
    const below = coats[i - 1];
    const add = (code: Finding['code'], level: Finding['level'], values: Record<string, number> = {}): void =>
      void found.push({ code, level, coatId: coat.coat.id, values });
    if (coat.open.touch === null) add('never-dry', 'stop', { humidity: plan.air[0]?.humidity ?? 0 });
    if (!below) return;
    if (coat.coat.start.rule === 'state' && stateNeverComes(coat, below)) add('start-never', 'stop');
    findingsOfPair(coat, below, add);
    const slippery = below.curve.medium.slipRate > 0;
    if (slippery && coat.coat.passes > MAX_PASSES) {
      add('overworked', 'warn', { passes: coat.coat.passes, strength: coat.crack?.pattern.strength ?? 0 });
    }
    if (slippery && coat.dryThickness < THIN_TOP) add('too-thin', 'warn', { thickness: coat.dryThickness });
    const lower = coats[i - 2];
    if (lower && lower.curve.medium.slipRate > 0 && below.curve.medium.slipRate === 0) {
      add('second-coat-closes', 'warn', { left: below.crack?.law.fillLeft ?? 0 });
    }
    const strength = coat.crack?.pattern.strength ?? 0;
    if (slippery && strength < MISSING) add('crackle-missing', 'warn', { strength });
    else if (slippery && strength < WEAK) add('weak-crackle', 'tip', { strength });
  });
  const hasSlip = coats.some((coat) => coat.curve.medium.slipRate > 0);
  const top = coats.at(-1);
  if (!hasSlip && crackedCoat === null && coats.length > 1 && top) {
    found.push({ code: 'paint-before-paint', level: 'tip', coatId: top.coat.id, values: {} });
  }
  const first = plan.air[0];
  if (first && top && first.humidity >= DAMP) {
    found.push({ code: 'damp-air', level: 'tip', coatId: top.coat.id, values: { humidity: first.humidity } });
  }
  const order = { stop: 0, warn: 1, tip: 2, good: 3 } as const;
  return found.sort((a, b) => order[a.level] - order[b.level]);
}

function stateNeverComes(coat: CoatForecast, below: CoatForecast): boolean {
  if (coat.coat.start.rule !== 'state') return false;
  const { open } = below;
  const moments = {
    tacky: open.tacky,
    'touch-dry': open.touch,
    recoat: open.recoat,
    'through-dry': open.through,
  };
  return moments[coat.coat.start.state] === null;
}

type Add = (code: Finding['code'], level: Finding['level'], values?: Record<string, number>) => void;

/** How a coat suits the moment it is laid on the one below: each kind of medium wants another moment. */
function findingsOfPair(coat: CoatForecast, below: CoatForecast, add: Add): void {
  const { window } = below;
  const early = window === null ? Infinity : window.opensAt - coat.laidAt;
  const late = window?.closesAt == null ? -Infinity : coat.laidAt - window.closesAt;
  const values = { opensAt: window?.opensAt ?? 0, closesAt: window?.closesAt ?? 0, laidAt: coat.laidAt };
  switch (below.curve.medium.kind) {
    case 'wet-glue':
      if (late > 0)
        add((coat.crack?.pattern.strength ?? 0) < MISSING ? 'glue-dried' : 'glue-closing', 'warn', values);
      else if (early > 0.5) add('glue-still-open', 'good', values);
      else add('glue-grabs', 'good', values);
      return;
    case 'crackle-medium':
      if (early > 1) add('medium-wet', 'warn', values);
      else add('medium-ready', 'good', values);
      return;
    case 'cured-glue':
      if (early > 1) add('hide-not-cured', 'warn', values);
      else add('hide-ready', 'good', values);
      return;
    case 'paint':
    case 'primer':
      if (early > 1) add('base-not-dry', coat.curve.medium.slipRate > 0 ? 'warn' : 'tip', values);
      return;
  }
}
