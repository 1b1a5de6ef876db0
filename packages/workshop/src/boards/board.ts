import {
  type CoatStep,
  type Finish,
  isFilmStep,
  type Part,
  type Plan,
  type PlanStep,
} from '@zaffet/contract';
import { type Candidate, type Cell, chooseCells, type Reading, SCATTER } from '@zaffet/core/calibrate';
import { forecast } from '@zaffet/core/forecast';
import { type Learned } from '@zaffet/core/media';
import { EIGHTY_PER_CENT } from '@zaffet/core/numeric';
import { basisOf } from '../basis';
import { NO_TIMING } from '../newPlan';
import { type PartPlan, partPlan, withSteps } from '../partPlan';

/*
 * A sample board is a plan like any other: a small part for each cell, with a finish of its own. So it is mixed, timed,
 * carried out at the bench and measured as a piece is. Its cells are those that teach most about what is asked.
 */

export const BOARD_QUESTIONS = ['how-thick', 'when', 'both'] as const;
/** What a board is to tell: how thick films give the look that is wanted, when to lay the coat that cracks, or both. */
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
/** Later than a state that is waited for [min]. */
const LATER = [0, 20, 60] as const;

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

/** A cell that could be made: how much of each film, and how the top coat waits. */
interface Variant {
  readonly below: number;
  readonly top: number;
  readonly start: PlanStep['start'];
}

function variantsOf(question: BoardQuestion, { start }: PlanStep): Variant[] {
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
  return question === 'how-thick' ? thick : question === 'when' ? timed : both;
}

/** The steps of a cell: the finish up to the film that cracks, made otherwise. */
function cellSteps(steps: readonly PlanStep[], belowId: string, topId: string, by: Variant): PlanStep[] {
  const last = steps.findIndex(({ id }) => id === topId);
  return steps.slice(0, last + 1).map((step) => {
    if (step.id === topId && step.kind === 'coat')
      return { ...step, thicknessUm: Math.round(step.thicknessUm * by.top), start: by.start };
    if (step.id === belowId && isFilmStep(step))
      return { ...step, thicknessUm: Math.round(step.thicknessUm * by.below) };
    return step;
  });
}

/** What a board is expected to teach. */
export interface BoardDesign {
  readonly plan: Plan;
  /** Factor within which 8 in 10 of the figures that are asked lie now, and with each cell more. */
  readonly before: number;
  readonly after: readonly number[];
}

/** What is read off the cells of a board: a photo or a ruler, and a stop watch. */
const READS: readonly Reading[] = ['spacing', 'opening', 'first', 'touchBelow', 'touchTop'];
const ASKED: readonly Reading[] = ['spacing', 'opening'];

/** What is left open, told in the scatter of readings, as a factor on the figures that are asked. */
function withinOf(left: number): number {
  const scatter = ASKED.reduce((sum, reading) => sum + SCATTER[reading], 0) / ASKED.length;
  return Math.exp(EIGHTY_PER_CENT * left * scatter);
}

/**
 * A board for a question about the finish of a part.
 * @param id - makes ids that are new
 * @returns null where nothing of the finish cracks
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
  const cracking = crackingSteps(from);
  if (cracking === null) return null;
  const { top, below } = cracking;
  const variants = variantsOf(question, top);
  const cellOf = (steps: readonly PlanStep[], n: number): Cell => ({
    id: String(n),
    board: 'board',
    basis: basisOf(withSteps(from, steps)),
    top: top.id,
    read: {},
    cracked: null,
  });
  const tried = variants.map((by) => cellSteps(from.steps, below.id, top.id, by));
  const candidates = tried.map((steps, n): Candidate => ({ cell: cellOf(steps, n), reads: READS }));
  const wanted = variantsOf(question, top).filter((_, n) => n % 2 === 0);
  const asked = wanted.map((by, n): Candidate => ({
    cell: cellOf(cellSteps(from.steps, below.id, top.id, by), n),
    reads: ASKED,
  }));
  const { chosen, before } = chooseCells(candidates, asked, size, learned);
  return {
    plan: boardPlan(
      plan,
      from,
      chosen.map(({ index }) => tried[index]!),
      id,
    ),
    before: withinOf(before),
    after: chosen.map(({ left }) => withinOf(left)),
  };
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
