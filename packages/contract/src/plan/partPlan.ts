import { type Finish, type Look, type Part, type Plan, type PlanStep } from './types';

/** One part of a plan with the finish it gets: what the workbench shows and the core computes. */
export interface PartPlan extends Pick<
  Plan,
  'name' | 'startsAt' | 'air' | 'hours' | 'media' | 'prices' | 'palette'
> {
  readonly pieceName: string;
  readonly part: Part;
  readonly finish: Finish;
  /** The finish's steps that are not left out. */
  readonly steps: readonly PlanStep[];
  readonly look: Look;
  /** Every part cracks in its own way. */
  readonly seed: number;
}

/** What keeps the patterns of a plan's parts apart. */
const SEED_STEP = 7919;
const SEEDS = 2 ** 31;

/** Finishes that are meant, without the what-ifs beside them. */
export const meantFinishes = (plan: Plan): readonly Finish[] =>
  plan.finishes.filter(({ whatIfOf }) => whatIfOf === null);

/**
 * A part of a plan, by its id, the first where there is none of that id; with the finish it gets, or with another to
 * try on it.
 */
export function partPlan(plan: Plan, partId: string | null = null, finishId: string | null = null): PartPlan {
  const { name, startsAt, air, hours, media, prices, palette } = plan;
  const at = Math.max(
    0,
    plan.piece.parts.findIndex(({ id }) => id === partId),
  );
  const part = plan.piece.parts[at]!;
  const finish =
    plan.finishes.find(({ id }) => id === finishId) ??
    plan.finishes.find(({ id }) => id === part.finish) ??
    plan.finishes[0]!;
  return {
    name,
    startsAt,
    air,
    hours,
    media,
    prices,
    palette,
    pieceName: plan.piece.name,
    part,
    finish,
    steps: finish.steps.filter(({ off }) => !off),
    look: finish.look,
    seed: (plan.seed + SEED_STEP * at) % SEEDS,
  };
}
