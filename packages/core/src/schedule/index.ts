export { type PartTask } from './alone';
export { followed, type Followed, type FollowedTask, type Meant } from './follow';
export {
  MINUTE_KEYS,
  MINUTE_RANGE,
  type MinuteKey,
  MINUTES,
  type Minutes,
  minutesOf,
  PREP_MINUTES,
  type PrepMinutes,
} from './minutes';
export { retimer, schedule } from './schedule';
export { isTight, longPauseOf, type Sums, sumsOf } from './sums';
export { type Sections, sectionsOf } from './tasks';
export * from './types';
