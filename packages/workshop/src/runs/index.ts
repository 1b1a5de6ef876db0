export { foldRun, type Run, type Seen, stepKey, type StepRun } from './fold';
export { knownOf, knownOfAll } from './known';
export { inOrder, type Timely } from './order';
