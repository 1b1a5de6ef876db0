import {
  advance,
  begin,
  earliest,
  type FilmRun,
  isSoftened,
  type RunState,
  waxManner,
  WIPED_BY,
  windowOf,
} from '../course';
import { isOf, type MediumLookup } from '../media';
import { BUFFED_BY, HARD, SPRAY_SOON } from '../notes';
import { checkPlan, isFilm, type Seal, type Step } from '../plan';
import { toolOf } from '../tools';
import { SECONDS_PER_DAY, SECONDS_PER_HOUR, SECONDS_PER_MINUTE } from '../units';
import { bladeEffort } from '../wear';
import { sectionsOf, type Task, tasksOf } from './tasks';
import { type Job, type Problem, type WaitReason } from './types';

/*
 * One part, as far as it has come. A point knows what its films do, and so when the next task may and must begin. Points
 * are kept: a search tries the same beginnings again and again. While orders are only compared, films are dried at the
 * nearest moment of a grid and their times moved along; what is told in the end is dried at its own moments.
 */

/** Waits up to which a moment counts to the second, the grid of longer ones, and that of long ones [s]. */
const SHORT = 1200;
const LONG = 7200;
const GRID = { middling: 300, long: 1800 } as const;

/** How far a part has come. */
export interface Point {
  /** In the part's own time, which is later than the plan's by this [s]: 0 but for what is only compared. */
  readonly shift: number;
  readonly run: RunState;
  /** Moments of the coats of a seal, or the beginning of work cut into pieces, while it is under way. */
  readonly begun: readonly number[];
  /** With the seal as far as it is laid. */
  readonly laid: RunState;
  /** When the hands left the last task, and from when preparation lets go on. */
  readonly ends: number;
  readonly rests: number;
  /** Hands at the last film [s], and which task laid it; −1 for none. */
  readonly filmHands: number;
  readonly filmTask: number;
  /** Which task brought water last; −1 for none. */
  readonly wetTask: number;
  readonly next: Map<number, Point>;
  /** How its next task goes, by when it begins. */
  readonly goes: Map<number, Doing>;
  /** When its next task may and must begin, once it was asked for. */
  readonly window: { own?: OwnWindow };
}

/** When a task may begin, and what it waits for until then; null where only the task before it has to end. */
interface Opening {
  readonly opens: number;
  readonly reason: WaitReason | null;
}

/** When the next task of a point may begin by its part, and must. */
interface OwnWindow extends Opening {
  readonly closes: { readonly closes: number; readonly opener: number } | null;
}

/** A part as the hands have it, and where it begins. */
export interface Chain {
  readonly job: Job;
  readonly tasks: readonly Task[];
  readonly media: MediumLookup;
  readonly root: Point;
  /** Films are dried on a grid of moments. */
  readonly coarse: boolean;
  /** By task, whether it keeps its window when the part has the hands to itself. */
  readonly keeps: readonly boolean[];
  /** When its last task has ended and its last film is dry, if it had the hands to itself. */
  readonly alone: readonly Point[];
  /** What forecasts said of its moments, by the moments. */
  readonly said: Map<string, ReadonlySet<string>>;
}

/** When a task may begin by its own part, and must [s from the plan's start]; `opener` is the task the window hangs on. */
export interface Window extends Opening {
  readonly closes: number | null;
  readonly opener: number;
}

/** What a task is once it has begun at a moment. */
export interface Doing {
  readonly until: number;
  readonly sections: number;
  readonly lag: number;
  /** With the glue laid, where paint goes over it. */
  readonly glued: RunState | null;
}

/** A part's chain. @throws InputError as `forecast` */
export function chainOf(job: Job, problem: Problem): Chain {
  const chain = begunIn(job, problem, 1);
  const alone = [chain.root];
  const keeps: boolean[] = [];
  const whole = { ...chain, keeps, alone };
  chain.tasks.forEach((task, i) => {
    const point = alone[i]!;
    const { opens, closes } = windowAt(whole, point, i);
    keeps.push(closes !== null && opens <= closes);
    alone.push(stepTo(whole, point, i, opens, doing(whole, point, task, opens, problem)));
  });
  return whole;
}

/** The same part in air that dries quicker or slower; it keeps the windows it keeps. @param factor - on the drying rate */
export const inOtherAir = (chain: Chain, problem: Problem, factor: number): Chain => ({
  ...begunIn(chain.job, problem, factor),
  keeps: chain.keeps,
});

/** The same part on a grid of moments, to compare orders by. */
export const inCoarse = (chain: Chain): Chain => ({
  ...chain,
  root: { ...chain.root, next: new Map(), goes: new Map(), window: {} },
  coarse: true,
});

/** A part of which nothing is done yet. */
function begunIn(job: Job, problem: Problem, factor: number): Chain {
  const { work: _, ...plan } = job.basis.plan;
  const { shop, known } = job.basis;
  const basis = { plan, shop, ...(known === undefined ? {} : { known }) };
  const media = checkPlan(plan, basis.shop.learned);
  const run = settled(begin(basis, media, { air: factor }));
  const root: Point = {
    shift: 0,
    run,
    begun: [],
    laid: run,
    ends: problem.from,
    rests: problem.from,
    filmHands: 0,
    filmTask: -1,
    wetTask: -1,
    next: new Map(),
    goes: new Map(),
    window: {},
  };
  return {
    job,
    tasks: tasksOf(job, media, problem),
    media,
    root,
    coarse: false,
    said: new Map(),
    keeps: [],
    alone: [],
  };
}

/** Waits need nobody: they go by. */
function settled(run: RunState): RunState {
  let state = run;
  for (let step = nextStep(state); step?.kind === 'wait'; step = nextStep(state)) {
    const { at, comes } = earliest(state, step);
    state = advance(state, step, at, comes);
  }
  return state;
}
const nextStep = ({ plan, times }: RunState): Step | undefined => plan.steps[times.length];

/** The film that lies on top. */
export const topFilm = ({ laid }: Point): FilmRun | undefined => laid.films.at(-1);

/**
 * When a task may begin by its own part, and must.
 * @param taught - how long after the last film it may wait at most, by what forecasts said [s]
 */
export function windowAt(chain: Chain, point: Point, index: number, taught = Infinity): Window {
  const task = chain.tasks[index]!;
  const { shift } = point;
  const begun = begunOf(chain, task);
  const own = (point.window.own ??= {
    ...(begun === null ? openingOf(task, point) : { opens: begun.from, reason: null }),
    closes: closesAt(chain, task, point),
  });
  const { opens, reason } = begun === null ? later(own, shift, task) : own;
  const closes = (chain.keeps[index] ?? true) ? own.closes : null;
  const film = topFilm(point);
  const learned = film === undefined ? Infinity : film.laidAt + taught;
  if (learned < (closes?.closes ?? Infinity))
    return { opens, reason, closes: learned + shift, opener: point.filmTask };
  const latest = closes === null ? null : closes.closes + shift;
  return { opens, reason, closes: latest, opener: closes?.opener ?? -1 };
}

/** The last of several openings; the first of those at one moment. */
const last = (openings: readonly Opening[]): Opening =>
  openings.reduce((latest, opening) => (opening.opens > latest.opens ? opening : latest));

/** An opening moved on, and no sooner than the moment and the supply of its task allow. */
const later = ({ opens, reason }: Opening, shift: number, { notBefore, step, coat }: Task): Opening =>
  last([
    { opens: opens + shift, reason },
    {
      opens: step !== null && step.start.rule === 'at' && coat === 0 ? step.start.moment : -Infinity,
      reason: 'moment',
    },
    { opens: notBefore, reason: 'supply' },
  ]);

/** When a task of which nothing was done yet may begin by its own part. */
const openingOf = (task: Task, point: Point): Opening =>
  last([
    { opens: point.ends, reason: null },
    { opens: point.rests, reason: 'rest' },
    ruleOf(task, point) ?? { opens: -Infinity, reason: null },
  ]);

/** When its own rule lets a task begin; null where it has none. */
function ruleOf(task: Task, point: Point): Opening | null {
  const { step, coat, hands } = task;
  const film = topFilm(point);
  if (step === null) return null;
  if (task.kind === 'buff')
    return { opens: film!.laidAt + ((film!.step as Seal).buffAfter ?? 0), reason: 'minutes' };
  if (coat > 0)
    return task.kind === 'coat'
      ? { opens: film!.openStates.recoat ?? film!.laidAt + SECONDS_PER_DAY, reason: 'state' }
      : null;
  if (step.start.rule === 'at') return null;
  const { at } = earliest(point.run, step);
  const before = point.run.times.at(-1)?.step;
  const onFilm = step.start.rule === 'state' || (before !== undefined && isFilm(before));
  return {
    // The place that was laid last is reached too soon by a quicker hand.
    opens: onFilm ? at + Math.max(0, point.filmHands - hands) : at,
    reason: step.start.rule === 'state' ? 'state' : 'minutes',
  };
}

function closesAt(chain: Chain, task: Task, point: Point): OwnWindow['closes'] {
  const film = topFilm(point);
  const { step } = task;
  if (film === undefined || step === null || (task.coat > 0 && task.kind !== 'buff')) return null;
  const on = (closes: number | null, opener = point.filmTask): OwnWindow['closes'] =>
    closes === null || opener < 0 ? null : { closes, opener };
  const { openStates: open, laidAt } = film;
  if (task.kind === 'buff') {
    const ready = open.touch === null ? null : open.touch - laidAt;
    if (ready === null) return null;
    const wiped = waxManner({ ...film, buffAfter: (film.step as Seal).buffAfter }) === 'wiped';
    return on(laidAt + (wiped ? WIPED_BY : BUFFED_BY) * ready);
  }
  switch (step.kind) {
    case 'coat':
    case 'seal': {
      if (isOf(film.medium, 'sprayed')) return on(laidAt + SPRAY_SOON);
      return on(windowOf(film, { medium: chain.media(step.medium) })?.closesAt ?? null);
    }
    case 'resist':
      // Salt wants paint that still takes it; a minute for the hand.
      return step.agent === 'salt' && open.tacky !== null ? on(open.tacky - SECONDS_PER_MINUTE) : null;
    case 'heat': {
      const damp = point.run.dampUntil + SECONDS_PER_HOUR;
      return open.through === null || damp > open.through ? on(damp, point.wetTask) : on(open.through);
    }
    case 'distress':
      // Bleach, water or heat since the film was laid soften it again: its age says nothing then.
      return toolOf(step.tool).action === 'cut' && open.touch !== null && !isSoftened(point.run.times, film)
        ? on(stillCuts(film))
        : null;
    default:
      return null;
  }
}

/** Until when a blade does not go hard in a film [s from the plan's start]; null where it never does. */
function stillCuts({ medium, openStates }: FilmRun): number | null {
  const touch = openStates.touch!;
  let easy = 0;
  let hard = 14 * SECONDS_PER_DAY;
  if (bladeEffort(medium, hard) <= HARD) return null;
  while (hard - easy > SECONDS_PER_MINUTE) {
    const mid = (easy + hard) / 2;
    if (bladeEffort(medium, mid) <= HARD) easy = mid;
    else hard = mid;
  }
  return touch + easy;
}

/** The moment in the part's own time that stands for another while orders are compared. */
function slotOf({ coarse }: Chain, point: Point, own: number): number {
  const since = own - (topFilm(point)?.laidAt ?? -Infinity);
  if (!coarse || since < SHORT) return own;
  const grid = since < LONG ? GRID.middling : GRID.long;
  return Math.round(own / grid) * grid;
}

/** What is known of a task that was begun [s from the plan's start]. */
export interface Begun {
  readonly from: number;
  /** When its hands left it; null where that is not known. */
  readonly until: number | null;
  /** They are still at it. */
  readonly goes: boolean;
}

/** What a run knows of a task; null where it was not begun. */
export function begunOf({ job }: Chain, task: Task): Begun | null {
  const known = job.basis.known?.done[task.step?.id ?? task.prepares[0]!];
  if (known === undefined) return null;
  switch (task.kind) {
    case 'buff':
      return known.buffAt === undefined ? null : { from: known.buffAt, until: null, goes: false };
    case 'coat':
    case 'piece': {
      const coats = known.coats ?? [known.from];
      const from = coats[task.coat];
      const goes = known.until === null && task.coat === coats.length - 1;
      return from === undefined ? null : { from, until: null, goes };
    }
    case 'sections': {
      const until = job.basis.known!.done[task.top!.id]?.until ?? null;
      return { from: known.from, until, goes: until === null };
    }
    default:
      return { ...known, goes: known.until === null };
  }
}

/** How a task goes that begins at a moment [s from the plan's start]. */
export function doing(chain: Chain, point: Point, task: Task, at: number, problem: Problem): Doing {
  const ended = begunOf(chain, task)?.until ?? null;
  if (task.kind !== 'sections') return { until: ended ?? at + task.hands, sections: 1, lag: 0, glued: null };
  const slot = slotOf(chain, point, at - point.shift);
  let how = point.goes.get(slot);
  if (how === undefined) point.goes.set(slot, (how = goesAt(point, task, slot, problem)));
  return { ...how, until: ended ?? how.until + at - slot };
}

function goesAt(point: Point, task: Task, at: number, { minutes }: Problem): Doing {
  const glued = advance(point.run, task.step!, at);
  const painted = point.run.basis.known?.done[task.top!.id];
  const skin = glued.films.at(-1)!.openStates.skinned;
  const wanted = earliest(glued, task.top!).at - at;
  const { sections, lag, whole } = sectionsOf(
    task.hands,
    task.topHands,
    wanted,
    Math.max(wanted, skin === null ? Infinity : skin - at),
    minutes.change * SECONDS_PER_MINUTE,
  );
  const minute = SECONDS_PER_MINUTE;
  return {
    until: at + Math.ceil(whole / minute) * minute,
    sections,
    lag: painted === undefined ? lag : painted.from - at,
    glued,
  };
}

/** The part after a task has been done, from a moment on [s from the plan's start]. */
export function stepTo(chain: Chain, point: Point, index: number, at: number, how: Doing): Point {
  const slot = slotOf(chain, point, at - point.shift);
  let made = point.next.get(slot);
  if (made === undefined) {
    const own = { ...how, until: how.until - at + slot };
    point.next.set(slot, (made = done(chain, point, index, slot, own)));
  }
  const shift = at - slot;
  return shift === made.shift ? made : { ...made, shift };
}

function done({ tasks }: Chain, point: Point, index: number, at: number, how: Doing): Point {
  const task = tasks[index]!;
  const { run } = point;
  const after = {
    ...point,
    shift: 0,
    ends: how.until,
    rests: -Infinity,
    next: new Map<number, Point>(),
    goes: new Map<number, Doing>(),
    window: {},
  };
  const { step } = task;
  if (step === null) return { ...after, rests: how.until + task.rest };
  const reached = (state: RunState): Pick<Point, 'run' | 'laid' | 'begun'> => {
    const open = settled(state);
    return { run: open, laid: open, begun: [] };
  };
  const laidNow = { filmHands: task.hands, filmTask: index };
  switch (task.kind) {
    case 'buff':
      return after;
    case 'sections': {
      return {
        ...after,
        ...reached(advance(how.glued!, task.top!, at + how.lag)),
        filmHands: task.topHands,
        filmTask: index,
      };
    }
    case 'coat': {
      const coats = [...point.begun, at];
      const last = coats.length === task.of;
      const seal = { ...(step as Seal), coats: coats.length };
      const laid = advance(run, last ? step : seal, coats[0]!, true, { notBefore: coats[0]!, coats });
      return last ? { ...after, ...reached(laid), ...laidNow } : { ...after, laid, begun: coats, ...laidNow };
    }
    case 'piece': {
      const begun = point.begun[0] ?? at;
      if (task.coat + 1 < task.of) return { ...after, begun: [begun] };
      return {
        ...after,
        ...reached(advance(run, step, begun, true, { notBefore: begun, endsAt: how.until })),
      };
    }
    default: {
      const state = reached(advance(run, step, at));
      const wet = state.run.dampUntil !== run.dampUntil ? { wetTask: index } : {};
      return { ...after, ...state, ...wet, ...(isFilm(step) ? laidNow : {}) };
    }
  }
}

/** When a part is ready: its last task ended, its last film dry through; null where that never is. */
export function readyAt({ run, ends, shift }: Point): number | null {
  const top = run.films.at(-1);
  const done = Math.max(ends, run.times.at(-1)?.until ?? 0) + shift;
  if (top === undefined) return done;
  const { through } = top.openStates;
  return through === null ? null : Math.max(done, through + shift);
}
