export { isWeighed, momentOf, onTables, planSoFar } from './basis';
export * from './types';
