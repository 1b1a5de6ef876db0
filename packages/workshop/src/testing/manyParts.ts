import { type Part, type Plan } from '@zaffet/contract';
import { type Facing, FACINGS } from '@zaffet/core/piece';
import { usualWork } from '../calendar';
import { bodied, NO_TIMING, newPart, newPlan } from '../newPlan';
import { SCHOOL_KEYS, SCHOOL_STEPS } from '../schools';
import { newFinish } from '../newPlan';
import { when } from '../create';
import { chance } from './random';

/** A plan of several parts on bodies and by themselves, of several ways of working, in a shop's week; the same for a seed. */
export function manyParts(seed: number, parts?: number): Plan {
  const random = chance(seed);
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)]!;
  let next = 0;
  const nextId = (): string => `id-${++next}`;
  const plan = newPlan('dried-medium', 'Many', seed, '2026-05-11T06:00:00.000Z', nextId);
  const finishes = Array.from({ length: 1 + Math.floor(2.5 * random()) }, (_, i) =>
    newFinish(`finish-${i}`, `Finish ${i}`, SCHOOL_STEPS[pick(SCHOOL_KEYS)](nextId, when('recoat'))),
  );
  const number = parts ?? 1 + Math.floor(8 * random());
  const made = Array.from({ length: number }, (_, i): Part => {
    const facing: Facing = random() < 0.35 ? 'loose' : pick(FACINGS);
    const size = { widthMm: 150 + Math.floor(900 * random()), heightMm: 120 + Math.floor(600 * random()) };
    const part = newPart(`part-${i}`, `Part ${i}`, size, pick(finishes).id, facing);
    return { ...part, flat: random() < 0.8, substrate: random() < 0.3 ? 'raw-softwood' : 'scuffed' };
  });
  const work = usualWork('+02:00');
  const [first, second] = made;
  return {
    ...plan,
    piece: bodied('Many', made),
    finishes,
    air: {
      ...plan.air,
      temperatureC: 12 + 14 * random(),
      humidity: 0.3 + 0.45 * random(),
      later: Array.from({ length: 6 }, (_, day) => ({
        at: new Date(Date.parse(plan.startsAt) + (day + 1) * 11 * 3600e3).toISOString(),
        temperatureC: 12 + 14 * random(),
        humidity: 0.3 + 0.45 * random(),
      })),
    },
    work:
      random() < 0.15
        ? null
        : {
            ...work,
            people: 1 + Math.floor(3 * random()),
            daylight: random() < 0.3 ? { opensMin: 540, closesMin: 960 } : null,
            daysOff: random() < 0.3 ? ['2026-05-13'] : [],
          },
    timing: {
      ...NO_TIMING,
      prepares: random() < 0.6,
      order:
        first !== undefined && second !== undefined && random() < 0.3
          ? [{ first: second.id, then: first.id }]
          : [],
      deliveries: random() < 0.2 ? [{ medium: 'chalk', colour: null, at: '2026-05-11T13:00:00.000Z' }] : [],
    },
  };
}
