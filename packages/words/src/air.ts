import { type AirOrigin } from '@zaffet/contract';
import { type AirEffects, type Answer, type OtherAir } from '@zaffet/workshop';
import { duration } from './format';

/** Where the air over a plan's days comes from, as a line of its own. */
export const AIR_ORIGIN_WORDS: Readonly<Record<AirOrigin, string>> = {
  told: 'told by hand',
  file: 'from a file of readings',
  readings: 'as instruments read it, then simulated',
  'simulated-forecast': 'a simulated forecast',
};

/** What answers to the air. */
export const ANSWER_WORDS: Readonly<Record<Answer, string>> = {
  touch: 'touch-dry after',
  next: 'next coat within',
  work: 'can be worked for',
  buff: 'can be buffed for',
};

export const OTHER_AIR_WORDS: Readonly<Record<OtherAir, string>> = {
  steady: 'If it stayed so',
  damp: 'On damp days',
  dry: 'On dry days',
};

/** What damp and dry days do, in a sentence; '' where nothing is told. */
export function airSentence({ effects, later }: AirEffects, nameOf: (stepId: string) => string): string {
  const windows = effects.filter(
    ({ answer, other }) => answer !== 'touch' && other.damp !== null && other.dry !== null,
  );
  const tight = [...windows].sort((a, b) => a.lasts - b.lasts)[0];
  const parts: string[] = [];
  if (tight !== undefined)
    parts.push(
      `${nameOf(tight.stepId)} waits ${duration(tight.lasts)} for what goes on it: ${duration(tight.other.damp!)} on damp days, ${duration(tight.other.dry!)} on dry ones`,
    );
  const days = (seconds: number): string =>
    Math.abs(seconds) < 600
      ? 'no later'
      : `${duration(Math.abs(seconds))} ${seconds > 0 ? 'later' : 'sooner'}`;
  if (later.damp === null) parts.push('on damp days something never dries');
  else if (later.dry !== null)
    parts.push(`all is ready ${days(later.damp)} on damp days, ${days(later.dry)} on dry ones`);
  const text = parts.join('; ');
  return text === '' ? '' : `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
}
