import { type Answer, type Known, type StepDone } from '@zaffet/core/basis';
import { celsiusToKelvin, umToMetres } from '@zaffet/core/units';
import { type Run, stepKey } from './fold';

/** What a run says of one part, in the core's terms: moments in s from the plan's start. */
export function knownOf(run: Run, partId: string, now: number): Known {
  const start = Date.parse(run.plan.startsAt);
  const moment = (at: number): number => (at - start) / 1000;
  const part = run.plan.piece.parts.find(({ id }) => id === partId);
  const steps = run.plan.finishes.find(({ id }) => id === part?.finish)?.steps ?? [];
  const done: Record<string, StepDone> = {};
  for (const { id } of steps) {
    const one = run.steps[stepKey(partId, id)];
    if (one?.begunAt == null) continue;
    done[id] = {
      from: moment(one.begunAt),
      until: one.doneAt === null ? null : moment(one.doneAt),
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

/** What a run says of all its parts. */
export const knownOfAll = (run: Run, now: number): Readonly<Record<string, Known>> =>
  Object.fromEntries(run.plan.piece.parts.map(({ id }) => [id, knownOf(run, id, now)]));
