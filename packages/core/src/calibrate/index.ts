export { asRead, readingsOf, SCATTER } from './answers';
export { calibrate, foretell, leaveOneOut, type LeftOut } from './calibrate';
export { type Candidate, chooseCells } from './next';
export * from './types';
