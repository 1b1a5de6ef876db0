export { beliefNow, type Beliefs, benchOf } from './bench';
export * from './types';
