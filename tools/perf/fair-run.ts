import { API, filePlan, type PlanSummary, type StoredPlan, METRIC } from '@zaffet/contract';
import {
  launch,
  type Launched,
  photographOf,
  planNamed,
  putPhotograph,
  scratchFolder,
  send,
} from '../../apps/server/src/testing';
import { largePlan } from '../../packages/workshop/src/testing/large';
import { line, type PerfLine } from './report';

/*
 * How long others wait at most while somebody has something large done: a list of plans is asked for again and again
 * meanwhile. Run by `children.ts` in a process of its own, with the servers in others.
 */

const EVERY = 20;
const RUNS = 300;
const EVENTS = 20;
const PHOTOS = 60;
const PHOTO_BYTES = 1_000_000;
const SHEETS = 3;
const LARGE = { steps: 30, maps: 6, side: 48 } as const;

const rest = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
const folders = [scratchFolder(), scratchFolder()];
process.on('exit', () => folders.forEach((folder) => folder.remove()));
const begun = (n: number): Launched => launch({ ZAFFET_DATA: folders[n]!.path, ZAFFET_DEMO: 'off' });
const servers = [begun(0), begun(1)];
const [here, there] = (await Promise.all(servers.map(({ url }) => url))) as [string, string];
if (here === '' || there === '') throw new Error(servers.map(({ said }) => said()).join('\n'));

/** The longest that a list of plans took while something was done, and how often it was asked for [ms]. */
async function longest(url: string, work: Promise<unknown>): Promise<{ most: number; asked: number }> {
  let [most, asked, over] = [0, 0, false];
  const others = (async () => {
    while (!over) {
      const from = performance.now();
      await (await fetch(url + API.plans)).arrayBuffer();
      most = Math.max(most, performance.now() - from);
      asked += 1;
      await rest(EVERY);
    }
  })();
  await work;
  over = true;
  await others;
  return { most, asked };
}

/** @param job - done to its end */
async function measured(
  name: string,
  url: string,
  note: string,
  job: () => Promise<Response[]>,
): Promise<PerfLine> {
  const from = performance.now();
  const { most, asked } = await longest(
    url,
    job().then(async (answers) => {
      for (const answer of answers) {
        const body = Buffer.from(await answer.arrayBuffer());
        if (!answer.ok) throw new Error(`${name}: ${answer.status} ${body.toString().slice(0, 300)}`);
      }
    }),
  );
  const took = performance.now() - from;
  const { most: quiet } = await longest(url, rest(Math.min(took, 5000)));
  return line(
    `fair.${name}`,
    'ms',
    most,
    quiet,
    asked,
    `${note}, ${(took / 1000).toFixed(1)} s; reference: nothing else done`,
  );
}

const large = filePlan(largePlan(LARGE.steps, LARGE.maps, LARGE.side));
const { id, plan, ...first } = (await (await send(here + API.plans, 'POST', large)).json()) as StoredPlan;
let { saveId } = first;
for (let n = 0; n < RUNS; n++) {
  const stamp = { device: `device-${n}`, at: new Date().toISOString(), offsetMs: 0 };
  const note = (i: number): object => ({
    ...stamp,
    ...{ id: `run-${n}-${i}`, n: i + 1, kind: 'note', partId: null, text: `glue said ${i}` },
  });
  const begin = {
    ...stamp,
    id: `run-${n}-0`,
    n: 1,
    kind: 'run-begun',
    planId: null,
    plan: filePlan(planNamed(`Piece ${n}`)),
  };
  await send(here + API.runEvents(`run-${n}`), 'POST', {
    events: [begin, ...Array.from({ length: EVENTS }, (_, i) => note(i + 1))],
  });
}
for (let n = 0; n < PHOTOS; n++) await putPhotograph(here, photographOf(PHOTO_BYTES));

let zip = new Uint8Array();
const lines = [
  await measured('sheets', here, `${SHEETS} job sheets of the largest plan`, () =>
    Promise.all(Array.from({ length: SHEETS }, () => fetch(here + API.jobSheet(id, 'UTC', METRIC)))),
  ),
  await measured('save', here, 'the largest plan saved ten times', async () => {
    const answers: Response[] = [];
    for (let n = 0; n < 10; n++) {
      const answer = await send(here + API.plan(id), 'PUT', { saveId, plan });
      ({ saveId } = (await answer.clone().json()) as PlanSummary);
      answers.push(answer);
    }
    return answers;
  }),
  await measured('backup', here, `${RUNS} runs and ${PHOTOS} MB of photographs taken out`, async () => {
    const answer = await fetch(here + API.backup);
    zip = new Uint8Array(await answer.clone().arrayBuffer());
    return [answer];
  }),
  await measured('restore', there, 'the same brought in', async () => [
    await fetch(there + API.restore('mine', false), {
      method: 'POST',
      headers: { 'content-type': 'application/zip' },
      body: zip,
    }),
  ]),
  await measured('log', there, `${RUNS} runs read into the log and searched`, async () => [
    await fetch(there + API.logFind({ words: 'glue' })),
  ]),
];
for (const { child, ended } of servers) {
  child.kill('SIGTERM');
  await ended;
}
process.stdout.write(`${JSON.stringify(lines)}\n`);
