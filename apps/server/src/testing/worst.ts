import { API, filePlan, PHOTO_BYTES } from '@zaffet/contract';
import { sql } from 'drizzle-orm';
import { type Server } from 'node:http';
import { type AddressInfo } from 'node:net';
import yazl from 'yazl';
import { largePlan } from '../../../../packages/workshop/src/testing/large';
import { type Database } from '../db/client';
import { type Asked, Asker } from './asker';
import { hashOf, photographOf } from './index';
import { measureTurns } from './turns';

/*
 * The worst that each kind of file and request can be within its limits: whoever sends one must not keep others waiting.
 */

const JSON_BYTES = 12_000_000;
const json = { 'content-type': 'application/json' } as const;
const post = (path: string, body: Buffer | string): Asked => ({
  method: 'POST',
  path,
  headers: json,
  body: Buffer.from(body),
});
const picture = (bytes: Buffer): Asked => ({
  method: 'PUT',
  path: API.photo(hashOf(bytes)),
  headers: { 'content-type': 'image/jpeg' },
  body: bytes,
});
const get = (path: string): Asked => ({ method: 'GET', path, headers: {}, body: null });

const START = [0xff, 0xd8] as const;
/** A JPEG's start, then the same piece again and again until it is as large as a photograph may be. */
function repeated(piece: readonly number[]): Buffer {
  const bytes = Buffer.alloc(PHOTO_BYTES - 1, Buffer.from(piece));
  bytes.set(START);
  return bytes;
}
function zeros(): Buffer {
  const bytes = Buffer.alloc(PHOTO_BYTES - 1);
  bytes.set([...START, 0xff, 0xe0, 0, 16]);
  return bytes;
}
function icon(): Buffer {
  const bytes = Buffer.alloc(PHOTO_BYTES - 1, Buffer.from('ICON\0\0\0\b', 'latin1'));
  bytes.write('icns', 0, 'latin1');
  return bytes;
}

/** A zip of entries. */
async function zipped(entries: Readonly<Record<string, Buffer | string>>): Promise<Buffer> {
  const zip = new yazl.ZipFile();
  for (const [name, content] of Object.entries(entries)) zip.addBuffer(Buffer.from(content), name);
  zip.end();
  const pieces: Buffer[] = [];
  for await (const piece of zip.outputStream) pieces.push(piece as Buffer);
  return Buffer.concat(pieces);
}
const RUN = 'long';
const READINGS = 300_000;
const EVENTS = 30_000;

/** A backup in which everything is as large as it may be, or is told to be. */
async function backup(
  changes: Readonly<Record<string, Buffer | string>>,
  counts: object = {},
): Promise<Asked> {
  const none = { plans: 0, runs: 0, photos: 0, shelf: 0, calibrations: 0, settings: 0, air: 0 };
  const body = await zipped({
    'shelf.json': '[]',
    'calibrations.json': '[]',
    'settings.json': '{}',
    'zaffet.json': JSON.stringify({
      format: 'zaffet-backup',
      version: 2,
      counts: { ...none, ...counts },
    }),
    ...changes,
  });
  return {
    method: 'POST',
    path: API.restore('mine', true),
    headers: { 'content-type': 'application/zip' },
    body,
  };
}

const minute = (n: number): string => new Date(Date.UTC(2025, 0, 1) + n * 60_000).toISOString();
const air = (): string =>
  `source,time,temperature_c,humidity\r\n${Array.from({ length: READINGS }, (_, i) => `dial,${minute(i)},19.3,0.55\r\n`).join('')}`;
const note = (n: number): object => ({
  ...{ id: `e-${n}`, device: 'tablet', n: n + 1, at: minute(n), offsetMs: 0 },
  ...(n === 0
    ? { kind: 'run-begun', planId: null, plan: filePlan(largePlan(30, 6, 48)) }
    : { kind: 'note', partId: null, text: `note ${n}` }),
});
const run = (): string =>
  JSON.stringify({
    ...{ id: RUN, planId: null, name: 'Long', begunAt: minute(0) },
    events: Array.from({ length: EVENTS }, (_, i) => ({ seq: i + 1, event: note(i) })),
  });

/** Requests by what they are, each made when its turn comes, with the statuses that are right. */
const worst = (
  photo: Buffer,
): readonly (readonly [string, () => Asked | Promise<Asked>, readonly number[]])[] => [
  ['a photograph', () => picture(photo), [204]],
  ['a photograph fetched', () => get(API.photo(hashOf(photo))), [200]],
  ['a JPEG of zeros', () => picture(zeros()), [400]],
  ['a JPEG of empty segments', () => picture(repeated([0xff, 0xe0, 0, 2])), [400]],
  ['a JPEG of restarts', () => picture(repeated([0xff, 0xd0])), [400]],
  ['an icon', () => picture(icon()), [400]],
  ['brackets', () => post(API.plans, '['.repeat(JSON_BYTES)), [400]],
  ['groups in one another', () => post(API.plans, '{"a":'.repeat(JSON_BYTES / 5)), [400]],
  ['groups', () => post(API.plans, `[${'{},'.repeat(JSON_BYTES / 3 - 1)}{}]`), [400]],
  ['names', () => post(API.plans, `{${Array.from({ length: 8e5 }, (_, i) => `"${i}":1`).join()}}`), [400]],
  ['numbers', () => post(API.plans, `[${'1,'.repeat(JSON_BYTES / 2 - 2)}1]`), [400]],
  ['a text', () => post(API.plans, JSON.stringify('\u0001'.repeat(JSON_BYTES / 6 - 1))), [400]],
  ['numbers for the shelf', () => post(API.air, `[${'1,'.repeat(1_000_000)}1]`), [400]],
  ['a large plan', () => post(API.plans, JSON.stringify(filePlan(largePlan(30, 9, 160)))), [201]],
  ['a plan of a run', () => post(API.runEvents(RUN), JSON.stringify({ events: [note(0)] })), [200]],
  ['a shelf of brackets', () => backup({ 'shelf.json': '['.repeat(31_000_000) }), [400]],
  ['a head of brackets', () => backup({ 'zaffet.json': '['.repeat(65_000) }), [400]],
  ['a year of air', () => backup({ 'air/2025-01.csv': air() }, { air: READINGS }), [200]],
  [
    'a long run',
    () => backup({ [`runs/${RUN}-2.json`]: run().replace(`"${RUN}"`, `"${RUN}-2"`) }, { runs: 1 }),
    [200],
  ],
  ['all of it as a backup', () => get(API.backup), [200]],
];

/** What came of the worst: longest turns of the event loop [ms of CPU time], and what was answered wrong. */
export interface WorstFound {
  readonly turns: Readonly<Record<string, number>>;
  readonly wrong: string[];
}

/** Sends the worst of each kind to a server on a database of its own, with a quarter of a year of air in it. */
export async function sendWorst(server: Server, db: Database): Promise<WorstFound> {
  const asker = new Asker((server.address() as AddressInfo).port);
  await db.execute(sql`
    insert into air_readings (source, at, temperature_c, humidity)
    select 'attic', now() - n * interval '1 minute', 19, 0.5 from generate_series(1, 130000) n`);
  const meter = measureTurns();
  const turns: Record<string, number> = {};
  const wrong: string[] = [];
  for (const [what, make, right] of worst(photographOf(PHOTO_BYTES - 1).bytes)) {
    const asked = await make();
    await meter.longest();
    const { status } = await asker.ask(asked);
    turns[what] = Math.round(await meter.longest());
    if (!right.includes(status)) wrong.push(`${what}: ${status}`);
  }
  meter.stop();
  await asker.close();
  return { turns, wrong };
}
