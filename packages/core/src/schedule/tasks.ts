import { atPiece, working } from '../course';
import { type Medium, type MediumLookup } from '../media';
import { type Coat, type FilmStep, isFilm, panelArea, type PrepStep, type Step } from '../plan';
import { toolOf } from '../tools';
import { SECONDS_PER_MINUTE } from '../units';
import { washMinutes } from './minutes';
import { type Job, type PotNeed, type Problem, type TaskKind } from './types';

/** Long work is cut into pieces no longer than this [s]; common practice. */
const LONGEST_PIECE = 7200;

/** What the hands are at in one go, for one part. */
export interface Task {
  readonly kind: TaskKind;
  /** Of preparation the stages in one go; empty for all else. */
  readonly prepares: readonly PrepStep[];
  readonly step: Step | null;
  /** The coat over the glue, where both are done in sections. */
  readonly top: Step | null;
  readonly coat: number;
  readonly of: number;
  /** [s]; of sections the first brush alone. */
  readonly hands: number;
  readonly topHands: number;
  /** Rest of preparation afterwards [s]. */
  readonly rest: number;
  /** Recipe on the brush it begins and ends with; null for tools and cloths. */
  readonly brushIn: string | null;
  readonly brushOut: string | null;
  /** Cleaning afterwards [s]. */
  readonly wash: number;
  readonly pots: readonly PotNeed[];
  readonly byEye: boolean;
  readonly notBefore: number;
}

const whole = (seconds: number): number => Math.ceil(seconds / SECONDS_PER_MINUTE) * SECONDS_PER_MINUTE;

/** Work that is judged by how it looks: what comes off, and what is rubbed back. */
const byEye = (step: Step): boolean => step.kind === 'distress' || step.kind === 'wipe';

/** White glue, and a coat that follows it in the same sitting. */
function coatOverGlue(step: Step, next: Step | undefined, media: MediumLookup): [FilmStep, Coat] | null {
  if (!isFilm(step) || media(step.medium).kind !== 'wet-glue') return null;
  return next?.kind === 'coat' && next.start.rule !== 'at' ? [step, next] : null;
}

/** A job as the hands have it: one thing after another. Waits are no tasks. */
export function tasksOf(job: Job, media: MediumLookup, problem: Problem): Task[] {
  const { plan } = job.basis;
  const tasks = prepTasks(job);
  const { steps } = plan;
  for (let i = 0; i < steps.length; i++) {
    const step = steps[i]!;
    const next = steps[i + 1];
    if (step.kind === 'wait') continue;
    const pair = coatOverGlue(step, next, media);
    if (pair !== null) {
      tasks.push(sections(job, ...pair, media, problem));
      i += 1;
    } else tasks.push(...stepTasks(job, step, media, problem));
  }
  return tasks;
}

const NONE = {
  prepares: [],
  step: null,
  top: null,
  coat: 0,
  of: 1,
  topHands: 0,
  rest: 0,
  brushIn: null,
  brushOut: null,
  wash: 0,
  pots: [],
  byEye: false,
  notBefore: -Infinity,
} as const;

/** Stages of preparation in one go until one has to rest. */
function prepTasks({ prepares }: Job): Task[] {
  const tasks: Task[] = [];
  let stages: PrepStep[] = [];
  let hands = 0;
  prepares.forEach(({ step, hands: own, rest }, i) => {
    stages.push(step);
    hands += own;
    if (rest === 0 && i < prepares.length - 1) return;
    tasks.push({ ...NONE, kind: 'prepare', prepares: stages, hands: whole(hands), rest });
    stages = [];
    hands = 0;
  });
  return tasks;
}

function stepTasks(job: Job, step: Step, media: MediumLookup, problem: Problem): Task[] {
  const { panel } = job.basis.plan;
  const notBefore = job.notBefore[step.id] ?? -Infinity;
  const base = { ...NONE, step, notBefore, byEye: byEye(step) && toolJudged(step) };
  if (step.kind === 'companion') {
    const pieces = Math.max(1, Math.ceil(step.hands / Math.min(LONGEST_PIECE, longestOf(problem))));
    return Array.from({ length: pieces }, (_, coat) => ({
      ...base,
      kind: pieces > 1 ? ('piece' as const) : ('step' as const),
      coat,
      of: pieces,
      hands: whole(step.hands / pieces),
    }));
  }
  if (!isFilm(step)) return [{ ...base, kind: 'step', hands: whole(atPiece(step, panel)) }];
  const medium = media(step.medium);
  const film = { ...base, ...brushOf(job, step, medium, problem) };
  if (step.kind === 'coat') return [{ ...film, kind: 'step', hands: whole(atPiece(step, panel)) }];
  const coats = Array.from({ length: step.coats }, (_, coat) => ({
    ...film,
    kind: step.coats > 1 ? ('coat' as const) : ('step' as const),
    coat,
    of: step.coats,
    hands: whole(atPiece({ ...step, coats: 1 }, panel)),
  }));
  if (medium.kind !== 'wax' || step.buffAfter === null) return coats;
  const hands = whole(problem.minutes.buffPerM2 * SECONDS_PER_MINUTE * panelArea(panel));
  return [...coats, { ...base, kind: 'buff', hands: Math.max(SECONDS_PER_MINUTE, hands) }];
}

/** Bleach is watched by the clock. */
const toolJudged = (step: Step): boolean => step.kind !== 'distress' || toolOf(step.tool).action !== 'soften';

function brushOf(
  job: Job,
  step: Step & { medium: string },
  medium: Medium,
  { minutes }: Problem,
): Pick<Task, 'brushIn' | 'brushOut' | 'wash' | 'pots'> {
  const pots = job.pots[step.id] ?? [];
  const brush = pots[0]?.recipe ?? step.medium;
  return {
    brushIn: brush,
    brushOut: brush,
    wash: whole(washMinutes(medium, minutes) * SECONDS_PER_MINUTE),
    pots,
  };
}

function sections(job: Job, glue: FilmStep, top: Coat, media: MediumLookup, problem: Problem): Task {
  const { panel } = job.basis.plan;
  const first = brushOf(job, glue, media(glue.medium), problem);
  const second = brushOf(job, top, media(top.medium), problem);
  return {
    ...NONE,
    kind: 'sections',
    step: glue,
    top,
    hands: whole(atPiece(glue, panel)),
    topHands: whole(working(top, panel)),
    brushIn: first.brushIn,
    brushOut: second.brushOut,
    wash: first.wash + second.wash,
    pots: [...first.pots, ...second.pots],
    notBefore: Math.max(job.notBefore[glue.id] ?? -Infinity, job.notBefore[top.id] ?? -Infinity),
  };
}

/** The longest stretch of work there is [s]; Infinity by day and night. */
export const longestOf = ({ work }: Pick<Problem, 'work'>): number =>
  work === undefined ? Infinity : Math.max(0, ...work.map(({ opens, closes }) => closes - opens));

/** How glue and the coat over it are done so that every place sees the paint after the same lag. */
export interface Sections {
  readonly sections: number;
  readonly lag: number;
  /** From the first stroke of glue to the last of paint [s]. */
  readonly whole: number;
}

/**
 * Glue and the coat over it by one person, section by section: the second brush follows the first by the lag that is
 * wanted, before the glue skins over.
 * @param glue - hands at the glue [s], and at the coat over it
 * @param wanted - lag the plan wants [s]
 * @param skin - when the glue skins over [s after it was laid]
 * @param change - from one brush to the other [s]
 */
export function sectionsOf(
  glue: number,
  top: number,
  wanted: number,
  skin: number,
  change: number,
): Sections {
  const target = Math.min(Math.max(wanted, change), skin);
  // At most half of what is left of the window.
  const most = target + (skin - target) / 2;
  const count = Math.max(1, Math.ceil(glue / Math.max(1, most - change)));
  const lag = Math.max(target, glue / count + change);
  return { sections: count, lag, whole: count * (lag + top / count + change) };
}
