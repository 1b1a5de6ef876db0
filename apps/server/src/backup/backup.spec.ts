import {
  API,
  type Fault,
  filePlan,
  type PlanSummary,
  type RestoreReport,
  type RestoreWay,
  type StoredPlan,
} from '@zaffet/contract';
import { parseEvents } from '@zaffet/contract/runs';
import { type Express } from 'express';
import { createHash } from 'node:crypto';
import { createWriteStream, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { inflateRawSync } from 'node:zlib';
import { sql } from 'drizzle-orm';
import { pino } from 'pino';
import { PNG } from 'pngjs';
import request from 'supertest';
import yazl from 'yazl';
import { buildApp } from '../app';
import { openEmbedded, type OpenDatabase } from '../db/client';
import { photos } from '../db/schema';
import { keepPhoto } from '../photos/queries';
import { createPlan, listPlans } from '../plans/queries';
import { filed } from '../reading/tasks';
import { takeEvents } from '../runs/queries';
import { SheetMaker } from '../sheet/maker';
import { mustNotFail, photographOf, planNamed, scratchFolder } from '../testing';
import { backupOf } from './write';
import { prepare } from '../testing/prepared';

const PHOTOGRAPHS = 30;

/** A shop of its own. */
interface Shop {
  readonly app: Express;
  readonly database: OpenDatabase;
  close(): Promise<void>;
}
const sheets = new SheetMaker();
async function openShop(): Promise<Shop> {
  const folder = scratchFolder();
  await prepare(folder.path);
  const database = await openEmbedded(folder.path, mustNotFail);
  const app = buildApp({
    db: database.db,
    log: pino({ level: 'silent' }),
    sheets,
    webDirectory: folder.path,
  });
  return {
    app,
    database,
    close: async () => {
      await database.close();
      folder.remove();
    },
  };
}

const picture = (level: number): Buffer => {
  const png = new PNG({ width: 8, height: 8 });
  png.data.fill(level);
  return PNG.sync.write(png);
};
const hashOf = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');

const backup = async ({ app }: Shop): Promise<Buffer> =>
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
const bring = ({ app }: Shop, zip: Buffer, way: RestoreWay = 'mine', look = false): request.Test =>
  request(app).post(API.restore(way, look)).set('content-type', 'application/zip').send(zip);
const report = async (test: request.Test): Promise<RestoreReport> =>
  (await test.expect(200)).body as RestoreReport;

/** The entries of a zip, read by hand as the format's own paper lays them out (PKWARE APPNOTE 6.3, 4.3). */
function unzipped(zip: Buffer): Map<string, Buffer> {
  const end = zip.lastIndexOf(Buffer.from([0x50, 0x4b, 5, 6]));
  const entries = new Map<string, Buffer>();
  let at = zip.readUInt32LE(end + 16);
  for (let n = zip.readUInt16LE(end + 10); n > 0; n--) {
    const [method, packed] = [zip.readUInt16LE(at + 10), zip.readUInt32LE(at + 20)];
    const [name, extra, comment] = [28, 30, 32].map((off) => zip.readUInt16LE(at + off)) as [
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

/** A zip of entries as they are told, in whatever order and of whatever names. */
async function zipOf(entries: Iterable<readonly [string, Buffer]>): Promise<Buffer> {
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

describe('a backup', () => {
  let shop: Shop;
  let empty: Shop;
  let zip: Buffer;
  const photo = picture(90);
  const plan = planNamed('Lid');

  /** A run of a note, told by a device of its own. */
  const tell = (to: Shop, run: string, from: number, ...texts: string[]): Promise<unknown> =>
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

  beforeAll(async () => {
    [shop, empty] = [await openShop(), await openShop()];
    const { app, database } = shop;
    await createPlan(database.db, filed(plan));
    await createPlan(database.db, filed(planNamed('Wash stand')));
    const { id } = (await createPlan(database.db, filed(planNamed('Given up')))) as { id: string };
    await request(app).delete(API.plan(id)).expect(204);
    await tell(shop, 'run-a', 0, 'first', 'second');
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
    zip = await backup(shop);
  }, 120000);
  afterAll(async () => {
    await shop.close();
    await empty.close();
    await sheets.close();
  });

  it('holds everything, readable by what any zip is read by', () => {
    const entries = unzipped(zip);
    const head = JSON.parse(entries.get('zaffet.json')!.toString()) as { counts: Record<string, number> };
    expect(head.counts).toEqual({
      plans: 3,
      runs: 1,
      photos: 1,
      shelf: 1,
      calibrations: 1,
      settings: 1,
      air: 1,
    });
    expect(Buffer.compare(entries.get(`photos/${hashOf(photo)}`)!, photo)).toBe(0);
    expect(entries.get('air/2026-05.csv')!.toString()).toBe(
      'source,time,temperature_c,humidity\r\ndial,2026-05-12T09:00:00.000Z,19.3,0.55\r\n',
    );
    const run = JSON.parse(entries.get('runs/run-a.json')!.toString()) as { events: unknown[] };
    expect(run.events.length).toBe(3);
  });

  it('brought into an empty shop makes it the same: its own backup is so to the byte', async () => {
    const seen = await report(bring(empty, zip, 'mine', true));
    expect(seen.done).toBeFalse();
    expect(seen.kinds.plans.fresh).toBe(3);
    expect(await listPlans(empty.database.db)).toEqual([]);
    const done = await report(bring(empty, zip));
    expect(done.done).toBeTrue();
    expect(done.unreadable).toEqual([]);
    expect(Buffer.compare(await backup(empty), zip)).toBe(0);
    const names = (await listPlans(empty.database.db)).map(({ name }) => name);
    expect(names.sort()).toEqual(['Lid', 'Wash stand']);
    // Once more changes nothing.
    const again = await report(bring(empty, zip, 'theirs'));
    expect(Object.values(again.kinds).every(({ fresh, other }) => fresh + other === 0)).toBeTrue();
    expect(Buffer.compare(await backup(empty), zip)).toBe(0);
  }, 60000);

  it('brought into a used shop overwrites nothing unasked, and adds what a run has not heard', async () => {
    const used = await openShop();
    await report(bring(used, zip));
    const [lid] = (await listPlans(used.database.db)).filter(({ name }) => name === 'Lid');
    const own = filePlan({ ...plan, seed: 99 });
    await request(used.app).put(API.plan(lid!.id)).send({ saveId: lid!.saveId, plan: own }).expect(200);
    await request(used.app).put(API.measures).send({ dishMl: 300, spoonMl: 15, teaspoonMl: 5 });
    await tell(shop, 'run-a', 10, 'third');
    const newer = await backup(shop);
    const seedOf = async (): Promise<number> =>
      ((await request(used.app).get(API.plan(lid!.id))).body as { plan: { seed: number } }).plan.seed;
    const eventsOf = async (): Promise<number> =>
      ((await request(used.app).get(API.runEvents('run-a'))).body as { upTo: number }).upTo;

    const mine = await report(bring(used, newer));
    expect(mine.kinds.plans).toEqual({ fresh: 0, same: 2, other: 1, others: ['Lid'] });
    expect(mine.kinds.settings.others).toEqual(['measures']);
    expect(await seedOf()).toBe(99);
    expect(await eventsOf()).toBe(4);
    // Twice, as after one that was cut off: the copy is there once.
    for (let time = 0; time < 2; time++) await report(bring(used, newer, 'both'));
    expect((await listPlans(used.database.db)).map(({ name }) => name).sort()).toEqual([
      'Lid',
      'Lid, from the backup',
      'Wash stand',
    ]);
    expect(await seedOf()).toBe(99);
    await report(bring(used, newer, 'theirs'));
    expect(await seedOf()).toBe(plan.seed);
    await used.close();
  }, 60000);

  it('is brought in while others are served, and by the same again where that was cut off', async () => {
    const fresh = await openShop();
    const served: number[] = [];
    let over = false;
    const other = (async () => {
      while (!over) {
        const from = performance.now();
        await request(fresh.app).get(API.shop).expect(200);
        served.push(performance.now() - from);
      }
    })();
    const told = await report(bring(fresh, zip));
    over = true;
    await other;
    expect(told.kinds.plans.fresh).toBe(3);
    expect(served.length).toBeGreaterThan(1);
    // A plan and the air are lost again, as if it had been killed in the midst.
    await fresh.database.db.execute(sql`delete from plans where name = 'Lid'`);
    await fresh.database.db.execute(sql`delete from air_readings`);
    const again = await report(bring(fresh, zip));
    expect([again.kinds.plans.fresh, again.kinds.plans.same, again.kinds.air.fresh]).toEqual([1, 2, 1]);
    expect(Buffer.compare(await backup(fresh), zip)).toBe(0);
    await fresh.close();
  }, 60000);

  it('lets others in between while it is written, however fast photographs follow each other', async () => {
    const full = await openShop();
    for (let n = 0; n < PHOTOGRAPHS; n++) {
      const { bytes, hash } = photographOf(300_000);
      await keepPhoto(full.database.db, hash, bytes, 1e9);
    }
    let turns = 0;
    let over = false;
    const others = (): void => {
      turns += 1;
      if (!over) setImmediate(others);
    };
    setImmediate(others);
    /** Turns of the event loop in which something of it was written. */
    const wrote = new Set<number>();
    const into = new Writable({
      write: (_piece, _encoding, done) => {
        wrote.add(turns);
        done();
      },
    });
    await pipeline(await backupOf(full.database.db), into);
    over = true;
    // Two small ones may follow each other; none of them waits for all.
    expect(wrote.size).toBeGreaterThan(PHOTOGRAPHS / 2);
    await full.close();
  }, 60000);

  it('that is damaged, cut short, foreign or hostile is refused, and nothing is changed', async () => {
    const before = await backup(empty);
    const entries = unzipped(zip);
    const but = (change: (all: Map<string, Buffer>) => void): Promise<Buffer> => {
      const all = new Map(entries);
      change(all);
      return zipOf(all);
    };
    const flipped = Buffer.from(zip);
    const local = flipped.indexOf(photo.subarray(0, 20));
    flipped[local + photo.length - 15]! ^= 0xff;
    const bad: Readonly<Record<string, Buffer>> = {
      'no zip': Buffer.from('this is no zip'),
      nothing: Buffer.alloc(0),
      'cut short': zip.subarray(0, zip.length - 200),
      'cut in half': zip.subarray(0, zip.length >> 1),
      'a bit turned': flipped,
      'another zip': await zipOf([['readme.txt', Buffer.from('hello')]]),
      'no head': await but((all) => all.delete('zaffet.json')),
      'a plan missing': await but((all) =>
        all.delete([...all.keys()].find((name) => name.startsWith('plans/'))!),
      ),
      'a path out': await but((all) => all.set('plans/0/evil.json', Buffer.from('{}'))),
      'a foreign file': await but((all) => all.set('run.sh', Buffer.from('rm'))),
      'a bomb': await but((all) => all.set('shelf.json', Buffer.alloc(70_000_000, 32))),
      'a shelf of something else': await but((all) => all.set('shelf.json', Buffer.from('{"items":1}'))),
    };
    for (const [what, bytes] of Object.entries(bad)) {
      const answer = await bring(empty, bytes);
      expect(answer.status).withContext(what).toBe(400);
      expect((answer.body as Fault).code)
        .withContext(what)
        .toBe('backup.unreadable');
    }
    // Written by hand: what makes zips refuses such names itself.
    const climbing = Buffer.from(await but((all) => all.set('plans/xx/xxxxx.json', Buffer.from('{}'))));
    const text = climbing.toString('latin1').replaceAll('plans/xx/xxxxx.json', 'plans/../../x.json!');
    expect((await bring(empty, Buffer.from(text, 'latin1'))).status).toBe(400);
    const newer = await but((all) =>
      all.set(
        'zaffet.json',
        Buffer.from(all.get('zaffet.json')!.toString().replace('"version":2', '"version":3')),
      ),
    );
    expect(((await bring(empty, newer).expect(400)).body as Fault).code).toBe('backup.too-new');
    expect(Buffer.compare(await backup(empty), before)).toBe(0);
  }, 120000);

  it('that is refused stores nothing: pictures that are none, others than their names say, or too many for the room', async () => {
    const before = await backup(empty);
    const entries = unzipped(zip);
    const withPhoto = async (name: string, bytes: Buffer): Promise<Buffer> => {
      const all = new Map(entries);
      all.set(`photos/${name}`, bytes);
      const head = JSON.parse(all.get('zaffet.json')!.toString()) as { counts: { photos: number } };
      head.counts.photos += 1;
      all.set('zaffet.json', Buffer.from(JSON.stringify(head)));
      return zipOf(all);
    };
    const words = Buffer.from('no picture');
    const other = picture(12);
    const bad: Readonly<Record<string, Buffer>> = {
      'no picture': await withPhoto(hashOf(words), words),
      'another picture': await withPhoto(hashOf(picture(13)), other),
    };
    for (const [what, bytes] of Object.entries(bad))
      for (const look of [true, false])
        expect((await bring(empty, bytes, 'theirs', look)).status)
          .withContext(what)
          .toBe(400);
    const narrow = buildApp({
      db: empty.database.db,
      log: pino({ level: 'silent' }),
      sheets,
      webDirectory: 'nowhere',
      photosMost: photo.length + 10,
    });
    const full = await bring({ ...empty, app: narrow }, await withPhoto(hashOf(other), other)).expect(507);
    expect((full.body as Fault).code).toBe('photo.full');
    expect(Buffer.compare(await backup(empty), before)).toBe(0);
  }, 60000);

  it('restored under an open browser: what that knows is another save, whatever its number', async () => {
    const [lid] = (await listPlans(shop.database.db)).filter(({ name }) => name === 'Lid');
    const { id } = lid!;
    const save = async (app: Express, saveId: string, seed: number, status: number): Promise<PlanSummary> =>
      (
        await request(app)
          .put(API.plan(id))
          .send({ saveId, plan: filePlan({ ...plan, seed }) })
          .expect(status)
      ).body as PlanSummary;
    const older = await backup(shop);
    const before = await save(shop.app, lid!.saveId, 501, 200);
    const { etag } = (await request(shop.app).get(API.plan(id)).expect(200)).headers;
    // The machine is gone; its backup is brought in elsewhere, and somebody else saves there.
    const fresh = await openShop();
    await report(bring(fresh, older));
    const restored = (await request(fresh.app).get(API.plan(id))).body as StoredPlan;
    const other = await save(fresh.app, restored.saveId, 502, 200);
    expect(other.revision).toBe(before.revision);
    const seen = await request(fresh.app).get(API.plan(id)).set('if-none-match', etag!).expect(200);
    expect((seen.body as StoredPlan).plan.seed).toBe(502);
    await save(fresh.app, before.saveId, 503, 409);
    expect(((await request(fresh.app).get(API.plan(id))).body as StoredPlan).plan.seed).toBe(502);
    await save(shop.app, before.saveId, plan.seed, 200);
    await fresh.close();
  }, 60000);

  it('leaves out a run that does not begin with its plan, and a screen’s picture makes it refused', async () => {
    const fresh = await openShop();
    const entries = unzipped(zip);
    const run = JSON.parse(entries.get('runs/run-a.json')!.toString()) as { events: { seq: number }[] };
    const events = run.events.slice(1).map((entry, i) => ({ ...entry, seq: i + 1 }));
    entries.set('runs/run-a.json', Buffer.from(JSON.stringify({ ...run, events })));
    const told = await report(bring(fresh, await zipOf(entries)));
    expect(told.unreadable).toEqual(['runs/run-a.json']);
    expect(((await request(fresh.app).get(API.runs)).body as unknown[]).length).toBe(0);
    entries.set(`photos/${hashOf(photo)}.screen.jpg`, Buffer.from('no picture'));
    await bring(fresh, await zipOf(entries)).expect(400);
    await fresh.close();
  }, 60000);

  it('of version 1, with all air in one file and its head first, is brought in', async () => {
    const fresh = await openShop();
    const entries = unzipped(zip);
    const head = JSON.parse(entries.get('zaffet.json')!.toString()) as object;
    const air = entries.get('air/2026-05.csv')!.toString().trim();
    entries.delete('zaffet.json');
    entries.delete('air/2026-05.csv');
    const plans = [...entries].map(([name, bytes]): [string, Buffer] => [
      name,
      name.endsWith('.json') ? Buffer.from(JSON.stringify(JSON.parse(bytes.toString()), null, 1)) : bytes,
    ]);
    const old = await zipOf([
      ['zaffet.json', Buffer.from(JSON.stringify({ ...head, version: 1 }, null, 1))],
      ['air.csv', Buffer.from(air)],
      ...plans,
    ]);
    await report(bring(fresh, old));
    expect(Buffer.compare(await backup(fresh), zip)).toBe(0);
    await fresh.close();
  }, 60000);

  it('of a database with whole photographs, as a Zaffet before 0.2 kept them, has them all the same', async () => {
    const fresh = await openShop();
    const { bytes, hash } = photographOf(700_000);
    await fresh.database.db.insert(photos).values({ hash, type: 'image/jpeg', size: bytes.length, bytes });
    const sent = await request(fresh.app).get(API.photo(hash)).buffer(true).expect(200);
    expect(Buffer.compare(sent.body as Buffer, bytes)).toBe(0);
    expect(Buffer.compare(unzipped(await backup(fresh)).get(`photos/${hash}`)!, bytes)).toBe(0);
    await fresh.close();
  }, 60000);

  it('leaves out a plan that this Zaffet does not understand, and says so', async () => {
    const fresh = await openShop();
    const entries = unzipped(zip);
    const name = [...entries.keys()].find((one) => one.startsWith('plans/'))!;
    entries.set(name, Buffer.from(entries.get(name)!.toString().replace('"seed"', '"sead"')));
    const told = await report(bring(fresh, await zipOf(entries)));
    expect(told.unreadable).toEqual([name]);
    expect(told.kinds.plans.fresh).toBe(2);
    await fresh.close();
  }, 60000);
});
