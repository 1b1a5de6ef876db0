import {
  type FilmPlanStep,
  type Finish,
  isFilmStep,
  isMapped,
  layersOf,
  type Limit,
  LIMITS,
  type Look,
  type MappedStep,
  type Part,
  type PieceBody,
  type Plan,
  type PlanStep,
  type StepMap,
} from '@zaffet/contract';
import { bodied, copyFinish, type PartPlan, shiftedAir, withStepIn } from '@zaffet/workshop';
import { type FirstMapped } from '@zaffet/core/plan';

/** Pure edits of a plan; one that changes nothing returns the same plan. */

/** Brings a number into its limit and onto its step. */
export function fitted(limit: Limit, value: number): number {
  const stepped = Math.round(value / limit.step) * limit.step;
  const inside = Math.min(limit.max, Math.max(limit.min, stepped));
  return Math.round(inside * 1e6) / 1e6;
}

function same(a: object, b: object): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}

type Changeable<S> = Partial<Omit<S, 'id' | 'kind'>>;
/** What may be changed: of every step, of every film, of what is put somewhere, of the steps of one kind. */
type ChangesOf = {
  any: Changeable<Pick<PlanStep, 'id' | 'kind' | 'start' | 'off' | 'note'>>;
  film: Changeable<Pick<FilmPlanStep, keyof FilmPlanStep>>;
  placed: Partial<Pick<MappedStep, 'where' | 'only' | 'except'>> & Pick<FirstMapped, 'share'>;
} & { [S in PlanStep as S['kind']]: Changeable<S> };
export type Fits = keyof ChangesOf;
export type StepChanges<F extends Fits> = ChangesOf[F];
/** A change with the steps it fits. */
export type StepEdit = { [F in Fits]: { readonly fits: F; readonly changes: ChangesOf[F] } }[Fits];

function fitsStep(step: PlanStep, fits: Fits): boolean {
  if (fits === 'any') return true;
  if (fits === 'film') return isFilmStep(step);
  if (fits === 'placed') return isMapped(step);
  return step.kind === fits;
}

/** Changes the steps of a finish; what the hand did not touch stays the same value. */
function withSteps(
  plan: Plan,
  of: (finish: Finish) => boolean,
  change: (steps: readonly PlanStep[]) => readonly PlanStep[],
): Plan {
  let touched = false;
  const finishes = plan.finishes.map((finish) => {
    if (!of(finish)) return finish;
    const steps = change(finish.steps);
    if (steps === finish.steps || same(steps, finish.steps)) return finish;
    touched = true;
    return { ...finish, steps };
  });
  return touched ? { ...plan, finishes } : plan;
}

/** A finish does at least one step, and no more lie on a panel than can be told apart: what would is not taken. */
export const mayBe = (steps: readonly PlanStep[]): boolean =>
  steps.some(({ off }) => !off) && steps.length <= LIMITS.steps.max && layersOf(steps) <= LIMITS.layers.max;

/** Gives a place of a part another name; steps that name it follow where no place of the old name is left. */
export function renamePlace(plan: Plan, partId: string, zoneId: string, name: string): Plan {
  const was = plan.piece.parts.find(({ id }) => id === partId)?.zones.find(({ id }) => id === zoneId)?.name;
  if (was === undefined || was === name) return plan;
  const parts = plan.piece.parts.map((part) =>
    part.id === partId
      ? { ...part, zones: part.zones.map((zone) => (zone.id === zoneId ? { ...zone, name } : zone)) }
      : part,
  );
  const next = { ...plan, piece: { ...plan.piece, parts } };
  if (parts.some(({ zones }) => zones.some((zone) => zone.name === was))) return next;
  const now = (called: string): string => (called === was ? name : called);
  return withSteps(
    next,
    () => true,
    (steps) =>
      steps.map((step) =>
        isMapped(step)
          ? {
              ...step,
              only: step.only === null ? null : now(step.only),
              except: [...new Set(step.except.map(now))],
            }
          : step.kind === 'companion' && step.print?.on === was
            ? { ...step, print: { ...step.print, on: name } }
            : step,
      ),
  );
}

/** Step ids are told apart in the whole plan: the one finish that has it. */
const having =
  (stepId: string) =>
  ({ steps }: Finish): boolean =>
    steps.some(({ id }) => id === stepId);

/** Changes a step; a change that does not fit its kind is not taken. */
export function changeStep(plan: Plan, stepId: string, { fits, changes }: StepEdit): Plan {
  return withSteps(plan, having(stepId), (steps) => {
    const next = steps.map((step) =>
      step.id === stepId && fitsStep(step, fits) ? ({ ...step, ...changes } as PlanStep) : step,
    );
    return mayBe(next) ? next : steps;
  });
}

/** Puts a step into the finish of a part; what follows keeps its meaning. */
export function addStep(plan: Plan, part: PartPlan, step: PlanStep, index: number): Plan {
  const next = withStepIn(part, step, index);
  return mayBe(next) ? changeFinish(plan, part.finish.id, { steps: next }) : plan;
}

/** Takes steps of a finish out, and where they lay on each part. */
export function removeSteps(plan: Plan, stepIds: readonly string[]): Plan {
  const [first] = stepIds;
  if (first === undefined) return plan;
  const next = withSteps(plan, having(first), (steps) => {
    const others = steps.filter(({ id }) => !stepIds.includes(id));
    return mayBe(others) ? others : steps;
  });
  return next === plan ? plan : withoutMaps(next, stepIds);
}

/** Drops what parts remember of steps that are gone. */
function withoutMaps(plan: Plan, stepIds: readonly string[]): Plan {
  const parts = plan.piece.parts.map((part) => {
    const kept = Object.entries(part.maps).filter(([id]) => !stepIds.includes(id));
    return kept.length === Object.keys(part.maps).length ? part : { ...part, maps: Object.fromEntries(kept) };
  });
  return { ...plan, piece: { ...plan.piece, parts } };
}

/** Brings a step to another place in the order. When a step begins is its own: every rule goes where its step goes. */
export function placeStep(plan: Plan, stepId: string, to: number): Plan {
  return withSteps(plan, having(stepId), (steps) => {
    const step = steps.find(({ id }) => id === stepId);
    if (step === undefined || to < 0 || to >= steps.length) return steps;
    const others = steps.filter(({ id }) => id !== stepId);
    return [...others.slice(0, to), step, ...others.slice(to)];
  });
}

/**
 * Moves steps of a finish one place later (+1, towards the eye) or earlier (−1), in the order they have; together they
 * go no further than the end.
 */
export function moveSteps(plan: Plan, stepIds: readonly string[], by: 1 | -1): Plan {
  const [first] = stepIds;
  if (first === undefined) return plan;
  return withSteps(plan, having(first), (steps) => {
    const order = by < 0 ? [...steps] : [...steps].reverse();
    const chosen = (at: number): boolean => order[at] !== undefined && stepIds.includes(order[at].id);
    if (chosen(0)) return steps;
    order.forEach((step, at) => {
      if (at === 0 || !stepIds.includes(step.id)) return;
      [order[at - 1], order[at]] = [step, order[at - 1]!];
    });
    return by < 0 ? order : order.reverse();
  });
}

/** Puts steps copied elsewhere into a finish, with the painter's own media they are made of. */
export function pasteSteps(
  plan: Plan,
  finishId: string,
  steps: readonly PlanStep[],
  media: Plan['media'],
  index: number,
): Plan {
  const next = withSteps(
    plan,
    ({ id }) => id === finishId,
    (before) => {
      const all = [...before.slice(0, index), ...steps, ...before.slice(index)];
      return mayBe(all) ? all : before;
    },
  );
  if (next === plan) return plan;
  const known = new Set(plan.media.map(({ key }) => key));
  return { ...next, media: [...plan.media, ...media.filter(({ key }) => !known.has(key))] };
}

export function changeFinish(plan: Plan, finishId: string, changes: Partial<Finish>): Plan {
  const finishes = plan.finishes.map((finish) =>
    finish.id === finishId ? { ...finish, ...changes } : finish,
  );
  return same(finishes, plan.finishes) ? plan : { ...plan, finishes };
}

export function changeLook(plan: Plan, finishId: string, changes: Partial<Look>): Plan {
  const finish = plan.finishes.find(({ id }) => id === finishId);
  return finish === undefined ? plan : changeFinish(plan, finishId, { look: { ...finish.look, ...changes } });
}

/** Puts other steps in the place of a finish's own, and forgets where those lay. */
export function replaceSteps(plan: Plan, finishId: string, steps: readonly PlanStep[]): Plan {
  const before = plan.finishes.find(({ id }) => id === finishId)?.steps ?? [];
  const gone = before.map(({ id }) => id).filter((id) => steps.every((step) => step.id !== id));
  return withoutMaps(changeFinish(plan, finishId, { steps }), gone);
}

/** A copy of a finish beside it, to try something on; `stepIds` are new ones, one for each step. */
export function addWhatIf(
  plan: Plan,
  finishId: string,
  id: string,
  name: string,
  stepIds: readonly string[],
): Plan {
  const finish = plan.finishes.find((candidate) => candidate.id === finishId);
  if (finish === undefined || plan.finishes.length >= LIMITS.finishes.max) return plan;
  const copy = copyFinish(plan, finish, stepIds);
  const whatIf: Finish = {
    id,
    name,
    whatIfOf: finish.whatIfOf ?? finish.id,
    steps: copy.steps,
    look: { ...finish.look, shows: copy.shows },
  };
  return { ...copy.plan, finishes: [...plan.finishes, whatIf] };
}

/** The what-if is meant from now on; what was meant before stands beside it. */
export function takeWhatIf(plan: Plan, whatIfId: string): Plan {
  const whatIf = plan.finishes.find(({ id }) => id === whatIfId);
  const meant = plan.finishes.find(({ id }) => id === whatIf?.whatIfOf);
  if (whatIf === undefined || meant === undefined) return plan;
  const { steps, look } = meant;
  const finishes = plan.finishes.map((finish) => {
    if (finish.id === meant.id) return { ...finish, steps: whatIf.steps, look: whatIf.look };
    if (finish.id === whatIf.id)
      return { ...finish, name: `Before ${whatIf.name}`.slice(0, 120), steps, look };
    return finish;
  });
  return { ...plan, finishes };
}

/** Drops a finish that no part gets, with the what-ifs beside it. */
export function removeFinish(plan: Plan, finishId: string): Plan {
  if (plan.piece.parts.some(({ finish }) => finish === finishId)) return plan;
  const gone = plan.finishes.filter(({ id, whatIfOf }) => id === finishId || whatIfOf === finishId);
  const finishes = plan.finishes.filter((finish) => !gone.includes(finish));
  if (finishes.length === plan.finishes.length || finishes.every(({ whatIfOf }) => whatIfOf !== null))
    return plan;
  return withoutMaps(
    { ...plan, finishes },
    gone.flatMap(({ steps }) => steps.map(({ id }) => id)),
  );
}

/** Where a step does more and where less on a part; null is alike all over. */
export function changeMap(plan: Plan, partId: string, stepId: string, map: StepMap | null): Plan {
  const part = plan.piece.parts.find(({ id }) => id === partId);
  if (part === undefined) return plan;
  const { [stepId]: _before, ...others } = part.maps;
  return changePart(plan, partId, { maps: map === null ? others : { ...others, [stepId]: map } });
}

export function changeAir(
  plan: Plan,
  changes: { temperatureC?: number; humidity?: number; draughtMS?: number; altitudeM?: number },
): Plan {
  const { air } = plan;
  const temperatureBy = changes.temperatureC === undefined ? 0 : changes.temperatureC - air.temperatureC;
  const humidityBy = changes.humidity === undefined ? 0 : changes.humidity - air.humidity;
  // A warmer shop is warmer all day: the day's course moves with its beginning.
  const shifted = shiftedAir(air, temperatureBy, humidityBy);
  const origin = temperatureBy === 0 && humidityBy === 0 ? air.origin : 'told';
  const next = { ...shifted, ...changes, origin };
  return same(next, air) ? plan : { ...plan, air: next };
}

export function changePart(plan: Plan, partId: string, changes: Partial<Part>): Plan {
  const parts = plan.piece.parts.map((part) => (part.id === partId ? { ...part, ...changes } : part));
  return same(parts, plan.piece.parts) ? plan : { ...plan, piece: { ...plan.piece, parts } };
}

/** Turns a part with another body, one of its own where that is new, or by itself where null. */
export function turnWith(plan: Plan, partId: string, body: PieceBody | null): Plan {
  const { bodies } = plan.piece;
  const known = body === null || bodies.some(({ id }) => id === body.id);
  if (!known && bodies.length >= LIMITS.bodies.max) return plan;
  const next = changePart(plan, partId, { body: body?.id ?? null });
  return known ? next : { ...next, piece: { ...next.piece, bodies: [...bodies, body] } };
}

export function addParts(plan: Plan, parts: readonly Part[]): Plan {
  const room = LIMITS.parts.max - plan.piece.parts.length;
  if (room <= 0 || parts.length === 0) return plan;
  return { ...plan, piece: { ...plan.piece, parts: [...plan.piece.parts, ...parts.slice(0, room)] } };
}

/** Other parts in the place of all. */
export function replaceParts(plan: Plan, name: string, parts: readonly Part[]): Plan {
  return parts.length === 0 ? plan : { ...plan, piece: bodied(name, parts.slice(0, LIMITS.parts.max)) };
}

/** Takes a part out, and what was asked of its moments. */
export function removePart(plan: Plan, partId: string): Plan {
  if (plan.piece.parts.length <= 1) return plan;
  const parts = plan.piece.parts.filter(({ id }) => id !== partId);
  if (parts.length === plan.piece.parts.length) return plan;
  const { timing } = plan;
  return {
    ...plan,
    piece: { ...plan.piece, parts },
    timing: {
      ...timing,
      pins: timing.pins.filter((pin) => pin.partId !== partId),
      order: timing.order.filter(({ first, then }) => first !== partId && then !== partId),
    },
  };
}

/** Sets what a litre of a medium costs, or forgets it. */
export function changePrice(plan: Plan, medium: string, price: number | null): Plan {
  const { [medium]: _before, ...others } = plan.prices;
  const prices = price === null ? others : { ...others, [medium]: price };
  return same(prices, plan.prices) ? plan : { ...plan, prices };
}
