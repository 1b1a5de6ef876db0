import { isFilmStep, type PlanStep } from '@zaffet/contract';
import { type Basis, type ShopData } from '@zaffet/core/basis';
import { forecast } from '@zaffet/core/forecast';
import {
  type Belief,
  believe,
  heard,
  inShopAir,
  LIVE_FIGURES,
  LIVE_STATES,
  type LiveState,
  type Look,
  type Moment,
  momentBelieved,
  nextLook,
  shopAirAfter,
  type Spread,
  stepFactors,
  usualPrior,
} from '@zaffet/core/live';
import { type Learned, PRIOR_SPREAD, type StepFactors } from '@zaffet/core/media';
import { type Finding } from '@zaffet/core/notes';
import { type StartState } from '@zaffet/core/plan';
import { followed, type FollowedTask, type Meant, type PartTask } from '@zaffet/core/schedule';
import { basisOf } from '../basis';
import { type PartPlan, partPlan, shopKnowing, withSteps } from '../partPlan';
import { buffCoat, knownOf } from '../runs/known';
import { type Run, type Seen, stepKey, type StepRun } from '../runs/fold';
import { problemOf } from '../timetable';
import {
  type Band,
  type Bench,
  type BenchFilm,
  type BenchPart,
  type BenchTask,
  type TaskState,
} from './types';

/** What the air of a shop is off the plan's before anybody has looked: the tables' own doubt [ln]. */
const AIR: Spread = { mean: 0, sd: PRIOR_SPREAD.air };

/** What a calibration leaves open of the air, and how it differs from day to day [sd of ln]; assumed. */
const DAY_TO_DAY = 0.15;
function airExpected(learned: Learned | null): Spread {
  const at = learned?.keys.indexOf('air') ?? -1;
  return at < 0 ? AIR : { mean: 0, sd: Math.hypot(Math.sqrt(learned!.covariance[at]![at]!), DAY_TO_DAY) };
}

/** Beliefs that were worked out, by all that they rest on. */
export type Beliefs = Map<string, Belief>;
/** So many are kept; the oldest go first. */
const KEPT = 400;

/** A coat that was laid, with what was said of it. */
interface Laid {
  readonly partId: string;
  readonly step: PlanStep;
  readonly laidAt: number;
  readonly looks: readonly Look[];
  readonly weighed: boolean;
  /** How many steps of its part come before it; and whether a section of it waits for its coat. */
  readonly order: number;
  readonly waits: boolean;
}

/** A part as far as it has come, without what was left out. */
export interface Worked {
  readonly plan: PartPlan;
  readonly basis: (learned: Learned | null) => Basis;
}

/**
 * How a run stands.
 * @param table - the timetable of the plan as the run began
 * @param now - by the server's clock [ms since 1970]
 * @param known - beliefs to go on with; filled
 * @param inHand - the part for which it is worked out when to look
 * @throws InputError as `forecast`
 */
export function benchOf(
  run: Run,
  table: Meant,
  now: number,
  known: Beliefs,
  inHand: string | null = null,
): Bench {
  const worked = run.plan.piece.parts.map(({ id }) => carriedOut(run, id, now));
  const laid = worked.flatMap((one) => laidOf(run, one)).sort((a, b) => a.laidAt - b.laidAt);
  let air = airExpected(run.learned);
  let answers = 0;
  const beliefs = new Map<string, Belief>();
  for (const coat of laid) {
    // Nobody looked at it, and another lies over it: it tells nothing any more.
    if (coat.looks.length === 0 && topOf(laid, coat.partId) !== coat) continue;
    const of = worked.find(({ plan }) => plan.part.id === coat.partId)!;
    const belief = believed(of, coat, air, known);
    beliefs.set(stepKey(coat.partId, coat.step.id), belief);
    if (coat.looks.length > 0) air = shopAirAfter(air, belief);
    answers += coat.looks.length;
  }
  const learned = worked.map((one) => (answers === 0 ? run.learned : learnedToday(one, air, beliefs, laid)));
  const bases = worked.map(({ basis }, i) => basis(learned[i]!));
  const start = Date.parse(run.plan.startsAt);
  const at = (moment: number): number => start + moment * 1000;
  const problem = problemOf(run.plan, { shop: shopKnowing(run.learned) });
  const goesOn = followed(
    { ...problem, jobs: problem.jobs.map((job, i) => ({ ...job, basis: bases[i]! })) },
    table,
    (now - start) / 1000,
  );
  return {
    parts: worked.map((one, i) =>
      partOf(run, one, {
        table,
        tasks: goesOn.tasks[i]!,
        learned: learned[i]!,
        basis: bases[i]!,
        beliefs,
        laid,
        now,
        looked: one.plan.part.id === inHand,
      }),
    ),
    air: { factor: Math.exp(air.mean), answers },
    readyAt: goesOn.ready === null ? null : at(goesOn.ready),
    overtime: goesOn.overtime === null ? null : at(goesOn.overtime),
  };
}

/** The film on top of a part: glue while a section of it is still to be painted, else the last that was laid. */
function topOf(laid: readonly Laid[], partId: string): Laid | undefined {
  const mine = laid.filter((one) => one.partId === partId).sort((a, b) => a.order - b.order);
  return mine.findLast(({ waits }) => waits) ?? mine.at(-1);
}

/** What is believed of a coat before a look counts, and since when it lies; null where none was laid. */
export function beliefNow(
  run: Run,
  partId: string,
  stepId: string,
  now: number,
  known: Beliefs,
): { readonly belief: Belief; readonly laidAt: number } | null {
  const worked = run.plan.piece.parts.map(({ id }) => carriedOut(run, id, now));
  const laid = worked.flatMap((one) => laidOf(run, one)).sort((a, b) => a.laidAt - b.laidAt);
  let air = airExpected(run.learned);
  for (const coat of laid) {
    const of = worked.find(({ plan }) => plan.part.id === coat.partId)!;
    const asked = coat.partId === partId && coat.step.id === stepId;
    if (!asked && coat.looks.length === 0) continue;
    const belief = believed(of, coat, air, known);
    if (asked) return { belief, laidAt: coat.laidAt };
    air = shopAirAfter(air, belief);
  }
  return null;
}

/** A part as it was carried out up to a moment: what was skipped left out, what was told as it was. */
export function carriedOut(run: Run, partId: string, now: number): Worked {
  const done = { ...knownOf(run, partId, now), answers: [] };
  const of = partPlan(run.plan, partId, null, {
    shop: shopKnowing(run.learned),
    known: { [partId]: done },
  });
  const elsewhere = run.putIn.filter((one) => one.partId !== partId).map(({ stepId }) => stepId);
  const plan = withSteps(
    of,
    of.steps.filter(({ id }) => run.steps[stepKey(partId, id)]?.skipped == null && !elsewhere.includes(id)),
  );
  const told = basisOf(plan);
  return { plan, basis: (learned) => ({ ...told, shop: shopOf(plan.circumstances.shop, learned) }) };
}

const shopOf = (shop: ShopData, learned: Learned | null): ShopData => ({ ...shop, learned });

/** The coats of a part that were laid, with the looks at them. */
function laidOf(run: Run, { plan }: Worked): Laid[] {
  const partId = plan.part.id;
  return plan.steps.filter(isFilmStep).flatMap((step): Laid[] => {
    const coats = Array.from(
      { length: buffCoat(step) },
      (_, coat) => run.steps[stepKey(partId, step.id, coat)],
    );
    const last = coats.findLast((one) => one?.begunAt != null);
    if (last === undefined) return [];
    const seen = run.seen.filter((one) => one.partId === partId && one.stepId === step.id);
    return [
      {
        partId,
        step,
        laidAt: openSince(last),
        looks: seen.map((one) => lookOf(one, last)),
        weighed: last.thicknessUm !== null,
        order: plan.steps.indexOf(step),
        waits:
          last.doneAt === null &&
          last.sections.some(({ gluedAt, paintedAt }) => gluedAt !== null && paintedAt === null),
      },
    ];
  });
}

/** Since when a coat lies; of glue in sections, the oldest that nothing went over. */
function openSince({ begunAt, sections }: StepRun, at = Number.POSITIVE_INFINITY): number {
  const open = sections.flatMap(({ gluedAt, paintedAt }) =>
    gluedAt !== null && gluedAt <= at && (paintedAt === null || paintedAt > at) ? [gluedAt] : [],
  );
  return open.length === 0 ? begunAt! : Math.min(...open);
}

/** Some places of a coat are through before the others: what is so in some of them is coming there just now. */
function lookOf(seen: Seen, coat: StepRun): Look {
  const since = Math.max(1, (seen.at - openSince(coat, seen.at)) / 1000);
  const { after, before, now, places } = seen;
  if (places === 'none' && after !== null) return { since, after: null, before: after, now: false };
  return { since, after, before, now: now || places === 'some' };
}

/** What is believed of a coat: drawn once for the air the plan expects, then weighed by the shop's and by looks. */
function believed(of: Worked, coat: Laid, air: Spread, known: Beliefs): Belief {
  const basis = of.basis(of.plan.circumstances.shop.learned);
  const { done, air: read } = basis.known!;
  const key = JSON.stringify([coat.partId, coat.step, coat.laidAt, coat.weighed, done, read]);
  let drawn = known.get(key);
  if (drawn === undefined) {
    drawn = believe(basis, coat.step.id, usualPrior(AIR, coat.weighed));
    if (known.size >= KEPT) known.delete(known.keys().next().value!);
    known.set(key, drawn);
  }
  return coat.looks.reduce(heard, inShopAir(drawn, AIR, air));
}

/** What was learned, with the air of today and the coats that somebody looked at. */
function withToday(
  learned: Learned | null,
  air: Spread,
  steps: Readonly<Record<string, StepFactors>>,
): Learned | null {
  const { keys, mean, covariance } = learned ?? { keys: [], mean: [], covariance: [] };
  const at = keys.indexOf('air');
  const others = keys.map((_, i) => i).filter((i) => i !== at);
  return {
    ...learned,
    keys: ['air', ...others.map((i) => keys[i]!)],
    mean: [(at < 0 ? 0 : mean[at]!) + air.mean, ...others.map((i) => mean[i]!)],
    covariance: [
      [air.sd ** 2, ...others.map(() => 0)],
      ...others.map((i) => [0, ...others.map((k) => covariance[i]![k]!)]),
    ],
    steps,
  };
}

interface Today {
  readonly table: Meant;
  readonly tasks: readonly FollowedTask[];
  readonly learned: Learned | null;
  readonly basis: Basis;
  readonly beliefs: ReadonlyMap<string, Belief>;
  readonly laid: readonly Laid[];
  readonly now: number;
  /** Whether it is worked out when to look. */
  readonly looked: boolean;
}

/** What a part would say of a task if it were begun at a moment [s from the plan's start]. */
function notesNow(basis: Basis, { kind, stepId, coat }: PartTask, at: number): Finding[] {
  if (kind === 'prepare' || kind === 'buff' || coat > 0) return [];
  const found = forecast({ ...basis, moments: { [stepId]: { fixed: at } } }).findings;
  return found.filter((one) => one.stepId === stepId && (one.level === 'stop' || one.level === 'warn'));
}

/** What a part goes on with: the air of today, and its coats that somebody looked at. */
function learnedToday(
  { plan }: Worked,
  air: Spread,
  beliefs: ReadonlyMap<string, Belief>,
  laid: readonly Laid[],
): Learned | null {
  const partId = plan.part.id;
  const steps = Object.fromEntries(
    laid.flatMap(({ partId: part, step, looks }) => {
      const belief = beliefs.get(stepKey(partId, step.id));
      if (part !== partId || looks.length === 0 || belief === undefined) return [];
      const factors = stepFactors(belief);
      // The coat's own air counts on top of the shop's.
      return [[step.id, { ...factors, air: factors.air - air.mean }] as const];
    }),
  );
  return withToday(plan.circumstances.shop.learned, air, steps);
}

function partOf(run: Run, of: Worked, today: Today): BenchPart {
  const { table, learned, basis, beliefs, laid } = today;
  const partId = of.plan.part.id;
  const start = Date.parse(run.plan.startsAt);
  const at = (moment: number): number => start + moment * 1000;
  const coat = topOf(laid, partId);
  const top: Top | null =
    coat === undefined ? null : { coat, belief: beliefs.get(stepKey(partId, coat.step.id))! };
  let current: BenchTask | null = null;
  const tasks = today.tasks.map((task): BenchTask => {
    const key = keyOf(of.plan.steps, partId, task);
    const done = doneState(run, key, task, partId);
    const state = done ?? (current === null ? 'next' : 'later');
    const planned = table.entries.find(
      ({ kind, partId: part, stepId, coat: own }) =>
        part === partId && kind === task.kind && stepId === task.stepId && own === task.coat,
    );
    const real = run.steps[key];
    const from = real?.begunAt ?? at(task.from);
    const { opens, closes, until, ...same } = task;
    const one: BenchTask = {
      ...same,
      key,
      partId,
      state,
      plannedAt: planned === undefined ? null : at(planned.from),
      from,
      until: real?.doneAt ?? at(until),
      opens: null,
      closes: null,
      below: null,
      waitsFor: null,
      notes: [],
    };
    if (state !== 'next' && state !== 'doing') return one;
    const step = of.plan.steps.find(({ id }) => id === task.stepId);
    const waitsFor = waitOf(step, task, state, top);
    current = {
      ...one,
      opens: bandOf(at(opens), waitsFor !== null && waitsFor === dueState(step, task) ? top : null),
      // Glue in hand closes by itself, whatever lies below it.
      closes:
        waitsFor === 'skinned' ? momentOf(top!, 'skinned') : closes === null ? null : bandOf(at(closes), top),
      below: waitsFor === null ? null : top!.coat.step.id,
      waitsFor,
      notes: state === 'next' ? notesNow(basis, task, (today.now - start) / 1000) : [],
    };
    return current;
  });
  return {
    partId,
    tasks,
    film: top === null ? null : filmOf(partId, top, today.looked ? current : null),
    learned,
  };
}

/** A film on top, and what is believed of it. */
interface Top {
  readonly coat: Laid;
  readonly belief: Belief;
}

const keyOf = (steps: readonly PlanStep[], partId: string, { kind, stepId, coat }: PartTask): string => {
  const step = steps.find(({ id }) => id === stepId);
  return stepKey(partId, stepId, kind === 'buff' && step !== undefined ? buffCoat(step) : coat);
};

/** What became of a task; null where nothing was told of it. */
function doneState(run: Run, key: string, { topId }: PartTask, partId: string): TaskState | null {
  const own = run.steps[key];
  const last = topId === null ? own : run.steps[stepKey(partId, topId)];
  if (own?.skipped != null) return 'skipped';
  if (last?.doneAt != null) return 'done';
  return own?.begunAt == null ? null : 'doing';
}

const STATES: Readonly<Record<StartState, LiveState | null>> = {
  tacky: 'tacky',
  'touch-dry': 'touch',
  recoat: 'recoat',
  'through-dry': 'through',
  cured: null,
};

/** The state of the film below that lets a task begin, by its own rule. */
function dueState(step: PlanStep | undefined, { kind, coat }: PartTask): LiveState | null {
  if (kind === 'buff') return 'touch';
  if (coat > 0) return 'recoat';
  return step?.start.rule === 'state' ? STATES[step.start.state] : null;
}

/** The state of the film below that is watched for: it lets a task begin, or ends its window. */
function waitOf(
  step: PlanStep | undefined,
  task: PartTask,
  state: TaskState,
  top: Top | null,
): LiveState | null {
  if (top === null) return null;
  const { moments } = top.belief;
  const comes = (one: LiveState | null): LiveState | null =>
    one !== null && moments[one] !== undefined ? one : null;
  // Of glue it is told when its window closes: it opens by itself.
  if (task.kind === 'sections' && step === top.coat.step) return comes('skinned');
  // What is being laid waits for nothing.
  if (state === 'doing') return null;
  const due = comes(dueState(step, task));
  // A coat that goes on after minutes of its own still has to meet the film while it grabs.
  return due ?? (task.closes !== null && step !== undefined && isFilmStep(step) ? comes('tacky') : null);
}

/** A moment with its band: as wide as that of the state of the film that comes nearest to it. */
function bandOf(at: number, top: Top | null): Band {
  const since = top === null ? 0 : (at - top.coat.laidAt) / 1000;
  if (top === null || since <= 0) return { at, low: at, high: at };
  const near = LIVE_STATES.flatMap((state) => momentBelieved(top.belief, state) ?? []).reduce<Moment | null>(
    (best, one) =>
      best === null || Math.abs(Math.log(one.at / since)) < Math.abs(Math.log(best.at / since)) ? one : best,
    null,
  );
  if (near === null) return { at, low: at, high: at };
  const { laidAt } = top.coat;
  const scaled = (moment: number): number => laidAt + 1000 * since * (moment / near.at);
  return { at, low: scaled(near.low), high: scaled(near.high) };
}

/** When a film comes into a state, as it is believed; null for one that is not known to come. */
function momentOf({ coat, belief }: Top, state: LiveState): Band | null {
  const moment = momentBelieved(belief, state);
  if (moment === null) return null;
  const at = (seconds: number): number => coat.laidAt + 1000 * seconds;
  return { at: at(moment.at), low: at(moment.low), high: at(moment.high) };
}

function filmOf(partId: string, top: Top, current: BenchTask | null): BenchFilm {
  const { coat, belief } = top;
  const { laidAt, step } = coat;
  const states = Object.fromEntries(
    LIVE_STATES.flatMap((state) => {
      const moment = momentOf(top, state);
      return moment === null ? [] : [[state, moment] as const];
    }),
  );
  const figures = Object.fromEntries(
    LIVE_FIGURES.flatMap((figure) => {
      const of = momentBelieved(belief, figure);
      return of === null ? [] : [[figure, of] as const];
    }),
  );
  const last = Math.max(1, ...coat.looks.map(({ since }) => since));
  const look = current?.waitsFor == null ? null : nextLook(belief, current.waitsFor, last);
  const lookAt = look === null ? null : laidAt + 1000 * look;
  return { partId, stepId: step.id, laidAt, states, figures, lookAt };
}
