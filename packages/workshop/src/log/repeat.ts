import {
  type Finish,
  isFilmStep,
  LIMITS,
  type Limit,
  type Part,
  plainText,
  type Plan,
  type PlanStep,
} from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { carriedOut } from '../bench/carriedOut';
import { carriedOutAtEnd } from '../boards/photo';
import { NO_TIMING } from '../newPlan';
import { type Run, stepKey } from '../runs/fold';

/** How much larger each side of the piece is than last time. */
export interface Again {
  readonly name: string;
  readonly startsAt: string;
  readonly byWidth: number;
  readonly byHeight: number;
}

const within = (value: number, { min, max, step }: Limit): number =>
  Math.min(max, Math.max(min, Math.round(value / step) * step));
const MINUTE = 60_000;

/** A step as it was done: how thick, how many strokes, thinned by what was added, after what wait by the clock. */
function asDone(run: Run, part: Part, step: PlanStep, before: PlanStep | null): PlanStep {
  const told = run.steps[stepKey(part.id, step.id)];
  const note = noteFor(run, part, step);
  const noted = note === '' ? step : { ...step, note };
  if (told === undefined) return noted;
  const start = startAsDone(run, part, step, before);
  if (!isFilmStep(noted)) return { ...noted, start };
  const thicknessUm = told.thicknessUm ?? noted.thicknessUm;
  // So many µm on a square metre are as many mL.
  const laidMl = (thicknessUm * part.widthMm * part.heightMm) / 1e6;
  return {
    ...noted,
    start,
    thicknessUm: within(thicknessUm, LIMITS.thicknessUm),
    passes: within(told.passes ?? noted.passes, LIMITS.passes),
    dilution: within(noted.dilution + told.addedMl / laidMl, LIMITS.dilution),
  };
}

/** A start this close to the moment that its rule gives was by the rule [min]. */
const BY_RULE = 10;

/**
 * Waits by the clock become what they were. One for a state of the film below is for that state again, in whatever air,
 * and for as long after it as then; a start before that state becomes a wait by the clock.
 */
function startAsDone(
  run: Run,
  part: Part,
  { id, start }: PlanStep,
  before: PlanStep | null,
): PlanStep['start'] {
  if (start.rule === 'at') return { rule: 'state', state: 'recoat', waitMin: 0 };
  const begunAt = run.steps[stepKey(part.id, id)]?.begunAt ?? null;
  const ended = before === null ? null : (run.steps[stepKey(part.id, before.id)]?.doneAt ?? null);
  if (begunAt === null || ended === null || begunAt < ended) return start;
  const waited = within((begunAt - ended) / MINUTE, LIMITS.waitMin);
  if (start.rule === 'after') return { ...start, waitMin: waited };
  const later = (begunAt - byRule(run, part.id, id, begunAt)) / MINUTE;
  if (Math.abs(later) < BY_RULE) return start;
  return later > 0
    ? { ...start, waitMin: within(start.waitMin + later, LIMITS.waitMin) }
    : { rule: 'after', waitMin: waited };
}

/** When a step would have begun by its rule, after all that was done before it [ms since 1970]. */
function byRule(run: Run, partId: string, stepId: string, begunAt: number): number {
  const earlier = Object.entries(run.steps).filter(
    ([, one]) => one.begunAt === null || one.begunAt < begunAt,
  );
  const { basis } = carriedOut({ ...run, steps: Object.fromEntries(earlier) }, partId, begunAt);
  const times = forecast(basis(run.learned)).times.find(({ step }) => step.id === stepId);
  return times === undefined ? begunAt : Date.parse(run.plan.startsAt) + times.from * 1000;
}

/** What was written down at a step, on this part or on all. */
function noteFor(run: Run, part: Part, step: PlanStep): string {
  const told = run.notes.filter(
    ({ stepId, partId }) => stepId === step.id && (partId === null || partId === part.id),
  );
  const mixed = run.steps[stepKey(part.id, step.id)]?.mix ?? null;
  const lines = [
    step.note ?? '',
    ...told.map(({ text }) => text),
    mixed === null || mixed === 'as-meant' ? '' : `the mix was ${mixed} than meant`,
  ];
  return plainText(lines.filter((line) => line !== '').join('; '), LIMITS.noteLength.max);
}

/** What to do otherwise, as it was told last: at the first step, where work begins. */
function withNextTime(steps: readonly PlanStep[], run: Run): PlanStep[] {
  const next = Object.values(run.verdicts).findLast(({ text }) => text !== '')?.text ?? '';
  return steps.map((step, i) =>
    i > 0 || next === ''
      ? step
      : {
          ...step,
          note: plainText([next, step.note ?? ''].filter(Boolean).join('; '), LIMITS.noteLength.max),
        },
  );
}

/**
 * A new plan of what was done, not of what was meant: on the same piece, or on one of other size. What was written down
 * last time stands at its steps.
 * @param id - makes ids that are new
 * @throws InputError as `forecast`
 */
export function repeated(run: Run, { name, startsAt, byWidth, byHeight }: Again, id: () => string): Plan {
  const { plan } = run;
  const finishes: Finish[] = [];
  const parts = plan.piece.parts.map((part): Part => {
    const given = plan.finishes.find((finish) => finish.id === part.finish)!;
    const done = carriedOutAtEnd(run, part.id).plan.steps;
    const steps = withNextTime(
      done.map((step, i) => asDone(run, part, step, done[i - 1] ?? null)),
      run,
    );
    const same = finishes.find((finish) => alike(finish.steps, steps) && finish.name.startsWith(given.name));
    const news = new Map(steps.map((step) => [step.id, id()]));
    const finish = same ?? {
      ...given,
      id: id(),
      name: finishes.some((one) => one.name === given.name)
        ? plainText(`${given.name}, ${part.name}`)
        : given.name,
      whatIfOf: null,
      steps: steps.map((step) => ({ ...step, id: news.get(step.id)! })),
    };
    if (same === undefined) finishes.push(finish);
    // A map goes with its step.
    const maps = Object.fromEntries(
      steps.flatMap((step, i) => {
        const map = part.maps[step.id];
        return map === undefined ? [] : [[finish.steps[i]!.id, map]];
      }),
    );
    return scaled({ ...part, id: id(), finish: finish.id, maps }, byWidth, byHeight);
  });
  return {
    ...plan,
    name: plainText(name),
    startsAt,
    piece: { ...plan.piece, parts },
    finishes: finishes.map((finish) => ({ ...finish, look: { ...finish.look, shows: {} } })),
    timing: { ...NO_TIMING, prepares: plan.timing.prepares },
  };
}

/** Two lists of steps that say the same, whatever they are called. */
const alike = (a: readonly PlanStep[], b: readonly PlanStep[]): boolean =>
  JSON.stringify(a.map(nameless)) === JSON.stringify(b.map(nameless));
const nameless = ({ id: _, ...step }: PlanStep): Omit<PlanStep, 'id'> => step;

/** A part of other size, with its places where they were. */
function scaled(part: Part, byWidth: number, byHeight: number): Part {
  const size = (value: number, by: number): number => within(value * by, LIMITS.sideMm);
  const [widthMm, heightMm] = [size(part.widthMm, byWidth), size(part.heightMm, byHeight)];
  const [wide, high] = [widthMm / part.widthMm, heightMm / part.heightMm];
  return {
    ...part,
    widthMm,
    heightMm,
    zones: part.zones.map((zone) => ({
      ...zone,
      leftMm: within(zone.leftMm * wide, LIMITS.placeMm),
      topMm: within(zone.topMm * high, LIMITS.placeMm),
      widthMm: within(zone.widthMm * wide, LIMITS.zoneMm),
      heightMm: within(zone.heightMm * high, LIMITS.zoneMm),
    })),
  };
}
