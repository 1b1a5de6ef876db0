export { type Finding, FINDING_CODES, type FindingCode, FINDING_LEVELS, type FindingLevel } from './codes';
export { BUFFED_BY, HARD, MAX_PASSES, SPRAY_SOON } from './limits';
export { earlyNotes, notesOf } from './notes';
export { restraint, type RestraintCode } from './restraint';
