import { isFilmStep } from '@zaffet/contract';
import { type Run, stepKey } from '../runs/fold';
import { type Bench } from './types';

/** One thing that was planned, and how it was done. Moments in ms since 1970. */
export interface RecordLine {
  readonly key: string;
  readonly partId: string;
  readonly stepId: string;
  readonly plannedAt: number | null;
  readonly begunAt: number | null;
  readonly doneAt: number | null;
  /** How much later it was begun than planned [ms]; null where one of the two is not known. */
  readonly late: number | null;
  readonly skipped: string | null;
  /** Wet film [µm] and strokes: meant, and as told. */
  readonly film: { readonly meant: number; readonly told: number | null } | null;
  readonly passes: { readonly meant: number; readonly told: number | null } | null;
}

/** What was planned beside what was done, part by part. */
export function recordOf(run: Run, { parts }: Pick<Bench, 'parts'>): RecordLine[] {
  const steps = run.plan.finishes.flatMap(({ steps: own }) => own);
  return parts.flatMap(({ tasks }) =>
    tasks.flatMap(({ key, partId, stepId, topId, plannedAt }): RecordLine[] => {
      const line = (id: string, told = run.steps[stepKey(partId, id)]): RecordLine => {
        const step = steps.find((one) => one.id === id);
        const film = step !== undefined && isFilmStep(step) ? step : null;
        const begunAt = told?.begunAt ?? null;
        return {
          key: id === stepId ? key : stepKey(partId, id),
          partId,
          stepId: id,
          plannedAt: id === stepId ? plannedAt : null,
          begunAt,
          doneAt: told?.doneAt ?? null,
          late: begunAt === null || plannedAt === null || id !== stepId ? null : begunAt - plannedAt,
          skipped: told?.skipped ?? null,
          film: film === null ? null : { meant: film.thicknessUm, told: told?.thicknessUm ?? null },
          passes: film === null ? null : { meant: film.passes, told: told?.passes ?? null },
        };
      };
      return [line(stepId, run.steps[key]), ...(topId === null ? [] : [line(topId)])];
    }),
  );
}
