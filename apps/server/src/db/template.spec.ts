import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { mustNotFail, scratchFolder } from '../testing';
import { prepare } from '../testing/prepared';
import { openEmbedded } from './client';
import { LOCK_FILE } from './lock';
import { RESERVE } from './room';
import { plans } from './schema';

describe('the ready-made database', () => {
  it('is empty, brings no lock and no reserve along, and opens as a new one', async () => {
    const folder = scratchFolder();
    await prepare(folder.path);
    for (const name of [LOCK_FILE, RESERVE])
      expect(existsSync(join(folder.path, name)))
        .withContext(name)
        .toBeFalse();
    expect(readdirSync(folder.path)).toContain('PG_VERSION');
    const { db, close } = await openEmbedded(folder.path, mustNotFail);
    expect(await db.select().from(plans)).toEqual([]);
    await close();
    folder.remove();
  }, 120_000);
});
