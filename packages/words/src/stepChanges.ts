import { isFilmStep, type PlanStep, type UnitSystem } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { basisOf, type PartPlan } from '@zaffet/workshop';
import { duration } from './format';
import { startWords, stepTitle } from './names';
import { stepClauses } from './stepDetail';

type StepsPlan = Pick<PartPlan, 'steps' | 'media' | 'part'>;

/** A window shorter than this has to be prepared for [s]. */
const SHORT_WINDOW = 3600;

/**
 * What a painter has to do differently when the steps of a plan are replaced: one sentence for each step that changes,
 * goes or comes, in the order of work.
 */
export function stepChanges(before: StepsPlan, after: StepsPlan, units: UnitSystem): string[] {
  const left = before.steps.filter(({ off }) => !off);
  const lines: string[] = [];
  for (const step of after.steps.filter(({ off }) => !off)) {
    const title = stepTitle(step, after.media);
    const at = left.findIndex((earlier) => isSameWork(earlier, step));
    if (at < 0) {
      const clauses = clausesOf(step, after, units).filter((clause) => clause !== title);
      lines.push(`New: ${[title, ...clauses].join(', ')}.`);
      continue;
    }
    const [earlier] = left.splice(at, 1);
    const was = clausesOf(earlier!, before, units);
    const now = clausesOf(step, after, units);
    const gone = was.filter((clause) => !now.includes(clause));
    const come = now.filter((clause) => !was.includes(clause));
    const changed = come.length === 0 ? `no longer ${gone.join(', ')}` : come.join(', ');
    const earlierText = come.length === 0 || gone.length === 0 ? '' : ` (was ${gone.join(', ')})`;
    if (gone.length + come.length > 0) lines.push(`${title}: ${changed}${earlierText}.`);
  }
  const removed = left.map((step) => `Goes: ${stepTitle(step, before.media)}.`);
  return [...removed, ...lines];
}

const clausesOf = (step: PlanStep, plan: StepsPlan, units: UnitSystem): string[] => [
  ...stepClauses(step, plan, units),
  startWords(step.start),
];

/** Whether two steps are the same work, so that their numbers can be compared. */
function isSameWork(a: PlanStep, b: PlanStep): boolean {
  if (a.id === b.id) return true;
  if (a.kind !== b.kind) return false;
  if (isFilmStep(a) && isFilmStep(b))
    return a.colour === b.colour && (a.colourName !== '' || a.medium === b.medium);
  return stepTitle(a) === stepTitle(b);
}

/** Windows of a plan that close within the hour, as sentences. */
export function shortWindows(plan: PartPlan): string[] {
  return forecast(basisOf(plan)).coats.flatMap(({ window, laidAt, coat }, i, coats) => {
    const next = coats[i + 1];
    if (next === undefined || window?.closesAt == null) return [];
    const open = window.closesAt - laidAt;
    if (open > SHORT_WINDOW) return [];
    return [
      `You have ${duration(open)} to lay ${titleIn(plan, next.coat.id)} over ${titleIn(plan, coat.id)}.`,
    ];
  });
}

const titleIn = ({ steps, media }: PartPlan, id: string): string =>
  stepTitle(
    steps.find((step) => step.id === id)!,
    media,
  );
