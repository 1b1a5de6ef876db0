import { type Course } from '../course';
import { type Learned } from '../media';
import { type Outcome, removalsBy } from '../outcome';
import { type AddFinding, type Finding, FINDING_LEVELS } from './codes';
import { materialRules } from './materials';
import { momentRules } from './moments';
import { outcomeRules } from './outcome';
import { safetyStops, workingRules } from './working';

/** Findings that rules add, in the order they come. */
function foundBy(rules: (add: AddFinding) => void): Finding[] {
  const found: Finding[] = [];
  rules((code, level, stepId, values = {}) => void found.push({ code, level, stepId, values }));
  return found;
}

/** What a plan says of its moments and materials, whatever comes of it. */
const courseNotes = (course: Course): Finding[] =>
  foundBy((add) => {
    safetyStops(course, add);
    momentRules(course, add);
    materialRules(course, add);
  });

/** What a plan says of its moments, materials and tools, before it is worked out what comes of it. */
export const earlyNotes = (course: Course, learned: Learned | null): Finding[] => [
  ...courseNotes(course),
  ...foundBy((add) => workingRules(course, removalsBy(course, learned), add)),
];

/** What a plan says about itself, most urgent first; the rules are common practice. */
export function notesOf(course: Course, outcome: Outcome): Finding[] {
  const found = [
    ...courseNotes(course),
    ...foundBy((add) => {
      outcomeRules(course, outcome, add);
      workingRules(course, outcome.removals, add);
    }),
  ];
  return found.sort((a, b) => FINDING_LEVELS.indexOf(a.level) - FINDING_LEVELS.indexOf(b.level));
}
