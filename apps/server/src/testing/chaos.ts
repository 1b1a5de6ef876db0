import { API, type PlanSummary, type StoredPlan } from '@zaffet/contract';
import { cpSync, existsSync, mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { type Launched, launch, planNamed, scratchFolder, send } from './index';

const POWER = fileURLToPath(new URL('./power.mjs', import.meta.url));

/** What came of letting Zaffet die again and again. */
export interface Deaths {
  readonly deaths: number;
  readonly acknowledged: number;
  /** Saves that were acknowledged and are not there. */
  readonly lost: string[];
}

const rest = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** Saves without pause until the server is gone, and notes each revision that is acknowledged. */
async function write(url: string, name: string, acknowledged: Map<string, number>): Promise<void> {
  try {
    const saved = (await (await send(url + API.plans, 'POST', planNamed(name))).json()) as StoredPlan;
    acknowledged.set(saved.id, saved.revision);
    for (let { revision } = saved; ;) {
      const answer = await send(url + API.plan(saved.id), 'PUT', { revision, plan: saved.plan });
      revision = ((await answer.json()) as PlanSummary).revision;
      acknowledged.set(saved.id, revision);
    }
  } catch {
    // The server died under this request: it was not acknowledged.
  }
}

/** What of the acknowledged saves a data directory lacks. */
async function missingIn(data: string, acknowledged: ReadonlyMap<string, number>): Promise<string[]> {
  const server = launch({ ZAFFET_DATA: data });
  const url = await server.url;
  if (url === '') return [`it does not start: ${server.said().trim()}`];
  const plans = (await (await fetch(url + API.plans)).json()) as PlanSummary[];
  const revisions = new Map(plans.map(({ id, revision }) => [id, revision]));
  server.child.kill('SIGKILL');
  await server.ended;
  return [...acknowledged]
    .filter(([id, revision]) => (revisions.get(id) ?? 0) < revision)
    .map(([id, revision]) => `${id}: ${revision} acknowledged, ${revisions.get(id) ?? 'none'} there`);
}

const sum = (acknowledged: ReadonlyMap<string, number>): number =>
  [...acknowledged.values()].reduce((all, revision) => all + revision, 0);

async function writersAt(
  server: Launched,
  name: string,
  acknowledged: Map<string, number>,
): Promise<Promise<void>[]> {
  const url = await server.url;
  if (url === '') throw new Error(server.said());
  return [1, 2, 3, 4].map((writer) => write(url, `${name} ${writer}`, acknowledged));
}

/** Kills Zaffet under four writers, so many times on one data directory. @param after - how long each lives [ms] */
export async function killed(rounds: number, after: number): Promise<Deaths> {
  const folder = scratchFolder();
  const acknowledged = new Map<string, number>();
  for (let round = 0; round < rounds; round++) {
    const server = launch({ ZAFFET_DATA: folder.path });
    const writers = await writersAt(server, `Round ${round}`, acknowledged);
    await rest(after);
    server.child.kill('SIGKILL');
    await server.ended;
    await Promise.all(writers);
  }
  const lost = await missingIn(folder.path, acknowledged);
  folder.remove();
  return { deaths: rounds, acknowledged: sum(acknowledged), lost };
}

/**
 * Cuts the power under four writers, so many times, each on a data directory of its own that was made beforehand, and
 * starts from what the disk then holds.
 */
export async function powerCut(rounds: number, after: number): Promise<Deaths> {
  const lost: string[] = [];
  let saves = 0;
  for (let round = 0; round < rounds; round++) {
    const folder = scratchFolder();
    mkdirSync(folder.path);
    const disk = join(dirname(folder.path), 'disk');
    const acknowledged = new Map<string, number>();
    const server = launch({ ZAFFET_DATA: folder.path, ZAFFET_DISK: disk }, ['--import', POWER]);
    const writers = await writersAt(server, `Cut ${round}`, acknowledged);
    await rest(after);
    // The image is read while the server goes on, as a disk stops in the midst of things; what is acknowledged after
    // this moment does not count.
    const before = new Map(acknowledged);
    const image = `${disk}-then`;
    server.child.kill('SIGSTOP');
    if (existsSync(disk)) cpSync(disk, image, { recursive: true });
    server.child.kill('SIGKILL');
    await server.ended;
    await Promise.all(writers);
    lost.push(...(await missingIn(image, before)));
    saves += sum(before);
    folder.remove();
  }
  return { deaths: rounds, acknowledged: saves, lost };
}
