export { measureLuma, measurePhoto } from './measure';
export { rectified } from './rectify';
export * from './types';
