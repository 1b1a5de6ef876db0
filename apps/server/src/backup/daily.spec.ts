import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pino } from 'pino';
import { openEmbedded, type OpenDatabase } from '../db/client';
import { mustNotFail, scratchFolder } from '../testing';
import { DailyBackups, outlived } from './daily';
import { openBackup } from './open';
import { prepare } from '../testing/prepared';

const DAY = 86_400_000;
const nameOf = (at: number): string => `zaffet-${new Date(at).toISOString().slice(0, 10)}.zip`;
const quiet = pino({ level: 'silent' });

describe('backups of each day', () => {
  it('are kept for a week, one a week for a month and one a month for a year', () => {
    const start = Date.parse('2024-01-01T12:00:00Z');
    let names: string[] = [];
    for (let day = 0; day < 800; day++) {
      names = [...names, nameOf(start + day * DAY)];
      const gone = new Set(outlived(names));
      names = names.filter((name) => !gone.has(name));
    }
    const last = start + 799 * DAY;
    for (let day = 0; day < 7; day++) expect(names).toContain(nameOf(last - day * DAY));
    const ages = names
      .map((name) => Math.round((last - Date.parse(`${name.slice(7, 17)}T12:00:00Z`)) / DAY))
      .sort((a, b) => a - b);
    expect(names.length).toBeLessThanOrEqual(7 + 4 + 12);
    expect(names.length).toBeGreaterThanOrEqual(18);
    // In a month never more than a week between two, in a year never more than a month.
    const gaps = ages.map((age, i) => ({ age, gap: age - (ages[i - 1] ?? 0) }));
    for (const { age, gap } of gaps)
      expect(gap)
        .withContext(`${age} days ago`)
        .toBeLessThanOrEqual(age <= 21 ? 7 : 31);
    expect(Math.max(...ages)).toBeGreaterThan(300);
  });

  it('leave alone what is not theirs', () => {
    expect(outlived(['notes.txt', 'zaffet-old.zip', 'zaffet-2024-01-01.zip.part'])).toEqual([]);
  });

  describe('in a folder', () => {
    const folder = scratchFolder();
    let database: OpenDatabase;
    beforeAll(async () => {
      await prepare(folder.path);
      database = await openEmbedded(folder.path, mustNotFail);
    });
    afterAll(async () => {
      await database.close();
      folder.remove();
    });

    it('are written once a day, whole, and told of', async () => {
      const kept = join(folder.path, 'kept');
      const daily = new DailyBackups(database.db, kept, quiet);
      expect(daily.list()).toEqual([]);
      const at = new Date('2026-05-14T09:00:00Z');
      await Promise.all([daily.make(at), daily.make(at)]);
      const [only] = daily.list();
      expect(only!.name).toBe('zaffet-2026-05-14.zip');
      const path = daily.path(only!.name)!;
      const { head, backup } = await openBackup(path);
      backup.close();
      expect(head.counts.plans).toBe(0);
      const first = readFileSync(path);
      await daily.make(new Date('2026-05-14T21:00:00Z'));
      expect(Buffer.compare(readFileSync(path), first)).toBe(0);
      writeFileSync(join(kept, 'zaffet-2026-05-13.zip.part'), 'cut off');
      await daily.make(new Date('2026-05-15T09:00:00Z'));
      expect(daily.list().map(({ name }) => name)).toEqual([
        'zaffet-2026-05-15.zip',
        'zaffet-2026-05-14.zip',
      ]);
      expect(readdirSync(kept).every((name) => name.endsWith('.zip'))).toBeTrue();
      expect(daily.path('../PG_VERSION')).toBeNull();
      expect(daily.path('zaffet-2020-01-01.zip')).toBeNull();
    });

    it('that could not be written leave those before as they are', async () => {
      const kept = join(folder.path, 'blocked');
      mkdirSync(kept);
      writeFileSync(join(kept, 'zaffet-2026-05-01.zip'), 'before');
      const broken = {
        select: () => {
          throw new Error('no database');
        },
      };
      const daily = new DailyBackups(broken as never, kept, quiet);
      await expectAsync(daily.make(new Date('2026-05-14T09:00:00Z'))).toBeRejected();
      expect(readdirSync(kept)).toEqual(['zaffet-2026-05-01.zip']);
      expect(existsSync(join(kept, 'zaffet-2026-05-14.zip'))).toBeFalse();
    });
  });
});
