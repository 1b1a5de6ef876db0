export { type Finding, FINDING_CODES, type FindingCode, FINDING_LEVELS, type FindingLevel } from './codes';
export { MAX_PASSES } from './limits';
export { notesOf } from './notes';
export { restraint, type RestraintCode } from './restraint';
