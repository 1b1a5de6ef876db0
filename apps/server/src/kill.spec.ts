import { symlinkSync } from 'node:fs';
import { killed, powerCut } from './testing/chaos';
import { launch, scratchFolder } from './testing';
import { prepare } from './testing/prepared';

describe('a server that dies', () => {
  it('by a kill loses no save it acknowledged, and its directory can be opened again', async () => {
    const { lost, acknowledged } = await killed(2, 1800);
    expect(lost).toEqual([]);
    expect(acknowledged.saves).toBeGreaterThan(12);
    expect(acknowledged.events).toBeGreaterThan(12);
    expect(acknowledged.photos).toBeGreaterThan(1);
  }, 120_000);

  it('by a power cut loses none either, from its first start on, in a folder made beforehand', async () => {
    const { lost, acknowledged } = await powerCut(1, 2500);
    expect(lost).toEqual([]);
    expect(acknowledged.saves + acknowledged.events).toBeGreaterThan(4);
  }, 120_000);

  it('holds its directory against another, however that is told, and gives it back when it is stopped', async () => {
    const folder = scratchFolder();
    await prepare(folder.path);
    const { child, ended, url } = launch({ ZAFFET_DATA: folder.path });
    expect(await url).not.toBe('');
    // With a slash at its end, by a way round, or through a link.
    const linked = `${folder.path}-linked`;
    symlinkSync(folder.path, linked);
    for (const told of [folder.path, `${folder.path}/`, `${folder.path}/../data//`, linked]) {
      const second = launch({ ZAFFET_DATA: told });
      expect(await second.ended)
        .withContext(told)
        .toBe(1);
      expect(second.said())
        .withContext(told)
        .toContain(`is in use by another Zaffet (process ${child.pid} on `);
    }
    child.kill('SIGTERM');
    expect(await ended).toBe(0);
    folder.remove();
  }, 120_000);
});
