import { isFilmStep, type Plan } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { type Schedule } from '@zaffet/core/schedule';
import { basisOf } from '../basis';
import { partPlan } from '../partPlan';
import { type Given, timetable } from '../timetable';
import { shiftedAir } from './planAir';

/** Days that may come instead of those that are expected. */
export const OTHER_AIRS = ['steady', 'damp', 'dry'] as const;
export type OtherAir = (typeof OTHER_AIRS)[number];

/** A damp day is so much cooler and damper, a dry one so much warmer and drier: what a day of rain or a heated shop does. */
export const DAMP = { temperatureBy: -3, humidityBy: 0.2 };
export const DRY = { temperatureBy: 4, humidityBy: -0.15 };

export const ANSWERS = ['touch', 'next', 'work', 'buff'] as const;
/** What answers to the air: a coat touch-dry, the coat over it still in time, work on it in time, a wax buffed in time. */
export type Answer = (typeof ANSWERS)[number];

/** How long something takes, or may wait, counted from when its coat is laid [s]; null where it has no end there. */
export interface AirEffect {
  readonly partId: string;
  readonly stepId: string;
  readonly answer: Answer;
  readonly lasts: number;
  readonly other: Readonly<Record<OtherAir, number | null>>;
}

/** What the air does: to every coat and window, and to the day all is ready. */
export interface AirEffects {
  readonly effects: readonly AirEffect[];
  /** How much later the piece is ready in another air [s]; null where it never is, in one or the other. */
  readonly later: Readonly<Record<OtherAir, number | null>>;
}

/** The plan in another air: as it begins for good, on damp days, on dry ones. */
export function planIn(plan: Plan, other: OtherAir): Plan {
  switch (other) {
    case 'steady':
      return { ...plan, air: { ...plan.air, later: [] } };
    case 'damp':
      return { ...plan, air: shiftedAir(plan.air, DAMP.temperatureBy, DAMP.humidityBy) };
    case 'dry':
      return { ...plan, air: shiftedAir(plan.air, DRY.temperatureBy, DRY.humidityBy) };
  }
}

const record = <T>(of: (other: OtherAir) => T): Record<OtherAir, T> => ({
  steady: of('steady'),
  damp: of('damp'),
  dry: of('dry'),
});

/** Coats of a part: touch-dry after, and how long the next one may wait [s]. */
function coatsOf(
  plan: Plan,
  partId: string,
  moments: Schedule['moments'],
  given: Given,
): Map<string, number> {
  const { coats } = forecast(basisOf(partPlan(plan, partId, null, { ...given, moments })));
  const told = new Map<string, number>();
  for (const { coat, laidAt, open, window } of coats) {
    if (open.touch !== null) told.set(`${coat.id} touch`, open.touch - laidAt);
    const closes = window?.closesAt ?? null;
    if (closes !== null) told.set(`${coat.id} next`, closes - laidAt);
  }
  return told;
}

/** Windows of the hands that are no coat's: tools, salt, hot air, buffing. By what they are for, how long they are open. */
function handsOf(plan: Plan, { entries }: Schedule): Map<string, number> {
  const told = new Map<string, number>();
  const steps = new Map(plan.finishes.flatMap((finish) => finish.steps).map((step) => [step.id, step]));
  for (const { partId, stepId, kind, opens, closes } of entries) {
    const step = steps.get(stepId);
    if (closes === null || step === undefined) continue;
    if (kind === 'buff') told.set(`${partId} ${stepId} buff`, closes - opens);
    else if (!isFilmStep(step)) told.set(`${partId} ${stepId} work`, closes - opens);
  }
  return told;
}

/**
 * What the air over the days does: the same plan in the air as it begins, on damper and on drier days. Coats are told on
 * the first part of each finish, laid at the same moments; what the hands wait for follows from a timetable of its own.
 * @throws InputError as `forecast`
 */
export function airEffects(plan: Plan, table: Schedule, given: Given = {}): AirEffects {
  const plans = record((other) => planIn(plan, other));
  const tables = record((other) => timetable(plans[other], given).table);
  const effects: AirEffect[] = [];
  const put = (
    partId: string,
    here: ReadonlyMap<string, number>,
    there: Readonly<Record<OtherAir, ReadonlyMap<string, number>>>,
  ): void => {
    for (const [key, lasts] of here) {
      const [stepId, answer] = key.split(' ').slice(-2) as [string, Answer];
      effects.push({
        partId,
        stepId,
        answer,
        lasts,
        other: record((other) => there[other].get(key) ?? null),
      });
    }
  };
  const hands = handsOf(plan, table);
  const handsThere = record((other) => handsOf(plans[other], tables[other]));
  for (const { id, whatIfOf } of plan.finishes) {
    const first = plan.piece.parts.find(({ finish }) => finish === id);
    if (whatIfOf !== null || first === undefined) continue;
    put(
      first.id,
      coatsOf(plan, first.id, table.moments, given),
      record((other) => coatsOf(plans[other], first.id, table.moments, given)),
    );
    put(first.id, new Map([...hands].filter(([key]) => key.startsWith(`${first.id} `))), handsThere);
  }
  return {
    effects,
    later: record((other) => {
      const { ready } = tables[other];
      return ready === null || table.ready === null ? null : ready - table.ready;
    }),
  };
}
