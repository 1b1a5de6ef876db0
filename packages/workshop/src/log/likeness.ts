import { isFilmStep, type Plan, type PlanStep, tintOf } from '@zaffet/contract';
import { when } from '../create';
import { SCHOOL_KEYS, SCHOOL_STEPS, type School } from '../schools';

/** What a step adds to a way of working: with what, never how much or when. */
function marksOf(step: PlanStep, media: Plan['media']): string[] {
  if (isFilmStep(step))
    return [`${step.kind} ${media.find(({ key }) => key === step.medium)?.like ?? step.medium}`];
  if (step.kind === 'resist') return [`resist ${step.agent}`];
  if (step.kind === 'distress') return [`distress ${step.tool}${tintOf(step) === null ? '' : ' tinted'}`];
  if (step.kind === 'heat') return [`heat ${step.tool}`];
  return step.kind === 'wait' || step.kind === 'companion' ? [] : [step.kind];
}

const marks = (steps: readonly PlanStep[], media: Plan['media']): ReadonlySet<string> =>
  new Set(steps.flatMap((step) => marksOf(step, media)));

let schools: ReadonlyMap<School, ReadonlySet<string>> | null = null;
function schoolMarks(): ReadonlyMap<School, ReadonlySet<string>> {
  let n = 0;
  schools ??= new Map(
    SCHOOL_KEYS.map((key) => [
      key,
      marks(
        SCHOOL_STEPS[key](() => `like-${++n}`, when('recoat')),
        [],
      ),
    ]),
  );
  return schools;
}

/** What two have in common has to be more than this to be a likeness: a share of all that either has. */
const LEAST = 0.5;

/** The way of working that steps are most like, by what they are done with (Jaccard's index); null where none is near. */
export function schoolOf(steps: readonly PlanStep[], media: Plan['media']): School | null {
  const own = marks(
    steps.filter(({ off }) => !off),
    media,
  );
  let best: { readonly key: School; readonly like: number } | null = null;
  for (const [key, theirs] of schoolMarks()) {
    const both = [...own].filter((mark) => theirs.has(mark)).length;
    const like = both / (own.size + theirs.size - both);
    if (like > LEAST && (best === null || like > best.like)) best = { key, like };
  }
  return best?.key ?? null;
}
