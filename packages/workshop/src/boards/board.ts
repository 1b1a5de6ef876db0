import { type Finish, type Part, type Plan, type PlanStep } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { type Learned } from '@zaffet/core/media';
import { type WishKey, wishValues } from '@zaffet/core/solve';
import { basisOf } from '../basis';
import { NO_TIMING } from '../newPlan';
import { type PartPlan, partPlan, shopKnowing } from '../partPlan';
import { colourCells, schoolCells, sealCells, workCells } from './lookedAt';
import { type BoardQuestion, type BoardSize, CELL_MM } from './questions';
import { taughtCells, type Teaches } from './taught';

/*
 * A sample board is a plan like any other: a small part for each cell, with a finish of its own. So it is mixed, timed,
 * carried out at the bench and measured as a piece is. Its cells are those that teach most about what is asked.
 */

export interface BoardDesign {
  readonly plan: Plan;
  /** Null where cells are made to be looked at side by side. */
  readonly teaches: Teaches | null;
  /** What each cell is expected to give, in their order. */
  readonly expected: readonly Record<WishKey, number | null>[];
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
