import { type Answer, type Known, type StepDone } from '@zaffet/core/basis';
import { celsiusToKelvin, umToMetres } from '@zaffet/core/units';
import { type PlanStep } from '@zaffet/contract';
import { PREP_STEPS } from '@zaffet/core/plan';
import { type Run, stepKey, type StepRun } from './fold';

/** Which coat of a seal stands for its buffing: the one after the last. */
export const buffCoat = (step: PlanStep): number => (step.kind === 'seal' ? step.coats : 1);

/** What a run says of one part, in the core's terms: moments in s from the plan's start. */
export function knownOf(run: Run, partId: string, now: number): Known {
  const start = Date.parse(run.plan.startsAt);
  const moment = (at: number): number => (at - start) / 1000;
  const part = run.plan.piece.parts.find(({ id }) => id === partId);
  const steps = run.plan.finishes.find(({ id }) => id === part?.finish)?.steps ?? [];
  const begun = (id: string, coat = 0): StepRun | null => {
    const one = run.steps[stepKey(partId, id, coat)];
    return one?.begunAt == null ? null : one;
  };
  const done: Record<string, StepDone> = {};
  for (const stage of PREP_STEPS) {
    const one = begun(stage);
    if (one !== null) done[stage] = { from: moment(one.begunAt!), until: ended(one) };
  }
  function ended({ doneAt }: StepRun): number | null {
    return doneAt === null ? null : moment(doneAt);
  }
  for (const step of steps) {
    const one = begun(step.id);
    if (one === null) continue;
    const coats = coatsOf(step, (coat) => begun(step.id, coat));
    const buffed = step.kind === 'seal' ? begun(step.id, buffCoat(step)) : null;
    done[step.id] = {
      from: moment(one.begunAt!),
      until: ended(coats.at(-1) ?? one),
      ...(coats.length < 2 ? {} : { coats: coats.map(({ begunAt }) => moment(begunAt!)) }),
      ...(buffed === null ? {} : { buffAt: moment(buffed.begunAt!) }),
      ...(one.thicknessUm === null ? {} : { thickness: umToMetres(one.thicknessUm) }),
      ...(one.passes === null ? {} : { passes: one.passes }),
    };
  }
  const answers = run.seen
    .filter((one) => one.partId === partId)
    .map(({ stepId, at, after, before, now: told }): Answer => ({
      stepId,
      at: moment(at),
      after,
      before,
      now: told,
    }));
  const { draughtMS, altitudeM } = run.plan.air;
  // Of two readings of one moment the later told counts.
  const read = new Map(run.air.map((one) => [one.at, one]));
  const air = [...read.values()]
    .sort((a, b) => a.at - b.at)
    .map(({ at, temperatureC, humidity }) => ({
      from: moment(at),
      temperature: celsiusToKelvin(temperatureC),
      humidity,
      speed: draughtMS,
      altitude: altitudeM,
    }));
  return { now: moment(now), done, answers, air };
}

/** The coats of a seal, or pieces of long work, that were begun, one after the other. */
function coatsOf(step: PlanStep, begun: (coat: number) => StepRun | null): StepRun[] {
  const coats: StepRun[] = [];
  for (let coat = 0; coat < buffCoat(step) || step.kind === 'companion'; coat++) {
    const one = begun(coat);
    if (one === null) break;
    coats.push(one);
  }
  return coats;
}

/** What a run says of all its parts. */
export const knownOfAll = (run: Run, now: number): Readonly<Record<string, Known>> =>
  Object.fromEntries(run.plan.piece.parts.map(({ id }) => [id, knownOf(run, id, now)]));
