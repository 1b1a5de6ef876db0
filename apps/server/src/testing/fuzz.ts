import {
  API,
  ERRORS,
  type Fault,
  filePlan,
  type PlanSummary,
  USUAL_SHOP,
  ZaffetError,
} from '@zaffet/contract';
import { forecast } from '@zaffet/core/forecast';
import { basisOf, partPlan } from '@zaffet/workshop';
import { parsePlan } from '@zaffet/contract/schemas';
import { sql } from 'drizzle-orm';
import { readdirSync, readFileSync } from 'node:fs';
import { type IncomingHttpHeaders, type Server } from 'node:http';
import { type AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { gzipSync } from 'node:zlib';
import { type Database } from '../db/client';
import { readySecret } from '../door/devices';
import { type Network } from '../door/door';
import { chance } from '../../../../packages/workshop/src/testing/random';
import { type Asked, Asker } from './asker';
import { planNamed } from './index';
import { mutated, pick } from './mutate';
import { measureTurns } from './turns';

/*
 * Requests and files that nobody sends on purpose, the same for a seed: every answer must come soon, be no fault of the
 * server's, say what is wrong in words, and a refusal must leave what is stored as it was.
 */

/** Longest that an answer may take on a busy machine [ms]: what takes longer hangs. */
const SOON = 5000;
/** A file may be read while other work goes on; a sheet is a thread's own work. */
const SHEET_SOON = 30_000;
/** Longest turn of the event loop: others wait so long for their answer [ms of CPU time]. */
export const TURN_MOST = 250;
const ROOT = fileURLToPath(new URL('../../../..', import.meta.url));

export interface Findings {
  readonly wrong: string[];
  /** How many answers there were of each status; for files of `taken` and `refused`. */
  readonly answers: Map<string, number>;
}
const nothing = (): Findings => ({ wrong: [], answers: new Map() });
const count = ({ answers }: Findings, what: string): void =>
  void answers.set(what, (answers.get(what) ?? 0) + 1);

const jsonIn = (folder: string): unknown[] =>
  readdirSync(`${ROOT}/${folder}`)
    .filter((name) => name.endsWith('.json'))
    .map((name) => JSON.parse(readFileSync(`${ROOT}/${folder}/${name}`, 'utf8')) as unknown);

/** Real plan files of every version, and one with maps. */
function realFiles(): unknown[] {
  const plan = planNamed('Mapped');
  const [part] = plan.piece.parts;
  const maps = { 'id-2': { columns: 8, rows: 5, percent: new Array<number>(40).fill(90) } };
  const mapped = { ...plan, piece: { ...plan.piece, parts: [{ ...part!, maps }] } };
  return [
    ...jsonIn('demo/plans'),
    ...jsonIn('packages/workshop/src/testing/files'),
    filePlan(mapped),
    { ...mapped, version: 4 },
  ];
}

/** Sentences that say nothing. */
const EMPTY_WORDS = /undefined|NaN|\[object|something else|in range\b/;

function wordsOf({ message, fields }: Fault): string | null {
  if (message === '' || EMPTY_WORDS.test(message)) return message;
  if (fields.length > 20) return `${fields.length} fields told`;
  return fields.map((field) => field.message).find((words) => EMPTY_WORDS.test(words)) ?? null;
}

/** Reads so many mutated files; what is taken must be forecast, what is refused must say why. */
export function fuzzFiles(seed: number, files: number): Findings {
  const random = chance(seed);
  const real = realFiles();
  const found = nothing();
  for (let i = 0; i < files; i++) {
    const file = mutated(pick(real, random), random);
    const from = performance.now();
    try {
      const plan = parsePlan(file);
      count(found, 'taken');
      forecast(basisOf(partPlan(plan)));
    } catch (error) {
      count(found, 'refused');
      if (!(error instanceof ZaffetError)) found.wrong.push(`file ${i}: ${String(error)}`);
      else {
        const words = wordsOf(error.fault);
        if (words !== null) found.wrong.push(`file ${i}: says "${words}"`);
      }
    }
    const took = performance.now() - from;
    if (took > SOON) found.wrong.push(`file ${i}: ${Math.round(took)} ms`);
  }
  return found;
}

/** How many of all that ask are not signed in; and ask for what takes long. */
const STRANGERS = 0.05;
/** Most that the server reads from a device that is not signed in [bytes]. */
const STRANGERS_BYTES = 65_536;
const LONG = 0.008;
const IDS = [
  '00000000-0000-4000-8000-000000000000',
  'nonsense',
  '%',
  '%c0',
  '%00',
  '%ed%a0%80',
  '..%2f..%2fetc',
  '__proto__',
  'x'.repeat(3000),
];
const STATIC = [
  '/',
  '/favicon.svg',
  '/main-ABCDEF12.js',
  '/nothing.js',
  '/%',
  '/%c0',
  '/..%2f..',
  '/index.html',
];
const HEADERS: Record<string, string>[] = [
  { range: 'bytes=999999-' },
  { range: 'bytes=-1,0-0,5-2' },
  { 'if-match': '"no"' },
  { 'if-unmodified-since': 'Thu, 01 Jan 1970 00:00:00 GMT' },
  { 'if-none-match': '*' },
  { origin: 'https://elsewhere.example' },
  { origin: 'null' },
  { 'sec-fetch-site': 'cross-site' },
  { host: 'elsewhere.example' },
  { host: 'LOCALHOST' },
  { 'content-type': 'image/png' },
  { 'content-type': 'application/zip' },
];
const HASH = 'ab'.repeat(32);
const ASKED_OF_LOG = [
  '',
  'words=shellac',
  'words=%27)%3B--+%26+%7C+!*:',
  'words=%00',
  `words=${'x'.repeat(3000)}`,
  'words=a&words=b',
  'colour=%23ff0000&within=7',
  'colour=red',
  'spacingFromMm=1e999',
  'skip=99999999999',
  'from=2026-02-30',
  'verdict[]=good',
];
const BAD_BODIES: readonly ((body: Buffer) => Pick<Asked, 'headers' | 'body'>)[] = [
  (body) => ({ headers: { 'content-encoding': 'gzip' }, body }),
  (body) => ({ headers: { 'content-encoding': 'gzip' }, body: gzipSync(body).subarray(0, 40) }),
  (body) => ({ headers: { 'content-encoding': 'gzip' }, body: gzipSync(body) }),
  (body) => ({ headers: { 'content-encoding': 'br' }, body }),
  (body) => ({ headers: { 'content-encoding': 'deflate' }, body }),
  (body) => ({ headers: { 'content-encoding': 'nonsense' }, body }),
  (body) => ({ headers: { 'content-type': 'application/json; charset=nonsense' }, body }),
  (body) => ({ headers: { 'content-type': 'text/plain' }, body }),
  (body) => ({ headers: {}, body: body.subarray(0, Math.floor(body.length / 2)) }),
  () => ({ headers: {}, body: Buffer.from([0xff, 0xfe, 0x00, 0x22]) }),
  () => ({ headers: {}, body: Buffer.from('['.repeat(200_000)) }),
  () => ({ headers: {}, body: Buffer.alloc(0) }),
];

const PHRASE = 'nobody sends this';

/** How a fuzzed Zaffet is open, so that its door is fuzzed as well. */
export async function fuzzedNetwork(db: Database): Promise<Network> {
  return { secret: await readySecret(db, PHRASE), secure: false, address: 'http://127.0.0.1', trust: null };
}

/** Signs in. @returns what a request shows then */
async function cookieOf(asker: Asker): Promise<string> {
  const { headers } = await asker.ask({
    method: 'POST',
    path: API.session,
    headers: { 'content-type': 'application/json' },
    body: Buffer.from(JSON.stringify({ name: 'Tester', phrase: PHRASE })),
  });
  return headers['set-cookie']![0]!.split(';')[0]!;
}

/** What is stored, as one text. */
async function stored(db: Database): Promise<string> {
  const rows = await db.execute(sql`
    select (select count(*) || ' ' || coalesce(sum(revision), 0) || ' ' || count(removed_at) from plans) as plans,
      (select md5(coalesce(string_agg(item::text, '' order by id), '')) from shelf_items) as shelf,
      (select md5(coalesce(string_agg(value, '' order by key), '')) from marks) as marks,
      (select coalesce(sum(events), 0) from runs) as runs,
      (select count(*) from photos) as photos,
      (select count(*) from sessions) as sessions,
      (select count(*) from invitations) as invitations,
      (select count(*) from calibrations) as calibrations`);
  return JSON.stringify((rows as { rows: unknown[] }).rows);
}

function collect(): number {
  setFlagsFromString('--expose_gc');
  (runInNewContext('gc') as () => void)();
  return process.memoryUsage().heapUsed / 1e6;
}

/**
 * Sends so many mutated requests to a server on a database of its own, one after the other.
 * @param turnMost - the longest that a turn of the event loop may be while one is answered [ms of CPU time]
 */
export async function fuzzRequests(
  server: Server,
  db: Database,
  seed: number,
  requests: number,
  turnMost = TURN_MOST,
): Promise<Findings & { grewMb: number; longestTurnMs: number }> {
  const random = chance(seed);
  const { port } = server.address() as AddressInfo;
  const real = realFiles();
  const asker = new Asker(port);
  const turns = measureTurns();
  const cookie = await cookieOf(asker);
  const known = await Promise.all(
    real.slice(0, 6).map(async (file): Promise<PlanSummary> => {
      const made = await asker.ask({
        method: 'POST',
        path: API.plans,
        headers: { 'content-type': 'application/json', cookie },
        body: Buffer.from(JSON.stringify(file)),
      });
      return JSON.parse(made.body.toString()) as PlanSummary;
    }),
  );
  const tin = {
    id: 'tin',
    kind: 'tin',
    name: 'Kelp',
    medium: 'latex',
    colour: '#55634a',
    amountMl: 300,
    pricePerL: null,
    openedAt: null,
  };
  const found = nothing();
  const before = collect();
  let longest = 0;
  for (let i = 0; i < requests; i++) {
    const wanted = wild(random, real, known, tin);
    const asked = random() < STRANGERS ? wanted : { ...wanted, headers: { cookie, ...wanted.headers } };
    const stands = await stored(db);
    await turns.longest();
    const from = performance.now();
    const told = `request ${i}: ${asked.method} ${asked.path.slice(0, 80)}`;
    try {
      const { status, headers, body } = await asker.ask(asked);
      const took = performance.now() - from;
      count(found, String(status));
      const turn = await turns.longest();
      longest = Math.max(longest, turn);
      if (turn > turnMost) found.wrong.push(`${told}: a turn of ${Math.round(turn)} ms`);
      if (took > (/\/(sheet|board-sheet|map|backup)\b/.test(asked.path) ? SHEET_SOON : SOON))
        found.wrong.push(`${told}: ${Math.round(took)} ms`);
      if (status >= 500) found.wrong.push(`${told}: ${status} ${body.toString().slice(0, 200)}`);
      if (status < 400) continue;
      if ((await stored(db)) !== stands) found.wrong.push(`${told}: refused with ${status}, and stored`);
      if (asked.method === 'HEAD') continue;
      const wrong = faultIn(status, headers, body);
      if (wrong !== null) found.wrong.push(`${told}: ${status} ${wrong}`);
    } catch (error) {
      // A stranger who goes on sending is cut off, whether the answer came through or not.
      const isCutOff = isStranger(asked) && (asked.body?.length ?? 0) > STRANGERS_BYTES;
      if (isCutOff && /EPIPE|ECONNRESET|hang up/.test(String(error))) count(found, 'cut off');
      else found.wrong.push(`${told}: ${String(error)}`);
    }
  }
  turns.stop();
  await asker.close();
  return { ...found, grewMb: collect() - before, longestTurnMs: Math.round(longest) };
}

/** Not signed in, or from another site. */
const isStranger = ({ headers }: Asked): boolean =>
  !('cookie' in headers) || ['host', 'origin', 'sec-fetch-site'].some((name) => name in headers);

/** What is wrong with an answer that refuses; null where it says what it should. */
function faultIn(status: number, headers: IncomingHttpHeaders, body: Buffer): string | null {
  if (headers['content-type']?.includes('application/json') !== true) return 'without words';
  const fault = JSON.parse(body.toString()) as Fault;
  if (!(fault.code in ERRORS) || ERRORS[fault.code].status !== status) return `as ${fault.code}`;
  return wordsOf(fault);
}

/** How a run begins, and goes on. */
const runEvents = (plan: unknown): object[] => {
  const stamp = { device: 'tablet', at: '2026-05-12T08:00:00Z', offsetMs: 0 };
  return [
    { ...stamp, id: 'e-1', n: 1, kind: 'run-begun', planId: null, plan },
    { ...stamp, id: 'e-2', n: 2, kind: 'done', partId: 'lid', stepId: 'top', coat: 0, minutesAgo: 3 },
  ];
};

function wild(
  random: () => number,
  real: readonly unknown[],
  known: readonly PlanSummary[],
  tin: unknown,
): Asked {
  const plan = pick(known, random);
  const id = random() < 0.6 ? plan.id : pick(IDS, random);
  const file = pick(real, random);
  const save = { saveId: pick([plan.saveId, '', 1.5, 'x', null], random), plan: file };
  const jobs: [string, string, unknown][] = [
    ['GET', API.plans, null],
    ['POST', API.plans, file],
    ['GET', `/api/plans/${id}`, null],
    ['PUT', `/api/plans/${id}`, save],
    ['PUT', `/api/plans/${id}`, save],
    ['DELETE', `/api/plans/${pick(IDS, random)}`, null],
    ['POST', `/api/plans/${id}/restore`, {}],
    ['GET', `/api/plans/${id}/file`, null],
    ['GET', API.shelf, null],
    ['PUT', `/api/shelf/items/${pick(['tin', ...IDS], random)}`, tin],
    ['PATCH', `/api/shelf/items/${pick(['tin', ...IDS], random)}`, { amountMl: 40, name: 'Other' }],
    ['DELETE', `/api/shelf/items/${pick(IDS, random)}`, null],
    ['PUT', API.measures, { dishMl: 90, spoonMl: 15, teaspoonMl: 5 }],
    ['GET', API.shop, null],
    ['PUT', API.shop, USUAL_SHOP],
    ['GET', API.calibrations, null],
    [
      'POST',
      API.calibrations,
      {
        learned: { keys: ['air'], mean: [0.1], covariance: [[0.02]], centre: [] },
        runs: ['run-1'],
        leftOut: [],
      },
    ],
    ['GET', API.clock, null],
    [pick(['GET', 'HEAD'], random), `/api/runs/${pick(['run-1', ...IDS], random)}/stream`, null],
    ['GET', API.airStream(random() < 0.5), null],
    ['GET', API.sheets, null],
    ['GET', API.backups, null],
    ['GET', API.runs, null],
    ['GET', `${API.runEvents('run-1')}?after=${pick(['0', 'x', ''], random)}`, null],
    ['POST', API.runEvents(pick(['run-1', ...IDS], random)), { events: runEvents(file) }],
    ['GET', `${API.air}?from=${pick(['2026-05-12', 'noon', ''], random)}`, null],
    ['POST', API.air, { temperatureC: 20, humidity: 0.5 }],
    [
      'POST',
      API.air,
      { source: 'attic', readings: [{ at: '2026-05-12T08:00:00Z', temperatureC: 20, humidity: 0.5 }] },
    ],
    ['GET', `${API.log}?${pick(ASKED_OF_LOG, random)}`, null],
    ['GET', API.logCsv, null],
    ['GET', API.shelfCsv, null],
    ['GET', API.photos, null],
    [pick(['GET', 'DELETE'], random), API.photosUnshown, null],
    [pick(['GET', 'HEAD'], random), API.photo(pick([HASH, ...IDS], random)), null],
    ['PUT', pick([API.photo, API.photoScreen], random)(pick([HASH, ...IDS], random)), { no: 'picture' }],
    ['GET', `/api/backups/${pick(IDS, random)}`, null],
    ['POST', `/api/restore?way=${pick(['mine', 'ours', ''], random)}`, { no: 'zip' }],
    [pick(['GET', 'HEAD', 'PATCH'], random), API.session, null],
    ['POST', API.session, { name: 'Tablet', key: 'k'.repeat(43) }],
    ['GET', API.sessions, null],
    ['DELETE', `/api/sessions/${pick(IDS, random)}`, null],
    ['POST', API.invitations, { to: '/plans' }],
    ['GET', `/api/plans/${id}/map/${pick(IDS, random)}/${pick(IDS, random)}`, null],
    [pick(['GET', 'HEAD', 'POST'], random), pick(STATIC, random), null],
    [pick(['PATCH', 'PURGE', 'OPTIONS'], random), `/api/${pick(IDS, random)}`, null],
  ];
  const units = pick(['metric', 'imperial', ...IDS], random);
  const long: [string, string, unknown][] = [
    ['GET', `/api/plans/${id}/sheet?zone=${pick(IDS, random)}`, null],
    ['GET', `/api/plans/${id}/board-sheet?units=${units}&page=${pick(['0', '1', ...IDS], random)}`, null],
    ['GET', API.backup, null],
  ];
  if (random() < LONG) jobs.splice(0, jobs.length, pick(long, random));
  const [method, path, value] = pick(jobs, random);
  const headers: Record<string, string> = random() < 0.25 ? { ...pick(HEADERS, random) } : {};
  if (value === null) return { method, path, headers, body: null };
  const body = Buffer.from(JSON.stringify(random() < 0.8 ? mutated(value, random) : value));
  const json = { 'content-type': 'application/json', ...headers };
  if (random() < 0.85) return { method, path, headers: json, body };
  const bad = pick(BAD_BODIES, random)(body);
  return { method, path, headers: { ...json, ...bad.headers }, body: bad.body };
}
