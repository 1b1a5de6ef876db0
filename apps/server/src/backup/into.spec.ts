import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { createWriteStream } from 'node:fs';
import { openEmbedded } from '../db/client';
import { createPlan, listPlans } from '../plans/queries';
import { filed } from '../reading/tasks';
import { mustNotFail, planNamed, scratchFolder } from '../testing';
import { restoreInto } from './into';
import { backupOf } from './write';
import { prepare } from '../testing/prepared';

describe('a backup brought into a new folder', () => {
  const folder = scratchFolder();
  const file = join(`${folder.path}-files`, 'backup.zip');

  beforeAll(async () => {
    mkdirSync(`${folder.path}-files`, { recursive: true });
    await prepare(folder.path);
    const database = await openEmbedded(folder.path, mustNotFail);
    await createPlan(database.db, filed(planNamed('Lid')));
    await pipeline(await backupOf(database.db), createWriteStream(file));
    await database.close();
  });
  afterAll(() => folder.remove());

  it('is a data directory that holds what was in it', async () => {
    const into = `${folder.path}-files/new`;
    expect(await restoreInto(file, into)).toMatch(/^Brought in: 1 plans\.\nStart Zaffet with ZAFFET_DATA=/);
    const database = await openEmbedded(into, mustNotFail);
    expect((await listPlans(database.db)).map(({ name }) => name)).toEqual(['Lid']);
    await database.close();
  });

  it('is refused with what to do, and leaves nothing behind', async () => {
    const used = `${folder.path}-files/used`;
    mkdirSync(used);
    writeFileSync(join(used, 'thesis.txt'), 'mine');
    await expectAsync(restoreInto(file, used)).toBeRejectedWithError(
      /is not empty\. Name a folder that is new/,
    );
    await expectAsync(restoreInto(`${file}x`, `${used}2`)).toBeRejectedWithError(/There is no file/);
    const damaged = join(`${folder.path}-files`, 'damaged.zip');
    writeFileSync(damaged, 'no zip');
    await expectAsync(restoreInto(damaged, `${used}3`)).toBeRejectedWithError(/no backup that Zaffet wrote/);
    expect([existsSync(`${used}2`), existsSync(`${used}3`)]).toEqual([false, false]);
    expect(existsSync(join(used, 'thesis.txt'))).toBeTrue();
  });
});
