import { API, filePlan, type PlanSummary, type StoredPlan, METRIC } from '@zaffet/contract';
import { launch, planNamed, scratchFolder, send } from '../../apps/server/src/testing';
import { largePlan } from '../../packages/workshop/src/testing/large';
import { line, type PerfLine } from './report';

/*
 * What is as large as it may be: the largest plan saved, read and printed, and a list of many. Run by `children.ts` in a
 * process of its own, with the server in another.
 */

const PLANS = 500;
const RUNS = 7;
/** Steps of each finish, maps of each part, and cells across a map. */
const LARGE = { steps: 30, maps: 6, side: 48 } as const;

const folder = scratchFolder();
const server = launch({ ZAFFET_DATA: folder.path, ZAFFET_DEMO: 'off' });
const url = await server.url;
if (url === '') throw new Error(server.said());

/** Median time of something that is asked again and again, beside that of an answer that asks the database nothing. */
async function measured(
  name: string,
  runs: number,
  note: string,
  ask: () => Promise<Response>,
): Promise<PerfLine> {
  const [own, plain]: [number[], number[]] = [[], []];
  const timed = async (into: number[], of: () => Promise<Response>): Promise<void> => {
    const from = performance.now();
    const answer = await of();
    const bytes = await answer.arrayBuffer();
    into.push(performance.now() - from);
    if (!answer.ok) throw new Error(`${name}: ${answer.status} ${Buffer.from(bytes).toString()}`);
  };
  for (let run = 0; run < runs; run++) {
    await timed(own, ask);
    await timed(plain, () => fetch(url + API.health));
  }
  const middle = (of: number[]): number => of.sort((a, b) => a - b)[of.length >> 1]!;
  return line(`limits.${name}`, 'ms', middle(own), middle(plain), runs, note);
}

const large = filePlan(largePlan(LARGE.steps, LARGE.maps, LARGE.side));
const mb = (JSON.stringify(large).length / 1e6).toFixed(1);
const what = `${large.piece.parts.length} parts, ${large.finishes.length} finishes of ${LARGE.steps} steps, ${mb} MB`;
const made = await send(url + API.plans, 'POST', large);
if (!made.ok) throw new Error(await made.text());
const { id, plan, ...first } = (await made.json()) as StoredPlan;
let { saveId } = first;
const lines = [
  await measured('save', RUNS, what, async () => {
    const answer = await send(url + API.plan(id), 'PUT', { saveId, plan });
    ({ saveId } = (await answer.clone().json()) as PlanSummary);
    return answer;
  }),
  await measured('open', RUNS, what, () => fetch(url + API.plan(id))),
  await measured('print', 2, `job sheet as a PDF; ${what}`, () =>
    fetch(url + API.jobSheet(id, 'Europe/Lisbon', METRIC)),
  ),
];
for (let n = 1; n < PLANS; n++) await send(url + API.plans, 'POST', planNamed(`Plan ${n}`));
lines.push(await measured('list', RUNS, `${PLANS} plans`, () => fetch(url + API.plans)));
server.child.kill('SIGTERM');
await server.ended;
folder.remove();
process.stdout.write(`${JSON.stringify(lines)}\n`);
