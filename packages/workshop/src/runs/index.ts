export {
  foldRun,
  type Run,
  type RunNote,
  type RunPhoto,
  type Seen,
  stepKey,
  type StepRun,
  takenBack,
  withPutIn,
} from './fold';
export { buffCoat, knownOf, knownOfAll } from './known';
export { inOrder, type Timely } from './order';
