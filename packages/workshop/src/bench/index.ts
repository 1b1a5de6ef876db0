export { asBelieved } from './asBelieved';
export { beliefNow, type Beliefs } from './beliefs';
export { benchOf } from './bench';
export * from './types';
export { isWaiting } from './windows';
export { type Alarm, ALARM_KINDS, type AlarmKind, alarmsOf, due } from './alarms';
export {
  type Cause,
  causesOf,
  type Outcome,
  type RankedCause,
  type Rescue,
  rescuesFor,
  type Wrong,
  WRONGS,
} from './rescue';
export { type RecordLine, recordOf } from './record';
