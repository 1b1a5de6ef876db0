export { PREP_STEPS, type PrepHint, prepHints, type PrepReason, type PrepStep } from './prep';
