import { isFilmStep, type PlanStep, type UnitSystem } from '@zaffet/contract';
import { type BoardNote } from '@zaffet/core/board';
import { type CellAirs, isShare, type Lesson, type Reading } from '@zaffet/core/calibrate';
import { type FactorKind } from '@zaffet/core/media';
import { type Trust } from '@zaffet/core/photo';
import { type DistressTool, toolOf } from '@zaffet/core/tools';
import { type WishKey } from '@zaffet/core/solve';
import { type BoardQuestion, type Teaches } from '@zaffet/workshop';
import { celsius, duration, figures, lengthShown, perCent } from './format';
import { mediumName, startWords, stepTitle, TOOL_NAMES } from './names';

export const READING_NAMES: Readonly<Record<Reading, string>> = {
  spacing: 'Crack spacing',
  opening: 'Crack opening',
  first: 'First cracks after',
  touchBelow: 'Touch-dry, the film below',
  touchTop: 'Touch-dry, the top coat',
  chips: 'Chipped',
  worn: 'Worn off',
  under: 'Base colours showing',
};

/** A length with its unit [m]. */
export function lengthText(metres: number, units: UnitSystem): string {
  const { number, unit } = lengthShown(metres, units);
  return `${number} ${unit}`;
}

/** Why a photograph does not tell a figure, and what would help. */
export const PHOTO_TRUST_WORDS: Readonly<Record<Trust, string>> = {
  measured: 'measured',
  about: 'about',
  'too-thin': 'too thin in this picture to be told: go nearer, or photograph less of it',
  'too-fine': 'too close together in this picture: go nearer',
  'too-faint': 'hardly darker than the paint: more light, or from another side',
  glare: 'it glares: even light, no flash',
  blurred: 'blurred: hold still, and let it focus',
  'too-few': 'no cracks, or too few to measure',
  chipped: 'too much of it has chipped to measure the cracks between',
};

/** What is to be said of a photograph of a board as a whole. */
export const BOARD_NOTE_WORDS: Readonly<Record<BoardNote, string>> = {
  'few-marks': 'Some marks of the frame could not be read: lengths may be off by a percent or two.',
  'frame-slipped': 'A piece of the frame does not lie against its corner; that was allowed for.',
  'not-flat': 'The frame does not lie flat: lengths may be off by some percents.',
  shadow: 'There is a shadow, or a stain, on the paper of the frame.',
  sharpened: 'The camera has sharpened the picture: openings of thin cracks are told as about.',
  'no-focal-length':
    'The file does not say which lens took it; that of a usual telephone was taken, for a board that stands above its frame.',
};

export const BOARD_PAGES = [
  'cells',
  'frame-upper-left',
  'frame-upper-right',
  'frame-lower-right',
  'frame-lower-left',
] as const;
/** A page that is printed for a board. */
export type BoardPageKey = (typeof BOARD_PAGES)[number];
export const BOARD_PAGE_WORDS: Readonly<Record<BoardPageKey, string>> = {
  cells: 'Cells',
  'frame-upper-left': 'Upper left piece',
  'frame-upper-right': 'Upper right piece',
  'frame-lower-right': 'Lower right piece',
  'frame-lower-left': 'Lower left piece',
};

/** A reading with its unit. @param value - [m], [s] or a share */
export const readingText = (reading: Reading, value: number, units: UnitSystem): string =>
  isShare(reading)
    ? perCent(value)
    : reading === 'spacing' || reading === 'opening'
      ? lengthText(value, units)
      : duration(value);

const NOTHING_CRACKS = 'Nothing of this finish cracks. Choose one that does.';

/** What a board may be asked: how its cells differ, and what is said of a finish in which there is nothing to ask. */
export const QUESTION_WORDS: Readonly<
  Record<BoardQuestion, { readonly name: string; readonly how: string; readonly none: string }>
> = {
  'how-thick': {
    name: 'How thick?',
    how: 'Films of several thicknesses, all coated at the finish’s own moment.',
    none: NOTHING_CRACKS,
  },
  when: {
    name: 'When to coat?',
    how: 'The finish’s own films, the top coat laid after several waits.',
    none: NOTHING_CRACKS,
  },
  both: {
    name: 'How thick, and when?',
    how: 'Several thicknesses of what lies below, each after several waits.',
    none: NOTHING_CRACKS,
  },
  thinned: {
    name: 'Full, or half and half?',
    how: 'What lies below as it comes, with as much water, and between, all equally wet.',
    none: NOTHING_CRACKS,
  },
  passes: {
    name: 'How many strokes?',
    how: 'The top coat brushed once to four times over the same place, thinner and thicker.',
    none: NOTHING_CRACKS,
  },
  chips: {
    name: 'Does it chip?',
    how: 'Over what it lies on, thicker, and without it; after several waits; with what takes paint off once and twice over.',
    none: 'Nothing of this finish chips. Choose one that does.',
  },
  work: {
    name: 'How much comes off?',
    how: 'The work that shows most, done little and much: minutes of bleach, hours before the blade, minutes before the cloth, passes, seconds of hot air.',
    none: 'No work of this finish takes anything off. Choose one with a tool or hot air in it.',
  },
  colours: {
    name: 'Which colour?',
    how: 'The last coat in the plan’s own colours, and in lighter and darker shades: to be carried into the room.',
    none: 'Nothing of this finish has a colour.',
  },
  seals: {
    name: 'Under which seal?',
    how: 'The same layers under the finish’s own seal, without one, and under others: to be carried into the room.',
    none: 'This finish has nothing to be sealed.',
  },
  school: {
    name: 'Which way of working?',
    how: 'The ways that come nearest to the look, in the finish’s own colours, side by side.',
    none: 'No way of working could be laid beside it.',
  },
};

/** How well what is asked of a board is foretold now, and with its cells; nothing where it is only to be looked at. */
export function boardTeaches({ asked, before, after }: Teaches): string {
  const chips = asked.includes('chips');
  // Of a share it is the odds that are off by a factor: told where half of it chips.
  const within = (factor: number): string =>
    chips
      ? `between ${perCent(1 / (1 + factor))} and ${perCent(factor / (1 + factor))}`
      : `to within ${figures(100 * (factor - 1))} %`;
  const [one, last] = [after[0]!, after.at(-1)!];
  const what = chips
    ? 'Where half of it is to chip, 8 in 10 cells come out'
    : 'Spacing and opening are foretold';
  return `${what} ${within(before)} as it is known now, ${within(one)} after one cell, ${within(last)} after all ${after.length}.`;
}

/** What is expected of a cell of a board. */
export function cellExpected(
  { spacing, opening, chips, worn, under }: Readonly<Record<WishKey, number | null>>,
  units: UnitSystem,
): string {
  const of = [
    spacing === null ? 'no cracks' : `cracks every ${lengthText(spacing, units)}`,
    ...(opening === null ? [] : [`${lengthText(opening, units)} open`]),
    ...(chips === null || chips < SEEN ? [] : [`${perCent(chips)} chipped`]),
    ...(worn === null || worn < SEEN ? [] : [`${perCent(worn)} worn`]),
    ...(under === null || under < SEEN ? [] : [`${perCent(under)} shows what lies below`]),
  ];
  return `expected: ${of.join(', ')}`;
}
/** What a cell's steps after its last film are, as far as they differ from cell to cell. */
export const cellWork = (steps: readonly PlanStep[]): string =>
  steps
    .slice(steps.findLastIndex(isFilmStep) + 1)
    .map((step) => {
      const much =
        step.kind === 'heat'
          ? `, ${step.durationS} s`
          : step.kind === 'distress'
            ? `, ${step.rounds} ${toolOf(step.tool).action === 'soften' ? 'min' : '×'}`
            : '';
      return `${stepTitle(step)}${much}, ${startWords(step.start)}`;
    })
    .join('; ');

/** Less of it nobody sees. */
const SEEN = 0.005;

/** What a factor changes; `by` says how much. */
const TOLD: Readonly<Record<FactorKind, (subject: string, by: string) => string>> = {
  air: (_, by) => `The shop dries ${by}`,
  dry: (subject, by) => `Water leaves ${subject.toLowerCase()} ${by}`,
  slip: (subject, by) => `${subject} slips ${by}`,
  strain: (subject, by) => `${subject} shrinks ${by}`,
  tough: (subject, by) => `${subject} bears ${by} before it cracks`,
  bond: (subject, by) => `${subject} holds on ${by}`,
  wear: (subject, by) => `${subject} takes off ${by}`,
};
/** Nearer than this nobody would tell the difference. */
const ALIKE = 0.02;

/** Airs nearer than this teach like one: half a step of what a prediction loses with distance from its boards; assumed. */
const ONE_AIR = { humidity: 0.1, kelvin: 4 };

/** That a board on another day would teach more, where all was measured in one air; null where it was not. */
export function oneAirText({ humidity, temperature }: CellAirs, units: UnitSystem): string | null {
  const [damp, warm] = [humidity[1] - humidity[0], temperature[1] - temperature[0]];
  if (damp > ONE_AIR.humidity || warm > ONE_AIR.kelvin) return null;
  const middle = ([least, most]: readonly [number, number]): number => (least + most) / 2;
  const air = `${celsius(middle(temperature), units)}, ${perCent(middle(humidity))}`;
  return `All of it was measured in one air (${air}): that cannot tell the paint from the day. A second board on a damper or a warmer day is worth more than more cells of this one.`;
}

/** A number and its sign stay on one line. */
const inPerCent = (value: number): string => `${figures(value)}\u00a0%`;

/** What was learned of a factor, and how sure that is: "Chalk paint shrinks 12 % more than the table; sure to within 8 %". */
export function lessonText({ key, factor, within }: Lesson, media: Parameters<typeof mediumName>[1]): string {
  const [kind, of = ''] = key.split(':') as [FactorKind, string?];
  const subject =
    kind === 'air' ? '' : kind === 'wear' ? TOOL_NAMES[of as DistressTool] : mediumName(of, media);
  const share = Math.abs(factor - 1);
  const [more, less] = kind === 'air' || kind === 'dry' ? ['quicker', 'slower'] : ['more', 'less'];
  const by =
    share < ALIKE
      ? 'as the table says'
      : `${inPerCent(100 * share)} ${factor > 1 ? more : less} than the table`;
  return `${TOLD[kind](subject, by)}; sure to within ${inPerCent(100 * (within - 1))}.`;
}
