export { courseOf, courseOfRun, cracksOfRun } from './course';
export { tooThickToTell, TRIED } from './cracks';
export { bleachWetFor, dampAt, isSoftened, JETS, leaves } from './forces';
export { tackyShare } from './films';
export { atPiece, handsOn, PACE, working } from './hands';
export { advance, begin, earliest, runSteps, type RunState } from './runner';
export { type WaxManner, waxManner, WIPED_BY, windowOf } from './states';
export * from './types';
