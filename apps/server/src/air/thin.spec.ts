import { asc } from 'drizzle-orm';
import { airReadings, marks } from '../db/schema';
import { specShop } from '../testing/specShop';
import { keepReadings } from './queries';
import { thinAir } from './thin';

const MINUTE = 60_000;
const DAY = 86_400_000;
const NOW = Date.parse('2026-05-20T12:00:00.000Z');

describe('readings of the air', () => {
  const shop = specShop();
  const put = (at: number, temperatureC: number, source = 'dial'): Promise<void> =>
    keepReadings(shop.db, {
      source,
      readings: [{ at: new Date(at).toISOString(), temperatureC, humidity: temperatureC / 100 }],
    });
  const all = async (): Promise<readonly (readonly [string, string, number, number])[]> =>
    (await shop.db.select().from(airReadings).orderBy(asc(airReadings.at), asc(airReadings.source))).map(
      ({ source, at, temperatureC, humidity }) => [
        source,
        at.toISOString(),
        temperatureC,
        Math.round(humidity * 1e6) / 1e6,
      ],
    );

  beforeEach(async () => {
    await shop.db.delete(airReadings);
    await shop.db.delete(marks);
  });

  it('are kept for a fortnight, then as means of ten minutes, after a year of hours, each instrument alone', async () => {
    const [lately, before, longAgo] = [NOW - 2 * DAY, NOW - 20 * DAY, NOW - 400 * DAY];
    for (const from of [lately, before, longAgo])
      for (const [minute, degrees] of [
        [0, 10],
        [1, 20],
        [9, 30],
        [10, 40],
        [59, 50],
      ] as const)
        await put(from + minute * MINUTE, degrees);
    await put(before + 2 * MINUTE, 25, 'attic');
    await thinAir(shop.db, NOW);
    const thinned = await all();
    expect(thinned).toEqual([
      // The mean of the means of ten minutes: 20, 40 and 50.
      ['dial', '2025-04-15T12:00:00.000Z', 36.666668, 0.366667],
      ['attic', '2026-04-30T12:00:00.000Z', 25, 0.25],
      ['dial', '2026-04-30T12:00:00.000Z', 20, 0.2],
      ['dial', '2026-04-30T12:10:00.000Z', 40, 0.4],
      ['dial', '2026-04-30T12:50:00.000Z', 50, 0.5],
      ...[0, 1, 9, 10, 59].map(
        (minute, i) =>
          ['dial', new Date(lately + minute * MINUTE).toISOString(), (i + 1) * 10, (i + 1) / 10] as const,
      ),
    ]);
    await thinAir(shop.db, NOW);
    expect(await all()).toEqual(thinned);
  });

  it('that come late, of days that were thinned, are thinned as well', async () => {
    const late = NOW - 30 * DAY;
    await put(NOW - 40 * DAY, 15);
    await thinAir(shop.db, NOW);
    await put(late, 18);
    await put(late + MINUTE, 22);
    await thinAir(shop.db, NOW);
    const [first] = (await all()).filter(([, at]) => at.startsWith('2026-04-20'));
    expect(first).toEqual(['dial', '2026-04-20T12:00:00.000Z', 20, 0.2]);
    expect((await all()).filter(([, at]) => at.startsWith('2026-04-20')).length).toBe(1);
  });

  it('are thinned as time goes on', async () => {
    for (const minute of [0, 1, 9, 10, 59]) await put(NOW - 2 * DAY + minute * MINUTE, 20);
    await thinAir(shop.db, NOW);
    expect((await all()).length).toBe(5);
    await thinAir(shop.db, NOW + 30 * DAY);
    const may = (await all()).filter(([, at]) => at.startsWith('2026-05-18'));
    expect(may.map(([, at]) => at.slice(11, 16))).toEqual(['12:00', '12:10', '12:50']);
  });
});
