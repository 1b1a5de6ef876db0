import {
  API,
  type EventsAnswer,
  filePlan,
  type PlanSummary,
  type RunAnswer,
  type StoredPlan,
} from '@zaffet/contract';
import { cpSync, existsSync, mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import {
  hashOf,
  type Launched,
  launch,
  photographOf,
  planNamed,
  putPhotograph,
  scratchFolder,
  send,
} from './index';
import { prepare } from './prepared';

const POWER = fileURLToPath(new URL('./power.mjs', import.meta.url));

/** How much was acknowledged. */
export interface Counts {
  readonly saves: number;
  readonly events: number;
  readonly photos: number;
}

/** What came of letting Zaffet die again and again. */
export interface Deaths {
  readonly deaths: number;
  readonly acknowledged: Counts;
  /** What was acknowledged and is not there, and what is there twice. */
  readonly lost: string[];
}

const rest = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** What was acknowledged: plans by their revision, events of runs by their ids, photographs by their hashes. */
interface Acknowledged {
  readonly plans: Map<string, number>;
  readonly events: Map<string, Set<string>>;
  readonly photos: Set<string>;
}
const nothing = (): Acknowledged => ({ plans: new Map(), events: new Map(), photos: new Set() });
const copyOf = ({ plans, events, photos }: Acknowledged): Acknowledged => ({
  plans: new Map(plans),
  events: new Map([...events].map(([run, ids]) => [run, new Set(ids)])),
  photos: new Set(photos),
});
const countOf = ({ plans, events, photos }: Acknowledged): Counts => ({
  saves: [...plans.values()].reduce((all, revision) => all + revision, 0),
  events: [...events.values()].reduce((all, ids) => all + ids.size, 0),
  photos: photos.size,
});

/** Goes on until the server is gone under one of its requests: that one was not acknowledged. */
async function untilDeath(work: () => Promise<void>): Promise<void> {
  try {
    for (;;) await work();
  } catch {
    // It died.
  }
}

/** Saves a plan without pause, and notes each revision that is acknowledged. */
async function savePlans(url: string, name: string, { plans }: Acknowledged): Promise<void> {
  let saved: StoredPlan | null = null;
  await untilDeath(async () => {
    if (saved === null) {
      saved = (await (await send(url + API.plans, 'POST', planNamed(name))).json()) as StoredPlan;
    } else {
      const { saveId, plan } = saved;
      const answer = await send(url + API.plan(saved.id), 'PUT', { saveId, plan });
      saved = { ...((await answer.json()) as PlanSummary), plan };
    }
    plans.set(saved.id, saved.revision);
  });
}

/** Events made at a time, and sent at once at most, as a tablet does. */
const MADE = 3;
const SENT = 50;

/** A tablet at the bench: what was not acknowledged is sent again, to whatever Zaffet there is next. */
class Tablet {
  private n = 0;
  private waiting: object[] = [];

  constructor(
    private readonly run: string,
    private readonly device: string,
  ) {}

  private make(body: object): void {
    this.n += 1;
    const [id, at] = [`${this.device}-${this.n}`, new Date().toISOString()];
    this.waiting.push({ id, device: this.device, n: this.n, at, offsetMs: 0, ...body });
  }

  work(url: string, { events }: Acknowledged): Promise<void> {
    return untilDeath(async () => {
      if (this.n === 0) this.make({ kind: 'run-begun', planId: null, plan: filePlan(planNamed(this.run)) });
      for (let i = 0; i < MADE; i++) this.make({ kind: 'note', partId: null, text: `said ${this.n}` });
      const batch = this.waiting.slice(0, SENT);
      const answer = await send(url + API.runEvents(this.run), 'POST', { events: batch });
      const { taken } = (await answer.json()) as EventsAnswer;
      const known = events.get(this.run) ?? new Set();
      for (const id of Object.keys(taken)) known.add(id);
      events.set(this.run, known);
      this.waiting = this.waiting.filter((event) => !known.has((event as { id: string }).id));
    });
  }
}

/** Two pieces in the database each. */
const PHOTO_BYTES = 540_000;

function takePhotos(url: string, { photos }: Acknowledged): Promise<void> {
  return untilDeath(async () => {
    const photograph = photographOf(PHOTO_BYTES);
    const { status } = await putPhotograph(url, photograph);
    if (status === 204) photos.add(photograph.hash);
  });
}

/** What of the acknowledged a data directory lacks, or has twice. */
async function missingIn(data: string, acknowledged: Acknowledged): Promise<string[]> {
  const server = launch({ ZAFFET_DATA: data });
  const url = await server.url;
  if (url === '') return [`it does not start: ${server.said().trim()}`];
  const lost: string[] = [];
  const plans = (await (await fetch(url + API.plans)).json()) as PlanSummary[];
  const revisions = new Map(plans.map(({ id, revision }) => [id, revision]));
  for (const [id, revision] of acknowledged.plans)
    if ((revisions.get(id) ?? 0) < revision)
      lost.push(`${id}: ${revision} acknowledged, ${revisions.get(id) ?? 'none'} there`);
  for (const [run, ids] of acknowledged.events) {
    const there: string[] = [];
    for (let after = 0, more = true; more;) {
      const answer = await fetch(`${url}${API.runEvents(run)}?after=${after}`);
      const { events = [] } = (await answer.json()) as Partial<RunAnswer>;
      events.forEach(({ seq, event }, i) => {
        if (seq !== after + i + 1) lost.push(`${run}: ${seq} after ${after + i}`);
        there.push(event.id);
      });
      after += events.length;
      more = events.length > 0;
    }
    if (new Set(there).size < there.length) lost.push(`${run}: ${there.length} events, some twice`);
    for (const id of ids) if (!there.includes(id)) lost.push(`event ${id}`);
  }
  for (const hash of acknowledged.photos) {
    const answer = await fetch(url + API.photo(hash));
    if (hashOf(new Uint8Array(await answer.arrayBuffer())) !== hash) lost.push(`photograph ${hash}`);
  }
  server.child.kill('SIGKILL');
  await server.ended;
  return lost;
}

/** Two who save plans, a tablet at the bench, and a camera. */
async function writersAt(
  server: Launched,
  name: string,
  tablet: Tablet,
  acknowledged: Acknowledged,
): Promise<Promise<void>[]> {
  const url = await server.url;
  if (url === '') throw new Error(server.said());
  return [
    savePlans(url, `${name} 1`, acknowledged),
    savePlans(url, `${name} 2`, acknowledged),
    tablet.work(url, acknowledged),
    takePhotos(url, acknowledged),
  ];
}

/** Kills Zaffet under four writers, so many times on one data directory. @param after - how long each lives [ms] */
export async function killed(rounds: number, after: number): Promise<Deaths> {
  const folder = scratchFolder();
  await prepare(folder.path);
  const acknowledged = nothing();
  const tablet = new Tablet('killed', 'tablet');
  for (let round = 0; round < rounds; round++) {
    const server = launch({ ZAFFET_DATA: folder.path });
    const writers = await writersAt(server, `Round ${round}`, tablet, acknowledged);
    await rest(after);
    server.child.kill('SIGKILL');
    await server.ended;
    await Promise.all(writers);
  }
  const lost = await missingIn(folder.path, acknowledged);
  folder.remove();
  return { deaths: rounds, acknowledged: countOf(acknowledged), lost };
}

/**
 * Cuts the power under four writers, so many times, each on a data directory of its own that was made beforehand, and
 * starts from what the disk then holds.
 */
export async function powerCut(rounds: number, after: number): Promise<Deaths> {
  const lost: string[] = [];
  let sum: Counts = { saves: 0, events: 0, photos: 0 };
  for (let round = 0; round < rounds; round++) {
    const folder = scratchFolder();
    mkdirSync(folder.path);
    const disk = join(dirname(folder.path), 'disk');
    const acknowledged = nothing();
    const tablet = new Tablet('cut', `tablet-${round}`);
    const server = launch({ ZAFFET_DATA: folder.path, ZAFFET_DISK: disk }, ['--import', POWER]);
    const writers = await writersAt(server, `Cut ${round}`, tablet, acknowledged);
    await rest(after);
    // The image is read while the server goes on, as a disk stops in the midst of things; what is acknowledged after
    // this moment does not count.
    const before = copyOf(acknowledged);
    const image = `${disk}-then`;
    server.child.kill('SIGSTOP');
    if (existsSync(disk)) cpSync(disk, image, { recursive: true });
    server.child.kill('SIGKILL');
    await server.ended;
    await Promise.all(writers);
    lost.push(...(await missingIn(image, before)));
    const { saves, events, photos } = countOf(before);
    sum = { saves: sum.saves + saves, events: sum.events + events, photos: sum.photos + photos };
    folder.remove();
  }
  return { deaths: rounds, acknowledged: sum, lost };
}
