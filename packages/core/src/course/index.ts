export { courseOf, cracksOfRun } from './course';
export { tooThickToTell, TRIED } from './cracks';
export { bleachWetFor, JETS } from './forces';
export { tackyShare } from './films';
export { handsOn } from './hands';
export { advance, begin, earliest, runSteps, type RunState } from './runner';
export { waxManner } from './states';
export * from './types';
