export {
  compareRun,
  type ComparedFigure,
  type ComparedPart,
  type Kept,
  keptOf,
  MEASURED_FIGURES,
  type MeasuredFigure,
} from './compare';
export { entryOf, stepsDone, toldAfterwards } from './entry';
export { schoolOf } from './likeness';
export { type Again, repeated } from './repeat';
export { talliesBy, type Tally, tallyOf } from './tally';
