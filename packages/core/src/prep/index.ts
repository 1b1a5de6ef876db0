export {
  type Beginning,
  beginningOf,
  type Circumstances,
  type PrepHint,
  prepHints,
  type PrepReason,
} from './prep';
