import { type FilmPlanStep, isFilmStep, type Plan } from '@zaffet/contract';
import { mediumLookup, isOf } from '@zaffet/core/media';
import { panelArea } from '@zaffet/core/plan';
import { MILK_REST, potLife } from '@zaffet/core/quantity';
import {
  type Effort,
  type Job,
  minutesOf,
  type Order,
  type PotNeed,
  PREP_MINUTES,
  type PrepWork,
  type Problem,
  type Schedule,
  schedule,
} from '@zaffet/core/schedule';
import { minutesToSeconds, SECONDS_PER_MINUTE } from '@zaffet/core/units';
import { basisOf } from './basis';
import { workTime } from './calendar';
import { type Circumstances, type PartPlan, partPlan } from './partPlan';
import { colours, recipeOf } from './potRecipe';
import { prepLeft } from './prepare';

/** A refrigerator [K]. */
const COLD = 277.15;

/** What is given before anything is timed. */
export type Given = Omit<Circumstances, 'moments'>;

/** A plan with its timetable: what every forecast of its parts rests on. */
export interface Timed {
  readonly table: Schedule;
  readonly circumstances: Circumstances;
}

/**
 * When everything is done, over all parts of a plan.
 * @param from - an order to begin with, of the plan as it was before
 * @throws InputError as `forecast`
 */
export function timetable(plan: Plan, { shop, known }: Given = {}, effort?: Effort, from?: Order): Timed {
  const given = { ...(shop === undefined ? {} : { shop }), ...(known === undefined ? {} : { known }) };
  const table = schedule(problemOf(plan, given), effort, from);
  return { table, circumstances: { ...given, moments: table.moments } };
}

/** What a plan asks of the timetable. */
export function problemOf(plan: Plan, circumstances: Circumstances = {}): Problem {
  const { timing, work: shop, startsAt } = plan;
  const minutes = minutesOf(shop?.minutes);
  const seconds = (at: string): number => (Date.parse(at) - Date.parse(startsAt)) / 1000;
  const { work, daylight } = workTime(plan);
  return {
    jobs: plan.piece.parts.map(({ id }) => jobOf(plan, partPlan(plan, id, null, circumstances), minutes.mix)),
    ...(work === undefined ? {} : { work }),
    ...(daylight === undefined ? {} : { daylight }),
    people: shop?.people ?? 1,
    minutes,
    pins: timing.pins.map(({ partId, stepId, coat, at }) => ({ partId, stepId, coat, at: seconds(at) })),
    deadline: timing.deadlineAt === null ? null : seconds(timing.deadlineAt),
    backward: timing.backward,
    from: 0,
  };
}

function jobOf(plan: Plan, of: PartPlan, mixMin: number): Job {
  const { part, steps } = of;
  const basis = basisOf(of);
  const media = mediumLookup(basis.plan.media, basis.shop.learned);
  const { deliveries, order, prepares } = plan.timing;
  const arrives = (step: FilmPlanStep): number =>
    Math.max(
      -Infinity,
      ...deliveries
        .filter(({ medium, colour }) => medium === step.medium && (colour === null || colour === step.colour))
        .map(({ at }) => (Date.parse(at) - Date.parse(plan.startsAt)) / 1000),
    );
  const films = steps.filter(isFilmStep);
  return {
    id: part.id,
    basis,
    prepares: prepares ? prepWork(of, panelArea(basis.plan.panel)) : [],
    body: part.body,
    // A part that is worked on standing leaves the piece as it stands.
    up: part.flat && part.body !== null ? part.facing : 'top',
    pots: Object.fromEntries(
      films.map((step) => [
        step.id,
        colours(step).map(({ step: own }): PotNeed => {
          const medium = media(own.medium);
          return {
            recipe: `${recipeOf(own)} ${Math.max(0, own.dilution)}`,
            mixing: isMixed(plan, own, isOf(medium, 'powder')) ? mixMin * SECONDS_PER_MINUTE : 0,
            rest: isOf(medium, 'powder') ? MILK_REST : 0,
            life: potLife(medium, COLD),
          };
        }),
      ]),
    ),
    notBefore: Object.fromEntries(
      films.flatMap((step) => {
        const at = arrives(step);
        return at > 0 ? [[step.id, at] as const] : [];
      }),
    ),
    follows: order.filter(({ then }) => then === part.id).map(({ first }) => first),
  };
}

/** Whether a pot has to be made up: paint as it comes is only stirred. */
function isMixed(plan: Plan, step: FilmPlanStep, powder: boolean): boolean {
  const coloured = plan.palette.some(
    ({ name, colour, mix }) => name === step.colourName && colour === step.colour && mix.length > 0,
  );
  return (
    powder ||
    step.dilution > 0 ||
    coloured ||
    (step.kind === 'coat' && (step.bonding > 0 || step.texture > 0))
  );
}

/** Preparation that is not done yet. */
function prepWork(part: PartPlan, area: number): PrepWork[] {
  return prepLeft(part).map(({ step }) => {
    const { fixed, perM2, rest } = PREP_MINUTES[step];
    return {
      step,
      hands: minutesToSeconds(fixed + perM2 * area),
      rest: minutesToSeconds(rest),
    };
  });
}
