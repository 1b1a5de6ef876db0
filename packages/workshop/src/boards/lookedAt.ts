import { type CoatStep, LIMITS, plainText, type Plan, type PlanStep } from '@zaffet/contract';
import { fromHex, toHex } from '@zaffet/core/colour';
import { forecast } from '@zaffet/core/forecast';
import { type MediumKey } from '@zaffet/core/media';
import { type Wish, type WishKey, wishOutcomes, wishValues } from '@zaffet/core/solve';
import { toolOf } from '@zaffet/core/tools';
import { basisOf } from '../basis';
import { newSeal, when } from '../create';
import { type PartPlan, withSteps } from '../partPlan';
import { schoolPlans } from '../recipes';
import { type BoardSize, SEEN } from './questions';

const told = (values: Readonly<Record<WishKey, number | null>>): Wish =>
  Object.fromEntries(Object.entries(values).filter(([, value]) => value !== null));

/** Cells of several ways of working: those that come nearest to the look, or to what the finish gives as it is. */
export function schoolCells(from: PartPlan, size: BoardSize, id: () => string): PlanStep[][] {
  const { spacingMm, openingMm, chips, worn, under } = from.look;
  const metres = (mm: number | null): number | null => (mm === null ? null : mm / 1000);
  const wanted = told({ spacing: metres(spacingMm), opening: metres(openingMm), chips, worn, under });
  const own = told(wishValues(forecast(basisOf(from))));
  const wish = Object.keys(wanted).length > 0 ? wanted : own;
  const ways = schoolPlans(from, id).map(({ plan }) => ({
    steps: [...plan.steps],
    misfit: wishOutcomes(forecast(basisOf(plan)), wish).misfit,
  }));
  return ways
    .sort((a, b) => a.misfit - b.misfit)
    .slice(0, size)
    .map(({ steps }) => steps);
}

/** What a tool does hangs on, tried from little to much: nine of each, of which a board has some. */
const OF_USUAL = [0.3, 0.5, 0.7, 0.85, 1, 1.3, 1.6, 2, 2.5] as const;
const OF_HEAT = [0, 0.3, 0.5, 0.75, 1, 1.3, 1.6, 2, 2.5] as const;
/** Minutes that a wiped coat is let be, and hours before a blade; common practice. */
const WIPED_AFTER = [1, 2, 3, 5, 10, 15, 30, 45, 60] as const;
const CUT_AFTER = [0.5, 1, 2, 3, 4, 8, 24, 72, 168] as const;

/** A step of work at each of its strengths; none of a step that has none. */
function strengths(step: PlanStep): (PlanStep | null)[] {
  if (step.kind === 'heat')
    return OF_HEAT.map((by) => (by === 0 ? null : { ...step, durationS: Math.round(step.durationS * by) }));
  if (step.kind !== 'distress') return [];
  const { action } = toolOf(step.tool);
  if (action === 'cut')
    return CUT_AFTER.map((hours) => ({ ...step, start: { rule: 'after', waitMin: hours * 60 } }));
  if (action === 'rub' && step.start.rule === 'after')
    return WIPED_AFTER.map((waitMin) => ({ ...step, start: { rule: 'after', waitMin } }));
  const rounds = OF_USUAL.map((by) =>
    Math.min(LIMITS.rounds.max, Math.max(LIMITS.rounds.min, Math.round(step.rounds * by))),
  );
  return [...new Set(rounds)].map((own) => ({ ...step, rounds: own }));
}

/** So many of a row, from its first to its last. */
const spreadOver = <T>(row: readonly T[], size: number): T[] =>
  row.length <= size
    ? [...row]
    : Array.from({ length: size }, (_, i) => row[Math.round((i * (row.length - 1)) / (size - 1))]!);

/** Cells that end with the work which shows most, done little and much; null where no work shows. */
export function workCells(from: PartPlan, size: BoardSize): PlanStep[][] | null {
  const showing = (steps: readonly PlanStep[]): number[] => {
    const { chips, worn, under, spacing, opening } = wishValues(forecast(basisOf(withSteps(from, steps))));
    const open = spacing === null || opening === null ? 0 : opening / spacing;
    return [chips ?? 0, worn ?? 0, under ?? 0, open];
  };
  const tried = from.steps.flatMap((step, at) => {
    const row = strengths(step);
    if (row.length === 0) return [];
    const cells = spreadOver(row, size).map((own) => [
      ...from.steps.slice(0, at),
      ...(own === null ? [] : [own]),
    ]);
    const ends = [cells[0]!, cells.at(-1)!].map(showing);
    return [{ cells, shows: Math.max(...ends[0]!.map((share, i) => Math.abs(share - ends[1]![i]!))) }];
  });
  const most = tried.reduce<(typeof tried)[number] | null>(
    (best, one) => (best === null || one.shows > best.shows ? one : best),
    null,
  );
  return most === null || most.shows < SEEN ? null : most.cells;
}

/** Seals that a finish can go under, beside its own and none; each over the same layers, the usual ones first. */
const SEALS = [
  'clearWax',
  'polyW',
  'darkWax',
  'whiteWax',
  'heatClear',
  'polyO',
  'shellac',
  'lacquer',
] as const satisfies readonly MediumKey[];
/** A seal goes over what has dried for so long [min]; common practice. */
const BEFORE_SEAL = 720;

export function sealCells({ steps }: PartPlan, size: BoardSize, id: () => string): PlanStep[][] {
  const first = steps.findIndex(({ kind }) => kind === 'seal');
  const layers = first < 0 ? [...steps] : steps.slice(0, first);
  const own = first < 0 ? null : steps.slice(first);
  const known = own?.flatMap((step) => ('medium' in step ? step.medium : [])) ?? [];
  const others = SEALS.filter((key) => !known.includes(key)).map((key) => [
    newSeal(id(), key, when('through-dry', BEFORE_SEAL)),
  ]);
  return [...(own === null ? [] : [own]), [], ...others].slice(0, size).map((over) => [...layers, ...over]);
}

/** How far to white, or to black, the shades of a colour lie that are laid beside it. */
const SHADES = [0.15, 0.3, 0.45, 0.6] as const;
/** Of a name, for what a shade is called. */
const ROOM_FOR_SHADE = 12;

interface Swatch {
  readonly colour: string;
  readonly name: string;
}

function shade(hex: string, to: 0 | 1, share: number): string {
  const [r, g, b] = fromHex(hex).map((light) => light + (to - light) * share);
  return toHex([r!, g!, b!]);
}

/** The last coat in the plan's own colours, and in lighter and darker shades of its own where those are too few. */
export function colourCells(plan: Plan, { steps }: PartPlan, size: BoardSize): PlanStep[][] | null {
  const last = steps.findLastIndex(({ kind }) => kind === 'coat');
  const own = steps[last];
  if (own?.kind !== 'coat') return null;
  const called = plainText(own.colourName, LIMITS.textLength.max - ROOM_FOR_SHADE) || 'Its colour';
  const named = (step: CoatStep): Swatch => ({ colour: step.colour, name: step.colourName });
  const others = plan.finishes.flatMap((finish) =>
    finish.steps.flatMap((step) => (step.kind === 'coat' ? [named(step)] : [])),
  );
  const shades = SHADES.flatMap((share, n): Swatch[] => [
    { colour: shade(own.colour, 1, share), name: `${called}, lighter ${n + 1}` },
    { colour: shade(own.colour, 0, share), name: `${called}, darker ${n + 1}` },
  ]);
  const byColour = new Map<string, Swatch>();
  for (const swatch of [named(own), ...plan.palette, ...others, ...shades])
    if (!byColour.has(swatch.colour)) byColour.set(swatch.colour, swatch);
  return [...byColour.values()]
    .slice(0, size)
    .map(({ colour, name }) =>
      steps.map((step, i) => (i === last ? { ...own, colour, colourName: name } : step)),
    );
}
