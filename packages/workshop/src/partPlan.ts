import { type Finish, isMapped, type Look, type Part, type Plan, type PlanStep } from '@zaffet/contract';
import { type Basis, type Known, NO_SHOP, type ShopData, type StepMoment } from '@zaffet/core/basis';

/** What the forecasts of a plan rest on beside the plan itself. */
export interface Circumstances {
  /** What the shop has learned; the tables alone where nothing is given. */
  readonly shop?: ShopData;
  /** From a timetable: when each step of each part may begin [s from the plan's start]. */
  readonly moments?: Readonly<Record<string, Readonly<Record<string, StepMoment>>>>;
  /** From runs at the bench, by part. */
  readonly known?: Readonly<Record<string, Known>>;
}

/** One part of a plan with the finish it gets: what the workbench shows and the core computes. */
export interface PartPlan extends Pick<
  Plan,
  'name' | 'startsAt' | 'air' | 'hours' | 'media' | 'prices' | 'palette'
> {
  readonly pieceName: string;
  readonly part: Part;
  readonly finish: Finish;
  /** The finish's steps that are not left out, and not for places this part has not. */
  readonly steps: readonly PlanStep[];
  readonly look: Look;
  /** Every part cracks in its own way. */
  readonly seed: number;
  readonly circumstances: Omit<Basis, 'plan'>;
}

/** What keeps the patterns of a plan's parts apart. */
const SEED_STEP = 7919;
const SEEDS = 2 ** 31;

/** Finishes that are meant, without the what-ifs beside them. */
export const meantFinishes = (plan: Plan): readonly Finish[] =>
  plan.finishes.filter(({ whatIfOf }) => whatIfOf === null);

/** What is given of one part; a timetable and a run speak of the finish it gets, not of one tried on it. */
function givenOf(
  part: Part,
  finish: Finish,
  { shop = NO_SHOP, moments, known }: Circumstances,
): Omit<Basis, 'plan'> {
  if (finish.id !== part.finish) return { shop };
  return {
    shop,
    ...(moments?.[part.id] === undefined ? {} : { moments: moments[part.id] }),
    ...(known?.[part.id] === undefined ? {} : { known: known[part.id] }),
  };
}

/** Whether a part has what a step is only done on. */
const concerns = (part: Part, step: PlanStep): boolean =>
  !isMapped(step) || step.only === null || part.zones.some(({ name }) => name === step.only);

/** The steps of a finish that a part gets; a part that none concerns keeps them, and nothing of them lies on it. */
function stepsOn(part: Part, { steps }: Finish): readonly PlanStep[] {
  const done = steps.filter(({ off }) => !off);
  const here = done.filter((step) => concerns(part, step));
  return here.length > 0 ? here : done;
}

/**
 * A part of a plan, by its id, the first where there is none of that id; with the finish it gets, or with another to
 * try on it.
 */
export function partPlan(
  plan: Plan,
  partId: string | null = null,
  finishId: string | null = null,
  circumstances: Circumstances = {},
): PartPlan {
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
    steps: stepsOn(part, finish),
    look: finish.look,
    seed: (plan.seed + SEED_STEP * at) % SEEDS,
    circumstances: givenOf(part, finish, circumstances),
  };
}
