export { uniform } from './hash';
export { EIGHTY_PER_CENT, normalQuantile } from './normal';
