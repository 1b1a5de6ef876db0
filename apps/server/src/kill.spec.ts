import { API, type PlanSummary, type SavedPlan } from '@zaffet/contract';
import { type ChildProcess, spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { fileURLToPath } from 'node:url';
import { planNamed, scratchFolder } from './testing';

const ROOT = fileURLToPath(new URL('../../..', import.meta.url));
const WRITERS = 4;
const ROUNDS = 2;

async function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address !== null ? address.port : 0));
    });
  });
}

function startServer(port: number, data: string): { child: ChildProcess; ready: Promise<string> } {
  const child = spawn(process.execPath, ['--import', 'tsx', 'apps/server/src/main.ts'], {
    cwd: ROOT,
    env: { ...process.env, PORT: String(port), ZAFFET_DATA: data, ZAFFET_DEMO: 'off' },
  });
  const ready = new Promise<string>((resolve) => {
    let text = '';
    child.stdout?.on('data', (chunk: Buffer) => {
      text += chunk.toString();
      if (text.includes('ready at')) resolve(text);
    });
    child.on('close', () => resolve(text));
  });
  return { child, ready };
}

const closed = (child: ChildProcess): Promise<number | null> =>
  new Promise((resolve) => child.on('close', resolve));

describe('a server that is killed', () => {
  it('loses no save it acknowledged, and its directory can be opened again', async () => {
    const folder = scratchFolder();
    const port = await freePort();
    const url = `http://127.0.0.1:${port}`;
    const acknowledged = new Map<string, number>();
    const post = (path: string, method: string, body: unknown): Promise<Response> =>
      fetch(url + path, {
        method,
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });

    for (let round = 0; round < ROUNDS; round++) {
      const { child, ready } = startServer(port, folder.path);
      expect(await ready).toContain('ready at');
      let running = true;
      const writers = Array.from({ length: WRITERS }, async (_, writer) => {
        try {
          const saved = (await (
            await post(API.plans, 'POST', planNamed(`Writer ${round} ${writer}`))
          ).json()) as SavedPlan;
          acknowledged.set(saved.id, saved.revision);
          let { revision } = saved;
          while (running) {
            const answer = await post(API.plan(saved.id), 'PUT', { revision, plan: saved.plan });
            revision = ((await answer.json()) as PlanSummary).revision;
            acknowledged.set(saved.id, revision);
          }
        } catch {
          // The server died under this request: it was not acknowledged.
        }
      });
      const end = closed(child);
      await new Promise((resolve) => setTimeout(resolve, 900));
      child.kill('SIGKILL');
      await end;
      running = false;
      await Promise.all(writers);
    }

    const { child, ready } = startServer(port, folder.path);
    expect(await ready).toContain('ready at');
    expect(acknowledged.size).toBe(WRITERS * ROUNDS);
    const plans = (await (await fetch(url + API.plans)).json()) as SavedPlan[];
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
    const second = startServer(await freePort(), folder.path);
    const secondEnd = closed(second.child);
    expect(await second.ready).toContain(`is in use by process ${child.pid}`);
    expect(await secondEnd).toBe(1);

    const end = closed(child);
    child.kill('SIGTERM');
    expect(await end).toBe(0);
    folder.remove();
  }, 120000);
});
