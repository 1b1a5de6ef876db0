export { uniform } from './hash';
export { normalQuantile } from './normal';
