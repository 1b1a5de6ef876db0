export { beliefNow, type Beliefs, benchOf } from './bench';
export * from './types';
export { type Alarm, ALARM_KINDS, type AlarmKind, alarmsOf, due } from './alarms';
