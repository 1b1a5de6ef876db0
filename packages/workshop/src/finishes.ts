import { type Finish, LIMITS, type Look, type Plan, type PlanStep } from '@zaffet/contract';

/**
 * The steps of a finish under new ids, and what parts remember of them under those too.
 * @param stepIds - new ids, one for each step
 */
export function copyFinish(
  plan: Plan,
  finish: Finish,
  stepIds: readonly string[],
): { plan: Plan; steps: readonly PlanStep[]; shows: Look['shows'] } {
  const ids = new Map(finish.steps.map(({ id }, i) => [id, stepIds[i]!]));
  const named = <T>(values: Readonly<Record<string, T>>): [string, T][] =>
    Object.entries(values).flatMap(([id, value]): [string, T][] => {
      const copy = ids.get(id);
      return copy === undefined ? [] : [[copy, value]];
    });
  const parts = plan.piece.parts.map((part) => {
    const maps = named(part.maps);
    return maps.length === 0 ? part : { ...part, maps: { ...part.maps, ...Object.fromEntries(maps) } };
  });
  const panel = finish.look.shows['panel'];
  return {
    plan: { ...plan, piece: { ...plan.piece, parts } },
    steps: finish.steps.map((step) => ({ ...step, id: ids.get(step.id)! })),
    shows: { ...(panel === undefined ? {} : { panel }), ...Object.fromEntries(named(finish.look.shows)) },
  };
}

/**
 * Gives some parts a finish apart from the others that share theirs, begun as the one they had.
 * @param partIds - parts of one finish
 * @param stepIds - new ids, one for each step
 */
export function ownFinish(
  plan: Plan,
  partIds: readonly string[],
  id: string,
  name: string,
  stepIds: readonly string[],
): Plan {
  const first = plan.piece.parts.find((part) => partIds.includes(part.id));
  const finish = plan.finishes.find((candidate) => candidate.id === first?.finish);
  if (finish === undefined || plan.finishes.length >= LIMITS.finishes.max) return plan;
  const copy = copyFinish(plan, finish, stepIds);
  const added: Finish = {
    id,
    name,
    whatIfOf: null,
    steps: copy.steps,
    look: { ...finish.look, shows: copy.shows },
  };
  const parts = copy.plan.piece.parts.map((part) =>
    partIds.includes(part.id) ? { ...part, finish: id } : part,
  );
  return { ...copy.plan, piece: { ...copy.plan.piece, parts }, finishes: [...plan.finishes, added] };
}
