import {
  type Fate,
  type FilmPlanStep,
  type PhotoTime,
  type Plan,
  type PlanStep,
  type RunEvent,
  type Verdict,
  type VerdictTime,
  type UnitSystem,
} from '@zaffet/contract';
import { HAZARD_CODES, type HazardCode } from '@zaffet/core/hazard';
import { type LiveFigure, type LiveState, type Moment } from '@zaffet/core/live';
import { isOf, type Medium } from '@zaffet/core/media';
import { type WaitReason } from '@zaffet/core/schedule';
import { type DistressTool, toolOf } from '@zaffet/core/tools';
import { celsiusToKelvin } from '@zaffet/core/units';
import { duration, perCent, um, celsius, volume } from './format';
import { hazardWords } from './hazards';
import { stepTitle } from './names';
import { figureRange, figureText } from './sentences';

/*
 * What is said at the bench: short enough to be read at arm's length, by signs of hand and eye. The signs are common
 * practice.
 */

/** A question about a coat, how to find out, and its three answers: not yet, just now, already. */
export interface BenchQuestion {
  readonly ask: string;
  readonly how: string;
  readonly notYet: string;
  readonly justNow: string;
  readonly already: string;
}

const QUESTIONS: Readonly<Record<LiveState, BenchQuestion>> = {
  matte: {
    ask: 'Has the shine gone?',
    how: 'Tilt it to the light, or look along it. Wet paint shines; judge beside any jelly, which shines for ever.',
    notYet: 'Still shiny',
    justNow: 'Going just now',
    already: 'Gone before',
  },
  tacky: {
    ask: 'Does it grab?',
    how: 'Touch it with a knuckle: it pulls a little and nothing comes off.',
    notYet: 'In no place',
    justNow: 'In some places',
    already: 'In most places',
  },
  skinned: {
    ask: 'Is there a skin on it?',
    how: 'A knuckle pulls a little: good. A skin that drags, or dull dry spots: it closes.',
    notYet: 'Still wet',
    justNow: 'A skin drags',
    already: 'Dry spots',
  },
  touch: {
    ask: 'Is it dry to the touch?',
    how: 'A finger laid on it leaves no mark and picks up nothing.',
    notYet: 'Leaves a mark',
    justNow: 'Dry just now',
    already: 'Dry before',
  },
  recoat: {
    ask: 'Does it take a coat?',
    how: 'Press with a fingertip where nobody looks: nothing gives, and it is not cold to the hand.',
    notYet: 'Still soft',
    justNow: 'Firm just now',
    already: 'Firm before',
  },
  through: {
    ask: 'Is it dry through?',
    how: 'Press a thumb on it and twist: nothing moves, nothing wrinkles.',
    notYet: 'It moves',
    justNow: 'Firm just now',
    already: 'Firm before',
  },
  'first-cracks': {
    ask: 'Are there first cracks?',
    how: 'Look across the light for hair lines, first where it lies thin.',
    notYet: 'None yet',
    justNow: 'Just now',
    already: 'Some while ago',
  },
};

export const benchQuestion = (state: LiveState): BenchQuestion => QUESTIONS[state];

/** What a part is at once nothing is left to be done to it; of a coat, that it is not thought to crack. */
export const leftToDry = (coat: boolean): { readonly title: string; readonly how: string } => ({
  title: 'Leave it to dry',
  how: `Nothing is left to be done here.${coat ? ' By all that was told it will not crack; if it should, look under “It went wrong”.' : ''}`,
});

/** What a coat is believed to crack into; null of one that is not known to crack. */
export function cracksExpected(
  { spacing, opening }: Readonly<Partial<Record<LiveFigure, Moment>>>,
  units: UnitSystem,
): string | null {
  if (spacing === undefined || opening === undefined) return null;
  const band = ({ at, low, high }: Moment, key: LiveFigure): string => {
    const { number, unit } = figureText(key, at, units);
    return `${number} ${unit} ${key === 'spacing' ? 'apart' : 'open'} (${figureRange(key, low, high, units)})`;
  };
  return `It cracks about ${band(spacing, 'spacing')}, ${band(opening, 'opening')}; 8 in 10 lie between.`;
}

/** What is waited for, as the head of a card. */
const WAITS: Readonly<Record<LiveState, string>> = {
  matte: 'Wait until the shine goes',
  tacky: 'Wait until it grabs',
  skinned: 'Paint before the glue skins over',
  touch: 'Wait until it is dry to the touch',
  recoat: 'Wait until it takes a coat',
  through: 'Wait until it is dry through',
  'first-cracks': 'Watch for the first cracks',
};
export const waitTitle = (state: LiveState): string => WAITS[state];

/** A wait before a task that no state of a film decides. Times in s. */
export interface PlannedWait {
  readonly reason: WaitReason;
  /** How long all of it is, and how much is left. */
  readonly length: number;
  readonly left: number;
}

/** Waits that no film decides: as the head of a card, and what starting before their end means. */
const PLANNED_WAITS: Readonly<Record<WaitReason, { title(length: string): string; early: string }>> = {
  // Of a state that cannot be watched for.
  state: { title: () => 'Wait until it has cured', early: 'What is below has not cured yet.' },
  minutes: {
    title: (length) => `Wait ${length}`,
    early: 'Your plan waits here. Started now, it may look different from the prediction.',
  },
  rest: {
    title: () => 'Let the preparation dry',
    early: 'The preparation is still wet. A coat on it may not hold.',
  },
  moment: { title: () => 'Wait for the time you set', early: 'Your plan sets a later time for this step.' },
  supply: {
    title: () => 'Wait for the material',
    early: 'Something this step needs has not arrived by the dates on your shelf.',
  },
};
export const plannedWaitTitle = ({ reason, length }: PlannedWait): string =>
  PLANNED_WAITS[reason].title(duration(length));

/** What starting a task before its wait is over means. @param state - of the film below that it waits for */
export const tooEarly = ({ reason, left }: PlannedWait, state: LiveState | null): string =>
  `${duration(left)} too early. ${state === null ? PLANNED_WAITS[reason].early : `By the prediction it is not ready: ${STATE_WORDS[state]} comes later.`}`;

/** What a state is called where several are listed. */
export const STATE_WORDS: Readonly<Record<LiveState, string>> = {
  matte: 'shine gone',
  tacky: 'grabs',
  skinned: 'skins over',
  touch: 'dry to the touch',
  recoat: 'takes a coat',
  through: 'dry through',
  'first-cracks': 'first cracks',
};

/** When to stop with each tool. */
const STOPS: Readonly<Record<DistressTool, string>> = {
  sand: 'Light on edges and corners. Stop when the layer you want shows; wipe the dust off and look before you go on.',
  cloth: 'Rub in, wipe, turn the cloth to a clean side. Judge it dry, not wet.',
  sponge: 'Rub in, rinse the sponge, look. Judge it dry, not wet.',
  scrape: 'Wet, scrape, dry it, look again. Stop before bare wood, and where a barrier shines.',
  blade: 'Flat and pulled, never dug in. Stop at the first sign of wood.',
  tap: 'A few taps, then step back. What is loose comes off by itself.',
  fingers: 'Rub where hands would touch it. Step back after each place.',
  sander: 'Keep it moving and flat; off the edges. Stop early: it goes quicker than it looks.',
  knife: 'Lift only what is loose. Stop where it holds.',
  brush: 'Brush off what is loose, vacuum, look again.',
  towel: 'Press, lift, take a fresh sheet. Stop when it comes away clean.',
  press: 'Press and turn, rinse, look. Leave some places alone.',
  scratch: 'With the grain, few and unequal. Step back before the next.',
  bleach: 'Watch it: it bubbles while it works. Wipe it off in time, it goes on working while it is wet.',
};

/** What to mind while a step is done: strokes, keeping off, when to stop. */
export function workRules(step: PlanStep, medium: Medium | null): string[] {
  switch (step.kind) {
    case 'coat':
    case 'seal': {
      if (medium?.kind === 'wax')
        return ['Thin, with a cloth or a round brush, into every corner; take off what stands.'];
      return brushRules(step, medium);
    }
    case 'resist':
      return [
        step.agent === 'salt'
          ? 'Scatter it while the paint still shines; brush it off when all is dry.'
          : 'Uneven on purpose: edges, corners, where hands go. Remember where: it does not show under paint.',
      ];
    case 'heat':
      return ['Keep it moving, a hand away. Stop as soon as it bubbles, smokes or colours.'];
    case 'rewet':
      return ['Mist or dab, do not flood. Wait, look, and wet again only where nothing gives.'];
    case 'distress':
      return [STOPS[step.tool]];
    case 'wipe':
      return ['Dust off everywhere, into corners too: what stays is sealed in.'];
    case 'wait':
      return ['Leave it alone. Ugly now is usual: it changes with the next coat.'];
    case 'companion':
      return [];
  }
}

/** How a coat goes on, by its tool, its strokes and how much it covers. */
function brushRules({ kind, passes, strokes, cover }: FilmPlanStep, medium: Medium | null): string[] {
  if (medium !== null && isOf(medium, 'sprayed')) return ['Thin, even passes; keep it moving.'];
  const most = passes === 1 ? 'one stroke over each spot' : `at most ${passes} strokes over each spot`;
  if (cover.style === 'dry-brushed')
    return ['Wipe the brush nearly dry first. Drag it lightly over the high spots, and stop early.'];
  if (cover.style === 'blotchy') return ['In loose blotches, with gaps between them; do not join them up.'];
  if (strokes === 'dabbed')
    return [
      `Dab it on, do not drag: ${passes === 1 ? 'once' : `at most ${passes} times`} in each spot, then leave it.`,
    ];
  const how = {
    'one-way': 'Long strokes one way',
    crosswise: 'Strokes crosswise',
    swirled: 'Short, swirled strokes',
  };
  const last = kind === 'seal' ? ['A last feather-light stroke one way, before it sets.'] : [];
  return [`${how[strokes]}, ${most}, then leave it.`, ...last];
}

/** What `rounds` of a tool may be counted at the bench. */
export const countsRounds = (step: PlanStep): boolean =>
  step.kind === 'distress' && toolOf(step.tool).action !== 'soften';

/** When it is judged, and how it is liked. */
export const VERDICT_TIME_WORDS: Readonly<Record<VerdictTime, string>> = {
  'at-once': 'At once',
  'after-a-day': 'After a day',
  'after-use': 'After use',
};
export const VERDICT_WORDS: Readonly<Record<Verdict, string>> = {
  good: 'Just right',
  middling: 'Will do',
  bad: 'Not what I wanted',
};

/** What a photograph shows a piece as. */
export const PHOTO_TIME_WORDS: Readonly<Record<PhotoTime, string>> = {
  before: 'Before',
  wet: 'Wet',
  drying: 'While it dries',
  dry: 'Dry',
  sealed: 'Sealed',
  'in-use': 'After use',
};
/** What became of a piece. */
export const FATE_WORDS: Readonly<Record<Fate, string>> = {
  kept: 'kept',
  sold: 'sold',
  given: 'given away',
  stripped: 'stripped again',
};

/** Reasons a step is left out, to choose from. */
export const SKIP_REASONS = [
  'not needed here',
  'no time',
  'it looks right as it is',
  'the medium is not there',
] as const;

/** That hands are wanted after their hours. */
export const overtimeText = (until: string): string =>
  `Somebody has to stay until ${until}: what lies there now would be too late in the morning.`;

/** Minutes ago that can be told with one press. */
export const MINUTES_AGO = [2, 5, 8, 12, 20, 30, 60] as const;

const isHazard = (code: string): code is HazardCode => (HAZARD_CODES as readonly string[]).includes(code);

/** What somebody told at the bench, in a line. */
export function toldText(event: RunEvent, plan: Plan, units: UnitSystem): string {
  const part = (id: string): string =>
    (plan.piece.parts.find((one) => one.id === id)?.name ?? 'a part').toLowerCase();
  const step = (id: string): string => {
    const own = plan.finishes.flatMap(({ steps }) => steps).find((one) => one.id === id);
    return own === undefined ? 'preparation' : stepTitle(own, plan.media);
  };
  const of = (one: { partId: string; stepId: string }): string =>
    `${step(one.stepId)} on the ${part(one.partId)}`;
  const ago = (minutes: number): string => (minutes === 0 ? '' : `, ${minutes} min before`);
  switch (event.kind) {
    case 'run-begun':
      return `Begun: ${event.plan.name}`;
    case 'begun':
      return `Began ${of(event)}${ago(event.minutesAgo)}`;
    case 'done':
      return `Done: ${of(event)}${ago(event.minutesAgo)}`;
    case 'skipped':
      return `Left out ${of(event)}: ${event.reason}`;
    case 'put-in':
      return `Put in ${stepTitle(event.step, plan.media)} on the ${part(event.partId)}`;
    case 'seen': {
      const { after, before, now, places } = event;
      const state = after ?? before;
      if (state === null) return `Looked at ${of(event)}`;
      const words = QUESTIONS[state];
      const said =
        after === null || places === 'none'
          ? words.notYet
          : now || places === 'some'
            ? words.justNow
            : words.already;
      return `${of(event)}: ${words.ask} ${said}`;
    }
    case 'passes':
      return `${event.count} strokes: ${of(event)}`;
    case 'section':
      return `Section ${event.index + 1} ${event.painted ? 'painted' : 'glued'}: ${of(event)}${ago(event.minutesAgo)}`;
    case 'film':
      return `Wet film ${um(event.thicknessUm * 1e-6, units)}: ${of(event)}`;
    case 'mix':
      return `Mix ${event.body === 'as-meant' ? 'as meant' : event.body}: ${of(event)}`;
    case 'air':
      return `Air ${celsius(celsiusToKelvin(event.temperatureC), units)}, ${perCent(event.humidity)} (${event.source})`;
    case 'caution':
      return `Read: ${isHazard(event.code) ? hazardWords(event.code).title.toLowerCase() : event.code}`;
    case 'note':
      return event.text;
    case 'outcome':
      return `Measured the ${part(event.partId)}`;
    case 'verdict': {
      const said = [event.verdict === null ? '' : VERDICT_WORDS[event.verdict], event.text];
      return `${VERDICT_TIME_WORDS[event.when]}: ${said.filter(Boolean).join(', ')}`;
    }
    case 'photo':
      return [`Photograph, ${PHOTO_TIME_WORDS[event.when].toLowerCase()}`, event.text]
        .filter(Boolean)
        .join(': ');
    case 'used':
      return `Off the shelf: ${volume(event.amountMl * 1e-6, units)} of ${event.name}`;
    case 'details':
      return ['About the piece', event.forWhom, event.fate === null ? '' : FATE_WORDS[event.fate]]
        .filter(Boolean)
        .join(', ');
    case 'taken-back':
      return 'Took something back';
    case 'paused':
      return 'Stopped for now';
    case 'resumed':
      return 'Went on';
    case 'finished':
      return 'Finished';
    case 'reopened':
      return 'Taken up again';
  }
}
