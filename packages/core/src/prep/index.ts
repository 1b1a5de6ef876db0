export { type Circumstances, type PrepHint, prepHints, type PrepReason } from './prep';
