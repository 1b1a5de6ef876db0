import {
  type CoatStep,
  type Finish,
  isFilmStep,
  LIMITS,
  type Part,
  type Plan,
  type PlanStep,
  plainText,
} from '@zaffet/contract';
import { type Candidate, type Cell, chooseCells, type Reading, SCATTER } from '@zaffet/core/calibrate';
import { fromHex, toHex } from '@zaffet/core/colour';
import { courseOf } from '@zaffet/core/course';
import { forecast } from '@zaffet/core/forecast';
import { type Wish, type WishKey, wishOutcomes, wishValues } from '@zaffet/core/solve';
import { type Learned, type MediumKey } from '@zaffet/core/media';
import { EIGHTY_PER_CENT } from '@zaffet/core/numeric';
import { toolOf } from '@zaffet/core/tools';
import { basisOf } from '../basis';
import { newSeal, when } from '../create';
import { NO_TIMING } from '../newPlan';
import { type PartPlan, partPlan, shopKnowing, withSteps } from '../partPlan';
import { schoolPlans } from '../recipes';

/*
 * A sample board is a plan like any other: a small part for each cell, with a finish of its own. So it is mixed, timed,
 * carried out at the bench and measured as a piece is. Its cells are those that teach most about what is asked.
 */

export const BOARD_QUESTIONS = [
  'how-thick',
  'when',
  'both',
  'thinned',
  'passes',
  'chips',
  'work',
  'colours',
  'seals',
  'school',
] as const;
/**
 * What a board is to tell: how thick films give the look that is wanted, when to lay the coat that cracks, or both; what
 * becomes of it where the film below goes on full, half and half, or between, or where the brush goes over one place again
 * and again; what of it chips, over what it lies on and without that; how much the tool takes that shows most, or how much hot air does;
 * what it looks like in other colours, or under each seal, to be carried into the room; which way of working comes nearest to the look.
 */
export type BoardQuestion = (typeof BOARD_QUESTIONS)[number];
export const BOARD_SIZES = [3, 5, 9] as const;
export type BoardSize = (typeof BOARD_SIZES)[number];

/** A cell and what separates it from its neighbour [mm]: enough to see a few cracks of 20 mm. */
export const CELL_MM = 80;

/** Thicknesses tried, of what the finish has; common practice: a half to twice the usual. */
const BELOW = [0.6, 0.8, 1, 1.25, 1.6] as const;
const TOP = [0.75, 1, 1.35] as const;
/** Waits tried, of what the finish has. */
const WAITS = [0.35, 0.6, 1, 1.6, 2.5] as const;
/** Water for each part of what lies below, from as it comes to half and half; common practice. */
const THINNED = [0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.65, 0.8, 1] as const;
/** Strokes of the brush over the same place; common practice: three at most. */
const PASSES = [1, 2, 3, 4] as const;
/** Later than a state that is waited for [min]. */
const LATER = [0, 20, 60] as const;
/** Rounds of what takes paint off, of what the finish has. */
const WORK = [1, 2] as const;

/** The film of a part that is to crack, with the one it goes on; null where nothing of it cracks. */
export function crackingSteps(
  plan: PartPlan,
): { readonly top: CoatStep; readonly below: PlanStep & { thicknessUm: number } } | null {
  const told = forecast(basisOf(plan));
  const films = plan.steps.filter(isFilmStep);
  // What was to crack and does not is asked of boards as well: what lies on a film that lets it slip.
  const strongest =
    told.crackedCoat ??
    told.coats.findLastIndex(
      ({ crack }, i) => crack !== null && (told.coats[i - 1]?.medium.slipRate ?? 0) > 0,
    );
  const top = films.find(({ id }) => id === told.coats[strongest]?.coat.id);
  const below = films[films.indexOf(top!) - 1];
  return top?.kind !== 'coat' || below === undefined ? null : { top, below };
}

/** A cell that could be made: how much of each film, 0 without it; how the top coat waits; how much is taken off. */
interface Variant {
  readonly below: number;
  readonly top: number;
  readonly start: PlanStep['start'];
  readonly work?: number;
  /** Of the film below; as the finish has it where left out. */
  readonly dilution?: number;
  /** Of the brush over the same place; as the finish has it where left out. */
  readonly passes?: number;
}

/** A smaller share that has chipped nobody sees. */
const SEEN = 0.005;

/** What a board is asked that varies one finish. */
type OwnQuestion = 'how-thick' | 'when' | 'both' | 'thinned' | 'passes' | 'chips';

function variantsOf(question: OwnQuestion, { start }: PlanStep): Variant[] {
  const thick: Variant[] = BELOW.flatMap((below) => TOP.map((top) => ({ below, top, start })));
  const starts: PlanStep['start'][] =
    start.rule === 'after'
      ? [...new Set(WAITS.map((by) => Math.max(1, Math.round(start.waitMin * by))))].map((waitMin) => ({
          ...start,
          waitMin,
        }))
      : start.rule === 'state'
        ? LATER.map((later) => ({ ...start, waitMin: start.waitMin + later }))
        : [start];
  const timed = starts.flatMap((own) => TOP.map((top) => ({ below: 1, top, start: own })));
  const both = starts.flatMap((own) => BELOW.map((below) => ({ below, top: 1, start: own })));
  const thinned = THINNED.map((dilution): Variant => ({ below: 1, top: 1, start, dilution }));
  const passes = PASSES.flatMap((often) =>
    TOP.map((top): Variant => ({ below: 1, top, start, passes: often })),
  );
  if (question !== 'chips') return { 'how-thick': thick, when: timed, both, thinned, passes }[question];
  const grounds = starts.flatMap((own) => [0, 1, 1.6].map((below) => ({ below, top: 1, start: own })));
  return WORK.flatMap((work) => grounds.map((ground) => ({ ...ground, work })));
}

/** Steps of a finish that a cell ends with: the film that cracks, or what takes paint off it before it is sealed. */
function lastOf(question: OwnQuestion, steps: readonly PlanStep[], topId: string): number {
  const top = steps.findIndex(({ id }) => id === topId);
  if (question !== 'chips') return top;
  const sealed = steps.findIndex(({ kind }, n) => n > top && kind === 'seal');
  return sealed < 0 ? steps.length - 1 : sealed - 1;
}

/** The steps of a cell: the finish up to a step, made otherwise. */
function cellSteps(
  steps: readonly PlanStep[],
  { below, top }: { readonly below: PlanStep; readonly top: PlanStep },
  last: number,
  by: Variant,
): PlanStep[] {
  return steps.slice(0, last + 1).flatMap((step): PlanStep[] => {
    if (step.id === top.id && step.kind === 'coat')
      return [
        {
          ...step,
          thicknessUm: Math.round(step.thicknessUm * by.top),
          start: by.start,
          passes: by.passes ?? step.passes,
        },
      ];
    if (step.id === below.id && isFilmStep(step))
      return by.below === 0
        ? []
        : [
            {
              ...step,
              thicknessUm: Math.round(step.thicknessUm * by.below),
              dilution: by.dilution ?? step.dilution,
            },
          ];
    if (step.kind === 'distress' && by.work !== undefined)
      return [{ ...step, rounds: Math.min(LIMITS.rounds.max, step.rounds * by.work) }];
    return [step];
  });
}

/** What a board is expected to teach of the figures that are asked: 8 in 10 lie within a factor, of lengths or of odds. */
export interface Teaches {
  readonly asked: readonly Reading[];
  /** Now, and with each cell more. */
  readonly before: number;
  readonly after: readonly number[];
}

export interface BoardDesign {
  readonly plan: Plan;
  /** Null where cells are made to be looked at side by side. */
  readonly teaches: Teaches | null;
  /** What each cell is expected to give, in their order. */
  readonly expected: readonly Record<WishKey, number | null>[];
}

/** What is read off the cells of a board: a photo or a ruler, and a stop watch. */
const READS: readonly Reading[] = ['spacing', 'opening', 'first', 'touchBelow', 'touchTop'];
const CRACKS: readonly Reading[] = ['spacing', 'opening'];

/** What is left open, told in the scatter of readings, as a factor on the figures that are asked. */
function withinOf(asked: readonly Reading[], left: number): number {
  const scatter = asked.reduce((sum, reading) => sum + SCATTER[reading], 0) / asked.length;
  return Math.exp(EIGHTY_PER_CENT * left * scatter);
}

const told = (values: Readonly<Record<WishKey, number | null>>): Wish =>
  Object.fromEntries(Object.entries(values).filter(([, value]) => value !== null));

/** Cells of several ways of working: those that come nearest to the look, or to what the finish gives as it is. */
function schoolCells(from: PartPlan, size: BoardSize, id: () => string): PlanStep[][] {
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
function workCells(from: PartPlan, size: BoardSize): PlanStep[][] | null {
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

function sealCells({ steps }: PartPlan, size: BoardSize, id: () => string): PlanStep[][] {
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
function colourCells(plan: Plan, { steps }: PartPlan, size: BoardSize): PlanStep[][] | null {
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

/** What lies below the boundary that parts where a film flakes: on it hangs what chips. */
function bedOf(from: PartPlan, topId: string): PlanStep | null {
  const { films, cracks } = courseOf(basisOf(from));
  const boundary = cracks[films.findIndex(({ step }) => step.id === topId)]?.boundary ?? 0;
  const bed = films[boundary - 1]?.step.id;
  return from.steps.find(({ id }) => id === bed) ?? null;
}

/** The cells that teach most of what is asked of a finish; null where nothing of it cracks, or chips. */
function taughtCells(
  from: PartPlan,
  question: OwnQuestion,
  size: BoardSize,
  learned: Learned | null,
): { readonly cells: readonly (readonly PlanStep[])[]; readonly teaches: Teaches } | null {
  const cracking = crackingSteps(from);
  if (cracking === null) return null;
  const { top } = cracking;
  const below = question === 'chips' ? (bedOf(from, top.id) ?? cracking.below) : cracking.below;
  const last = lastOf(question, from.steps, top.id);
  const figures: readonly Reading[] = question === 'chips' ? ['chips'] : CRACKS;
  const variants = variantsOf(question, top);
  const cellOf = (steps: readonly PlanStep[], n: number): Cell => ({
    id: String(n),
    board: 'board',
    basis: basisOf(withSteps(from, steps)),
    top: top.id,
    read: {},
    cracked: null,
  });
  const tried = variants.map((by) => cellSteps(from.steps, { top, below }, last, by));
  const chips = (steps: readonly PlanStep[]): number =>
    wishValues(forecast(basisOf(withSteps(from, steps)))).chips ?? 0;
  if (question === 'chips' && tried.every((steps) => chips(steps) < SEEN)) return null;
  const reads = question === 'chips' ? [...READS, ...figures] : READS;
  const candidates = tried.map((steps, n): Candidate => ({ cell: cellOf(steps, n), reads }));
  const asked = tried
    .filter((_, n) => n % 2 === 0)
    .map((steps, n) => ({ cell: cellOf(steps, n), reads: figures }));
  const { chosen, before } = chooseCells(candidates, asked, size, learned);
  return {
    cells: chosen.map(({ index }) => tried[index]!),
    teaches: {
      asked: figures,
      before: withinOf(figures, before),
      after: chosen.map(({ left }) => withinOf(figures, left)),
    },
  };
}

/**
 * A board for a question about the finish of a part.
 * @param id - makes ids that are new
 * @returns null where nothing of the finish cracks, chips or is taken off, as far as that is asked
 * @throws InputError as `forecast`
 */
export function boardFor(
  plan: Plan,
  partId: string | null,
  question: BoardQuestion,
  size: BoardSize,
  id: () => string,
  learned: Learned | null = null,
): BoardDesign | null {
  const from = partPlan(plan, partId);
  const chosen = chosenCells(plan, from, question, size, id, learned);
  if (chosen === null) return null;
  const board = boardPlan(plan, from, chosen.cells, id);
  return {
    plan: board,
    teaches: chosen.teaches,
    expected: board.piece.parts.map((part) =>
      wishValues(forecast(basisOf(partPlan(board, part.id, null, { shop: shopKnowing(learned) })))),
    ),
  };
}

/** The cells of a board, with what they teach of the figures; null where there is nothing to be asked. */
function chosenCells(
  plan: Plan,
  from: PartPlan,
  question: BoardQuestion,
  size: BoardSize,
  id: () => string,
  learned: Learned | null,
): { readonly cells: readonly (readonly PlanStep[])[]; readonly teaches: Teaches | null } | null {
  const looked = (cells: readonly (readonly PlanStep[])[] | null): ReturnType<typeof chosenCells> =>
    cells === null ? null : { cells, teaches: null };
  switch (question) {
    case 'school':
      return looked(schoolCells(from, size, id));
    case 'work':
      return looked(workCells(from, size));
    case 'colours':
      return looked(colourCells(plan, from, size));
    case 'seals':
      return looked(sealCells(from, size, id));
    default:
      return taughtCells(from, question, size, learned);
  }
}

/** A plan of which every part is a cell. */
function boardPlan(
  plan: Plan,
  { part, finish: given }: PartPlan,
  cells: readonly (readonly PlanStep[])[],
  id: () => string,
): Plan {
  const finishes = cells.map((steps, n): Finish => {
    const ids = new Map(steps.map((step) => [step.id, id()]));
    return {
      ...given,
      id: id(),
      name: `Cell ${n + 1}`,
      whatIfOf: null,
      steps: steps.map((step) => ({ ...step, id: ids.get(step.id)! })),
    };
  });
  const parts = finishes.map((finish, n): Part => ({
    ...part,
    id: id(),
    name: `Cell ${n + 1}`,
    widthMm: CELL_MM,
    heightMm: CELL_MM,
    oval: false,
    facing: 'loose',
    body: null,
    flat: true,
    relief: null,
    fittings: [],
    zones: [],
    maps: {},
    use: 'display',
    finish: finish.id,
  }));
  return {
    ...plan,
    name: `Board: ${plan.name}, ${part.name.toLowerCase()}`,
    timing: { ...NO_TIMING, prepares: false },
    piece: { name: 'Sample board', bodies: [], parts },
    finishes,
  };
}
