export * from './field/index';
export {
  closedShare,
  crackLaw,
  crackTimes,
  type CrackInput,
  forcedStrain,
  type Hold,
  openingHistory,
} from './law';
export { crackPattern, lawWhereItCracks } from './pattern';
export { type CrackLaw, type CrackPattern, type CrackTimes } from './types';
