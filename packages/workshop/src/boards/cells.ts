import { isFilmStep } from '@zaffet/contract';
import { type Basis } from '@zaffet/core/basis';
import { type Cell, type Reading } from '@zaffet/core/calibrate';
import { courseOf } from '@zaffet/core/course';
import { forecast } from '@zaffet/core/forecast';
import { type LiveState } from '@zaffet/core/live';
import { topPaint } from '@zaffet/core/outcome';
import { buffCoat } from '../runs/known';
import { type Run, stepKey } from '../runs/fold';
import { crackingSteps } from './taught';
import { carriedOutAtEnd, lastDone } from './photo';

/** When a coat came into a state, as somebody told who saw it happen [s since it was laid]; null where nobody did. */
function seenNow(run: Run, partId: string, stepId: string, state: LiveState): number | null {
  const step = run.plan.finishes.flatMap(({ steps }) => steps).find(({ id }) => id === stepId);
  const last = step !== undefined && step.kind === 'seal' ? buffCoat(step) - 1 : 0;
  const laid = run.steps[stepKey(partId, stepId, last)]?.begunAt ?? null;
  const seen = run.seen.findLast(
    (one) => one.partId === partId && one.stepId === stepId && one.after === state && one.now,
  );
  return laid === null || seen === undefined || seen.at <= laid ? null : (seen.at - laid) / 1000;
}

/** Share on which colours below the top one show, from the shares that were seen; null where they do not say. */
function underOf(shares: Readonly<Record<string, number>>, basis: Basis): number | null {
  const top = topPaint(forecast(basis));
  const sum = Object.values(shares).reduce((all, share) => all + share, 0);
  if (top === null || Object.keys(shares).length === 0) return null;
  const seen = shares[top];
  // Where the top colour was left out, the others are all that shows below it.
  if (seen === undefined) return Math.min(1, sum);
  return Object.keys(shares).length === 1 || sum <= 0 ? 1 - seen : 1 - seen / sum;
}

/**
 * What a run teaches: every part of which something was measured or seen as it happened, as it was really carried out.
 * @throws InputError as `forecast`
 */
export function cellsOf(runId: string, run: Run): Cell[] {
  return run.plan.piece.parts.flatMap(({ id: partId }): Cell[] => {
    if (lastDone(run, partId) === null) return [];
    const { plan, basis } = carriedOutAtEnd(run, partId);
    const cracking = crackingSteps(plan);
    const on = basis(null);
    const films = courseOf(on).films.map(({ step }) => step.id);
    // Of a finish that does not crack it is what lies on top that is worked on.
    const top = cracking?.top.id ?? films.at(-1);
    if (top === undefined) return [];
    const below = films[films.indexOf(top) - 1] ?? null;
    const outcome = run.outcomes[partId];
    const mm = (value: number | null | undefined): number | null => (value == null ? null : value / 1000);
    const read: Record<Reading, number | null> = {
      spacing: cracking === null ? null : mm(outcome?.spacingMm),
      opening: cracking === null ? null : mm(outcome?.openingMm),
      first: seenNow(run, partId, top, 'first-cracks'),
      touchBelow: below === null ? null : seenNow(run, partId, below, 'touch'),
      touchTop: seenNow(run, partId, top, 'touch'),
      chips: outcome?.chipped ?? null,
      worn: outcome?.worn ?? null,
      under: outcome?.shares === undefined ? null : underOf(outcome.shares, on),
    };
    const told = Object.fromEntries(Object.entries(read).filter(([, value]) => value !== null));
    const cracked = cracking === null ? null : (outcome?.cracked ?? null);
    if (Object.keys(told).length === 0 && cracked === null) return [];
    return [{ id: `${runId} ${partId}`, board: runId, basis: on, top, read: told, cracked }];
  });
}

/** Whether a run has anything to teach: something was measured, or seen as it happened. */
export const teaches = (run: Run): boolean =>
  Object.keys(run.outcomes).length > 0 ||
  run.seen.some(({ now, after, stepId }) => now && after !== null && isLaid(run, stepId));

const isLaid = (run: Run, stepId: string): boolean =>
  run.plan.finishes.some(({ steps }) => steps.some((step) => step.id === stepId && isFilmStep(step)));
