export * from './field/index';
export { closedShare, crackLaw, crackTimes, type CrackInput, type Hold, openingHistory } from './law';
export { crackPattern } from './pattern';
export { type CrackLaw, type CrackPattern, type CrackTimes } from './types';
