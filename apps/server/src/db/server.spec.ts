import { sql } from 'drizzle-orm';
import { pino } from 'pino';
import { TestPostgres } from '../testing/postgres';
import { together } from '../testing/together';
import { openServer } from './client';

describe('a database server', () => {
  const postgres = new TestPostgres();
  const log = pino({ level: 'silent' });

  beforeAll(() => postgres.start(), 60000);
  afterAll(() => postgres.stop(), 30000);

  it('is migrated by one of several Zaffets that start at once, and outlived when it starts anew', async () => {
    if (!postgres.there) return pending('no PostgreSQL server that this user may run');
    const all = await Promise.all([1, 2, 3].map(() => openServer(postgres.url, log)));
    const plans = (db: (typeof all)[number]['db']): Promise<unknown> =>
      db.execute(sql`select count(*) from plans`);
    for (const { db } of all) await plans(db);
    await postgres.restart();
    await new Promise((resolve) => setTimeout(resolve, 300));
    for (const { db } of all) await expectAsync(plans(db)).toBeResolved();
    for (const { close } of all) await close();
  });

  it('carries news from one Zaffet to the others, each once, and tells that some may have been missed', async () => {
    if (!postgres.there) return pending('no PostgreSQL server that this user may run');
    const [here, there] = await Promise.all([1, 2].map(() => openServer(postgres.url, log)));
    const heard: string[] = [];
    here!.news.hear('run', ({ id, upTo }) => heard.push(`here ${id} ${upTo}`));
    there!.news.hear('run', ({ id, upTo }) => heard.push(`there ${id} ${upTo}`));
    const missed = Promise.all(
      [here!, there!].map(({ news }) => new Promise<void>((resolve) => news.hear('missed', () => resolve()))),
    );
    const until = async (count: number): Promise<void> => {
      for (let look = 0; look < 400 && heard.length < count; look++)
        await new Promise((resolve) => setTimeout(resolve, 10));
    };
    here!.news.tell('run', { id: 'lid', upTo: 3 });
    // Told at once where it happened.
    expect(heard).toEqual(['here lid 3']);
    await until(2);
    expect(heard).toEqual(['here lid 3', 'there lid 3']);
    // Anybody who may use the database can send what is no news.
    for (const nonsense of ['nonsense', '{}', 'null', '{"kind": "error", "by": "x"}', '['.repeat(5000)])
      await here!.db.execute(sql`select pg_notify('zaffet_news', ${nonsense})`);
    await postgres.restart();
    await missed;
    there!.news.tell('run', { id: 'lid', upTo: 4 });
    await until(4);
    expect(heard.slice(2).sort()).toEqual(['here lid 4', 'there lid 4']);
    await here!.close();
    await there!.close();
  });

  it('serves two Zaffets under load that see each other’s work, and loses nothing when it dies under them', async () => {
    if (!postgres.there) return pending('no PostgreSQL server that this user may run');
    const { saves, stale, events, photos, searches, away, wrong } = await together(postgres, 3000);
    expect(wrong).toEqual([]);
    expect(Math.min(saves, events, photos, searches)).toBeGreaterThan(5);
    // They were in each other's way, and the database was away.
    expect(stale).toBeGreaterThan(0);
    expect(away).toBeGreaterThan(0);
  }, 180_000);
});
