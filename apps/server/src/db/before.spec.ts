import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { join } from 'node:path';
import { mustNotFail, scratchFolder } from '../testing';
import { copyBefore, newestChange } from './before';
import { openEmbedded } from './client';
import { plans } from './schema';

const MIGRATIONS = fileURLToPath(new URL('../../drizzle', import.meta.url));

describe('a database that a newer Zaffet opens', () => {
  const newest = newestChange(MIGRATIONS);

  it('is copied whole before its tables are changed, once, and the copy can be opened', async () => {
    const folder = scratchFolder();
    const backups = `${folder.path}-backups`;
    const first = await openEmbedded(folder.path, mustNotFail, backups);
    await first.db.insert(plans).values({ name: 'Kept', plan: {} as never });
    await first.close();
    // It is new, and then as this Zaffet made it: nothing to copy.
    expect(existsSync(backups)).toBeFalse();
    await (await openEmbedded(folder.path, mustNotFail, backups)).close();
    expect(existsSync(backups)).toBeFalse();

    writeFileSync(join(folder.path, 'zaffet-tables'), '0001_older\n');
    await (await openEmbedded(folder.path, mustNotFail, backups)).close();
    expect(readdirSync(backups)).toEqual([`before-${newest}`]);
    const copy = join(backups, `before-${newest}`);
    expect(readFileSync(join(copy, 'zaffet-tables'), 'utf8')).toBe('0001_older\n');
    expect(readFileSync(join(folder.path, 'zaffet-tables'), 'utf8')).toBe(`${newest}\n`);
    const there = await openEmbedded(copy, mustNotFail);
    expect((await there.db.select().from(plans)).map(({ name }) => name)).toEqual(['Kept']);
    await there.close();
    folder.remove();
  }, 120_000);

  /** What looks like a database that has seen an older change. */
  const older = (path: string): void => {
    mkdirSync(path, { recursive: true });
    writeFileSync(join(path, 'PG_VERSION'), '17');
    writeFileSync(join(path, 'zaffet-tables'), '0001_older\n');
  };

  it('has the newest copies kept and the others cleared away, and what was cut off is begun anew', () => {
    const folder = scratchFolder();
    const backups = `${folder.path}-backups`;
    older(folder.path);
    mkdirSync(join(backups, 'before-0009_four.copying'), { recursive: true });
    for (const change of ['0006_one', '0007_two', '0008_three', '0009_four'])
      copyBefore(folder.path, backups, change);
    expect(readdirSync(backups).sort()).toEqual(['before-0008_three', 'before-0009_four']);
    expect(existsSync(join(backups, 'before-0009_four/PG_VERSION'))).toBeTrue();
    folder.remove();
  });

  it('is not opened where it cannot be copied, and is told why and what to do', () => {
    const folder = scratchFolder();
    older(folder.path);
    const file = `${folder.path}-a-file`;
    writeFileSync(file, '');
    expect(() => copyBefore(folder.path, join(file, 'in-it'), '0009_four')).toThrowError(
      /is newer than the database in .*cannot copy it to .*set ZAFFET_BACKUPS/,
    );
    rmSync(file);
    folder.remove();
  });
});
