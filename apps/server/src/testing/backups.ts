import { API, filePlan, type RestoreReport, type RestoreWay } from '@zaffet/contract';
import { parseEvents } from '@zaffet/contract/runs';
import { type Express } from 'express';
import { createWriteStream, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { inflateRawSync } from 'node:zlib';
import { pino } from 'pino';
import { PNG } from 'pngjs';
import request from 'supertest';
import yazl from 'yazl';
import { buildApp } from '../app';
import { openEmbedded, type OpenDatabase } from '../db/client';
import { createPlan } from '../plans/queries';
import { filed } from '../reading/tasks';
import { takeEvents } from '../runs/queries';
import { SheetMaker } from '../sheet/maker';
import { hashOf, mustNotFail, planNamed, scratchFolder } from './index';
import { prepare } from './prepared';

/* Workshops with one of everything, and their backups. */

/** A workshop with a database that no other test uses. */
export interface Workshop {
  readonly app: Express;
  readonly database: OpenDatabase;
  close(): Promise<void>;
}
const sheets = new SheetMaker();
export const endSheets = (): Promise<void> => sheets.close();

/** A server on a database. @param photosMost - room for photographs [bytes] */
export const serverOn = (database: OpenDatabase, photosMost = 1e9): Express =>
  buildApp({
    db: database.db,
    log: pino({ level: 'silent' }),
    sheets,
    webDirectory: 'nowhere',
    photosMost,
  });

export async function openWorkshop(): Promise<Workshop> {
  const folder = scratchFolder();
  await prepare(folder.path);
  const database = await openEmbedded(folder.path, mustNotFail);
  return {
    app: serverOn(database),
    database,
    close: async () => {
      await database.close();
      folder.remove();
    },
  };
}

/** A small picture of one grey. */
export const picture = (level: number): Buffer => {
  const png = new PNG({ width: 8, height: 8 });
  png.data.fill(level);
  return PNG.sync.write(png);
};
export const photo = picture(90);
export const plan = planNamed('Lid');

/** What a download of everything gives. */
export const backup = async ({ app }: Workshop): Promise<Buffer> =>
  (
    await request(app)
      .get(API.backup)
      .buffer(true)
      .parse((response, done) => {
        const pieces: Buffer[] = [];
        response.on('data', (piece: Buffer) => pieces.push(piece));
        response.on('end', () => done(null, Buffer.concat(pieces)));
      })
      .expect(200)
  ).body as Buffer;
/** Restores a zip. @param look - only tells what it would do */
export const restore = (
  { app }: Workshop,
  zip: Buffer,
  way: RestoreWay = 'mine',
  look = false,
): request.Test => request(app).post(API.restore(way, look)).set('content-type', 'application/zip').send(zip);
export const report = async (test: request.Test): Promise<RestoreReport> =>
  (await test.expect(200)).body as RestoreReport;

/** The entries of a zip, read by hand as the format's own paper lays them out (PKWARE APPNOTE 6.3, 4.3). */
export function unzipped(zip: Buffer): Map<string, Buffer> {
  const end = zip.lastIndexOf(Buffer.from([0x50, 0x4b, 5, 6]));
  const entries = new Map<string, Buffer>();
  let at = zip.readUInt32LE(end + 16);
  for (let n = zip.readUInt16LE(end + 10); n > 0; n--) {
    const [method, packed] = [zip.readUInt16LE(at + 10), zip.readUInt32LE(at + 20)];
    const [name, extra, comment] = [28, 30, 32].map((offset) => zip.readUInt16LE(at + offset)) as [
      number,
      number,
      number,
    ];
    const local = zip.readUInt32LE(at + 42);
    const from = local + 30 + zip.readUInt16LE(local + 26) + zip.readUInt16LE(local + 28);
    const bytes = zip.subarray(from, from + packed);
    entries.set(zip.toString('utf8', at + 46, at + 46 + name), method === 0 ? bytes : inflateRawSync(bytes));
    at += 46 + name + extra + comment;
  }
  return entries;
}

/** A zip of entries, in this order and with these names. */
export async function zipOf(entries: Iterable<readonly [string, Buffer]>): Promise<Buffer> {
  const zip = new yazl.ZipFile();
  for (const [name, bytes] of entries) zip.addBuffer(bytes, name);
  zip.end();
  const folder = mkdtempSync(join(tmpdir(), 'zaffet-zip-'));
  try {
    const path = join(folder, 'made.zip');
    await pipeline(zip.outputStream, createWriteStream(path));
    return readFileSync(path);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** Adds notes to a run, as a device of this run sends them. */
export const addNotes = (to: Workshop, run: string, from: number, ...texts: string[]): Promise<unknown> =>
  takeEvents(
    to.database.db,
    run,
    parseEvents({
      events: [
        { kind: 'run-begun', planId: null, plan: filePlan(plan) },
        ...texts.map((text) => ({ kind: 'note', partId: null, text })),
      ].map((body, i) => ({
        id: `${run}-${i === 0 ? 0 : from + i}`,
        device: `device-${run}`,
        n: i === 0 ? 1 : from + i + 1,
        at: `2026-05-0${(i % 9) + 1}T09:00:00.000Z`,
        offsetMs: 0,
        ...body,
      })),
    }).events,
  );

/** One of everything a backup holds, and a deleted plan. */
export async function fill(workshop: Workshop): Promise<void> {
  const { app, database } = workshop;
  await createPlan(database.db, filed(plan));
  await createPlan(database.db, filed(planNamed('Wash stand')));
  const { id } = (await createPlan(database.db, filed(planNamed('Given up')))) as { id: string };
  await request(app).delete(API.plan(id)).expect(204);
  await addNotes(workshop, 'run-a', 0, 'first', 'second');
  await request(app)
    .put(API.photo(hashOf(photo)))
    .set('content-type', 'image/png')
    .send(photo)
    .expect(204);
  const tin = {
    kind: 'tin',
    name: 'Fog',
    medium: 'milk',
    colour: '#c9d1cc',
    amountMl: 500,
    pricePerL: 30,
    openedAt: null,
  };
  await request(app)
    .put(API.shelfItem('tin-1'))
    .send({ id: 'tin-1', ...tin });
  await request(app).put(API.measures).send({ dishMl: 250, spoonMl: 15, teaspoonMl: 5 });
  await request(app)
    .post(API.air)
    .send({
      source: 'dial',
      readings: [{ at: '2026-05-12T09:00:00.000Z', temperatureC: 19.3, humidity: 0.55 }],
    });
  await request(app)
    .post(API.calibrations)
    .send({
      learned: { keys: ['air'], mean: [0.1], covariance: [[0.01]], centre: [] },
      runs: ['run-a'],
      leftOut: [],
    })
    .expect(201);
}
