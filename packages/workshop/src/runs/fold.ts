import { type Learned } from '@zaffet/core/media';
import { type Plan, type RunBodies, type RunEvent, unfilePlan, type VerdictTime } from '@zaffet/contract';
import { inOrder } from './order';

/** How a step of a part went, or a coat of it; moments in ms since 1970. */
export interface StepRun {
  readonly begunAt: number | null;
  readonly doneAt: number | null;
  /** Why it was left out; null where it was not. */
  readonly skipped: string | null;
  readonly passes: number | null;
  readonly thicknessUm: number | null;
  readonly mix: RunBodies['mix']['body'] | null;
  readonly addedMl: number;
  /** Sections of glue, when each was laid and painted over. */
  readonly sections: readonly { readonly gluedAt: number | null; readonly paintedAt: number | null }[];
  /** Cautions that were read, by their codes. */
  readonly cautions: readonly string[];
}

/** What somebody saw of a coat. */
export interface Seen {
  readonly eventId: string;
  readonly partId: string;
  readonly stepId: string;
  readonly coat: number;
  readonly at: number;
  readonly after: RunBodies['seen']['after'];
  readonly before: RunBodies['seen']['before'];
  readonly now: boolean;
  readonly places: RunBodies['seen']['places'];
}

/** What was written down, of a part or a step of it, or of all. */
export interface RunNote {
  readonly at: number;
  readonly partId: string | null;
  readonly stepId: string | null;
  readonly text: string;
}

/** A photograph that was taken. */
export type RunPhoto = Required<RunBodies['photo']> & { readonly eventId: string; readonly at: number };

/** A run as it stands. */
export interface Run {
  readonly planId: string | null;
  /** What the shop had learned when it began. */
  readonly learned: Learned | null;
  /** The plan as it is carried out: as it was when the run began, with what was put in. */
  readonly plan: Plan;
  readonly begunAt: number;
  readonly paused: boolean;
  readonly finishedAt: number | null;
  /** Steps that were put in since, each for one part alone. */
  readonly putIn: readonly { readonly partId: string; readonly stepId: string }[];
  /** By part, step and coat; see `stepKey`. */
  readonly steps: Readonly<Record<string, StepRun>>;
  readonly seen: readonly Seen[];
  readonly air: readonly { readonly at: number; readonly temperatureC: number; readonly humidity: number }[];
  /** What came out, by part: the last that was told. */
  readonly outcomes: Readonly<Record<string, Omit<RunBodies['outcome'], 'partId'>>>;
  /** How it was liked, by when it was judged. */
  readonly verdicts: Readonly<Partial<Record<VerdictTime, Omit<RunBodies['verdict'], 'when'>>>>;
  readonly notes: readonly RunNote[];
  readonly photos: readonly RunPhoto[];
  readonly used: readonly (RunBodies['used'] & { readonly eventId: string })[];
  /** What was said of the piece as a whole: the last that was told. */
  readonly details: RunBodies['details'] | null;
}

export const stepKey = (partId: string, stepId: string, coat = 0): string => `${partId} ${stepId} ${coat}`;

const NOTHING: StepRun = {
  begunAt: null,
  doneAt: null,
  skipped: null,
  passes: null,
  thicknessUm: null,
  mix: null,
  addedMl: 0,
  sections: [],
  cautions: [],
};
const MINUTE = 60_000;
const NO_SECTION = { gluedAt: null, paintedAt: null };

/** The earlier of two moments: what is told twice was done once. */
const earlier = (a: number | null, b: number): number => (a === null ? b : Math.min(a, b));

/** The plan with a step put in, in the part's finish; as it was where the part is not there, or the step is already. */
export function withPutIn(plan: Plan, { partId, afterStepId, step }: RunBodies['put-in']): Plan {
  const finish = plan.piece.parts.find(({ id }) => id === partId)?.finish;
  return {
    ...plan,
    finishes: plan.finishes.map((one) => {
      if (one.id !== finish || one.steps.some(({ id }) => id === step.id)) return one;
      const at = afterStepId === null ? 0 : one.steps.findIndex(({ id }) => id === afterStepId) + 1;
      return { ...one, steps: [...one.steps.slice(0, at), step, ...one.steps.slice(at)] };
    }),
  };
}

function stepAfter(step: StepRun, event: RunEvent, at: number): StepRun {
  switch (event.kind) {
    case 'begun':
      return { ...step, begunAt: earlier(step.begunAt, at) };
    case 'done':
      return { ...step, begunAt: earlier(step.begunAt, at), doneAt: earlier(step.doneAt, at) };
    case 'skipped':
      return { ...step, skipped: event.reason };
    case 'passes':
      return { ...step, passes: event.count };
    case 'film':
      return { ...step, thicknessUm: event.thicknessUm };
    case 'mix':
      return { ...step, mix: event.body, addedMl: step.addedMl + event.addedMl };
    case 'caution':
      return step.cautions.includes(event.code)
        ? step
        : { ...step, cautions: [...step.cautions, event.code] };
    case 'section': {
      const sections = Array.from(
        { length: Math.max(step.sections.length, event.index + 1) },
        (_, i) => step.sections[i] ?? NO_SECTION,
      );
      const before = sections[event.index]!;
      sections[event.index] = event.painted
        ? { ...before, paintedAt: earlier(before.paintedAt, at) }
        : { ...before, gluedAt: earlier(before.gluedAt, at) };
      return { ...step, sections };
    }
    default:
      return step;
  }
}

function after(run: Run, event: RunEvent, told: number): Run {
  const at = 'minutesAgo' in event ? told - event.minutesAgo * MINUTE : told;
  switch (event.kind) {
    case 'put-in':
      return {
        ...run,
        plan: withPutIn(run.plan, event),
        putIn: [...run.putIn, { partId: event.partId, stepId: event.step.id }],
      };
    case 'seen': {
      const { id, partId, stepId, coat, after: past, before, now, places } = event;
      const seen: Seen = { eventId: id, partId, stepId, coat, at, after: past, before, now, places };
      return { ...run, seen: [...run.seen, seen] };
    }
    case 'air': {
      const { temperatureC, humidity } = event;
      return { ...run, air: [...run.air, { at, temperatureC, humidity }] };
    }
    case 'note':
      return {
        ...run,
        notes: [...run.notes, { at, partId: event.partId, stepId: event.stepId ?? null, text: event.text }],
      };
    case 'photo': {
      const { id: eventId, partId, stepId, when, hash, text, wideMm = null } = event;
      return { ...run, photos: [...run.photos, { eventId, at, partId, stepId, when, hash, text, wideMm }] };
    }
    case 'used': {
      const { id: eventId, itemId, name, amountMl } = event;
      return { ...run, used: [...run.used, { eventId, itemId, name, amountMl }] };
    }
    case 'details': {
      const { forWhom, fate, price, leftOn, hours, cost } = event;
      return { ...run, details: { forWhom, fate, price, leftOn, hours, cost } };
    }
    case 'outcome': {
      const { partId, spacingMm, openingMm, chipped, worn, cracked = null, shares } = event;
      return {
        ...run,
        outcomes: {
          ...run.outcomes,
          [partId]: { spacingMm, openingMm, chipped, worn, cracked, ...(shares && { shares }) },
        },
      };
    }
    case 'verdict': {
      const { when, verdict, text } = event;
      return { ...run, verdicts: { ...run.verdicts, [when]: { verdict, text } } };
    }
    case 'paused':
      return { ...run, paused: true };
    case 'resumed':
      return { ...run, paused: false };
    case 'finished':
      return { ...run, finishedAt: at, paused: false };
    case 'reopened':
      return { ...run, finishedAt: null };
    case 'run-begun':
    case 'taken-back':
      return run;
    default: {
      const key = stepKey(event.partId, event.stepId, event.coat);
      return { ...run, steps: { ...run.steps, [key]: stepAfter(run.steps[key] ?? NOTHING, event, at) } };
    }
  }
}

/** Events that were taken back, by their ids: by one that was not itself taken back. */
export function takenBack(events: readonly RunEvent[]): ReadonlySet<string> {
  const by = new Map<string, string[]>();
  for (const event of events)
    if (event.kind === 'taken-back') by.set(event.eventId, [...(by.get(event.eventId) ?? []), event.id]);
  // Two that take each other back do so from the outer one on: whoever is asked again says no.
  const gone = (id: string, asked: readonly string[]): boolean =>
    !asked.includes(id) && (by.get(id) ?? []).some((other) => !gone(other, [...asked, id]));
  return new Set([...by.keys()].filter((id) => gone(id, [])));
}

/**
 * What stands, from all that happened: the same for the same events, on every device and in whatever order they come.
 * What was taken back never was; a taking back that is itself taken back was not either.
 * @returns null while the event with the plan has not come
 */
export function foldRun(events: readonly RunEvent[]): Run | null {
  const ordered = inOrder(events);
  const first = ordered.find(({ event }) => event.kind === 'run-begun');
  if (first?.event.kind !== 'run-begun') return null;
  const gone = takenBack(events);
  const begun: Run = {
    planId: first.event.planId,
    plan: unfilePlan(first.event.plan),
    learned: first.event.learned ?? null,
    begunAt: first.at,
    paused: false,
    finishedAt: null,
    putIn: [],
    steps: {},
    seen: [],
    air: [],
    outcomes: {},
    verdicts: {},
    notes: [],
    photos: [],
    used: [],
    details: null,
  };
  return ordered.reduce((run, { event, at }) => (gone.has(event.id) ? run : after(run, event, at)), begun);
}
