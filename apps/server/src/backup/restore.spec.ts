import { API, type Fault, filePlan, type PlanSummary, type StoredPlan } from '@zaffet/contract';
import { sql } from 'drizzle-orm';
import { type Express } from 'express';
import request from 'supertest';
import { listPlans } from '../plans/queries';
import { hashOf } from '../testing';
import {
  addNotes,
  backup,
  endSheets,
  fill,
  openWorkshop,
  photo,
  picture,
  plan,
  report,
  restore,
  serverOn,
  unzipped,
  type Workshop,
  zipOf,
} from '../testing/backups';

describe('a backup that is restored', () => {
  let shop: Workshop;
  let empty: Workshop;
  let zip: Buffer;

  beforeAll(async () => {
    [shop, empty] = [await openWorkshop(), await openWorkshop()];
    await fill(shop);
    zip = await backup(shop);
  }, 120_000);
  afterAll(async () => {
    await shop.close();
    await empty.close();
    await endSheets();
  });

  it('makes an empty workshop the same: its own backup is so to the byte', async () => {
    const seen = await report(restore(empty, zip, 'mine', true));
    expect(seen.done).toBeFalse();
    expect(seen.kinds.plans.fresh).toBe(3);
    expect(await listPlans(empty.database.db)).toEqual([]);
    const done = await report(restore(empty, zip));
    expect(done.done).toBeTrue();
    expect(done.unreadable).toEqual([]);
    expect(Buffer.compare(await backup(empty), zip)).toBe(0);
    const names = (await listPlans(empty.database.db)).map(({ name }) => name);
    expect(names.sort()).toEqual(['Lid', 'Wash stand']);
    // Once more changes nothing.
    const again = await report(restore(empty, zip, 'theirs'));
    expect(Object.values(again.kinds).every(({ fresh, other }) => fresh + other === 0)).toBeTrue();
    expect(Buffer.compare(await backup(empty), zip)).toBe(0);
  });

  it('overwrites nothing unasked, and adds what a run has not heard', async () => {
    const used = await openWorkshop();
    await report(restore(used, zip));
    const [lid] = (await listPlans(used.database.db)).filter(({ name }) => name === 'Lid');
    const changed = filePlan({ ...plan, seed: 99 });
    await request(used.app).put(API.plan(lid!.id)).send({ saveId: lid!.saveId, plan: changed }).expect(200);
    await request(used.app).put(API.measures).send({ dishMl: 300, spoonMl: 15, teaspoonMl: 5 });
    await addNotes(shop, 'run-a', 10, 'third');
    const newer = await backup(shop);
    const seedOf = async (): Promise<number> =>
      ((await request(used.app).get(API.plan(lid!.id))).body as { plan: { seed: number } }).plan.seed;
    const eventsOf = async (): Promise<number> =>
      ((await request(used.app).get(API.runEvents('run-a'))).body as { upTo: number }).upTo;

    const mine = await report(restore(used, newer));
    expect(mine.kinds.plans).toEqual({ fresh: 0, same: 2, other: 1, others: ['Lid'] });
    expect(mine.kinds.settings.others).toEqual(['measures']);
    expect(await seedOf()).toBe(99);
    expect(await eventsOf()).toBe(4);
    // Twice, as after one that was cut off: the copy is there once.
    for (let time = 0; time < 2; time++) await report(restore(used, newer, 'both'));
    expect((await listPlans(used.database.db)).map(({ name }) => name).sort()).toEqual([
      'Lid',
      'Lid, from the backup',
      'Wash stand',
    ]);
    expect(await seedOf()).toBe(99);
    await report(restore(used, newer, 'theirs'));
    expect(await seedOf()).toBe(plan.seed);
    await used.close();
  });

  it('is read while others are served, and by the same again where that was cut off', async () => {
    const fresh = await openWorkshop();
    const served: number[] = [];
    let over = false;
    const other = (async () => {
      while (!over) {
        const from = performance.now();
        await request(fresh.app).get(API.shop).expect(200);
        served.push(performance.now() - from);
      }
    })();
    const done = await report(restore(fresh, zip));
    over = true;
    await other;
    expect(done.kinds.plans.fresh).toBe(3);
    expect(served.length).toBeGreaterThan(1);
    // A plan and the air are lost again, as if it had been killed in the midst.
    await fresh.database.db.execute(sql`delete from plans where name = 'Lid'`);
    await fresh.database.db.execute(sql`delete from air_readings`);
    const again = await report(restore(fresh, zip));
    expect([again.kinds.plans.fresh, again.kinds.plans.same, again.kinds.air.fresh]).toEqual([1, 2, 1]);
    expect(Buffer.compare(await backup(fresh), zip)).toBe(0);
    await fresh.close();
  });

  it('is refused where it is damaged, cut short, foreign or hostile, and nothing is changed', async () => {
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
      const answer = await restore(empty, bytes);
      expect(answer.status).withContext(what).toBe(400);
      expect((answer.body as Fault).code)
        .withContext(what)
        .toBe('backup.unreadable');
    }
    // Written by hand: what makes zips refuses such names itself.
    const climbing = Buffer.from(await but((all) => all.set('plans/xx/xxxxx.json', Buffer.from('{}'))));
    const text = climbing.toString('latin1').replaceAll('plans/xx/xxxxx.json', 'plans/../../x.json!');
    expect((await restore(empty, Buffer.from(text, 'latin1'))).status).toBe(400);
    const newer = await but((all) =>
      all.set(
        'zaffet.json',
        Buffer.from(all.get('zaffet.json')!.toString().replace('"version":2', '"version":3')),
      ),
    );
    expect(((await restore(empty, newer).expect(400)).body as Fault).code).toBe('backup.too-new');
    expect(Buffer.compare(await backup(empty), before)).toBe(0);
  }, 120000);

  it('stores nothing where it is refused: pictures that are none, others than their names say, or too many for the room', async () => {
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
        expect((await restore(empty, bytes, 'theirs', look)).status)
          .withContext(what)
          .toBe(400);
    const narrow = serverOn(empty.database, photo.length + 10);
    const full = await restore({ ...empty, app: narrow }, await withPhoto(hashOf(other), other)).expect(507);
    expect((full.body as Fault).code).toBe('photo.full');
    expect(Buffer.compare(await backup(empty), before)).toBe(0);
  });

  it('under an open browser: what that knows is another save, whatever its number', async () => {
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
    const fresh = await openWorkshop();
    await report(restore(fresh, older));
    const restored = (await request(fresh.app).get(API.plan(id))).body as StoredPlan;
    const other = await save(fresh.app, restored.saveId, 502, 200);
    expect(other.revision).toBe(before.revision);
    const seen = await request(fresh.app).get(API.plan(id)).set('if-none-match', etag!).expect(200);
    expect((seen.body as StoredPlan).plan.seed).toBe(502);
    await save(fresh.app, before.saveId, 503, 409);
    expect(((await request(fresh.app).get(API.plan(id))).body as StoredPlan).plan.seed).toBe(502);
    await save(shop.app, before.saveId, plan.seed, 200);
    await fresh.close();
  });

  it('leaves out a run that does not begin with its plan, and a screen’s picture makes it refused', async () => {
    const fresh = await openWorkshop();
    const entries = unzipped(zip);
    const run = JSON.parse(entries.get('runs/run-a.json')!.toString()) as { events: { seq: number }[] };
    const events = run.events.slice(1).map((entry, i) => ({ ...entry, seq: i + 1 }));
    entries.set('runs/run-a.json', Buffer.from(JSON.stringify({ ...run, events })));
    const done = await report(restore(fresh, await zipOf(entries)));
    expect(done.unreadable).toEqual(['runs/run-a.json']);
    expect(((await request(fresh.app).get(API.runs)).body as unknown[]).length).toBe(0);
    entries.set(`photos/${hashOf(photo)}.screen.jpg`, Buffer.from('no picture'));
    await restore(fresh, await zipOf(entries)).expect(400);
    await fresh.close();
  });

  it('of version 1, with all air in one file and its head first, is brought in', async () => {
    const fresh = await openWorkshop();
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
    await report(restore(fresh, old));
    expect(Buffer.compare(await backup(fresh), zip)).toBe(0);
    await fresh.close();
  });

  it('leaves out a plan that this Zaffet does not understand, and says so', async () => {
    const fresh = await openWorkshop();
    const entries = unzipped(zip);
    const name = [...entries.keys()].find((entry) => entry.startsWith('plans/'))!;
    entries.set(name, Buffer.from(entries.get(name)!.toString().replace('"seed"', '"sead"')));
    const done = await report(restore(fresh, await zipOf(entries)));
    expect(done.unreadable).toEqual([name]);
    expect(done.kinds.plans.fresh).toBe(2);
    await fresh.close();
  });
});
