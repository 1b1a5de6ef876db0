import { API, type EventsAnswer, filePlan, type PlanSummary, type StoredPlan } from '@zaffet/contract';
import { launch, planNamed, scratchFolder, send } from '../../apps/server/src/testing';
import { chance } from '../../packages/workshop/src/testing/random';
import { line } from './report';

/*
 * A shop at its busiest: many who read and save, streams that are listened to, a backup under way. Run by `children.ts`
 * in a process of its own, with the server in another.
 */

const CLIENTS = 50;
const STREAMS = 20;
const LASTS = 20_000;
/** Between two things that somebody asks [ms]. */
const THINKS = { from: 500, to: 1500 } as const;
const SEED = 20261129;

const server = launch({ ZAFFET_DATA: scratch().path, ZAFFET_DEMO: 'on' });
const url = await server.url;
if (url === '') throw new Error(server.said());

function scratch(): ReturnType<typeof scratchFolder> {
  const folder = scratchFolder();
  process.on('exit', () => folder.remove());
  return folder;
}

const rest = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
const times = new Map<string, number[]>();
/** Asks for something, read to its end, and notes how long that took. */
async function timed(kind: string, ask: () => Promise<Response>): Promise<Response> {
  const from = performance.now();
  const answer = await ask();
  const copy = answer.clone();
  await answer.arrayBuffer();
  times.set(kind, [...(times.get(kind) ?? []), performance.now() - from]);
  if (!answer.ok) throw new Error(`${kind}: ${answer.status} ${await copy.text()}`);
  return copy;
}
const share = (values: readonly number[], of: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(of * values.length))] ?? NaN;

const ends = performance.now() + LASTS;
const goesOn = (): boolean => performance.now() < ends;
const saved = new Map<string, number>();

/** Somebody with a plan of their own. */
async function client(n: number): Promise<void> {
  const random = chance(SEED + n);
  const made = await timed('made', () => send(url + API.plans, 'POST', planNamed(`Client ${n}`)));
  let { id, revision, saveId, plan } = (await made.json()) as StoredPlan;
  saved.set(id, revision);
  while (goesOn()) {
    await rest(THINKS.from + random() * (THINKS.to - THINKS.from));
    const what = random();
    if (what < 0.4) {
      const answer = await timed('save', () => send(url + API.plan(id), 'PUT', { saveId, plan }));
      ({ revision, saveId } = (await answer.json()) as PlanSummary);
      saved.set(id, revision);
    } else if (what < 0.7) {
      const answer = await timed('plan', () => fetch(url + API.plan(id)));
      ({ id, revision, saveId, plan } = (await answer.json()) as StoredPlan);
    } else if (what < 0.85) await timed('list', () => fetch(url + API.plans));
    else if (what < 0.95) await timed('log', () => fetch(url + API.logFind({ words: 'glue' })));
    else await timed('shelf', () => fetch(url + API.shelf));
  }
}

const RUN = 'load';
let told = 0;
/** A tablet at the bench tells something each second. */
async function tablet(): Promise<void> {
  for (let n = 1; n === 1 || goesOn(); n++) {
    const body =
      n === 1
        ? { kind: 'run-begun', planId: null, plan: filePlan(planNamed(RUN)) }
        : { kind: 'note', partId: null, text: `said ${n}` };
    const event = {
      id: `load-${n}`,
      device: 'tablet',
      n,
      at: new Date().toISOString(),
      offsetMs: 0,
      ...body,
    };
    const answer = await timed('events', () => send(url + API.runEvents(RUN), 'POST', { events: [event] }));
    told += Object.keys(((await answer.json()) as EventsAnswer).taken).length;
    await rest(1000);
  }
}

/** Listens as long as it is told. @returns the last count that came */
async function stream(over: AbortSignal): Promise<number> {
  let last = 0;
  try {
    const { body } = await fetch(url + API.runStream(RUN), { signal: over });
    for await (const piece of body!.pipeThrough(new TextDecoderStream()))
      for (const [, count] of piece.matchAll(/^data: (\d+)/gm)) last = Math.max(last, Number(count));
  } catch {
    // It was stopped.
  }
  return last;
}

let backups = 0;
async function backup(): Promise<void> {
  while (goesOn()) {
    await (await fetch(url + API.backup)).arrayBuffer();
    backups += 1;
    await rest(500);
  }
}

/** What answering at all takes meanwhile. */
async function health(): Promise<void> {
  while (goesOn()) {
    await timed('health', () => fetch(url + API.health));
    await rest(100);
  }
}

const over = new AbortController();
const listening = tablet();
await rest(1000);
const streams = Array.from({ length: STREAMS }, () => stream(over.signal));
await Promise.all([listening, backup(), health(), ...Array.from({ length: CLIENTS }, (_, n) => client(n))]);
await rest(1000);
over.abort();
const heard = await Promise.all(streams);
const plans = (await (await fetch(url + API.plans)).json()) as PlanSummary[];
const there = new Map(plans.map(({ id, revision }) => [id, revision]));
const lost = [...saved].filter(([id, revision]) => there.get(id) !== revision).length;
server.child.kill('SIGTERM');
await server.ended;

const { health: plain = [], ...asked } = Object.fromEntries(times);
const all = Object.values(asked).flat();
const kinds = Object.entries(asked)
  .map(([kind, of]) => `${kind} ${of.length}: ${share(of, 0.5).toFixed(0)}/${share(of, 0.99).toFixed(0)}`)
  .join(', ');
const deaf = heard.filter((count) => count < told).length;
const note = `${CLIENTS} clients, ${STREAMS} streams, ${backups} backups, ${(all.length / (LASTS / 1000)).toFixed(0)} requests a second; p50/p99 ${kinds}; ${lost} saves lost, ${deaf} streams behind; reference: an answer that asks the database nothing`;
process.stdout.write(
  `${JSON.stringify([
    line('load.p99', 'ms', share(all, 0.99), share(plain, 0.99), all.length, note),
    line('load.p50', 'ms', share(all, 0.5), share(plain, 0.5), all.length, 'the same'),
  ])}\n`,
);
process.exit(lost + deaf > 0 ? 1 : 0);
