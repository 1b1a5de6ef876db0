import { type Finish, isMapped, type Look, type Part, type Plan, type PlanStep } from '@zaffet/contract';
import { type Learned } from '@zaffet/core/media';
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

/** A shop that has learned something, or nothing. */
export const shopKnowing = (learned: Learned | null): ShopData => ({ ...NO_SHOP, learned });

/** One part of a plan with the finish it gets: what the workbench shows and the core computes. */
export interface PartPlan extends Pick<
  Plan,
  'name' | 'startsAt' | 'air' | 'work' | 'media' | 'prices' | 'palette'
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
  { finishes }: Plan,
  part: Part,
  finish: Finish,
  { shop = NO_SHOP, moments, known }: Circumstances,
): Omit<Basis, 'plan'> {
  const own = moments?.[part.id];
  if (finish.id !== part.finish) {
    const meant = finishes.find(({ id }) => id === part.finish);
    // A what-if is timed as the finish it is of up to the first step that begins otherwise, and goes on alone.
    return finish.whatIfOf === part.finish && meant !== undefined && own !== undefined
      ? { shop, moments: { ...beginning(finish, own).moments, ...momentsOfCopy(own, meant, finish) } }
      : { shop, ...beginning(finish, own) };
  }
  return {
    shop,
    ...(own === undefined ? {} : { moments: own }),
    ...(known?.[part.id] === undefined ? {} : { known: known[part.id] }),
  };
}

function beginning({ steps }: Finish, moments: Basis['moments']): Pick<Basis, 'moments'> {
  const first = steps.find(({ off }) => !off);
  const at = Object.values(moments ?? {}).flatMap((moment) =>
    'notBefore' in moment ? [moment.notBefore] : [],
  );
  return first === undefined || at.length === 0
    ? {}
    : { moments: { [first.id]: { notBefore: Math.min(...at) } } };
}

/**
 * Moments as far as they hold for steps that were changed since: from the first step on that begins by another rule,
 * or is new, each goes by its own.
 */
export function momentsKept(
  moments: NonNullable<Basis['moments']>,
  before: readonly PlanStep[],
  now: readonly PlanStep[],
): NonNullable<Basis['moments']> {
  const same = (a: PlanStep | undefined, b: PlanStep | undefined): boolean =>
    a === b || (a?.id === b?.id && JSON.stringify(a?.start) === JSON.stringify(b?.start));
  const changed = now.findIndex((step, i) => !same(before[i], step));
  if (changed < 0) return moments;
  const kept = now.slice(0, changed).map(({ id }) => id);
  return Object.fromEntries(Object.entries(moments).filter(([id]) => kept.includes(id)));
}

/** Moments of a finish for a copy of it, whose steps have ids of their own. */
function momentsOfCopy(
  moments: NonNullable<Basis['moments']>,
  { steps: meant }: Finish,
  { steps }: Finish,
): NonNullable<Basis['moments']> {
  const [before, now] = [meant, steps].map((all) => all.filter(({ off }) => !off)) as [
    PlanStep[],
    PlanStep[],
  ];
  const renamed = now.map((step, i) => ({
    ...step,
    id: before[i]?.kind === step.kind ? before[i].id : step.id,
  }));
  const held = momentsKept(moments, before, renamed);
  return Object.fromEntries(
    renamed.flatMap(({ id }, i) => (held[id] === undefined ? [] : [[now[i]!.id, held[id]] as const])),
  );
}

/** A part with other steps to try: what was timed holds up to the first that is changed. */
export function withSteps(plan: PartPlan, steps: readonly PlanStep[]): PartPlan {
  const { moments } = plan.circumstances;
  if (moments === undefined) return { ...plan, steps };
  return {
    ...plan,
    steps,
    circumstances: { ...plan.circumstances, moments: momentsKept(moments, plan.steps, steps) },
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
  const { name, startsAt, air, work, media, prices, palette } = plan;
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
    work,
    media,
    prices,
    palette,
    pieceName: plan.piece.name,
    part,
    finish,
    steps: stepsOn(part, finish),
    look: finish.look,
    seed: (plan.seed + SEED_STEP * at) % SEEDS,
    circumstances: givenOf(plan, part, finish, circumstances),
  };
}
