import { type Plan } from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { FIGURE_KEYS, type FigureKey, figureValues } from '@zaffet/core/readout';
import { basisOf } from '../basis';
import { newPlan } from '../newPlan';
import { partPlan } from '../partPlan';
import { SCHOOL_KEYS } from '../schools';
import { type Timed } from '../timetable';
import { randomPlan } from './random';

/*
 * The table of figures that more than one room shows. Each room is asked for the figures it reads, in SI units before they
 * are rounded; all must equal what the core says of the plan by its timetable.
 */

export const ROOMS = {
  list: ['strength', 'spacing', 'opening', 'chips', 'worn'],
  layers: FIGURE_KEYS,
  whatIf: FIGURE_KEYS,
  command: FIGURE_KEYS,
  jobSheet: FIGURE_KEYS,
  log: ['spacing', 'opening', 'chips', 'worn'],
} as const satisfies Readonly<Record<string, readonly FigureKey[]>>;
export type Room = keyof typeof ROOMS;

/** Values of figures; lengths in m, times in s, shares 0 to 1; null where there is none. */
export type Values = Readonly<Partial<Record<FigureKey, number | null>>>;

/** What the core says of a part. */
export const valuesOf = (plan: Plan, partId: string, { circumstances }: Timed): Values =>
  figureValues(forecast(basisOf(partPlan(plan, partId, null, circumstances))));

/** Where a room says otherwise than the core, a sentence each. */
export function disagreements(room: Room, expected: Values, shown: Values): string[] {
  return ROOMS[room].flatMap((key) => {
    const [a, b] = [expected[key] ?? null, shown[key] ?? null];
    const alike = a === b || (a !== null && b !== null && Math.abs(a - b) <= 1e-9 * Math.abs(a));
    return alike ? [] : [`${room}: ${key} is ${b}, and ${a} by the core`];
  });
}

/** A plan of each technique, and plans by chance. @param count - of those by chance */
export function plansToCompare(count: number): Plan[] {
  let next = 0;
  const techniques = SCHOOL_KEYS.map((school) =>
    newPlan(school, school, 7, '2026-05-12T08:00:00.000Z', () => `t${++next}`),
  );
  return [...techniques, ...Array.from({ length: count }, (_, seed) => randomPlan(5000 + seed))];
}
