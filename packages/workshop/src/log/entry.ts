import {
  isFilmStep,
  type LogColour,
  type LogEntry,
  type PlanStep,
  type Verdict,
  VERDICT_TIMES,
} from '@zaffet/contract';
import { isClear, medium } from '@zaffet/core/media';
import { meantFinishes } from '../partPlan';
import { type Run } from '../runs/fold';
import { schoolOf } from './likeness';

/** A step that was left open over night was not worked at so long [ms]. */
const LONGEST = 4 * 3_600_000;
const HOUR = 3_600_000;

const meanOf = (values: readonly (number | null | undefined)[]): number | null => {
  const told = values.filter((value): value is number => value != null);
  return told.length === 0 ? null : told.reduce((sum, value) => sum + value, 0) / told.length;
};

/** Work with the hands, from when steps were begun and done; null where neither was told. */
function handsOf({ steps }: Run): number | null {
  const all = Object.values(steps).flatMap(({ begunAt, doneAt }) =>
    begunAt === null || doneAt === null || doneAt <= begunAt ? [] : [Math.min(LONGEST, doneAt - begunAt)],
  );
  return all.length === 0 ? null : all.reduce((sum, ms) => sum + ms, 0) / HOUR;
}

/** Finishes that some part got. */
const finishesOf = ({ plan }: Run): ReturnType<typeof meantFinishes> =>
  meantFinishes(plan).filter(({ id }) => plan.piece.parts.some(({ finish }) => finish === id));

/** What was done, or meant to be, each step once. */
export const stepsDone = (run: Run): PlanStep[] =>
  finishesOf(run).flatMap(({ steps }) => steps.filter(({ off }) => !off));

/** Nothing of it was told at the bench. */
export const toldAfterwards = (run: Run): boolean =>
  run.finishedAt !== null && Object.values(run.steps).every(({ begunAt }) => begunAt === null);

function coloursOf(steps: readonly PlanStep[], media: Run['plan']['media']): LogColour[] {
  const all = new Map<string, LogColour>();
  for (const step of steps) {
    if (!isFilmStep(step) || isClear(medium(likeOf(step.medium, media)))) continue;
    const told = { name: step.colourName, hex: step.colour };
    all.set(`${told.name} ${told.hex}`, told);
  }
  return [...all.values()];
}
const likeOf = (key: string, media: Run['plan']['media']): string =>
  media.find((own) => own.key === key)?.like ?? key;

/** What the log tells of a run at a glance. */
export function entryOf(runId: string, run: Run): LogEntry {
  const { plan, outcomes, verdicts, details } = run;
  const steps = stepsDone(run);
  const outcome = Object.values(outcomes);
  const afterwards = toldAfterwards(run);
  const told = VERDICT_TIMES.flatMap((when) => verdicts[when] ?? []);
  const last = (values: readonly (Verdict | null)[]): Verdict | null =>
    values.findLast((value) => value !== null) ?? null;
  const airOf = (key: 'temperatureC' | 'humidity'): number | null =>
    meanOf(run.air.map((one) => one[key])) ?? (afterwards ? null : plan.air[key]);
  return {
    runId,
    name: plan.name,
    piece: plan.piece.name,
    parts: plan.piece.parts.map(({ name }) => name),
    begunAt: new Date(run.begunAt).toISOString(),
    finishedAt: run.finishedAt === null ? null : new Date(run.finishedAt).toISOString(),
    afterwards,
    schools: [...new Set(finishesOf(run).flatMap((finish) => schoolOf(finish.steps, plan.media) ?? []))],
    media: [...new Set(steps.filter(isFilmStep).map((step) => likeOf(step.medium, plan.media)))],
    colours: coloursOf(steps, plan.media),
    spacingMm: meanOf(outcome.map(({ spacingMm }) => spacingMm)),
    openingMm: meanOf(outcome.map(({ openingMm }) => openingMm)),
    chipped: meanOf(outcome.map(({ chipped }) => chipped)),
    worn: meanOf(outcome.map(({ worn }) => worn)),
    verdict: last(told.map(({ verdict }) => verdict)),
    next: told.findLast(({ text }) => text !== '')?.text ?? '',
    forWhom: details?.forWhom ?? '',
    fate: details?.fate ?? null,
    price: details?.price ?? null,
    cost: details?.cost ?? null,
    hours: details?.hours ?? handsOf(run),
    temperatureC: airOf('temperatureC'),
    humidity: airOf('humidity'),
    photos: [...run.photos].sort((a, b) => a.at - b.at).map(({ hash, when }) => ({ hash, when })),
  };
}
