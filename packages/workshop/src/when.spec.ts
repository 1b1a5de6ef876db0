import { type Plan } from '@zaffet/contract';
import { SCHOOL_KEYS } from './schools';
import { usualWork } from './calendar';
import { newPlan } from './newPlan';
import { endsAt, standingAt, startToEndBy } from './when';
import { beginAt } from './begin';
import { timetable } from './timetable';

const counted = (): (() => string) => {
  let count = 0;
  return () => `id-${++count}`;
};
const HOUR = 3_600_000;

describe('a plan by the clock', () => {
  const plan = (changes: Partial<Plan> = {}): Plan => ({
    ...newPlan('chippy-milk', 'Chest', 7, '2026-05-12T08:00:00.000Z', counted()),
    ...changes,
  });

  it('is begun so late that it is done by when it must be', () => {
    for (const school of SCHOOL_KEYS) {
      const drawn = newPlan(school, 'Chest', 7, '2026-05-12T08:00:00.000Z', counted());
      const by = '2026-06-20T18:00:00.000Z';
      const done = endsAt(beginAt(drawn, startToEndBy(drawn, by)));
      expect(done).withContext(school).toBeLessThanOrEqual(Date.parse(by));
      expect(done)
        .withContext(school)
        .toBeGreaterThan(Date.parse(by) - HOUR / 60);
    }
  });

  it('is begun earlier where the painter goes home at night', () => {
    const work = usualWork('+00:00');
    const by = '2026-06-20T18:00:00.000Z';
    const free = startToEndBy(plan(), by);
    const kept = startToEndBy(plan({ work }), by);
    expect(Date.parse(kept)).toBeLessThanOrEqual(Date.parse(free));
    expect(endsAt(beginAt(plan({ work }), kept))).toBeLessThanOrEqual(Date.parse(by));
  });

  it('is ahead, under way with its next step, or past', () => {
    const of = plan();
    const begins = Date.parse(of.startsAt);
    const { table } = timetable(of);
    expect(standingAt(of, table, begins - 1)).toEqual({ kind: 'ahead', begins });
    const soon = standingAt(of, table, begins + HOUR / 4);
    expect(soon.kind).toBe('under-way');
    if (soon.kind !== 'under-way') return;
    // Preparation has the first minutes.
    expect(soon.next!.step).toBe(of.finishes[0]!.steps[0]!);
    expect(soon.next!.at).toBeGreaterThan(begins + HOUR / 4);
    expect(standingAt(of, table, soon.ends - 1)).toEqual(
      jasmine.objectContaining({ kind: 'under-way', next: null }),
    );
    expect(standingAt(of, table, soon.ends + 1)).toEqual({ kind: 'past' });
  });
});
