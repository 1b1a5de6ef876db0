import {
  isFilmStep,
  type Plan,
  type PlanStep,
  type Weekday,
  WEEKDAYS,
  type WorkFile,
  type ClockFace,
  type UnitSystem,
  TIME_PATTERNS,
} from '@zaffet/contract';
import { type Facing } from '@zaffet/core/piece';
import { type PrepStep } from '@zaffet/core/plan';
import { type DelayCause, type Entry, type MinuteKey, type Obstacle } from '@zaffet/core/schedule';
import { colours, onWall, recipeOf, type Sitting, type Urgency, type Way } from '@zaffet/workshop';
import { format } from 'date-fns';
import { area, duration, SQUARE_FOOT } from './format';
import { layerWord, stepTitle } from './names';

/** How a shop's clock writes an instant [ms since 1970]. */
export interface WallClock {
  /** 14:05 */
  readonly time: (at: number) => string;
  /** Wed 14:05 */
  readonly dayTime: (at: number) => string;
}

/** The clock of a plan's shop; of UTC where nobody said where it is. */
export function wallClock({ work }: Pick<Plan, 'work'>, clock: ClockFace): WallClock {
  const zone = work?.zone ?? '+00:00';
  const written =
    (pattern: string) =>
    (at: number): string =>
      format(onWall(at, zone), pattern);
  return { time: written(TIME_PATTERNS[clock]), dayTime: written(`EEE ${TIME_PATTERNS[clock]}`) };
}

/** Moments with their day in a time zone: "Tue 12 May, 08:00". A zone that nobody knows is taken as UTC, and UTC is named. */
export function datedClock(zone: string, clock: ClockFace): (at: number) => string {
  const pattern = `EEE d MMM, ${TIME_PATTERNS[clock]}`;
  const isZone = !Number.isNaN(onWall(0, zone).getTime());
  return (at) => (isZone ? format(onWall(at, zone), pattern) : `${format(onWall(at, 'UTC'), pattern)} UTC`);
}

/** A stage of preparation in a word or two, for a line of a day. */
const PREP_SHORT: Readonly<Record<PrepStep, string>> = {
  'test-old-paint': 'test for lead',
  'take-off': 'take off hardware',
  mask: 'mask',
  'loosen-flakes': 'take off what is loose',
  degrease: 'degrease',
  dewax: 'take off the wax',
  'wait-oil': 'let the oil cure',
  'test-hold': 'test the hold',
  scuff: 'scuff',
  bond: 'bonding primer',
  'dry-wood': 'let the wood dry',
  'stop-tannin': 'stop the tannin',
  'seal-raw-wood': 'seal the wood',
  'seal-mdf': 'seal the board',
};

/** How urgent a sitting is, said so that it is not told by colour alone. */
export const URGENCY_WORDS: Readonly<Record<Urgency, string>> = {
  must: 'must not be late',
  should: 'others wait for it',
  may: 'may wait',
};

const UP: Readonly<Record<Facing, string>> = {
  top: 'upright',
  front: 'front up',
  left: 'left side up',
  right: 'right side up',
  back: 'back up',
  bottom: 'underside up',
  inside: 'inside up',
  loose: 'by itself',
};

const listed = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;

/** Names of the parts a sitting is for. */
export function partsOf({ work }: Pick<Sitting, 'work'>, { piece }: Plan): string {
  const ids = [...new Set(work.map(({ partId }) => partId))];
  return listed(
    ids.map((id) => (piece.parts.find((part) => part.id === id)?.name ?? 'a part').toLowerCase()),
  );
}

/** Work of a sitting, or of one task, as far as its title tells it. */
export interface Titled extends Pick<Sitting, 'kind' | 'step' | 'recipe'> {
  readonly work: readonly Pick<Entry, 'stepId' | 'prepares' | 'coat' | 'of'>[];
}

/** What is done in a sitting: "Kelp, base coat", "Glue and Sailcloth", "Mix Kelp". */
export function sittingTitle(sitting: Titled, plan: Plan): string {
  const { kind, work, step } = sitting;
  const [first] = work;
  if (kind === 'prepare') {
    const all = [...new Set(work.flatMap(({ prepares }) => prepares))].map((stage) => PREP_SHORT[stage]);
    const text = listed(all);
    return text.charAt(0).toUpperCase() + text.slice(1);
  }
  if (step === null || first === undefined) return '';
  const title = stepTitle(step, plan.media);
  const finish = plan.finishes.find(({ steps }) => steps.includes(step));
  const steps = finish?.steps.filter(({ off }) => !off) ?? [];
  switch (kind) {
    case 'mix':
      return `Mix ${potName(sitting, plan)}`;
    case 'buff':
      return `Buff ${title.toLowerCase()}`;
    case 'coat':
      return `${title}, coat ${first.coat + 1} of ${first.of}`;
    case 'piece':
      return `${title}, ${first.coat + 1} of ${first.of}`;
    case 'sections': {
      const over = steps[steps.indexOf(step) + 1];
      return over === undefined ? title : `${title} and ${stepTitle(over, plan.media)}`;
    }
    default: {
      if (step.kind !== 'coat') return title;
      const word = layerWord(steps, step.id, plan.media);
      return title.toLowerCase().includes(word) ? title : `${title}, ${word}`;
    }
  }
}

/** What a pot is called: by the colour of the step it is for. */
function potName({ recipe, work }: Titled, plan: Plan): string {
  const films = plan.finishes.flatMap(({ steps }) => steps).filter(isFilmStep);
  const own = films.flatMap(colours).find(({ step }) => recipe?.startsWith(recipeOf(step)) === true)?.step;
  const fallback = films.find(({ id }) => id === work[0]?.stepId);
  const step = own ?? fallback;
  return step === undefined ? 'a pot' : stepTitle(step, plan.media);
}

const DELAY_WORDS: Readonly<Record<DelayCause, string>> = {
  hours: 'nobody works earlier',
  hands: 'everybody is busy before',
  piece: 'the piece lies otherwise or is wet before',
  pot: 'its pot cannot be mixed earlier',
  order: 'something else comes first',
};
/** Delays that nobody needs a reason for [s]. */
const SHORT_DELAY = 1800;

/** How much later a step comes than the minutes its plan sets, and why; empty where it comes about then. */
export function delayText(
  { from, opens, delay, coat, kind }: Pick<Entry, 'from' | 'opens' | 'delay' | 'coat' | 'kind'>,
  step: Pick<PlanStep, 'start'>,
): string {
  const late = from - opens;
  const isStart = coat === 0 && kind !== 'buff' && step.start.rule === 'after';
  return !isStart || delay === null || late < SHORT_DELAY
    ? ''
    : `${duration(late)} later than planned: ${DELAY_WORDS[delay]}`;
}

/** How it is done, as far as the clock is concerned: sections, turning, cleaning. */
export function sittingDetail(sitting: Sitting, plan: Plan): string {
  const { work, turning, cleaning, kind } = sitting;
  const [first] = work;
  if (first === undefined || kind === 'mix') return '';
  const parts: string[] = [];
  const late = sitting.step === null ? '' : delayText(first, sitting.step);
  if (late !== '') parts.push(late);
  if (kind === 'sections') {
    const { sections, lag } = work.reduce((most, entry) => (entry.sections > most.sections ? entry : most));
    parts.push(
      `${sections === 1 ? 'one section' : `${sections} sections`}, paint ${duration(Math.round(lag / 30) * 30)} behind the glue`,
    );
  }
  if (turning > 0) {
    const ways = [...new Set(work.map(({ up }) => UP[up]))];
    parts.push(
      work.length > 1
        ? `turned ${ways.length === 1 ? 'once' : 'between the parts'}`
        : `turn it first: ${ways[0]!}`,
    );
  }
  if (cleaning > 0 && plan.work !== null) parts.push(`then ${duration(cleaning)} of cleaning`);
  return parts.join('; ');
}

/** Why the clock matters for it: until when it must have begun, or how long it may wait. */
export function urgencyText(sitting: Sitting, startsAt: number, { time, dayTime }: WallClock): string {
  const { urgency, closes, slack, float, from } = sitting;
  const at = (moment: number): string =>
    moment - from < 12 * 3600 ? time(startsAt + moment * 1000) : dayTime(startsAt + moment * 1000);
  switch (urgency) {
    case 'must':
      return `must not be later than ${at(closes!)}: ${duration(Math.max(0, slack!))} to spare`;
    case 'may':
      return Number.isFinite(float) ? `may wait until ${at(from + float)}` : 'may wait';
    case 'should':
      return float < 60 ? '' : `${duration(float)} to spare`;
  }
}

/** Until when the look holds: later is no failure, but another look. */
export const softText = (time: string): string => `the look holds until ${time}`;

/** What a shop's minutes are called where they are set. */
const MINUTE_NAMES: Readonly<Record<Exclude<MinuteKey, 'buffPerM2'>, string>> = {
  turn: 'Turning the piece',
  change: 'Changing brushes',
  brushWaits: 'A brush may wait',
  washWater: 'Washing out water paint',
  washSpirit: 'Washing out spirit',
  washOil: 'Washing out oil',
  washWax: 'Cleaning a wax cloth',
  washSpray: 'Clearing a spray can',
  mix: 'Mixing a pot',
};

/** What a shop's minutes are for, and how many of its own one of them counts; buffing goes by an area. */
export function minuteField(
  key: MinuteKey,
  units: UnitSystem,
): { readonly name: string; readonly factor: number } {
  if (key !== 'buffPerM2') return { name: MINUTE_NAMES[key], factor: 1 };
  const factor = units === 'imperial' ? 10 * SQUARE_FOOT : 1;
  return { name: `Buffing ${units === 'imperial' ? '10 sq ft' : area(1, units)}`, factor };
}

export const WEEKDAY_NAMES: Readonly<Record<Weekday, string>> = {
  mon: 'Monday',
  tue: 'Tuesday',
  wed: 'Wednesday',
  thu: 'Thursday',
  fri: 'Friday',
  sat: 'Saturday',
  sun: 'Sunday',
};

/** Minutes from midnight as a clock shows them; midnight at the end of a day is 24:00, or 12:00 AM. */
const clockOf = (minutes: number, clock: ClockFace): string =>
  minutes === 1440 && clock === '24'
    ? '24:00'
    : format(new Date(2026, 0, 5, 0, minutes), TIME_PATTERNS[clock]);

/** A working week in a line: "Mon to Fri 08:00 to 12:00, 13:00 to 17:00". */
export function weekText(work: WorkFile | null, clock: ClockFace): string {
  if (work === null) return 'at any hour';
  const told = (day: Weekday): string =>
    work.week[day]
      .map(({ opensMin, closesMin }) => `${clockOf(opensMin, clock)} to ${clockOf(closesMin, clock)}`)
      .join(', ');
  const runs: { from: Weekday; to: Weekday; hours: string }[] = [];
  for (const day of WEEKDAYS) {
    const hours = told(day);
    const last = runs.at(-1);
    if (last?.hours === hours) last.to = day;
    else runs.push({ from: day, to: day, hours });
  }
  const short = (day: Weekday): string => WEEKDAY_NAMES[day].slice(0, 3);
  const text = runs
    .filter(({ hours }) => hours !== '')
    .map(({ from, to, hours }) => `${from === to ? short(from) : `${short(from)} to ${short(to)}`} ${hours}`);
  return text.length === 0 ? 'never' : text.join('; ');
}

/** One thing done otherwise, in a word or two and in a sentence. */
export const WAY_WORDS: Readonly<Record<Way, { readonly name: string; readonly what: string }>> = {
  standing: { name: 'Leave it standing', what: 'Every face is worked as it stands; nothing is turned.' },
  'one-more': { name: 'One more person', what: 'Somebody helps, each at one thing at a time.' },
  weekend: { name: 'Work the weekend', what: 'Saturday and Sunday as a working day.' },
  evenings: { name: 'Come back evenings', what: 'From 18:00 to 22:00 as well.' },
  'longer-days': { name: 'Two hours longer', what: 'Every working day ends two hours later.' },
  'from-tomorrow': { name: 'Begin a day later', what: 'Nothing is done on the first day.' },
  'after-ten': { name: 'Nothing before ten', what: 'The day begins at 10:00.' },
  'no-preparation': { name: 'Prepared already', what: 'Preparation takes none of the time.' },
  'no-pins': { name: 'Let go what was moved', what: 'Nothing is held where it was dragged.' },
  'no-daylight': { name: 'Judge by lamps', what: 'Wear is judged at any hour.' },
  'no-order': { name: 'Any order of parts', what: 'No part waits for another.' },
};

/** A window that no order of the work keeps, and by how much. */
export function missedText({ partId, stepId, from, closes }: Entry, plan: Plan): string {
  const part = plan.piece.parts.find(({ id }) => id === partId)?.name.toLowerCase() ?? 'a part';
  const step = plan.finishes.flatMap(({ steps }) => steps).find(({ id }) => id === stepId);
  const what = step === undefined ? 'a step' : stepTitle(step, plan.media);
  return `${what} on the ${part} misses its window by ${duration(from - closes!)}`;
}

/** A pause of more than a week, and what to look at. @param pause - [s] @param from - when it begins @param to - when work goes on */
export function longPauseText(pause: number, next: Entry, plan: Plan, from: string, to: string): string {
  const part = plan.piece.parts.find(({ id }) => id === next.partId)?.name.toLowerCase() ?? 'a part';
  const step = plan.finishes.flatMap(({ steps }) => steps).find(({ id }) => id === next.stepId);
  const what = step === undefined ? 'the work' : stepTitle(step, plan.media);
  return `Nothing is done for ${duration(pause)}, from ${from} to ${to}. Then ${what} on the ${part} goes on. To shorten it, check when that step starts, and the air.`;
}

/** Why there is no timetable, and what to do. */
export function obstacleText({ reason, needs, longest, stepId, partId }: Obstacle, plan: Plan): string {
  const part = plan.piece.parts.find(({ id }) => id === partId)?.name.toLowerCase() ?? 'a part';
  const step = plan.finishes.flatMap(({ steps }) => steps).find(({ id }) => id === stepId);
  const what =
    step === undefined
      ? (PREP_SHORT[stepId as PrepStep] ?? 'preparation')
      : stepTitle(step, plan.media).toLowerCase();
  return reason === 'too-long'
    ? `${what} on the ${part} takes ${duration(needs)} with cleaning, and the longest time you work without a break is ${duration(longest)}. Work longer on one day, or part the piece into smaller parts.`
    : `There is no time for ${what} on the ${part} within the next four months. Give the week more hours, or take out what holds it back: a delivery, a pin, days off.`;
}
