import { celsiusToKelvin, mmToMetres } from '@zaffet/core/units';
import {
  type Finish,
  isFilmStep,
  type LearnedFile,
  type Notation,
  type Plan,
  type PlanStep,
  type Shelf,
  type StepMap,
  type UnitSystem,
} from '@zaffet/contract';
import { type Basis } from '@zaffet/core/basis';
import { handsOn, type StepTimes } from '@zaffet/core/course';
import { forecast, type Forecast } from '@zaffet/core/forecast';
import { hazards } from '@zaffet/core/hazard';
import { type Schedule } from '@zaffet/core/schedule';
import { bandedFigures, type FigureKey } from '@zaffet/core/readout';
import {
  FIGURE_WORDS,
  HAZARD_DEFERENCE,
  USE_NAMES,
  celsius,
  datedClock,
  duration,
  figureText,
  findingWords,
  goesInText,
  hazardWords,
  layerWord,
  mm,
  partsOf,
  perCent,
  prepWords,
  sittingDetail,
  sittingTitle,
  startWords,
  stepDetail,
  stepTitle,
  substrateName,
  um,
  volume,
} from '@zaffet/words';
import {
  basisOf,
  meantFinishes,
  mixing,
  type Mixing,
  type PartPlan,
  partPlan,
  prepLeft,
  shopKnowing,
  sittings,
  timetable,
} from '@zaffet/workshop';

/** A step as it is done, with a box to tick. */
export interface SheetStep {
  readonly number: number;
  readonly at: string;
  readonly title: string;
  readonly detail: string;
  readonly lookFor: string;
  readonly colour: string | null;
}

/** A film of the stack as it is drawn, from the ground up. */
export interface SheetFilm {
  readonly name: string;
  readonly colour: string;
  /** Dry thickness [m], and as it is written. */
  readonly dry: number;
  readonly dryText: string;
}

/** Where a step does more and where less on a part. */
export interface SheetMap {
  readonly title: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly map: StepMap;
}

/** What one finish takes and comes to, for all the parts that get it. */
export interface SheetFinish {
  readonly title: string;
  readonly subtitle: string;
  readonly steps: readonly SheetStep[];
  readonly stack: readonly SheetFilm[];
  readonly maps: readonly SheetMap[];
  readonly figures: readonly { readonly name: string; readonly value: string; readonly band: string }[];
  readonly layers: readonly { readonly name: string; readonly share: string }[];
  readonly notes: readonly { readonly title: string; readonly text: string }[];
}

/** A sitting by the clock. */
export interface SheetLine {
  readonly at: string;
  readonly title: string;
  readonly detail: string;
}

/** What a job sheet says, section by section, before it is laid out. */
export interface JobSheet {
  readonly title: string;
  readonly subtitle: string;
  readonly parts: readonly {
    readonly name: string;
    readonly detail: string;
    /** What is still to be done before the first coat. */
    readonly prep: readonly string[];
  }[];
  /** What is done when, over all parts: a line a sitting, a list a day. */
  readonly days: readonly { readonly day: string; readonly lines: readonly SheetLine[] }[];
  readonly finishes: readonly SheetFinish[];
  readonly mixes: readonly { readonly title: string; readonly amount: string; readonly detail: string }[];
  readonly cautions: readonly {
    readonly title: string;
    readonly steps: string;
    readonly lines: readonly string[];
  }[];
  readonly deference: string;
}

/** Shares under this are not told: nobody sees them. */
const SEEN = 0.004;
const SHARES: readonly FigureKey[] = ['openArea', 'strength', 'chips', 'worn'];
const MONTH = 30 * 86400;

/** What of it the timetable takes. */
const TIMED = 0.5;

/** A part with what it comes to. */
interface Worked {
  readonly plan: PartPlan;
  readonly basis: Basis;
  readonly result: Forecast;
}

/**
 * Everything a painter takes to the bench for a plan: what when, how thick, what to mix, what to beware of, for every
 * part and every finish that a part gets.
 * @param zone - the shop's time zone, an IANA name such as `Europe/Lisbon`
 * @param notation - how numbers and times are written
 * @param learned - what the shop has learned; the tables alone where nothing is given
 * @param progress - told how much is worked out
 */
export function jobSheet(
  plan: Plan,
  zone: string,
  notation: Notation,
  shelf: Shelf,
  learned: LearnedFile | null = null,
  progress: (share: number) => void = () => undefined,
): JobSheet {
  const start = Date.parse(plan.startsAt);
  const { units } = notation;
  const dated = datedClock(zone, notation.clock);
  const clock = (moment: number): string => dated(start + moment * 1000);
  const timed = timetable(plan, { shop: shopKnowing(learned) });
  const { table } = timed;
  progress(TIMED);
  const worked = plan.piece.parts.map((part, i): Worked => {
    const of = partPlan(plan, part.id, null, timed.circumstances);
    const basis = basisOf(of);
    const result = forecast(basis);
    progress(TIMED + ((1 - TIMED) * (i + 1)) / plan.piece.parts.length);
    return { plan: of, basis, result };
  });
  const used = mixing(plan, shelf, timed);
  const done = table.ready === null ? 'never in this air' : clock(table.ready);
  return {
    title: plan.name,
    subtitle: `${plan.piece.name}, ${
      worked.length === 1 ? '1 part' : `${worked.length} parts`
    }. Begins ${clock(0)}, done ${done}; ${duration(used.handsOn)} with the hands. Shop ${celsius(celsiusToKelvin(plan.air.temperatureC), units)}, ${perCent(plan.air.humidity)} relative humidity.`,
    parts: worked.map(({ plan: { part }, plan: of }) => ({
      name: part.name,
      detail: `${mm(mmToMetres(part.widthMm), units)} by ${mm(mmToMetres(part.heightMm), units)}, ${substrateName(part.substrate).toLowerCase()}, ${USE_NAMES[part.use].toLowerCase()}`,
      prep: prepLeft(of).map((hint) => prepWords(hint).text),
    })),
    days: daysOf(plan, table, clock),
    finishes: meantFinishes(plan).flatMap((finish) => {
      const own = worked.filter(({ plan: of }) => of.finish.id === finish.id);
      return own.length === 0 ? [] : [finishSheet(finish, own, clock, units)];
    }),
    mixes: mixesOf(used, clock, units),
    cautions: cautionsOf(worked),
    deference: HAZARD_DEFERENCE,
  };
}

/** The timetable as a list by the clock, day by day. */
function daysOf(plan: Plan, table: Schedule, clock: (moment: number) => string): JobSheet['days'] {
  const days: { day: string; lines: SheetLine[] }[] = [];
  for (const sitting of sittings(plan, table)) {
    const told = clock(sitting.from);
    const cut = told.lastIndexOf(', ');
    const day = told.slice(0, cut);
    if (days.at(-1)?.day !== day) days.push({ day, lines: [] });
    const parts = partsOf(sitting, plan);
    const urgent =
      sitting.urgency === 'must' && sitting.closes !== null
        ? [`not later than ${clock(sitting.closes)}`]
        : [];
    days.at(-1)!.lines.push({
      at: told.slice(cut + 2),
      title: `${sittingTitle(sitting, plan)}: ${parts}`,
      detail: [sittingDetail(sitting, plan), ...urgent].filter(Boolean).join('; '),
    });
  }
  return days;
}

/** Times and figures are those of the largest part, which takes longest. */
function finishSheet(
  finish: Finish,
  own: readonly Worked[],
  clock: (moment: number) => string,
  units: UnitSystem,
): SheetFinish {
  const size = ({ plan: { part } }: Worked): number => part.widthMm * part.heightMm;
  const main = own.reduce((largest, other) => (size(other) > size(largest) ? other : largest));
  const { plan, basis, result } = main;
  const figures = bandedFigures(basis, result);
  return {
    title: finish.name,
    subtitle: `For ${own.map(({ plan: of }) => of.part.name.toLowerCase()).join(', ')}${
      own.length > 1 ? `; moments and figures are of the largest, ${plan.part.name.toLowerCase()}` : ''
    }.`,
    steps: stepsOf(finish, own).map((step, i) => {
      // Where the largest part leaves a step out, the first that gets it tells its moment.
      const on = gets(main, step) ? main : own.find((other) => gets(other, step))!;
      const times = timesOf(on, step)!;
      const window = on.result.coats.find(({ coat }) => coat.id === step.id)?.window;
      const hands = own.reduce((sum, part) => sum + handsAt(part, step), 0);
      return {
        number: i + 1,
        at: clock(times.from),
        title: stepTitle(step, plan.media),
        detail: [
          stepDetail(step, on.plan, units),
          ...(i === 0 ? [] : [startWords(step.start)]),
          ...(hands > 30
            ? [`${duration(hands)} with the hands${own.length > 1 ? ', all parts together' : ''}`]
            : []),
        ].join('; '),
        lookFor:
          window == null
            ? ''
            : `takes the next coat from ${clock(window.opensAt)}${
                window.closesAt === null ? '' : ` until ${clock(window.closesAt)} at the latest`
              }`,
        colour: isFilmStep(step) ? step.colour : null,
      };
    }),
    stack: result.coats.flatMap(({ coat, dryThickness }) => {
      const step = plan.steps.find(({ id }) => id === coat.id);
      return step === undefined || !isFilmStep(step)
        ? []
        : [
            {
              name: stepTitle(step, plan.media),
              colour: step.colour,
              dry: dryThickness,
              dryText: um(dryThickness, units),
            },
          ];
    }),
    maps: own.flatMap(({ plan: { part, steps, media } }) =>
      steps.flatMap((step) => {
        const map = part.maps[step.id];
        if (map === undefined) return [];
        const { widthMm, heightMm } = part;
        return [
          { title: `${stepTitle(step, media)} on the ${part.name.toLowerCase()}`, widthMm, heightMm, map },
        ];
      }),
    ),
    figures: figures
      .filter(({ key, value }) => value !== null && (value > SEEN || !SHARES.includes(key)))
      .map(({ key, value, low, high }) => {
        const text = (amount: number): string => {
          const { number, unit } = figureText(key, amount, units);
          return `${number} ${unit}`.trim();
        };
        return {
          name: FIGURE_WORDS[key].name,
          value: text(value!),
          band: low === null || high === null ? '' : `${text(low)} to ${text(high)}`,
        };
      }),
    layers: result.layers
      .filter(({ share }) => share > SEEN)
      .map(({ id, share }) => ({
        name: id === 'panel' ? 'the panel itself' : layerWord(plan.steps, id, plan.media),
        share: perCent(share),
      })),
    notes: notesOf(own, units),
  };
}

const timesOf = ({ result }: Worked, step: PlanStep): StepTimes | undefined =>
  result.times.find(({ step: { id } }) => id === step.id);
const gets = (part: Worked, step: PlanStep): boolean => timesOf(part, step) !== undefined;

/** The steps of a finish that any of its parts gets, in order. */
const stepsOf = ({ steps }: Finish, own: readonly Worked[]): readonly PlanStep[] =>
  steps.filter((step) => own.some((part) => gets(part, step)));

/** How long the hands are at a step of one part [s]; none where the part leaves it out. */
function handsAt(part: Worked, step: PlanStep): number {
  const times = timesOf(part, step);
  return times === undefined ? 0 : handsOn(times.step, part.basis.plan.panel);
}

/** What the plan says of itself on any of the parts, each once. */
function notesOf(own: readonly Worked[], units: UnitSystem): { title: string; text: string }[] {
  const notes = new Map<string, { title: string; text: string }>();
  for (const { result } of own)
    for (const finding of result.findings) {
      if (finding.level !== 'stop' && finding.level !== 'warn') continue;
      const { title, text, remedy } = findingWords(finding, units);
      if (!notes.has(finding.code)) notes.set(finding.code, { title, text: `${text} ${remedy}`.trim() });
    }
  return [...notes.values()];
}

function mixesOf({ pots }: Mixing, clock: (moment: number) => string, units: UnitSystem): JobSheet['mixes'] {
  return pots.map((pot) => {
    const keeps =
      pot.useBy - pot.mixedAt < MONTH
        ? [`good until ${clock(pot.useBy)}${pot.keepCold ? ' in a refrigerator, closed and labelled' : ''}`]
        : [];
    return {
      title: pot.name,
      amount: volume(pot.volume, units),
      detail: [
        goesInText(pot, units),
        `for ${pot.parts.join(', ').toLowerCase()}`,
        clock(pot.mixedAt),
        ...pot.thinned.map(
          ({ at, water }) => `${clock(at)} thin what is left with ${volume(water, units)} of water`,
        ),
        ...keeps,
      ].join('; '),
    };
  });
}

/** Cautions of all parts, each once, with every step they stand at. */
function cautionsOf(worked: readonly Worked[]): JobSheet['cautions'] {
  const cautions = new Map<string, { title: string; steps: Set<string>; lines: readonly string[] }>();
  for (const { plan, basis } of worked)
    for (const { code, stepIds } of hazards(basis.plan)) {
      const { title, cautions: lines } = hazardWords(code);
      const entry = cautions.get(code) ?? { title, steps: new Set<string>(), lines };
      for (const id of stepIds) {
        const step = plan.steps.find((candidate) => candidate.id === id);
        if (step !== undefined) entry.steps.add(stepTitle(step, plan.media));
      }
      cautions.set(code, entry);
    }
  return [...cautions.values()].map(({ title, steps, lines }) => ({
    title,
    steps: [...steps].join(', '),
    lines,
  }));
}
