import { API, type PlanSummary, type StoredPlan } from '@zaffet/contract';
import { symlinkSync } from 'node:fs';
import { launch, planNamed, scratchFolder, send } from './testing';

const WRITERS = 4;
const ROUNDS = 2;

describe('a server that is killed', () => {
  it('loses no save it acknowledged, and its directory can be opened again', async () => {
    const folder = scratchFolder();
    const acknowledged = new Map<string, number>();

    for (let round = 0; round < ROUNDS; round++) {
      const { child, ended, url: address } = launch({ ZAFFET_DATA: folder.path });
      const url = await address;
      expect(url).not.toBe('');
      let running = true;
      const writers = Array.from({ length: WRITERS }, async (_, writer) => {
        try {
          const saved = (await (
            await send(url + API.plans, 'POST', planNamed(`Writer ${round} ${writer}`))
          ).json()) as StoredPlan;
          acknowledged.set(saved.id, saved.revision);
          let { revision } = saved;
          while (running) {
            const answer = await send(url + API.plan(saved.id), 'PUT', { revision, plan: saved.plan });
            revision = ((await answer.json()) as PlanSummary).revision;
            acknowledged.set(saved.id, revision);
          }
        } catch {
          // The server died under this request: it was not acknowledged.
        }
      });
      await new Promise((resolve) => setTimeout(resolve, 900));
      child.kill('SIGKILL');
      await ended;
      running = false;
      await Promise.all(writers);
    }

    const { child, ended, url: address } = launch({ ZAFFET_DATA: folder.path });
    const url = await address;
    expect(url).not.toBe('');
    expect(acknowledged.size).toBe(WRITERS * ROUNDS);
    const plans = (await (await fetch(url + API.plans)).json()) as PlanSummary[];
    let saves = 0;
    for (const [id, revision] of acknowledged) {
      const found = plans.find((plan) => plan.id === id);
      expect(found?.revision ?? 0)
        .withContext(id)
        .toBeGreaterThanOrEqual(revision);
      saves += revision;
    }
    expect(saves).toBeGreaterThan(WRITERS * ROUNDS * 3);

    // While it runs, a second server on the same directory is refused at once.
    // However the directory is told: with a slash at its end, or through a link.
    const linked = `${folder.path}-linked`;
    symlinkSync(folder.path, linked);
    for (const told of [folder.path, `${folder.path}/`, `${folder.path}/../data//`, linked]) {
      const second = launch({ ZAFFET_DATA: told });
      expect(await second.ended)
        .withContext(told)
        .toBe(1);
      expect(second.said()).withContext(told).toContain(`is in use by process ${child.pid}`);
    }

    child.kill('SIGTERM');
    expect(await ended).toBe(0);
    folder.remove();
  }, 120000);
});
